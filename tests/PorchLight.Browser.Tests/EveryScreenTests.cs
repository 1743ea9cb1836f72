using OpenQA.Selenium;
using PorchLight.Core.Common;
using PorchLight.Core.Messages;
using PorchLight.Server.Messages;
using static PorchLight.Testing.Requests;

namespace PorchLight.Browser.Tests;

/// <summary>Every screen of the business, by the program that checks accessibility, and as narrow as a phone.</summary>
public sealed class EveryScreenTests
{
    private static readonly string[] Settings =
    [
        "business",
        "look",
        "welcome",
        "services",
        "sources",
        "stages",
        "lostReasons",
        "colleagues",
        "fields",
        "views",
        "hours",
        "views/project-mural",
        "promise",
        "people",
        "mail",
        "webhooks",
        "backup",
    ];

    [Fact]
    public async Task Nothing_stands_in_anybodys_way_on_any_screen_wide_or_narrow()
    {
        await using var app = new BrowserApp(SeedData.DemoWithPeople);
        using var owner = new Visitor();
        var (inquiry, client, project, other, form, mail, follow, type, meeting) = app.Ask(db =>
            (
                db.Inquiries.OrderBy(one => one.Received).Last().Id,
                db.Clients.OrderBy(one => one.Since).First().Id,
                db.Projects.OrderBy(one => one.Opened).First().Id,
                db.Clients.OrderBy(one => one.Since).Last().Id,
                db.Forms.OrderBy(one => one.Id).First().Id,
                db.PracticeMail.First().Id,
                db.Runs.First(run => run.Active).FollowThroughId,
                db.MeetingTypes.First().Id,
                db.Meetings.First().Id
            )
        );
        var message = new Id<LibraryMessage>(Guid.CreateVersion7());
        await app.ChangeAsync(db =>
        {
            db.LibraryMessages.Add(
                new LibraryMessage
                {
                    Id = message,
                    Name = "Hello",
                    Folder = "First words",
                    Message = new MessageTemplate(
                        "A word",
                        [new TextPart("text", "Dear {firstName}, **hello**."), new GapPart("gap", "one line")]
                    ),
                    Changed = NodaTime.Instant.FromUtc(2026, 11, 20, 9, 0),
                }
            );
            return Task.CompletedTask;
        });
        // Those that are neighbours have different titles.
        string[] screens =
        [
            "/forms",
            "/",
            "/forms/new",
            $"/forms/{form}",
            "/files",
            $"/forms/{form}/ways-in",
            "/library",
            $"/forms/{form}/versions",
            $"/library/{message}",
            $"/forms/{form}/screening",
            "/library/by-itself/finishLater",
            $"/forms/{form}/settings",
            "/inquiries",
            $"/inquiries/{inquiry}",
            "/mails",
            $"/inquiries/{inquiry}?reply",
            "/password",
            $"/inquiries/{inquiry}?quick=comeBack",
            "/clients",
            $"/clients/{client}",
            $"/clients/{client}/projects/{project}",
            $"/clients/{client}/beside/{other}",
            "/clients/perhaps-the-same",
            "/clients/import",
            $"/follow-through/{follow}",
            "/follow-through",
            $"/follow-through/{follow}?step=first",
            "/practice-mail",
            $"/follow-through/{follow}?step=~whole",
            "/calendar",
            $"/calendar/{meeting}",
            "/calendar/types",
            "/practice-chat",
            $"/calendar/types/{type}",
            "/calendar/hours",
            "/practice-calendar",
            $"/follow-through/{follow}/plan-table",
            "/practice-texts",
            $"/follow-through/{follow}/people",
            $"/practice-mail/{mail}",
            .. Settings.Select(section => $"/settings/{section}"),
        ];
        owner.ComeIn(app);
        foreach (var screen in screens)
        {
            owner.Browser.Resize(1280, 800);
            owner.GoTo(screen);
            Settled(owner);
            owner.FindsNothingAtAll();
            owner.Run<long>("return document.querySelectorAll('h1').length").ShouldBe(1, screen);
            foreach (var width in new[] { 700, 320 })
            {
                owner.Browser.Resize(width, 700);
                owner.Wait(
                    $"{screen} fits into {width}",
                    () =>
                        owner.Run<bool>(
                            "return [document.documentElement, ...document.querySelectorAll('main, aside, header')].every(one => one.scrollWidth <= Math.max(one.clientWidth, 1))"
                        )
                );
            }
        }

        owner.Browser.Resize(1280, 800);
        owner.Open(app.Address + "/");
        foreach (var menu in new[] { "Practice", "Maren T." })
        {
            owner.Click($"//header//button[contains(., '{menu}')]");
            owner.Find("//*[@role='menu']");
            owner.FindsNothingAtAll();
            owner.Keyboard(Keys.Escape);
        }

        // On paper the plan stands alone, and whole, however little of it the screen shows.
        owner.Browser.Resize(1280, 250);
        owner.GoTo($"/follow-through/{follow}/plan-table");
        owner.Find("//caption");
        owner.Browser.ExecuteCdpCommand("Emulation.setEmulatedMedia", new Dictionary<string, object?> { ["media"] = "print" });
        owner.Wait(
            "nothing of it is cut off",
            () =>
                owner.Run<bool>(
                    """
                    const parts = [...document.querySelectorAll('main, main div')];
                    return document.querySelector('header').clientHeight === 0 && parts.every(one => one.scrollHeight <= one.clientHeight + 1)
                    """
                )
        );
        owner.Browser.ExecuteCdpCommand("Emulation.setEmulatedMedia", new Dictionary<string, object?> { ["media"] = "" });

        // What is changed in the table stays while another part is looked at.
        owner.Type("Step of line 1", "Typed and left");
        owner.Press("Day rule");
        owner.Press("Plan table");
        owner.Find("//caption");
        owner.Field("Step of line 1").GetDomProperty("value").ShouldBe("Typed and left");
        owner.Press("Save the table");
        owner.Sees("The table is saved.");
        app.Ask(db => db.FollowThroughs.Single(one => one.Id == follow).Draft!.Steps[0].Name).ShouldBe("Typed and left");
    }

