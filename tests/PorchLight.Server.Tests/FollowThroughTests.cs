using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Fields;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Forms;
using PorchLight.Core.Messages;
using PorchLight.Core.Ready;
using PorchLight.Core.Screening;
using PorchLight.Server.Demo;
using PorchLight.Server.FollowThrough;
using PorchLight.Server.Messages;
using PorchLight.Server.Storage;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

public sealed class FollowThroughTests
{
    private static readonly Duration OneDay = Duration.FromDays(1);

    [Fact]
    public async Task Screenings_are_shown_as_they_are_in_force()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        var form = await app.AskAsync(db => db.Forms.OrderBy(form => form.Id).FirstAsync());
        var screening = await owner.GetFromJsonAsync<JsonElement>($"/api/forms/{form.Id}/screening");
        screening.GetProperty("number").GetInt32().ShouldBe(form.ScreeningVersion);
        var inForce = await app.AskAsync(db =>
            db.ScreeningVersions.SingleAsync(one => one.FormId == form.Id && one.Number == form.ScreeningVersion)
        );
        screening.GetProperty("rules").Deserialize<ScreeningRules>(Json.Options).ShouldBeEquivalentTo(inForce.Rules);
        (await owner.GetAsync($"/api/forms/{Guid.NewGuid()}/screening")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task The_thank_you_goes_by_itself_and_the_follow_up_waits_for_a_nod_with_its_gap()
    {
        await using var app = new TestApp { Time = new(TestClock.Written) };
        await app.SendAsync(Answers());
        await app.WorkAsync();
        (await Mailed(app)).ShouldBe(["Your wall: thank you, Tilda"]);

        await app.PassTimeAsync(OneDay);
        (await Mailed(app)).Count.ShouldBe(1, "nothing that needs a nod is sent by itself");
        var owner = app.Owner();
        var nod = (await owner.GetAsync("/api/today").JsonAsync()).GetProperty("nods")[0];
        var path = $"/api/nods/{nod.Text("runId")}/{nod.Text("step")}";
        var draft = await DraftAsync(app);

        var refused = await owner.PostAsync(path + "/send", Seen(draft));
        refused.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await refused.PlacesAsync()).ShouldBe(["place"]);

        var filled = await FillAsync(owner, path, draft, "I know that wall.");
        (await owner.PostAsync(path + "/send", Seen(filled))).EnsureSuccessStatusCode();
        (await owner.PostAsync(path + "/send", Seen(filled))).StatusCode.ShouldBe(HttpStatusCode.Conflict);
        await app.WorkAsync();
        (await Mailed(app)).ShouldBe(["Your wall: thank you, Tilda", "About your wall, Tilda"]);
        (await app.AskAsync(db => db.PracticeMail.OrderBy(mail => mail.At).LastAsync())).Text.ShouldContain("\n\nI know that wall.\n\n");
        (await app.AskAsync(db => db.Runs.SingleAsync())).NextMoment.ShouldBe(
            app.Now + Duration.FromDays(4) + Duration.FromDays(2) - Duration.FromHours(1),
            "four days on is Saturday 10:00, held to Monday 09:00"
        );
        (await app.AskAsync(db => db.Inquiries.SingleAsync())).PromiseStopped.ShouldBe(app.Now, "a person's word keeps the promise");
    }

    [Fact]
    public async Task Who_left_no_name_is_greeted_without_one_and_never_by_their_address()
    {
        await using var app = new TestApp();
        var link = await app.MakeQuickFormAsync(
            new FormContent(
                "A word",
                "",
                [new Page("one", "One", [new Question("mail", "Your mail?", new EmailKind()) { LandsIn = new SetField("client.email") }])],
                [],
                new SendOff("end", "Thank you", "We write.")
            )
        );
        await app.ChangeAsync(async db =>
        {
            var form = (await db.Forms.ToListAsync()).Single(one => one.Draft.Title == "A word");
            db.AddFollowThroughs([ReadyForms.Thanks(form.Id.Value, "A word")]);
        });
        await app.SendAsync(link, new Dictionary<string, Answer?> { ["mail"] = new TextAnswer("nobody.in.particular@pell.example") });
        await app.WorkAsync();
        var mail = await app.AskAsync(db => db.PracticeMail.SingleAsync(one => !one.Incoming));
        mail.Subject.ShouldBe("Thank you: A word");
        mail.Text.ShouldStartWith("Dear,\n");
    }

