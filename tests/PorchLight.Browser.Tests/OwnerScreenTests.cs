using OpenQA.Selenium;
using PorchLight.Core.Common;
using PorchLight.Server.Messages;
using static PorchLight.Testing.Requests;

namespace PorchLight.Browser.Tests;

public sealed class OwnerScreenTests
{
    [Fact]
    public async Task When_the_sign_in_runs_out_the_owner_signs_in_again_and_nothing_typed_is_lost()
    {
        await using var app = new BrowserApp();
        using var owner = new Visitor();
        owner.ComeIn(app, "/forms");
        owner.Follow("A wall to paint");
        owner.Field("Title");
        // It runs out just before the typed words are to be saved; whatever else the page asks for would stand in the way of typing.
        owner.Browser.ExecuteScript(
            """
            const { fetch } = window;
            window.fetch = request => {
              if (request.method !== 'PUT') return fetch(request);
              window.fetch = fetch;
              return Promise.resolve(new Response(null, { status: 401 }));
            };
            """
        );
        owner.Type("Title", "A wall, typed while signed out");
        owner.Sees("You are signed out");
        owner.FindsNothingInTheWay();
        owner.GiveSignIn();
        owner.SeesNoMore("You are signed out");
        owner.Sees("Saved today");
        app.Ask(db => db.Forms.Single().Draft.Title).ShouldBe("A wall, typed while signed out");
    }

    [Fact]
    public async Task An_edit_in_a_second_window_is_shown_beside_ones_own_and_the_person_chooses()
    {
        await using var app = new BrowserApp();
        using var owner = new Visitor();
        owner.WillBeRefused("ERR_INTERNET_DISCONNECTED", "Unable to preload CSS", "status of 409", "/form/assets/index-");
        owner.ComeIn(app, "/forms");
        owner.Follow("A wall to paint");
        owner.Field("Title");
        // A window that hears of the change goes on from it; one that is cut off just then does not.
        owner.IsCutOff(true);
        var first = owner.OpenASecondWindow();
        owner.Type("Title", "From the second window");
        owner.Wait("it is saved", () => app.Ask(db => db.Forms.Single().DraftRevision) == 2);
        owner.SwitchTo(first);
        owner.Type("Title", "From the first");
        owner.Sees("We cannot be reached just now. What you typed is still here");
        owner.IsCutOff(false);
        owner.Field("Title").SendKeys(" window");
        owner.Sees("Changed in two windows");
        owner.FindsNothingInTheWay();
        owner.Field("Title").GetDomProperty("value").ShouldBe("From the first window");
        app.Ask(db => db.Forms.Single().Draft.Title).ShouldBe("From the second window");
        owner.Press("Keep what I typed");
        owner.Wait("what was chosen is kept", () => app.Ask(db => db.Forms.Single().Draft.Title) == "From the first window");
        owner.SeesNoMore("Changed in two windows");
    }

    [Fact]
    public async Task What_changed_since_a_version_is_said_in_words_and_the_version_is_brought_back()
    {
        await using var app = new BrowserApp();
        using var owner = new Visitor();
        owner.ComeIn(app, "/forms");
        owner.Follow("A wall to paint");
        owner.Type("Title", "Your wall, in colour");
        // Nothing typed is lost on the way: it is saved when the words are left.
        owner.Follow("Versions");
        owner.Sees("The title is now “Your wall, in colour”.");
        owner.Sees("They are lost when you bring a version back.");
        owner.FindsNothingInTheWay();
        owner.Press("Bring version 1 back");
        owner.Sees("Version 1 is your working copy now.");
        owner.Sees("No changes.");
        app.Ask(db => db.Forms.Single().Draft.Title).ShouldBe("A wall to paint");
        owner.Follow("Build");
        owner.Wait("the old title stands there", () => owner.Field("Title").GetDomProperty("value") == "A wall to paint");
    }

