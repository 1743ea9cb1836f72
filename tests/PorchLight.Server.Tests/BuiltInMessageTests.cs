using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.FollowThrough;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

/// <summary>The messages of the program: rewritten for all forms or one, switched off, tried, and what is said then.</summary>
public sealed class BuiltInMessageTests
{
    [Fact]
    public async Task The_link_to_finish_later_comes_in_the_words_of_the_form_then_of_the_business_then_as_it_came()
    {
        await using var app = new TestApp();
        var (owner, form) = (app.Owner(), await FormAsync(app));
        (await MailedLinkAsync(app, "one@leads.example")).ShouldContain("You left “A wall to paint” to be finished later.");

        await SaveAsync(owner, "finishLater", Own("Later, from {business}", "Go on **here**: {link} ({form}). {address}"));
        var text = await MailedLinkAsync(app, "two@leads.example");
        text.ShouldStartWith("Go on here: http://localhost/f/");
        text.ShouldEndWith("(A wall to paint). We use this address for nothing else.");
        (await app.AskAsync(db => db.PracticeMail.SingleAsync(mail => mail.To == "two@leads.example"))).Subject.ShouldBe(
            "Later, from Ochre Wren"
        );

        await SaveAsync(owner, $"finishLater?form={form}", Own("Walls", "Walls wait: {link} {address}"));
        (await MailedLinkAsync(app, "three@leads.example")).ShouldStartWith("Walls wait: http");
        var row = (await ListAsync(owner)).Single(one => one.Text("kind") == "finishLater");
        (row.Text("wording"), row.GetProperty("formsOfTheirOwn")[0].GetString()).ShouldBe(("own", "A wall to paint"));

        await SaveAsync(owner, $"finishLater?form={form}", new { wording = "standard", message = Saying("", "") });
        await SaveAsync(owner, "finishLater", new { wording = "standard", message = Saying("", "") });
        (await MailedLinkAsync(app, "four@leads.example")).ShouldStartWith("You left “A wall to paint”");
        (await app.AskAsync(db => db.BuiltInTexts.CountAsync())).ShouldBe(0);
    }

    [Fact]
    public async Task Switched_off_the_page_offers_no_mail_and_the_list_says_what_happens_instead()
    {
        await using var app = new TestApp();
        var (owner, form) = (app.Owner(), await FormAsync(app));
        (await PageAsync(app)).GetProperty("form").GetProperty("mailsLink").GetBoolean().ShouldBeTrue();
        await SaveAsync(owner, "finishLater", new { wording = "off", message = Saying("a", "b") });
        (await PageAsync(app)).GetProperty("form").GetProperty("mailsLink").GetBoolean().ShouldBeFalse();
        (await ListAsync(owner))
            .Single(one => one.Text("kind") == "finishLater")
            .Text("withoutIt")
            .ShouldStartWith("The page shows them the link");
        var refused = await AskForLinkAsync(app, "one@leads.example");
        (refused.StatusCode, await refused.SentenceAsync()).ShouldBe(
            (HttpStatusCode.Conflict, "This form sends no links by mail. Please copy the link above.")
        );

        await SaveAsync(owner, "openAgain", new { wording = "off", message = Saying("a", "b") });
        (await owner.PostAsync($"/api/forms/{form}/light", Body(new { on = false }))).EnsureSuccessStatusCode();
        (await PageAsync(app)).GetProperty("tellsWhenOpen").GetBoolean().ShouldBeFalse();
        (
            await app.CreateClient().PostAsync($"/public/forms/{await app.LinkAsync()}/reopening", Body(new { email = "a@leads.example" }))
        ).StatusCode.ShouldBe(HttpStatusCode.Conflict);
    }

    [Fact]
    public async Task What_cannot_be_sent_is_not_kept_and_what_has_to_go_cannot_be_switched_off()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        var noLink = await PutAsync(owner, "openAgain", Own("Open", "We are open."));
        (await noLink.SentenceAsync()).ShouldBe("Set “The link” into the text; the message does not work without it.");
        var off = await PutAsync(owner, "accessCode", new { wording = "off", message = Saying("a", "b") });
        (await off.PlacesAsync()).ShouldBe(["wording"]);
        var ofForm = await owner.GetAsync($"/api/library/built-in/accessCode?form={await FormAsync(app)}");
        (await ofForm.SentenceAsync()).ShouldBe("This message is the same for every form. Change it in the library.");
        (await owner.GetAsync($"/api/library/built-in/openAgain?form={Guid.NewGuid()}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await app.AskAsync(db => db.BuiltInTexts.CountAsync())).ShouldBe(0);
    }

    [Fact]
    public async Task A_test_goes_to_who_asks_with_examples_and_the_preview_shows_the_same()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        await SaveAsync(owner, "openAgain", Own("Open: {form}", "Here: {link}"));
        (await owner.PostAsync("/api/library/built-in/openAgain/test", null)).EnsureSuccessStatusCode();
        (await app.MailToAsync("maren@ochrewren.example")).ShouldBe("Here: https://example.com/f/their-own-link");
        var preview = await owner
            .PostAsync(
                "/api/library/messages/preview",
                Body(new { message = Saying("Open: {form}", "Here: {link}"), builtIn = "openAgain" })
            )
            .JsonAsync();
        preview.Text("html").ShouldBe("<p>Here: https://example.com/f/their-own-link</p>");
    }

