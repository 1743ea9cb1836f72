using System.Text.RegularExpressions;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using OpenQA.Selenium;
using PorchLight.Core.Answers;
using PorchLight.Core.Forms;
using PorchLight.Server.Messages;

namespace PorchLight.Browser.Tests;

public sealed class FormAccessScreenTests
{
    private static readonly FormContent Short = new(
        "A short form",
        "",
        [new Page("one", "One", [new Question("note", "A note", new ShortTextKind()) { Required = true }])],
        [],
        new SendOff("end", "Thank you", "That was all.")
    );

    [Fact]
    public async Task Answers_that_are_left_half_way_come_back_in_another_browser_and_are_sent_once()
    {
        await using var app = new BrowserApp();
        string link;
        using (var lead = new Visitor(390, 844))
        {
            lead.Open(app.FormAddress);
            lead.WillBeRefused("status of 422");
            PublicFormTests.FillFirstPage(lead);
            lead.Type("What would you like painted?", "Half a thought");
            lead.Press("Finish later");
            lead.Sees("Your answers are kept until");
            lead.FindsNothingAtAll();
            lead.Press("Send me the link");
            lead.Sees("Please tick that you want this mail");
            lead.FindsNothingAtAll();
            lead.Choose("Yes, send me this one mail. The address is used for nothing else.");
            lead.Press("Send me the link");
            lead.Sees("The link is on its way to robin@pell-cycles.example");
            link = lead.Field("Link to your answers").GetDomProperty("value")!;
            lead.Type("What would you like painted?", "A whole thought");
            lead.Wait(
                "it is kept",
                () => app.Ask(db => db.UnfinishedForms.Single()).Answers!.ByQuestion["what"] is TextAnswer { Text: "A whole thought" }
            );
        }

        MailTo(app, "robin@pell-cycles.example").ShouldContain(link);
        using (var elsewhere = new Visitor())
        {
            elsewhere.Open(link);
            elsewhere.Wait(
                "the thought is there",
                () => elsewhere.Field("What would you like painted?").GetDomProperty("value") == "A whole thought"
            );
            elsewhere.Press("Back");
            elsewhere.Wait("the first page, too", () => elsewhere.Field("Where is the wall?").GetDomProperty("value") == "Arklow");
            elsewhere.Press("Go on");
            PublicFormTests.FillSecondPage(elsewhere, "4,000 to 9,000", "A whole thought");
            elsewhere.Press("Send");
            elsewhere.Sees("Come in, the lamp is on");
            elsewhere.Open(link);
            elsewhere.Sees("The answers behind this link have been sent already.");
            elsewhere.FindsNothingAtAll();
        }

        app.Ask(db => db.Inquiries.Count()).ShouldBe(1);
    }

    [Fact]
    public async Task What_the_first_address_told_unseen_is_still_there_when_it_is_finished_elsewhere()
    {
        await using var app = new BrowserApp();
        var address = await app.OpenFormAsync(
            Short with
            {
                Pages =
                [
                    Short.Pages[0] with
                    {
                        Items = [.. Short.Pages[0].Items, new Question("tag", "Tag", new HiddenKind("utm_source"))],
                    },
                ],
            }
        );
        string link;
        using (var lead = new Visitor())
        {
            lead.Open(address + "?utm_source=flyer");
            lead.Press("Finish later");
            link = lead.Field("Link to your answers").GetDomProperty("value")!;
        }

        using var elsewhere = new Visitor();
        elsewhere.WillBeRefused("status of 422");
        elsewhere.Open(link);
        elsewhere.Type("A note", "Hello");
        elsewhere.Press("Send");
        elsewhere.Sees("That was all.");
        app.Ask(db => db.Submissions.Single()).Answers.ByQuestion["tag"].ShouldBe(new TextAnswer("flyer"));
    }

    [Fact]
    public async Task Offline_at_send_the_answers_stay_and_go_out_by_themselves_when_the_line_is_back()
    {
        await using var app = new BrowserApp();
        using var lead = new Visitor();
        lead.WillBeRefused("ERR_INTERNET_DISCONNECTED");
        lead.Open(app.FormAddress);
        PublicFormTests.FillFirstPage(lead);
        PublicFormTests.FillSecondPage(lead, "4,000 to 9,000");
        Online(lead, false);
        lead.Press("Send");
        lead.Sees("We cannot be reached just now.");
        lead.Sees("We go on trying by ourselves while this page is open.");
        lead.Field("What would you like painted?").GetDomProperty("value").ShouldBe("The yard wall");
        Online(lead, true);
        lead.Sees("Come in, the lamp is on");
        app.Ask(db => db.Inquiries.Count()).ShouldBe(1);

        static void Online(Visitor lead, bool on)
        {
            lead.Browser.ExecuteCdpCommand("Network.enable", []);
            lead.Browser.ExecuteCdpCommand(
                "Network.emulateNetworkConditions",
                new Dictionary<string, object?>
                {
                    ["offline"] = !on,
                    ["latency"] = 0,
                    ["downloadThroughput"] = -1,
                    ["uploadThroughput"] = -1,
                }
            );
        }
    }

