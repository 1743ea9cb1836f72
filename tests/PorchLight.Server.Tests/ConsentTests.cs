using System.Net;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Messages;
using PorchLight.Server.Messages;
using PorchLight.Server.Records;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

/// <summary>Advertising goes to those who permitted it, and stops with one press; what answers an inquiry is none.</summary>
public sealed class ConsentTests
{
    [Fact]
    public async Task News_waits_for_permission_says_how_to_stop_it_and_stops_with_one_press()
    {
        await using var app = new TestApp();
        var (about, owner) = await BeginAsync(app);
        await RunAsync(app, about, "first", isAdvertising: true);
        (await app.AskAsync(db => db.OutgoingMail.CountAsync())).ShouldBe(0);
        (await TimelineAsync(owner, about)).ShouldContain("“first” was not sent: Tilda Brackenridge has not permitted news.");

        await PermitAsync(owner, about, "client.mayAdvertise");
        await RunAsync(app, about, "second", isAdvertising: true);
        var sent = await app.AskAsync(db => db.OutgoingMail.SingleAsync());
        sent.Text.ShouldContain($"No more news ({sent.Unsubscribe})");
        var composed = SmtpCarrier.Compose(sent, "Ochre Wren", []);
        // RFC 8058, 3.1 and 8.1: both fields, the address in angle brackets.
        composed.Headers["List-Unsubscribe"].ShouldBe($"<{sent.Unsubscribe}>");
        composed.Headers["List-Unsubscribe-Post"].ShouldBe("List-Unsubscribe=One-Click");

        var stranger = app.CreateClient();
        var path = new Uri(sent.Unsubscribe!).AbsolutePath;
        var page = await stranger.GetAsync(path);
        var shown = await page.Content.ReadAsStringAsync();
        shown.ShouldContain("No more news from Ochre Wren?");
        shown.ShouldContain(
            $"background:{(await app.AskAsync(db => db.Businesses.SingleAsync())).Look.Accent};",
            Case.Sensitive,
            "its colour"
        );
        (await TimelineAsync(owner, about)).ShouldNotContain(
            "wants no more news",
            Case.Sensitive,
            "mail programs look at links by themselves"
        );
        using var press = new FormUrlEncodedContent([new("List-Unsubscribe", "One-Click")]);
        var pressed = await stranger.PostAsync(path, press);
        pressed.StatusCode.ShouldBe(HttpStatusCode.OK);
        (await pressed.Content.ReadAsStringAsync()).ShouldContain("You get no more news.");
        (await stranger.PostAsync(path, null)).StatusCode.ShouldBe(HttpStatusCode.OK, "pressed twice");
        var said = await TimelineAsync(owner, about);
        said.Split("wants no more news").Length.ShouldBe(2, "it happened once");
        said.ShouldContain("Tilda Brackenridge, by the link in a message");

        await RunAsync(app, about, "third", isAdvertising: true);
        (await app.AskAsync(db => db.OutgoingMail.CountAsync())).ShouldBe(1);
        await RunAsync(app, about, "answer", isAdvertising: false);
        var answer = await app.AskAsync(db => db.OutgoingMail.OrderByDescending(mail => mail.Id).FirstAsync());
        (answer.Subject, answer.Unsubscribe).ShouldBe(("answer", (string?)null));
    }

    [Fact]
    public async Task A_link_of_nobody_says_so_and_one_of_somebody_erased_is_good_no_more()
    {
        await using var app = new TestApp();
        var (about, owner) = await BeginAsync(app);
        await PermitAsync(owner, about, "client.mayAdvertise");
        await RunAsync(app, about, "news", isAdvertising: true);
        var path = new Uri((await app.AskAsync(db => db.OutgoingMail.SingleAsync())).Unsubscribe!).AbsolutePath;
        (await owner.DeleteAsync($"/api/clients/{about.ClientId}")).EnsureSuccessStatusCode();
        foreach (var address in new[] { path, "/unsubscribe/nobody" })
        {
            var page = await app.CreateClient().GetAsync(address);
            (page.StatusCode, (await page.Content.ReadAsStringAsync()).Contains("not good any more", StringComparison.Ordinal)).ShouldBe(
                (HttpStatusCode.NotFound, true)
            );
        }
    }

