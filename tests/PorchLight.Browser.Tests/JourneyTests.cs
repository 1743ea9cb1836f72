using OpenQA.Selenium;
using static PorchLight.Testing.Requests;

namespace PorchLight.Browser.Tests;

/// <summary>One inquiry all the way through the program, a stretch of the way in each test.</summary>
public sealed class JourneyTests
{
    [Fact]
    public async Task The_owner_signs_in_changes_the_words_of_a_form_and_publishes_them()
    {
        await using var app = new BrowserApp();
        using var owner = new Visitor();
        owner.Open(app.Address);
        owner.Sees("Sign in");
        owner.FindsNothingInTheWay();
        owner.GiveSignIn();
        owner.Sees("Nobody is waiting for a first reply.");
        owner.FindsNothingInTheWay();
        owner.Press("Forms");
        owner.Sees("Light is on");
        owner.FindsNothingInTheWay();
        owner.Follow("A wall to paint");
        owner.Type("Title", "A wall of yours");
        owner.Type("Intro", "Two short pages about your wall.");
        owner.Click("//button[@data-line='what']");
        owner.Type("What you ask", "What shall we paint for you?");
        owner.Press("Publish version 2");
        owner.Sees("Version 2 is published");
        owner.FindsNothingInTheWay();
        owner.Follow("Share and embed");
        owner.Field("Link").GetDomProperty("value").ShouldBe(app.FormAddress);
        owner.Field("Inline").GetDomProperty("value")!.ShouldContain("/embed.js");
        owner.FindsNothingInTheWay();
        owner.LeavesNoTraceElsewhere(app.Address, app.Address.Replace("http", "ws", StringComparison.Ordinal));

        using var lead = new Visitor();
        lead.Open(app.FormAddress);
        lead.Sees("Two short pages about your wall.");
    }

    [Fact]
    public async Task A_lead_finds_the_form_on_another_site_makes_mistakes_and_is_asked_in()
    {
        await using var app = new BrowserApp();
        using var lead = new Visitor();
        lead.Open(app.SampleSite);
        lead.Enter("//iframe");
        lead.Sees("You and the place");
        lead.FindsNothingInTheWay();
        lead.Press("Go on");
        lead.Sees("3 answers need another look");
        lead.Sees("Please give your e-mail address, so that we can answer you.");
        lead.FindsNothingInTheWay();
        lead.Type("First name", "Robin");
        lead.Type("Family name", "Pell");
        lead.Type("Your e-mail address", "robin@pell");
        lead.Sees("Is that complete?");
        lead.Type("Your phone number", "12");
        lead.Type("Where is the wall?", "Arklow");
        lead.Press("Go on");
        lead.Sees("does not look like a phone number");
        lead.Type("Your phone number", "01 555 0123");
        lead.Type("Your e-mail address", "robin@pell-cycles.example");
        lead.Press("Go on");
        lead.Sees("What would you like painted?");
        lead.Press("Back");
        lead.Field("Where is the wall?").GetDomProperty("value").ShouldBe("Arklow", "going back loses nothing");
        lead.Press("Go on");
        lead.Type("What would you like painted?", "The yard wall, as seen from the train.");
        lead.Choose("4,000 to 9,000");
        lead.Choose("Yes, I decide");
        lead.Choose("I saw one of your walls");
        lead.FindsNothingInTheWay();
        var tall = FrameHeight(lead);
        lead.Press("Send");
        lead.Sees("Come in, the lamp is on");
        lead.FindsNothingInTheWay();
        lead.Press("I would like a call");
        lead.Sees("We have noted that you would like a call.");
        lead.LeavesNoTraceElsewhere(app.Address);
        FrameHeight(lead).ShouldBeLessThan(tall, "the frame is as high as its content");
        app.Ask(db => db.Inquiries.Count()).ShouldBe(1);
    }

    [Fact]
    public async Task Bell_and_today_show_a_new_inquiry_by_themselves_and_the_panel_says_who_what_why_and_until_when()
    {
        await using var app = new BrowserApp();
        using var owner = new Visitor();
        owner.ComeIn(app);
        owner.Sees("Nobody is waiting for a first reply.");
        var sent = await app.SendAsync(Answers()).JsonAsync();
        (await app.CreateClient().PostAsync($"/public/receipts/{sent.Text("receipt")}/call", null)).EnsureSuccessStatusCode();
        owner.Find("//button[@aria-label='Bell, 2 new']");
        owner.Sees("One person is waiting for a first reply");
        owner.Sees("wants a call");
        owner.FindsNothingInTheWay();
        owner.Press("Bell, 2 new");
        owner.Follow("Tilda Brackenridge asked for a call.");
        owner.Sees("You promised a first reply");
        owner.Sees("48 business hours on the working-day clock");
        owner.Sees("Budget of 4,000 or more");
        owner.Sees("+30");
        owner.Sees("Project: Budget");
        owner.Sees("“After a mural inquiry” began.");
        owner.FindsNothingInTheWay();
    }

