using System.Net;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Messages;
using PorchLight.Core.Records;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

/// <summary>What somebody of the business sends rests for ten seconds: nothing has happened by then, and it can be taken back.</summary>
public sealed class TakingBackTests
{
    [Fact]
    public async Task A_reply_taken_back_in_time_never_was_and_sent_again_it_goes_after_ten_seconds()
    {
        await using var app = App();
        await app.SendAsync(Answers());
        await app.WorkAsync();
        var owner = app.Owner();
        var inquiry = (await app.AskAsync(db => db.Inquiries.SingleAsync())).Id;
        var path = $"/api/inquiries/{inquiry}/reply";
        var going = await owner.PostAsync(path, Body(Written("Your wall", "Gladly."))).JsonAsync();
        going.GetProperty("takeBackSeconds").GetInt32().ShouldBe(10);
        await app.PassTimeAsync(Duration.FromSeconds(9));
        (await WrittenAsync(app)).ShouldBeEmpty();
        (await NoteAsync(owner)).ShouldBe("Nobody is waiting for a first reply.", "the row has left the list");
        (await HappenedAsync(app)).OfType<MessageSent>().ShouldNotContain(sent => sent.By != null);

        (await TakeBackAsync(owner, going)).ShouldBe(HttpStatusCode.NoContent);
        (await NoteAsync(owner)).ShouldStartWith("One person is waiting");
        (await TakeBackAsync(owner, going)).ShouldBe(HttpStatusCode.Conflict, "there is nothing any more");
        await app.PassTimeAsync(Duration.FromMinutes(1));
        (await WrittenAsync(app)).ShouldBeEmpty();
        (await HappenedAsync(app)).OfType<MessageSent>().ShouldNotContain(sent => sent.By != null);

        going = await owner.PostAsync(path, Body(Written("Your wall", "Gladly."))).JsonAsync();
        await app.PassTimeAsync(Duration.FromSeconds(10));
        (await WrittenAsync(app)).ShouldBe(["Your wall"]);
        (await NoteAsync(owner)).ShouldBe("Nobody is waiting for a first reply.");
        (await TakeBackAsync(owner, going)).ShouldBe(HttpStatusCode.Conflict, "it has gone");
        (await HappenedAsync(app)).OfType<MessageSent>().Count(sent => sent.By is not null).ShouldBe(1);
    }

    [Fact]
    public async Task A_decline_moves_the_project_when_it_goes_and_not_before()
    {
        await using var app = App();
        await app.SendAsync(Answers());
        await app.WorkAsync();
        var owner = app.Owner();
        var inquiry = (await app.AskAsync(db => db.Inquiries.SingleAsync())).Id;
        var path = $"/api/inquiries/{inquiry}/quick-replies";
        var no = (await owner.GetAsync(path).JsonAsync())
            .GetProperty("replies")
            .EnumerateArray()
            .Single(reply => reply.Text("kind") == "noMatch");
        var press = Body(
            new
            {
                draft = no.GetProperty("draft"),
                stage = no.Text("stage"),
                until = (string?)null,
            }
        );
        var going = await owner.PostAsync(path, press).JsonAsync();
        (await StageAsync(app)).ShouldBe("new");
        (await TakeBackAsync(owner, going)).ShouldBe(HttpStatusCode.NoContent);
        await app.PassTimeAsync(Duration.FromMinutes(1));
        (await StageAsync(app)).ShouldBe("new");

        await owner.PostAsync(path, press).JsonAsync();
        await app.PassTimeAsync(Duration.FromSeconds(10));
        (await StageAsync(app)).ShouldBe(no.Text("stage"));
        (await WrittenAsync(app)).Count.ShouldBe(1);
    }

    [Fact]
    public async Task A_message_to_a_client_stands_in_their_mail_until_it_goes_and_is_gone_when_it_is_taken_back()
    {
        await using var app = App();
        await app.SendAsync(Answers());
        await app.WorkAsync();
        var owner = app.Owner();
        var path = $"/api/clients/{(await app.AskAsync(db => db.Clients.SingleAsync())).Id}/messages";
        var going = await owner.PostAsync(path, Body(Written("Your wall", "Gladly."))).JsonAsync();
        var first = (await owner.GetAsync(path).JsonAsync()).GetProperty("messages")[0];
        (first.Text("subject"), first.Text("state")).ShouldBe(("Your wall", "Goes in a few seconds."));
        (await TakeBackAsync(owner, going)).ShouldBe(HttpStatusCode.NoContent);
        (await owner.GetAsync(path).JsonAsync())
            .GetProperty("messages")
            .EnumerateArray()
            .ShouldNotContain(message => message.Text("subject") == "Your wall");
    }

    [Fact]
    public async Task A_link_by_mail_taken_back_opens_nothing()
    {
        await using var app = App();
        var owner = app.Owner();
        var form = await app.AskAsync(db => db.Forms.Where(one => one.PublishedVersion > 0).Select(one => one.Id).FirstAsync());
        var body = Body(
            new
            {
                @for = new
                {
                    email = "tilda@bakery.example",
                    givenName = "Tilda",
                    familyName = "",
                },
                subject = "A few questions",
                text = "Please: [the link]",
            }
        );
        var going = await owner.PostAsync($"/api/forms/{form}/links/by-mail", body).JsonAsync();
        var back = $"/api/forms/{form}/links/{going.Text("link")}/take-back";
        (await owner.PostAsync(back, null)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        await app.PassTimeAsync(Duration.FromMinutes(1));
        (await WrittenAsync(app)).ShouldBeEmpty();
        (await app.AskAsync(db => db.PersonalLinks.CountAsync())).ShouldBe(0);

        await owner.PostAsync($"/api/forms/{form}/links/by-mail", body).JsonAsync();
        await app.PassTimeAsync(Duration.FromSeconds(10));
        (await WrittenAsync(app)).ShouldBe(["A few questions"]);
        (await owner.PostAsync(back, null)).StatusCode.ShouldBe(HttpStatusCode.Conflict);
    }

    private static async Task<string> NoteAsync(HttpClient owner) => (await owner.GetAsync("/api/today").JsonAsync()).Text("note");

    private static TestApp App() => new() { Settings = { ["PorchLight:SecondsToTakeBack"] = "10" } };

    private static async Task<HttpStatusCode> TakeBackAsync(HttpClient owner, JsonElement going) =>
        (await owner.PostAsync($"/api/mail/{going.Text("id")}/take-back", null)).StatusCode;

    private static Task<List<string>> WrittenAsync(TestApp app) =>
        app.AskAsync(db =>
            db.OutgoingMail.Where(mail => !mail.Automatic && mail.State == MailState.HandedOver).Select(mail => mail.Subject).ToListAsync()
        );

    private static Task<string> StageAsync(TestApp app) => app.AskAsync(db => db.Projects.Select(one => one.Stage).SingleAsync());

    private static Task<List<DomainEvent>> HappenedAsync(TestApp app) =>
        app.AskAsync(db => db.Events.Select(logged => logged.What).ToListAsync());
}