    [Fact]
    public async Task Text_messages_go_to_those_who_permitted_them_and_left_a_number_and_notes_stand_on_their_page()
    {
        await using var app = new TestApp { BreaksSomething = true };
        var (about, owner) = await BeginAsync(app);
        await RunAsync(app, about, "text", isAdvertising: false, Channel.Text);
        (await TimelineAsync(owner, about)).ShouldContain("“text” was not sent: Tilda Brackenridge has not permitted text messages.");
        await PermitAsync(owner, about, "client.mayText");
        var phones = await app.AskAsync(db => db.FieldValues.Where(value => value.Field == "client.phone").ToListAsync());
        await app.ChangeAsync(db =>
        {
            db.FieldValues.RemoveRange(phones);
            return Task.CompletedTask;
        });
        await RunAsync(app, about, "without a number", isAdvertising: false, Channel.Text);
        (await app.AskAsync(db => db.Runs.SingleAsync(run => run.Active))).Failure.ShouldBe(
            "They left no phone number to send a text message to."
        );
        await app.ChangeAsync(db =>
        {
            db.FieldValues.AddRange(phones);
            return Task.CompletedTask;
        });
        await RunAsync(app, about, "with a number", isAdvertising: false, Channel.Text);
        await RunAsync(app, about, "note", isAdvertising: false, Channel.PageNote);
        (await TimelineAsync(owner, about)).ShouldContain("“note” was sent automatically as a note on their page.");
        var notes = await owner.GetAsync("/api/practice/texts").JsonAsync();
        notes.EnumerateArray().Count(note => note.GetProperty("phone").ValueKind == JsonValueKind.String).ShouldBe(1);
        notes.GetArrayLength().ShouldBe(2);
        (await app.AskAsync(db => db.OutgoingMail.CountAsync())).ShouldBe(0);
    }

    private static async Task<(EventContext About, HttpClient Owner)> BeginAsync(TestApp app)
    {
        await RunTests.OthersAreOffAsync(app);
        var (client, project, inquiry) = await RunTests.SomebodyAsync(app);
        return (new EventContext(client, project, inquiry), app.Owner());
    }

    /// <summary>One message on a day of its own, since nobody gets two by themselves on one.</summary>
    private static async Task RunAsync(TestApp app, EventContext about, string name, bool isAdvertising, Channel channel = Channel.Mail)
    {
        app.Time.Advance(TimeSpan.FromDays(2));
        var send = new SendMessage(new MessageTemplate(name, [new TextPart("text", "A word.")]))
        {
            Channel = channel,
            IsAdvertising = isAdvertising,
        };
        await RunTests.StartAsync(app, RunTests.Content(RunTests.Step("send", send)), about);
        await app.WorkAsync();
    }

    internal static Task PermitAsync(HttpClient owner, EventContext about, string field) =>
        PutAsync(owner, about, field, new { kind = "yesNo", yes = true });

    internal static async Task PutAsync(
        HttpClient owner,
        EventContext about,
        string field,
        object value,
        Guid? projectId = null,
        object? was = null
    ) =>
        (
            await owner.PutAsync(
                $"/api/clients/{about.ClientId}/values/{field}",
                Body(
                    new
                    {
                        projectId,
                        was,
                        now = value,
                    }
                )
            )
        ).EnsureSuccessStatusCode();

    private static async Task<string> TimelineAsync(HttpClient owner, EventContext about) =>
        (await owner.GetAsync($"/api/clients/{about.ClientId}").JsonAsync()).ToString();
}