    [Fact]
    public async Task The_thank_you_is_in_the_practice_mail_and_the_next_message_waits_for_a_nod_until_its_gap_is_filled()
    {
        await using var app = new BrowserApp();
        using var owner = new Visitor();
        owner.WillBeRefused("status of 422");
        (await app.SendAsync(Answers())).EnsureSuccessStatusCode();
        owner.ComeIn(app, "/practice-mail");
        owner.Follow("Your wall: thank you, Tilda");
        owner.Enter("//iframe");
        owner.Sees("Dear Tilda,");
        owner.Leave();
        owner.FindsNothingInTheWay();

        owner.Press("Practice");
        owner.FindsNothingInTheWay();
        owner.Click("//*[@role='menuitem'][starts-with(normalize-space(), 'To the next step,')]");
        owner.Sees("minutes ahead.");
        owner.Keyboard(Keys.Escape);
        owner.Press("Today");
        owner.Sees("One message waits for your nod.");
        owner.Press("Read and send");
        owner.Sees("From “After a mural inquiry”");
        owner.FindsNothingInTheWay();
        owner.Press("Skip this one");
        owner.Sees("Skipped: First follow-up to Tilda Brackenridge.");
        owner.FindsNothingInTheWay();
        owner.Press("Undo");
        owner.Wait("the focus is not lost with the notice", () => owner.Run<bool>("return document.activeElement !== document.body"));
        owner.Press("Read and send");
        owner.Type("Subject", "About your wall, Tilda");
        owner.Press("Send");
        owner.Sees("One gap is still open");
        owner.Press("Close");
        owner.Press("Read and send");
        owner.Wait("what was refused is kept", () => owner.Field("Subject").GetDomProperty("value") == "About your wall, Tilda");
        // What is cut away takes no gap along, and comes back.
        owner.Type("Words of the message", Keys.Delete);
        owner.SeesNoMore("Maren Tolliver\nOchre Wren");
        owner.Find("//*[@role='group'][@aria-label='one line about their place'][@data-open]");
        owner.Keyboard(Keys.Control + "z");
        owner.Click("//*[@role='group'][@aria-label='one line about their place']//p");
        owner.Keyboard("I know that **wall** from the morning train.");
        owner.Sees("Saved");
        owner.Press("Send");
        owner.SeesNoMore("One message waits for your nod.");
        owner.Open($"{app.Address}/practice-mail");
        owner.Follow("About your wall, Tilda");
        owner.Enter("//iframe");
        owner.Sees("I know that wall from the morning train.");
    }

    [Fact]
    public async Task When_the_lead_answers_the_run_stops_and_the_timeline_says_why()
    {
        await using var app = new BrowserApp();
        using var owner = new Visitor();
        owner.WillBeRefused("status of 422");
        (await app.SendAsync(Answers())).EnsureSuccessStatusCode();
        owner.ComeIn(app, "/practice-mail");
        owner.Follow("Your wall: thank you, Tilda");
        owner.Type("What they answer", "Thursday at four would be good.");
        owner.Press("They answered");
        owner.Sees("Their answer has arrived.");
        owner.Press("Clients");
        owner.Follow("Tilda Brackenridge");
        owner.Sees("“After a mural inquiry” stopped because Tilda Brackenridge answered; 3 steps cancelled.");
        owner.Sees("With us since");
        owner.Find("//aside//h3[contains(., 'A wall to paint')]");
        owner.FindsNothingInTheWay();
        WorksInTheRecords(owner);
        WorksOnAProject(owner);
        BringsPeopleIn(owner);
        owner.Press("Inquiries");
        owner.Sees("Waiting for you");
        owner.FindsNothingInTheWay();
        owner.LeavesNoTraceElsewhere(app.Address, app.Address.Replace("http", "ws", StringComparison.Ordinal));
    }

    /// <summary>Changes a value where it stands, reads its history, writes a note, and finds the client by its words.</summary>
    private static void WorksInTheRecords(Visitor owner)
    {
        owner.Click("//button[starts-with(@aria-label, 'Change Phone')]");
        owner.Wait("the box has the focus", () => owner.Focused("Phone"));
        owner.Type("Phone", "ring twice");
        owner.Keyboard(Keys.Enter);
        owner.Sees("This does not look like a phone number.");
        owner.Type("Phone", "01 555 0199");
        owner.Keyboard(Keys.Enter);
        owner.Sees("Phone changed.");
        owner.Wait("the focus is back where it was", () => owner.Focused("Change Phone: 01 555 0199"));
        owner.Press("What stood in Phone");
        owner.Sees("Asked as “Your phone number”");
        owner.FindsNothingInTheWay();
        owner.Keyboard(Keys.Escape);
        owner.Press("Write a note");
        owner.Type("A note", "Ring the yard bell");
        owner.Press("Save the note");
        owner.Find("//button[normalize-space()='Pin']");
        owner.Press("Close");
        owner.Type("Search everything", "nowhere");
        owner.Sees("No client is found like that.");
        owner.Type("Search everything", "yard bel");
        owner.Click("//input[@aria-label='Choose Tilda Brackenridge']");
        owner.Sees("1 chosen");
        owner.FindsNothingInTheWay();
    }