    [Fact]
    public async Task The_focus_goes_where_one_goes_on()
    {
        await using var app = new BrowserApp();
        using var owner = new Visitor();
        (await app.SendAsync(Answers())).EnsureSuccessStatusCode();
        owner.ComeIn(app, "/inquiries");
        owner.Keyboard(Keys.Tab);
        Focused(owner).ShouldBe("Skip to the content");
        owner.Follow("Tilda Brackenridge");
        owner.Wait("the panel's title has it", () => Focused(owner) == "Tilda Brackenridge");
        owner.Press("Reply");
        owner.Wait("the words have it", () => owner.Run<string>("return document.activeElement.getAttribute('role')") == "textbox");
        owner.Type("Your words", "Gladly.");
        owner.Press("Send the reply");
        owner.Sees("Kept: first personal reply");
        owner.Wait("it is not lost", () => owner.Run<bool>("return document.activeElement !== document.body"));
        owner.Press("Close");
        owner.Wait("the row has it again", () => Focused(owner).Contains("Tilda Brackenridge", StringComparison.Ordinal));
    }

    [Fact]
    public async Task What_happened_elsewhere_is_noted_and_an_inquiry_is_closed_and_opened_again()
    {
        await using var app = new BrowserApp();
        using var owner = new Visitor();
        (await app.SendAsync(Answers())).EnsureSuccessStatusCode();
        owner.ComeIn(app, "/inquiries");
        owner.Follow("Tilda Brackenridge");
        owner.Press("More");
        owner.FindsNothingInTheWay();
        owner.Press("Note that Tilda Brackenridge got in touch");
        owner.Type("What Tilda Brackenridge said", "She can wait until May.");
        owner.FindsNothingInTheWay();
        owner.Press("Note it");
        owner.Sees("Tilda Brackenridge wrote back today");
        owner.Find("//blockquote[normalize-space()='She can wait until May.']");
        owner.Press("More");
        owner.Press("Answered elsewhere");
        owner.Sees("Kept: first personal reply today");
        owner.Press("More");
        owner.Press("Close the inquiry");
        owner.Sees("The inquiry of Tilda Brackenridge is closed.");
        owner.FindsNothingInTheWay();
        owner.Press("Undo");
        owner.SeesNoMore("Closed today");
        app.Ask(db => db.Inquiries.Single().Closed).ShouldBeNull();
    }

    [Fact]
    public async Task A_double_click_sends_one_reply()
    {
        await using var app = new BrowserApp();
        using var owner = new Visitor();
        (await app.SendAsync(Answers())).EnsureSuccessStatusCode();
        var id = app.Ask(db => db.Inquiries.Single().Id);
        owner.ComeIn(app, $"/inquiries/{id}?reply");
        owner.Type("Your words", "Gladly.");
        owner.Browser.ExecuteScript(
            "const button = [...document.querySelectorAll('button')].find(one => one.innerText === 'Send the reply'); button.click(); button.click();"
        );
        owner.Sees("Kept: first personal reply");
        app.Ask(db => db.OutgoingMail.Count(mail => !mail.Automatic)).ShouldBe(1);
    }

    [Fact]
    public async Task A_form_that_is_not_published_can_be_looked_at_and_answered()
    {
        await using var app = new BrowserApp();
        using var owner = new Visitor();
        owner.ComeIn(app, "/forms/new");
        owner.Click("//button[starts-with(normalize-space(), 'Any service')]");
        owner.Type("Title", "A gate to paint");
        owner.Type("Your work starts at", "900");
        owner.Press("Make the form");
        owner.Sees("not published yet");
        owner.Open(owner.Find("//a[normalize-space()='See it as a lead']").GetDomProperty("href")!);
        owner.Sees("You are looking at your working copy.");
        owner.Sees("A gate to paint");
        owner.FindsNothingInTheWay();
        owner.Press("Go on");
        owner.Sees("answers need another look");
        owner.Type("First name", "Noor");
        owner.Sees("still need");
    }

    private static void Settled(Visitor owner) =>
        owner.Wait(
            "everything is there",
            () =>
                owner.Run<bool>(
                    "return document.querySelectorAll('[aria-label=\"One moment\"]').length === 0 && document.querySelectorAll('h1').length > 0"
                )
        );

    private static string Focused(Visitor owner) => owner.Run<string>("return document.activeElement.innerText ?? ''").Trim();
}
