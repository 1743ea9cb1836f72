using OpenQA.Selenium;
using PorchLight.Core.Answers;
using PorchLight.Core.Messages;
using static PorchLight.Testing.Requests;

namespace PorchLight.Browser.Tests;

public sealed class SettingsTests
{
    [Fact]
    public async Task From_an_empty_program_to_the_first_inquiry()
    {
        await using var app = new BrowserApp(SeedData.Empty);
        using var noor = new Visitor();
        noor.WillBeRefused("status of 422");
        noor.Open($"{app.Address}/?key={app.FirstRunKey}");
        noor.Sees("Set up your business");
        noor.FindsNothingInTheWay();
        noor.Type("Business", "Inkwell & Oak");
        noor.Type("Your name", "Noor Ambler");
        noor.Type("E-mail", "noor at work");
        noor.Pick("Time zone", "Auckland, New Zealand");
        noor.Pick("Country", "New Zealand");
        noor.Pick("Currency", "New Zealand Dollar (NZD)");
        noor.Type("Password", "eight oak planks");
        noor.Type("monday", "8 to 16:30");
        noor.Press("Continue to your first form");
        noor.Sees("This does not look like an e-mail address");
        noor.FindsNothingInTheWay();
        noor.Type("E-mail", "noor@inkwelloak.example");
        noor.Press("Continue to your first form");
        noor.Sees("A new form");
        noor.FindsNothingInTheWay();
        noor.Click("//button[starts-with(normalize-space(), 'Any service')]");
        noor.Type("Title", "A sign for your shop");
        noor.Type("Your work starts at", "2500");
        noor.Press("Make the form");
        noor.Press("Publish version 1");
        noor.Sees("Version 1 is published");
        noor.Press("Turn the light on");
        noor.Sees("Light is on");
        noor.Browser.FindElements(By.XPath("//*[normalize-space()='Skip ahead']")).ShouldBeEmpty("a real business keeps real time");
        noor.Open(app.FormAddress);
        noor.Sees("A sign for your shop");
        noor.FindsNothingInTheWay();
    }

    [Fact]
    public async Task A_member_comes_in_by_the_link_and_finds_no_settings()
    {
        await using var app = new BrowserApp();
        using var owner = new Visitor();
        owner.WillBeRefused("status of 404");
        owner.ComeIn(app, "/settings/people");
        owner.Type("Name", "Ines Quill");
        owner.Type("E-mail", "ines@ochrewren.example");
        owner.Press("Make a link");
        owner.Sees("Ines Quill is invited as member");
        owner.FindsNothingInTheWay();
        var link = owner.Find("//textarea[@readonly]").GetDomProperty("value")!;

        using var ines = new Visitor();
        ines.WillBeRefused("status of 404");
        ines.Open(link);
        ines.Sees("ines@ochrewren.example");
        ines.FindsNothingInTheWay();
        ines.Type("Password", "a lamp and a ladder");
        ines.Press("Come in");
        ines.Sees("Nobody is waiting");
        ines.Click("//button[contains(., 'Ines Q.')]");
        ines.Sees("Change your password");
        ines.Text.ShouldNotContain("Settings");
        ines.Open(app.Address + "/settings/mail");
        ines.Sees("Only the owner can change the settings");
        ines.Open(link);
        ines.Sees("This link is not good any more");

        owner.Open(app.Address + "/settings/people");
        owner.Press("Remove Ines Quill");
        owner.Press("Remove Ines Quill");
        owner.SeesNoMore("Ines Quill");
        ines.Open(app.Address + "/");
        ines.Sees("Sign in");
    }