    /// <summary>
    /// Moves a project on, says who looks after it, adds a task, does it, begins another project, arranges the view by the
    /// keyboard, and jumps to whoever was open last.
    /// </summary>
    private static void WorksOnAProject(Visitor owner)
    {
        owner.Follow("Tilda Brackenridge");
        owner.Click("//aside//h3//a[.='A wall to paint']");
        owner.Sees("On the way");
        owner.FindsNothingInTheWay();
        owner.Pick("Stage", "In talks");
        owner.Sees("Stage: In talks.");
        owner.Sees("set the stage to In talks.");
        owner.Pick("Looked after by", "Sunil Abara");
        owner.Sees("gave a project to Sunil Abara.");
        owner.Press("Add a task");
        owner.Press("Add it");
        owner.Sees("Please say what it is");
        owner.Type("Task", "Order the ochre");
        owner.Press("Add it");
        owner.Click("//input[@aria-label='Done: Order the ochre']");
        owner.Sees("did “Order the ochre”.");
        owner.FindsNothingInTheWay();
        owner.Press("Close");
        owner.Press("Start another project");
        owner.Type("Title of the project", "The gate");
        owner.Pick("What it is about", "Window gilding");
        owner.Press("Begin it");
        owner.Sees("Window gilding, for");
        owner.Follow("Arrange this view");
        owner.Sees("Projects about “Window gilding” are shown as all others.");
        owner.Click("//button[@aria-label='Move Notes']");
        owner.Keyboard(Keys.Alt + Keys.ArrowUp);
        owner.Wait("it keeps the focus", () => owner.Focused("Move Notes"));
        owner.Press("Add a part");
        owner.Press("Save");
        owner.Sees("This part has no name.");
        owner.Type("Name of the part the new part", "The leaf");
        owner.FindsNothingInTheWay();
        owner.Press("Save");
        owner.Sees("Projects about “Window gilding” are shown this way.");
        owner.Keyboard(Keys.Alt + "j");
        owner.Sees("opened last");
        owner.FindsNothingInTheWay();
        owner.Keyboard(Keys.Enter);
        owner.Click("//aside//h3//a[.='The gate']");
        owner.Wait(
            "notes stand above people",
            () => owner.Text.IndexOf("Notes", StringComparison.Ordinal) < owner.Text.IndexOf("People", StringComparison.Ordinal)
        );
        owner.Press("Clients");
    }

    /// <summary>Brings a file in; who in it is perhaps known is made one with her, split again, and erased.</summary>
    private static void BringsPeopleIn(Visitor owner)
    {
        var file = Path.Combine(Path.GetTempPath(), $"{Guid.NewGuid():N}.csv");
        File.WriteAllText(file, "Full name,Phone,Shoe\nTilda Brackenrige,01 555 0199,39\n,,40\n");
        owner.Follow("Import");
        owner.Find("//input[@type='file']").SendKeys(file);
        owner.Sees("Bring 1 in");
        owner.Sees("One line is left out: nobody can be told from it");
        owner.Choose("Where “Shoe” goes", "A note");
        owner.FindsNothingInTheWay();
        owner.Press("Bring 1 in");
        owner.Sees("One client was added.");
        File.Delete(file);
        owner.Follow("Look at the clients");
        owner.Follow("Look at them");
        owner.Click("//li[contains(., 'Tilda Brackenrige')]//a[.='Look at both']");
        owner.Sees("Where they differ, choose what to keep");
        owner.FindsNothingInTheWay();
        owner.Press("They are one person");
        owner.Sees("They are one client now.");
        owner.Press("Split them again");
        owner.Sees("is a client of their own again.");
        owner.Press("Close");
        owner.SeesNoMore("perhaps one person");
        owner.Type("Search everything", "brackenrige");
        owner.Follow("Tilda Brackenrige");
        owner.Press("Erase this client");
        owner.Sees("This is deleted for good");
        owner.FindsNothingInTheWay();
        owner.Press("Erase for good");
        owner.Sees("Tilda Brackenrige is erased.");
    }

    private static long FrameHeight(Visitor lead)
    {
        lead.Leave();
        var height = lead.Run<long>("return document.querySelector('iframe').offsetHeight");
        lead.Enter("//iframe");
        lead.Run<bool>("return document.documentElement.scrollHeight <= window.innerHeight + 1").ShouldBeTrue("nothing is cut off");
        return height;
    }
}