    [Fact]
    public async Task Different_words_changed_in_two_windows_are_both_kept_without_a_question()
    {
        await using var app = new BrowserApp();
        using var owner = new Visitor();
        owner.ComeIn(app, "/forms");
        owner.Follow("A wall to paint");
        owner.Field("Title");
        var first = owner.OpenASecondWindow();
        owner.Type("Intro", "Typed in the second window.");
        owner.Wait("it is saved", () => app.Ask(db => db.Forms.Single().DraftRevision) == 2);
        owner.SwitchTo(first);
        owner.Type("Title", "Typed in the first window");
        owner.Wait(
            "both are kept",
            () =>
                app.Ask(db => (db.Forms.Single().Draft.Title, db.Forms.Single().Draft.Intro))
                == ("Typed in the first window", "Typed in the second window.")
        );
        owner.Wait("the first window shows both", () => owner.Field("Intro").GetDomProperty("value") == "Typed in the second window.");
    }

    [Fact]
    public async Task A_slow_typist_keeps_the_blank_at_the_end_over_a_save()
    {
        await using var app = new BrowserApp();
        using var owner = new Visitor();
        owner.ComeIn(app, "/forms");
        owner.Follow("A wall to paint");
        owner.Type("Title", "A wall ");
        owner.Wait("it is saved", () => app.Ask(db => db.Forms.Single().Draft.Title) == "A wall ");
        owner.Sees("Saved today");
        owner.Field("Title").SendKeys("of yours");
        owner.Wait("the rest follows", () => app.Ask(db => db.Forms.Single().Draft.Title) == "A wall of yours");
    }

    [Fact]
    public async Task Who_leaves_a_screen_right_after_the_last_keystroke_loses_nothing()
    {
        await using var app = new BrowserApp(secondsToTakeBack: 10);
        using var owner = new Visitor();
        (await app.SendAsync(Answers())).EnsureSuccessStatusCode();
        owner.ComeIn(app, "/forms");
        owner.Follow("A wall to paint");
        owner.Type("Title", "Typed and left");
        owner.Press("Today");
        owner.Wait("the title is kept", () => app.Ask(db => db.Forms.Single().Draft.Title) == "Typed and left");
        owner.Press("Reply to Tilda Brackenridge");
        owner.Type("Your words", "Half a reply");
        owner.Press("Clients");
        owner.Sees("since today");
        owner.Press("Today");
        owner.Press("Reply to Tilda Brackenridge");
        owner.Field("Your words").Text.ShouldBe("Half a reply");
        owner.Press("Send the reply");
        owner.Sees("Your mail goes to Tilda Brackenridge in 10 seconds.");
        owner.Press("Undo");
        owner.Sees("Nothing was sent.");
        owner.Press("Reply");
        owner.Field("Your words").Text.ShouldBe("Half a reply", "the words are kept");
        app.Ask(db => db.OutgoingMail.Count(mail => !mail.Automatic)).ShouldBe(0);
    }