    [Fact]
    public async Task Every_part_of_the_settings_is_saved_and_gets_in_nobodys_way()
    {
        await using var app = new BrowserApp();
        using var owner = new Visitor();
        owner.WillBeRefused("status of 422");
        owner.ComeIn(app, "/settings");
        owner.Type("Business", "Ochre & Wren");
        owner.Press("Save");
        owner.Sees("Saved.");
        owner.Sees("Ochre & Wren");
        owner.FindsNothingInTheWay();

        owner.Press("Look");
        owner.Type("Accent", "#ffc247");
        owner.Sees("White text on this colour cannot be read well.");
        owner.Click("//button[contains(., 'Take the nearest that works')]");
        owner.Press("Save");
        owner.Sees("Saved.");
        owner.FindsNothingInTheWay();

        owner.Press("Hours");
        owner.Type("saturday", "14 to 10");
        owner.Press("Save");
        owner.Sees("ends before it begins");
        owner.Wait(
            "one goes on at the box that is wrong",
            () => owner.Run<bool>("return document.activeElement.getAttribute('aria-invalid') === 'true'")
        );
        owner.FindsNothingInTheWay();
        owner.Type("saturday", "10 to 14");
        owner.Press("Save");
        owner.Sees("Saved.");

        owner.Type("sunday", "10 to 12");
        owner.Press("Reply promise");
        owner.Sees("What you changed here is lost when you leave.");
        owner.FindsNothingInTheWay();
        owner.Press("Stay here");
        owner.Field("sunday").GetDomProperty("value").ShouldBe("10 to 12");
        owner.Press("Reply promise");
        owner.Press("Leave without saving");
        owner.Sees("Someone who writes to you now is promised an answer");
        owner.Press("Welcome and unfinished forms");
        owner.Type("Contact lines", "Ring twice.");
        owner.Press("Services");
        owner.Sees("What you changed here is lost when you leave.");
        owner.Press("Leave without saving");
        owner.Press("Services");
        owner.Type("Service 1 starts at", "three hundred");
        owner.Keyboard(Keys.Tab);
        owner.Sees("“three hundred” is not a number. Write a number alone.");
        owner.FindsNothingInTheWay();
        owner.Type("Service 1 starts at", "375");
        owner.SeesNoMore("is not a number");
        owner.Press("Backup");
        owner.Sees("A backup holds everything in one ZIP");
        owner.FindsNothingInTheWay();
        app.Ask(db => db.Businesses.Single().Lists.Services[0].StartsAt).ShouldBe(375, "who leaves at once leaves when it is saved");

        owner.Press("Mail");
        owner.Choose("Through your mail server (SMTP)");
        owner.Press("Save");
        owner.Sees("Please give the mail server's name");
        owner.FindsNothingInTheWay();
        app.Ask(db => db.Businesses.Single().Smtp).ShouldBeNull();
        app.Ask(db => db.Businesses.Single().Name).ShouldBe("Ochre & Wren");
        app.Ask(db => db.Businesses.Single().Hours.Weekly.Count).ShouldBe(6);
    }

    [Fact]
    public async Task A_message_that_was_perhaps_sent_waits_on_today_until_a_person_has_looked()
    {
        await using var app = new BrowserApp();
        using var owner = new Visitor();
        owner.WillBeRefused("status of 404");
        (await app.SendAsync(Answers())).EnsureSuccessStatusCode();
        owner.Wait("the thank-you has gone", () => app.Ask(db => db.OutgoingMail.Single().State == MailState.HandedOver));
        app.Write(db =>
        {
            var mail = db.OutgoingMail.Single();
            mail.State = MailState.PerhapsSent;
            mail.LastFailure = "The line broke before the mail server said whether it has the message.";
        });
        owner.ComeIn(app);
        owner.Sees("Undelivered messages");
        owner.Click("//a[contains(., 'Look')]");
        owner.Sees("Perhaps sent; please look");
        owner.FindsNothingInTheWay();
        owner.Press("It arrived, leave it");
        owner.SeesNoMore("Undelivered messages");
        app.Ask(db => db.OutgoingMail.Single().State).ShouldBe(MailState.Left);
    }

    [Fact]
    public async Task Script_in_every_answer_is_only_words_to_the_owner_who_opens_it()
    {
        const string script = "<img src=x onerror=\"document.title='run'\"><script>document.title='run'</script>";
        await using var app = new BrowserApp();
        using var owner = new Visitor();
        (await app.SendAsync(new(Answers()) { ["what"] = new TextAnswer(script) })).EnsureSuccessStatusCode();
        owner.ComeIn(app, "/inquiries");
        owner.Follow("Tilda Brackenridge");
        owner.Find("//aside//*[contains(text(), \"<script>document.title='run'</script>\")]");
        owner.Browser.Title.ShouldNotContain("run");
        owner.FindsNothingInTheWay();
        owner.Open(app.Address + "/clients");
        owner.Follow("Tilda Brackenridge");
        owner.Sees("<script>document.title='run'</script>");
        owner.Browser.Title.ShouldNotContain("run");
    }
}