    [Fact]
    public async Task A_private_form_opens_with_the_code_from_the_mail()
    {
        await using var app = new BrowserApp();
        using var lead = new Visitor();
        lead.WillBeRefused("status of 422");
        var address = await app.OpenFormAsync(Short, new FormSettings { Admission = Admission.PersonalLinkAndCode });
        lead.Open(address);
        lead.Sees("This form opens only by a personal link.");
        lead.FindsNothingAtAll();

        lead.ComeIn(app, $"/forms/{app.Ask(db => db.Forms.ToList()).OrderBy(form => form.Id.Value).Last().Id}/ways-in");
        lead.Type("Their e-mail", "robin@pell.example");
        lead.Type("First name", "Robin");
        lead.Press("Make a personal link");
        lead.FindsNothingInTheWay();
        lead.Open(lead.Field("Link for Robin").GetDomProperty("value")!);
        lead.FindsNothingAtAll();
        lead.Press("Send a code to r•••@pell.example");
        lead.Sees("A code is on its way");
        lead.Type("The code from the mail", "12");
        lead.Press("Open the form");
        lead.Sees("This is not the code.");
        lead.FindsNothingAtAll();
        var code = "";
        lead.Wait("the mail has come", () => (code = Regex.Match(MailTo(app, "robin@pell.example"), @"\b\d{6}\b").Value).Length == 6);
        lead.Type("The code from the mail", code);
        lead.Press("Open the form");
        lead.Type("A note", "Hello");
        lead.Press("Send");
        lead.Sees("That was all.");
    }

    [Fact]
    public async Task While_the_light_is_off_people_can_ask_to_be_told_and_a_full_month_says_so()
    {
        await using var app = new BrowserApp();
        using var lead = new Visitor(390, 844);
        lead.WillBeRefused("status of 422");
        var month = new YearMonth(2027, 5);
        var address = await app.OpenFormAsync(
            Short with
            {
                Pages = [new Page("one", "One", [new Question("day", "Which day?", new DateKind()) { Required = true }])],
            },
            new FormSettings { Capacity = new Capacity("day", [new MonthLimit(month, 0)]) }
        );
        lead.Open(address);
        lead.Field("Which day?").SendKeys("05202027");
        lead.Sees("May 2027 is fully booked. There is room in June 2027");
        lead.FindsNothingAtAll();
        lead.Press("Send");
        lead.Sees("That was all.");
        lead.StillSees("You are on the waiting list for May 2027.");
        lead.FindsNothingAtAll();

        app.Write(db => db.Forms.ExecuteUpdate(form => form.SetProperty(one => one.LightOn, false)));
        lead.Open(app.FormAddress);
        lead.Press("Tell me");
        lead.Sees("This does not look like an e-mail address.");
        lead.FindsNothingAtAll();
        lead.Type("Tell me when you are open again", "robin@pell.example");
        lead.Press("Tell me");
        lead.Sees("We write to you once, when the light is on again.");
    }

    [Fact]
    public async Task A_form_that_asks_for_work_lets_a_browser_do_it_by_itself()
    {
        await using var app = new BrowserApp();
        using var lead = new Visitor();
        lead.Open(await app.OpenFormAsync(Short, new FormSettings { Guard = new SpamGuard(LeastSeconds: 0, Proof: true) }));
        lead.Type("A note", "Hello");
        lead.Wait(
            "the check is done",
            () => lead.Run<bool>("return document.querySelector('altcha-widget input[type=hidden]')?.value.length > 50")
        );
        lead.FindsNothingAtAll();
        lead.Press("Send");
        lead.Sees("That was all.");
        lead.LeavesNoTraceElsewhere(app.Address, $"blob:{app.Address}");
    }

    [Fact]
    public async Task Whoever_sends_before_the_check_is_through_waits_for_it_and_is_not_refused()
    {
        // The browser looks by its own clock whether the check has run out.
        await using var app = new BrowserApp(clock: TestClock.Machine);
        using var lead = new Visitor();
        lead.Browser.ExecuteCdpCommand(
            "Page.addScriptToEvaluateOnNewDocument",
            new Dictionary<string, object?>
            {
                ["source"] = """
                const through = window.fetch;
                window.fetch = (...request) => String(request[0]?.url ?? request[0]).includes("/challenge")
                    ? new Promise(answer => window.letGo = () => answer(through(...request)))
                    : through(...request);
                """,
            }
        );
        lead.Open(await app.OpenFormAsync(Short, new FormSettings { Guard = new SpamGuard(LeastSeconds: 0, Proof: true) }));
        lead.Type("A note", "Hello");
        lead.Wait("the check asks for its work", () => lead.Run<bool>("return typeof window.letGo === 'function'"));
        lead.Press("Send");
        lead.Sees("One moment …");
        lead.Run<bool>("return document.querySelector('altcha-widget').offsetHeight === 0")
            .ShouldBeTrue("the check is said in our own words only");
        app.Ask(db => db.Submissions.Count()).ShouldBe(0);
        lead.Run<object?>("window.letGo()");
        lead.Sees("That was all.");
    }