    [Fact]
    public async Task Arrows_move_through_the_rows_and_escape_closes_the_panel()
    {
        await using var app = new BrowserApp();
        using var owner = new Visitor();
        for (var n = 0; n < 2; n++)
            (await app.SendAsync(Answers())).EnsureSuccessStatusCode();
        app.Ask(db => db.Clients.Count()).ShouldBe(1);
        owner.ComeIn(app, "/inquiries");
        owner.Follow("Tilda Brackenridge");
        owner.Sees("What they said");
        var first = owner.Browser.Url;
        owner.Keyboard(Keys.ArrowDown);
        owner.Wait(
            "the next row is open",
            () => owner.Browser.Url != first && owner.Browser.Url.Contains("/inquiries/", StringComparison.Ordinal)
        );
        owner.Sees("It joins the open project.");
        owner.Keyboard(Keys.Escape);
        owner.Wait("the panel is closed", () => owner.Browser.Url.EndsWith("/inquiries", StringComparison.Ordinal));

        // What a list shows stands in its address: it outlives a reload, an open panel and what that leads to, and Back finds it again.
        owner.GoTo("/clients");
        owner.Sees("One client");
        owner.Find("//input[@aria-label='Search everything']").SendKeys("nobody by this name");
        owner.Sees("No client is found like that");
        owner.Browser.Navigate().Refresh();
        owner.Sees("No client is found like that");
        owner.Find("//input[@aria-label='Search everything']").GetDomProperty("value").ShouldBe("nobody by this name");
        owner.Find("//input[@aria-label='Search everything']").Clear();
        owner.Find("//input[@aria-label='Search everything']").SendKeys("tilda");
        owner.Follow("Tilda Brackenridge");
        owner.Sees("What happened");
        owner.Click("//aside//a[normalize-space()='A wall to paint']");
        owner.Wait("it is beside the project, too", () => owner.Browser.Url is var at && at.Contains("/projects/") && at.Contains("tilda"));
        owner.Keyboard(Keys.Escape);
        owner.Wait("it is still there", () => owner.Browser.Url.Contains("/clients?list=", StringComparison.Ordinal));
        owner.GoTo("/");
        owner.Open(app.Address + "/clients?list=%7B%22words%22%3A5%2C%22standings%22%3A%22x%22");
        owner.Sees("One client");
        owner.WillBeRefused("status of 400");
        owner.Open(app.Address + "/clients?list=%7B%22standings%22%3A%22x%22%7D");
        owner.Press("Show all");
        owner.Sees("One client");

        // Of a long list only what can be seen is drawn; the rows come as one goes on, by wheel or by arrow.
        app.Write(db =>
        {
            for (var mail = 0; mail < 260; mail++)
                db.PracticeMail.Add(
                    new PracticeMessage
                    {
                        Id = new Id<PracticeMessage>(Guid.CreateVersion7()),
                        MessageId = $"<{mail}@long.example>",
                        Incoming = false,
                        ClientId = null,
                        From = "hello@ochrewren.example",
                        To = "somebody@long.example",
                        Subject = $"Mail {mail}",
                        Text = "Good morning.",
                        At = app.Now + NodaTime.Duration.FromMinutes(300 - mail),
                    }
                );
        });
        owner.GoTo("/practice-mail");
        owner.Sees("261 messages");
        for (var page = 0; page < 4; page++)
            owner.Run<bool>("document.querySelector('main').scrollTop = 1e6; return true");
        owner.Wait(
            "the last of them is there",
            () =>
                owner.Run<bool>(
                    "const all = document.querySelector('main'); all.scrollTop = 1e6; return all.innerText.includes('Mail 259')"
                )
        );
        owner.Run<long>("return document.querySelectorAll('main li').length").ShouldBeLessThan(80);
        owner.Run<bool>("document.querySelector('main').scrollTop = 0; return true");
        owner.Sees("Mail 0");
        owner.Find("//a[@data-row][contains(., 'Mail 0')]").SendKeys("");
        for (var step = 0; step < 30; step++)
            owner.Keyboard(Keys.ArrowDown);
        owner.Run<string>("return document.activeElement.innerText").ShouldContain("Mail 30");
        owner.Keyboard(Keys.Enter);
        owner.Sees("Play their side");
        owner.Keyboard(Keys.ArrowDown);
        owner.Find("//h1[normalize-space()='Mail 31']");
        owner.Keyboard(Keys.Escape);
        owner.Wait("one is back at its row", () => owner.Run<string>("return document.activeElement.innerText").Contains("Mail 31"));
        owner.Open(app.Address + "/nowhere");
        owner.Sees("There is nothing at this address");
    }

    [Fact]
    public async Task A_reply_is_written_in_the_panel_and_a_known_clients_differences_are_settled()
    {
        await using var app = new BrowserApp();
        using var owner = new Visitor();
        owner.WillBeRefused("status of 422");
        foreach (var budget in new[] { "4000-9000", "1500-4000" })
            (await app.SendAsync(Answers(budget: budget))).EnsureSuccessStatusCode();
        owner.ComeIn(app);
        owner.Follow("Talk first");
        owner.Sees("Differs from what is on file");
        owner.Find("//li[p[normalize-space()='Budget']][contains(., '4,000 to 9,000')]");
        owner.FindsNothingInTheWay();
        owner.Press("Take theirs");
        owner.Sees("Budget: theirs was taken");
        owner.Press("Take it back");
        owner.SeesNoMore("theirs was taken");
        owner.Press("Reply");
        owner.Press("Send the reply");
        owner.Sees("A message needs a subject and a text.");
        owner.Type("Your words", "Dear Tilda, tell me more.");
        owner.FindsNothingInTheWay();
        owner.Press("Send the reply");
        owner.Sees("Kept: first personal reply today");
        owner
            .Browser.FindElements(OpenQA.Selenium.By.CssSelector("[aria-label='Why this fit']"))
            .Count.ShouldBe(1, "nothing is left standing twice");
    }
}