    [Fact]
    public async Task What_was_edited_is_kept_until_it_is_sent()
    {
        await using var app = new TestApp { Time = new(TestClock.Written) };
        await app.SendAsync(Answers());
        await app.PassTimeAsync(OneDay);
        var owner = app.Owner();
        var path = await NodPathAsync(app);
        await FillAsync(owner, path, await DraftAsync(app), "Half a thought");
        (await DraftAsync(app)).Parts.OfType<GapPart>().Single().Filled.ShouldBe("Half a thought");
    }

    [Fact]
    public async Task Only_what_the_person_sees_is_sent()
    {
        await using var app = new TestApp { Time = new(TestClock.Written) };
        await app.SendAsync(Answers());
        await app.PassTimeAsync(OneDay);
        var owner = app.Owner();
        var path = await NodPathAsync(app);
        var seen = await FillAsync(owner, path, await DraftAsync(app), "I know that wall.");
        await FillAsync(owner, path, seen, "I never saw that wall.");
        var refused = await owner.PostAsync(path + "/send", Seen(seen));
        refused.StatusCode.ShouldBe(HttpStatusCode.Conflict);
        var clash = (await refused.JsonAsync()).GetProperty("clashes").EnumerateArray().Single();
        (clash.Text("theirs"), clash.Text("yours")).ShouldBe(("I never saw that wall.", "I know that wall."));
        await app.WorkAsync();
        (await Mailed(app)).Count.ShouldBe(1);
    }

    [Fact]
    public async Task Outside_sending_hours_a_nod_waits_for_the_morning()
    {
        await using var app = new TestApp { Time = new(TestClock.Written) };
        await app.SendAsync(Answers());
        await app.PassTimeAsync(OneDay + Duration.FromHours(9));
        var owner = app.Owner();
        var path = await NodPathAsync(app);
        var sent = await owner.PostAsync(path + "/send", Seen(await FillAsync(owner, path, await DraftAsync(app), "x"))).JsonAsync();
        sent.Text("goes").ShouldBe("tomorrow 09:00");
        (await owner.GetAsync("/api/today").JsonAsync()).GetProperty("nods")[0].Text("goes").ShouldBe("tomorrow 09:00");
        (await Mailed(app)).Count.ShouldBe(1);
        await app.PassTimeAsync(Duration.FromHours(14));
        (await Mailed(app)).Count.ShouldBe(2);
        var maren = await app.AskAsync(db => db.Users.SingleAsync(user => user.DisplayName == "Maren Tolliver"));
        (await app.AskAsync(db => db.Events.ToListAsync()))
            .Select(logged => logged.What)
            .OfType<MessageSent>()
            .Select(sent => sent.By)
            .ShouldBe([(Guid?)null, maren.Id], "who nodded is remembered until it goes");
    }

    [Fact]
    public async Task A_skipped_message_is_never_sent_and_the_next_is_planned()
    {
        await using var app = new TestApp { Time = new(TestClock.Written) };
        await app.SendAsync(Answers());
        await app.PassTimeAsync(OneDay);
        var owner = app.Owner();
        (await owner.PostAsync(await NodPathAsync(app) + "/skip", null)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        await app.WorkAsync();
        (await Mailed(app)).Count.ShouldBe(1);
        (await app.AskAsync(db => db.Runs.SingleAsync())).State.Current!.Key.ShouldBe("second");

        (await owner.PostAsync(await NodPathAsync(app) + "/take-skip-back", null)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await owner.PostAsync(await NodPathAsync(app) + "/take-skip-back", null)).StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await owner.GetAsync("/api/today").JsonAsync()).GetProperty("nods")[0].Text("step").ShouldBe("first");
    }