    [Fact]
    public async Task Every_way_in_leads_into_the_form_from_another_site()
    {
        await using var app = new BrowserApp();
        app.Write(db => db.Forms.ExecuteUpdate(form => form.SetProperty(one => one.Settings, new FormSettings { TakesPlainPosts = true })));
        using var lead = new Visitor();
        lead.WillBeRefused("status of 422");
        foreach (var way in new[] { "button", "link" })
        {
            lead.Open($"{app.SampleSite}/{way}?utm_source=flyer");
            lead.FindsNothingInTheWay();
            lead.Press("A wall to paint");
            lead.Find("//dialog[@open]//iframe").GetDomAttribute("src")!.ShouldContain("utm_source=flyer");
            lead.Enter("//dialog[@open]//iframe");
            lead.Type("First name", way);
            lead.Field("First name").SendKeys(Keys.Escape);
            lead.Leave();
            lead.Wait("it is closed", () => lead.Browser.FindElements(By.XPath("//dialog[@open]")).Count == 0);
            lead.Press("A wall to paint");
            lead.Enter("//dialog[@open]//iframe");
            lead.Wait("what was typed is still there", () => lead.Field("First name").GetDomProperty("value") == way);
            lead.Leave();
            lead.Press("Close");
        }

        lead.Open($"{app.SampleSite}/plain");
        lead.Type("First name", "Robin");
        lead.Find("//input[@name='email']").SendKeys("robin@pell.example");
        lead.Find("//input[@name='place']").SendKeys("Arklow");
        lead.Find("//textarea[@name='what']").SendKeys("The yard wall");
        lead.Find("//input[@name='budget' and @value='4000-9000']").Click();
        lead.Run<object?>("document.querySelectorAll('[required]').forEach(one => one.removeAttribute('required')); return null");
        lead.Press("Send");
        lead.Sees("One answer needs another look");
        lead.Choose("Yes, I decide");
        lead.Press("Send");
        lead.Sees("Come in, the lamp is on");
    }

    [Fact]
    public async Task What_holds_beside_the_words_is_set_on_a_screen_of_its_own()
    {
        await using var app = new BrowserApp();
        using var owner = new Visitor();
        owner.WillBeRefused("status of 422");
        var id = app.Ask(db => db.Forms.Single()).Id;
        owner.ComeIn(app, $"/forms/{id}/settings");
        owner.Sees("Limits by month");
        owner.FindsNothingInTheWay();
        owner.Type("At most", "0");
        owner.Press("Save");
        owner.Sees("The form has to take at least one answer.");
        owner.FindsNothingInTheWay();
        owner.Type("At most", "40");
        owner.Field("Last day").SendKeys("2 January 2026");
        owner.Click("//label[starts-with(normalize-space(),'Sunil Abara')]");
        owner.Pick("Which day counts", "When should it be finished?");
        owner.Press("Limit a month");
        owner.Press("Save");
        owner.Sees("Saved.");
        owner.Sees("The light turned off automatically after 2 January 2026.");
        owner.FindsNothingInTheWay();
        var settings = app.Ask(db => db.Forms.Single()).Settings;
        (
            settings.MostAnswers,
            settings.LastDay,
            settings.Notified.Count,
            settings.Capacity?.Question,
            settings.Capacity?.Months.Count
        ).ShouldBe((40, new LocalDate(2026, 1, 2), 1, "wanted", 1));

        owner.Open($"{app.Address}/settings/services");
        owner.Type("Service 1", "Letters on shops");
        owner.Field("Service 1").SendKeys(Keys.Enter);
        owner.Sees("Saved.");
        owner.Open($"{app.Address}/settings/sources");
        owner.Type("Source 1", " ");
        owner.Press("Add a source");
        owner.Sees("This line has no name.");
        owner.FindsNothingInTheWay();
        owner.Type("Source 1", "Street");
        owner.Type("Source 4", "A friend");
        owner.Field("Source 4").SendKeys(Keys.Enter);
        owner.Sees("Saved.");
        app.Ask(db => db.Businesses.Single()).Lists.Services[0].Name.ShouldBe("Letters on shops");
        owner.Open($"{app.Address}/settings/welcome");
        owner.Type("Contact lines", "01 555 0142");
        owner.FindsNothingInTheWay();
        owner.Press("Save");
        owner.Sees("Saved.");
        app.Ask(db => db.Businesses.Single()).Lists.Sources.Select(source => source.Name).ShouldContain("A friend");
    }

    private static string MailTo(BrowserApp app, string address) =>
        app.Ask(db =>
            db.Set<PracticeMessage>()
                .Where(mail => mail.To == address)
                .OrderByDescending(mail => mail.At)
                .Select(mail => mail.Text)
                .FirstOrDefault()
        ) ?? "";
}