    [Fact]
    public async Task The_list_says_what_goes_at_once_to_who_sends_a_form()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        var thanks = (await owner.GetAsync("/api/library/built-in").JsonAsync()).GetProperty("thanks").EnumerateArray().ToList();
        var live = await app.AskAsync(async db => await Storage.CompiledQueries.LiveFollowThroughs(db).ToListAsync());
        var writing = live.Where(one => one.Content.Starts is InquiryStart && one.Content.Steps[0].Schedule.AtOnce).ToList();
        writing.ShouldNotBeEmpty();
        thanks
            .Select(row => row.Text("followThroughId"))
            .ShouldBe(writing.Select(one => one.FollowThroughId.ToString()), ignoreOrder: true);
        await RunTests.OthersAreOffAsync(app);
        thanks = [.. (await owner.GetAsync("/api/library/built-in").JsonAsync()).GetProperty("thanks").EnumerateArray()];
        (thanks.Single().Text("form"), thanks[0].GetProperty("followThroughId").ValueKind).ShouldBe(
            ("A wall to paint", JsonValueKind.Null)
        );
    }

    [Fact]
    public async Task An_invitation_begins_with_the_words_of_its_form()
    {
        await using var app = new TestApp();
        var (owner, form) = (app.Owner(), await FormAsync(app));
        await SaveAsync(owner, $"personalLink?form={form}", Own("About {form}", "Please look here: {link}"));
        var offered = (await owner.GetAsync("/api/inquiries/write-down").JsonAsync()).GetProperty("forms")[0];
        (offered.Text("subject"), offered.Text("text")).ShouldBe(("About A wall to paint", "Please look here: [the link]"));
    }

    private static object Saying(string subject, string text) =>
        new
        {
            subject,
            parts = new[]
            {
                new
                {
                    kind = "text",
                    key = "text",
                    text,
                },
            },
        };

    private static object Own(string subject, string text) => new { wording = "own", message = Saying(subject, text) };

    private static Task<string> FormAsync(TestApp app) => app.AskAsync(async db => (await db.Forms.SingleAsync()).Id.ToString());

    private static async Task<JsonElement> PageAsync(TestApp app) =>
        await app.CreateClient().GetAsync($"/public/forms/{await app.LinkAsync()}").JsonAsync();

    private static async Task<List<JsonElement>> ListAsync(HttpClient owner) =>
        [.. (await owner.GetAsync("/api/library/built-in").JsonAsync()).GetProperty("messages").EnumerateArray()];

    private static async Task<HttpResponseMessage> PutAsync(HttpClient owner, string message, object now)
    {
        var shown = await owner.GetAsync($"/api/library/built-in/{message}");
        shown.StatusCode.ShouldBe(HttpStatusCode.OK, await shown.Content.ReadAsStringAsync());
        var was = (await shown.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("content");
        return await owner.PutAsync($"/api/library/built-in/{message}", Body(new { was, now }));
    }

    private static async Task SaveAsync(HttpClient owner, string message, object now) =>
        (await PutAsync(owner, message, now)).EnsureSuccessStatusCode();

    private static async Task<HttpResponseMessage> AskForLinkAsync(TestApp app, string email)
    {
        var (link, sendKey) = (await app.LinkAsync(), Guid.NewGuid());
        await UnfinishedFormTests.KeepAsync(app, link, sendKey, Answers());
        return await app.CreateClient()
            .PostAsync(
                $"/public/forms/{link}/unfinished-form/mail",
                Body(
                    new
                    {
                        sendKey,
                        email,
                        agrees = true,
                    }
                )
            );
    }

    private static async Task<string> MailedLinkAsync(TestApp app, string email)
    {
        (await AskForLinkAsync(app, email)).EnsureSuccessStatusCode();
        return await app.MailToAsync(email);
    }
}