    [Theory]
    [InlineData("answer", RunEnd.Replied)]
    [InlineData("booked", RunEnd.Booked)]
    public async Task When_they_answer_or_book_nothing_pending_remains_and_the_timeline_says_why(string act, RunEnd why)
    {
        await using var app = new TestApp();
        await app.SendAsync(Answers());
        await app.PassTimeAsync(OneDay);
        var owner = app.Owner();
        var mail = await app.AskAsync(db => db.PracticeMail.Select(message => message.Id).SingleAsync());
        (await owner.PostAsync($"/api/practice/mail/{mail}/{act}", Body(new { text = "Yes please" }))).StatusCode.ShouldBe(
            HttpStatusCode.NoContent
        );

        var run = await app.AskAsync(db => db.Runs.SingleAsync());
        (run.Active, run.NextMoment, run.State.StoppedBy).ShouldBe((false, null, why));
        run.State.Steps.ShouldNotContain(step => step.IsPending);
        await app.PassTimeAsync(Duration.FromDays(200));
        (await app.AskAsync(db => db.OutgoingMail.CountAsync())).ShouldBe(1);
        owner = await app.SignedInAsync(DemoBusiness.OwnerMail);
        (await owner.GetAsync("/api/today").JsonAsync()).GetProperty("nods").GetArrayLength().ShouldBe(0);
        var inquiry = await app.AskAsync(db => db.Inquiries.Select(one => one.Id).SingleAsync());
        (await owner.GetAsync($"/api/inquiries/{inquiry}").JsonAsync())
            .GetProperty("timeline")
            .EnumerateArray()
            .ShouldContain(entry => entry.Text("sentence").Contains("3 steps cancelled", StringComparison.Ordinal));
    }

    [Fact]
    public async Task Workers_that_race_do_everything_once()
    {
        await using var app = new TestApp { Time = new(TestClock.Written) };
        for (var n = 0; n < 5; n++)
            await app.SendAsync(Answers($"lead{n}@bakes.example"));
        app.Time.Advance(TimeSpan.FromDays(1));
        await Task.WhenAll(Enumerable.Range(0, 4).Select(_ => app.WorkAsync()));
        (await Mailed(app)).Count.ShouldBe(5);
        (await app.AskAsync(db => db.Events.ToListAsync())).Count(logged => logged.What is Core.FollowThrough.NodAsked).ShouldBe(5);
    }

    [Fact]
    public async Task One_effect_cannot_be_queued_twice()
    {
        await using var app = new TestApp { BreaksSomething = true };
        await app.SendAsync(Answers());
        var twice = app.ChangeAsync(async db =>
        {
            await using var scope = app.Services.CreateAsyncScope();
            var room = ActivatorUtilities.CreateInstance<MailQueue>(scope.ServiceProvider, db);
            var key = await db.OutgoingMail.Select(mail => mail.EffectKey).SingleAsync();
            room.Queue(
                key,
                await db.Businesses.SingleAsync(),
                await db.Clients.SingleAsync(),
                new MailContent("Again", "Again"),
                automatic: true,
                app.Now
            );
        });
        await twice.ShouldThrowAsync<DbUpdateException>();
    }

    [Fact]
    public async Task Skipping_ahead_moves_the_business_clock_and_signs_nobody_out()
    {
        await using var app = new TestApp { Time = new(TestClock.Written) };
        await app.SendAsync(Answers());
        var owner = app.Owner();
        var clock = await owner.PostAsync("/api/practice/clock/skip", Body(new { to = "nextStep" })).JsonAsync();
        clock.Text("now").ShouldBe("Tuesday 24 November 2026, 10:00 Europe/Dublin");
        await app.WorkAsync();
        (await owner.GetAsync("/api/today").JsonAsync()).GetProperty("nods").GetArrayLength().ShouldBe(1);
        (await owner.PostAsync("/api/practice/clock/skip", Body(new { to = "tomorrowMorning" })).JsonAsync())
            .Text("now")
            .ShouldStartWith("Wednesday 25 November 2026, 09:00");
    }

    private static Task<List<string>> Mailed(TestApp app) =>
        app.AskAsync(db =>
            db.PracticeMail.Where(mail => !mail.Incoming).OrderBy(mail => mail.At).Select(mail => mail.Subject).ToListAsync()
        );

    private static async Task<string> NodPathAsync(TestApp app) =>
        $"/api/nods/{await app.AskAsync(db => db.Runs.Select(run => run.Id).SingleAsync())}/first";

    private static async Task<MessageDraft> DraftAsync(TestApp app) =>
        (await app.AskAsync(db => db.Runs.SingleAsync())).Drafts.ByStep["first"];

    private static System.Net.Http.Json.JsonContent Seen(MessageDraft seen) => Body(new { seen, now = false });

    /// <summary>Fills the gap and gives the message as it is stored then.</summary>
    private static async Task<MessageDraft> FillAsync(HttpClient owner, string path, MessageDraft found, string words)
    {
        var now = found with { Parts = [.. found.Parts.Select(part => part is GapPart gap ? gap with { Filled = words } : part)] };
        (await owner.PutAsync(path, Body(new { was = found, now }))).EnsureSuccessStatusCode();
        return now;
    }
}
