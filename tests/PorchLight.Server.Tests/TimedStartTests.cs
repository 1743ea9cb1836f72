using System.Net;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Messages;
using PorchLight.Server.FollowThrough;
using PorchLight.Server.Forms;
using PorchLight.Server.Records;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

/// <summary>Follow-throughs that time starts: after a form was left half-finished, and on days counted from a date.</summary>
public sealed class TimedStartTests
{
    private const string Address = "left@leads.example";
    private static readonly Step Word = Mail("Still there?", "Dear {firstName|you}, here is “{form}”: {link}");

    [Fact]
    public async Task Who_leaves_a_form_and_was_told_so_gets_one_mail_with_their_link_after_some_hours()
    {
        await using var app = new TestApp();
        await AddAsync(app, new LeftUnfinishedStart(null, 3), Word);
        var link = await LeaveAsync(app);
        await app.PassTimeAsync(Duration.FromHours(3) - Duration.FromMinutes(1));
        (await SubjectsAsync(app)).ShouldBe([]);
        await app.PassTimeAsync(Duration.FromMinutes(1));
        (await app.MailToAsync(Address)).ShouldBe($"Dear Tilda, here is “A wall to paint”: {link}");
        for (var day = 0; day < 3; day++)
            await app.PassTimeAsync(Duration.FromHours(20));
        (await SubjectsAsync(app)).ShouldBe(["Still there?"]);

        // The button beside it is the same one mail.
        var owner = app.Owner();
        var row = (await owner.GetAsync("/api/unfinished-forms").JsonAsync()).EnumerateArray().Single();
        row.GetProperty("canFollowUp").GetBoolean().ShouldBeFalse();
    }

    [Fact]
    public async Task Who_goes_on_or_sends_it_before_a_nod_is_sent_nothing()
    {
        await using var app = new TestApp();
        await AddAsync(app, new LeftUnfinishedStart(null, 1), Word with { NeedsNod = true });
        var sendKey = Guid.NewGuid();
        await LeaveAsync(app, sendKey);
        await app.PassTimeAsync(Duration.FromHours(1));
        var owner = app.Owner();
        var nod = (await owner.GetAsync("/api/today").JsonAsync()).GetProperty("nods").EnumerateArray().Single();
        (nod.Text("name"), nod.GetProperty("clientId").ValueKind).ShouldBe((Address, System.Text.Json.JsonValueKind.Null));
        var people = await owner.GetAsync($"/api/follow-throughs/{await IdAsync(app)}/people").JsonAsync();
        people.GetProperty("people")[0].Text("name").ShouldBe(Address);

        (await UnfinishedFormTests.KeepAsync(app, await app.LinkAsync(), sendKey, Answers(Address), revision: 1)).EnsureSuccessStatusCode();
        (await owner.GetAsync("/api/today").JsonAsync()).GetProperty("nods").GetArrayLength().ShouldBe(0);
        (await RunAsync(app)).State.StoppedBy.ShouldBe(RunEnd.WentOn);

        // Left once more it is left anew; sent it is left no more.
        await app.PassTimeAsync(Duration.FromHours(1));
        (await owner.GetAsync("/api/today").JsonAsync()).GetProperty("nods").GetArrayLength().ShouldBe(1);
        (await app.SendAsync(Answers(Address), sendKey)).EnsureSuccessStatusCode();
        (await app.AskAsync(db => db.Runs.Where(run => run.UnfinishedFormId != null).ToListAsync())).ShouldAllBe(run =>
            run.State.StoppedBy == RunEnd.WentOn
        );
        await app.PassTimeAsync(Duration.FromHours(5));
        (await SubjectsAsync(app)).ShouldNotContain("Still there?");
    }

    [Fact]
    public async Task Its_nod_sends_it_to_the_address_the_link_went_to()
    {
        await using var app = new TestApp();
        await AddAsync(app, new LeftUnfinishedStart(null, 1), Word with { NeedsNod = true });
        await LeaveAsync(app);
        await app.PassTimeAsync(Duration.FromHours(1));
        var owner = app.Owner();
        var path = $"/api/nods/{(await RunAsync(app)).Id}/{Word.Key}";
        var view = await owner.GetAsync(path).JsonAsync();
        view.Text("to").ShouldBe(Address);
        (await owner.PostAsync(path + "/send", Body(new { seen = view.GetProperty("draft"), now = false }))).EnsureSuccessStatusCode();
        await app.WorkAsync();
        (await SubjectsAsync(app)).ShouldBe(["Still there?"]);
        (await RunAsync(app)).State.Status.ShouldBe(RunStatus.Finished);
    }

    [Fact]
    public async Task After_the_button_beside_it_the_nod_says_that_they_had_their_mail_and_sends_none()
    {
        await using var app = new TestApp();
        await AddAsync(app, new LeftUnfinishedStart(null, 1), Word with { NeedsNod = true });
        await LeaveAsync(app);
        await app.PassTimeAsync(Duration.FromHours(1));
        var owner = app.Owner();
        var path = $"/api/nods/{(await RunAsync(app)).Id}/{Word.Key}";
        (await owner.GetAsync(path).JsonAsync()).GetProperty("notPermitted").ValueKind.ShouldBe(System.Text.Json.JsonValueKind.Null);
        var row = (await owner.GetAsync("/api/unfinished-forms").JsonAsync()).EnumerateArray().Single();
        (await owner.PostAsync($"/api/unfinished-forms/{row.Text("id")}/follow-up", null)).EnsureSuccessStatusCode();
        var view = await owner.GetAsync(path).JsonAsync();
        view.Text("notPermitted").ShouldStartWith("They had the one mail they were told of");
        (await owner.PostAsync(path + "/send", Body(new { seen = view.GetProperty("draft"), now = false }))).EnsureSuccessStatusCode();
        await app.WorkAsync();
        (await SubjectsAsync(app)).ShouldBe([]);
    }

    [Fact]
    public async Task Who_was_not_told_is_not_written_to_and_the_team_can_be_told_all_the_same()
    {
        await using var app = new TestApp();
        await AddAsync(app, new LeftUnfinishedStart(null, 1), Word);
        await AddAsync(
            app,
            new LeftUnfinishedStart(await app.AskAsync(async db => (await db.Forms.SingleAsync()).Id.Value), 1),
            Step("tell", new PostToChat("{firstName} left {form} half-finished."))
        );
        await UnfinishedFormTests.KeepAsync(app, await app.LinkAsync(), Guid.NewGuid(), Answers(Address));
        await app.PassTimeAsync(Duration.FromHours(1));
        await app.PassTimeAsync(Duration.FromHours(1));
        (await SubjectsAsync(app)).ShouldBe([]);
        (await app.AskAsync(db => db.TeamChat.SingleAsync())).Text.ShouldBe("Tilda left A wall to paint half-finished.");

        await app.PassTimeAsync(Duration.FromDays(31));
        (await app.AskAsync(db => db.UnfinishedForms.SingleAsync())).Ended.ShouldBe(UnfinishedFormEnd.RanOut);
        (await app.AskAsync(db => db.TeamChat.CountAsync())).ShouldBe(0, "it names who left");
    }

    [Fact]
    public async Task What_the_team_was_told_of_somebody_who_left_is_erased_with_them()
    {
        await using var app = new TestApp();
        await AddAsync(
            app,
            new LeftUnfinishedStart(await app.AskAsync(async db => (await db.Forms.SingleAsync()).Id.Value), 1),
            Step("tell", new PostToChat("{firstName} left {form} half-finished."))
        );
        var key = Guid.NewGuid();
        await UnfinishedFormTests.KeepAsync(app, await app.LinkAsync(), key, Answers(Address));
        await app.PassTimeAsync(Duration.FromHours(1));
        await app.PassTimeAsync(Duration.FromHours(1));
        (await app.SendAsync(Answers(Address), key)).EnsureSuccessStatusCode();
        (await app.AskAsync(db => db.TeamChat.CountAsync())).ShouldBe(1);

        var client = await app.AskAsync(db => db.Clients.Select(one => one.Id).SingleAsync());
        (await app.Owner().DeleteAsync($"/api/clients/{client}")).EnsureSuccessStatusCode();
        (await app.AskAsync(db => db.TeamChat.CountAsync())).ShouldBe(0);
    }

    [Fact]
    public async Task Put_into_force_it_leaves_those_alone_who_left_long_ago()
    {
        await using var app = new TestApp();
        await LeaveAsync(app);
        await app.PassTimeAsync(Duration.FromHours(26));
        await AddAsync(app, new LeftUnfinishedStart(null, 1), Word);
        await app.PassTimeAsync(Duration.FromHours(1));
        (await app.AskAsync(db => db.Runs.CountAsync())).ShouldBe(0);
    }

    [Fact]
    public async Task A_week_before_a_day_of_a_project_it_starts_once_and_not_for_what_was_lost()
    {
        await using var app = new TestApp { Time = new(TestClock.Written) };
        await RunTests.OthersAreOffAsync(app);
        var about = await SomebodyAsync(app);
        await AddAsync(app, new ProjectDateStart("project.start", -7), Mail("A week to go", "Soon."));
        await app.WorkAsync();
        await PutDayAsync(app, about, "project.start", new LocalDate(2026, 12, 4), about.ProjectId);
        await PassDaysAsync(app, 3);
        (await SubjectsAsync(app)).ShouldBe([], "Thursday is eight days before");
        await PassDaysAsync(app, 1);
        (await SubjectsAsync(app)).ShouldBe(["A week to go"]);
        await PassDaysAsync(app, 10);
        (await SubjectsAsync(app)).ShouldBe(["A week to go"]);

        await PutDayAsync(app, about, "project.start", new LocalDate(2026, 12, 15), about.ProjectId, new LocalDate(2026, 12, 4));
        await app.ChangeAsync(async db => (await db.Projects.SingleAsync(one => one.Id == about.ProjectId)).Stage = "lost");
        await PassDaysAsync(app, 3);
        (await SubjectsAsync(app)).ShouldBe(["A week to go"]);
    }

    [Fact]
    public async Task What_a_day_came_too_late_for_is_told_where_it_can_be_started_by_hand_until_it_is()
    {
        await using var app = new TestApp { Time = new(TestClock.Written) };
        await RunTests.OthersAreOffAsync(app);
        var about = await SomebodyAsync(app);
        await AddAsync(app, new ProjectDateStart("project.start", -7), Mail("A week to go", "Soon."));
        await app.WorkAsync();
        (await MissedAsync()).ShouldBeNull("no day stands there");
        await PutDayAsync(app, about, "project.start", new LocalDate(2026, 11, 27), about.ProjectId);
        await app.WorkAsync();
        (await SubjectsAsync(app)).ShouldBe([]);
        (await MissedAsync()).ShouldBe("20 November 2026");
        (
            await app.Owner()
                .PostAsync(
                    $"/api/clients/{about.ClientId}/runs",
                    Body(new { followThroughId = await IdAsync(app), projectId = about.ProjectId })
                )
        ).EnsureSuccessStatusCode();
        (await MissedAsync()).ShouldBeNull();

        async Task<string?> MissedAsync() =>
            (await app.Owner().GetAsync($"/api/clients/{about.ClientId}/runs/startable?project={about.ProjectId}").JsonAsync())
                .EnumerateArray()
                .Single(row => row.Text("name") == "Timed")
                .GetProperty("missed")
                .GetString();
    }

    [Fact]
    public async Task On_a_day_of_a_person_it_starts_each_year_also_for_a_client_without_a_project()
    {
        await using var app = new TestApp { Time = new(TestClock.Written) };
        var owner = app.Owner();
        var made = await owner
            .PostAsync(
                "/api/clients",
                Body(
                    new
                    {
                        name = "Ada Pell",
                        email = "ada@pell.example",
                        phone = "",
                    }
                )
            )
            .JsonAsync();
        var about = new EventContext(PorchLight.Core.Common.Id<Client>.Parse(made.Text("id"), null));
        await PutDayAsync(app, about, "client.born", new LocalDate(1980, 11, 25), null);
        await AddAsync(app, new YearlyDateStart("client.born", 0), Mail("Many happy returns", "Dear {firstName}"));
        await app.WorkAsync();
        await PassDaysAsync(app, 2);
        (await app.MailToAsync("ada@pell.example")).ShouldBe("Dear Ada");
        (await RunAsync(app)).ProjectId.ShouldBeNull();
        await PassDaysAsync(app, 30);
        (await SubjectsAsync(app)).Count.ShouldBe(1);

        app.Time.Advance(TimeSpan.FromDays(336));
        await app.WorkAsync();
        (await SubjectsAsync(app)).Count.ShouldBe(2, "a day or two late when nothing ran meanwhile");
    }

    [Fact]
    public async Task What_was_missed_for_longer_than_a_week_is_not_caught_up_with()
    {
        await using var app = new TestApp();
        await RunTests.OthersAreOffAsync(app);
        var about = await SomebodyAsync(app);
        await AddAsync(app, new ProjectDateStart("project.start", 0), Mail("Today", "Today."));
        await PutDayAsync(app, about, "project.start", new LocalDate(2026, 11, 25), about.ProjectId);
        await app.WorkAsync();
        app.Time.Advance(TimeSpan.FromDays(11));
        await app.WorkAsync();
        (await SubjectsAsync(app)).ShouldBe([]);
    }

    private static Step Mail(string subject, string text) =>
        Step("word", new SendMessage(new MessageTemplate(subject, [new TextPart("text", text)])));

    private static Step Step(string key, StepAction action) =>
        new(key, key, action, new Schedule(Anchor.RunStart, 0, TimeUnit.Minutes, AtOnce: true), NeedsNod: false);

    private static Task AddAsync(TestApp app, StartOn start, params Step[] steps) =>
        app.ChangeAsync(db =>
        {
            db.AddFollowThroughs([new FollowThroughContent("Timed", start, steps, []) { SideBySide = true }]);
            return Task.CompletedTask;
        });

    private static Task<string> IdAsync(TestApp app) =>
        app.AskAsync(async db =>
            (await db.FollowThroughVersions.ToListAsync()).Last(one => one.Content.Name == "Timed").FollowThroughId.ToString()
        );

    private static Task<Run> RunAsync(TestApp app) =>
        app.AskAsync(async db =>
        {
            var timed = (await db.FollowThroughVersions.ToListAsync())
                .Where(one => one.Content.Name == "Timed")
                .Select(one => one.FollowThroughId);
            return (await db.Runs.ToListAsync()).Single(run => timed.Contains(run.FollowThroughId));
        });

    /// <summary>Leaves the form half-finished with an address; gives the link that brings it back.</summary>
    private static async Task<string> LeaveAsync(TestApp app, Guid? sendKey = null)
    {
        await app.ChangeFormAsync(settings => settings with { FollowsUpUnfinished = true });
        var (link, key) = (await app.LinkAsync(), sendKey ?? Guid.NewGuid());
        var kept = await UnfinishedFormTests.KeepAsync(app, link, key, Answers(Address)).JsonAsync();
        (
            await app.CreateClient()
                .PostAsync(
                    $"/public/forms/{link}/unfinished-form/mail",
                    Body(
                        new
                        {
                            sendKey = key,
                            email = Address,
                            agrees = true,
                        }
                    )
                )
        ).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        return kept.Text("link");
    }

    private static async Task<EventContext> SomebodyAsync(TestApp app)
    {
        var (client, project, inquiry) = await RunTests.SomebodyAsync(app);
        return new EventContext(client, project, inquiry);
    }

    private static Task PutDayAsync(
        TestApp app,
        EventContext about,
        string field,
        LocalDate day,
        PorchLight.Core.Common.Id<Project>? project,
        LocalDate? was = null
    ) =>
        ConsentTests.PutAsync(
            app.Owner(),
            about,
            field,
            new { kind = "date", date = day },
            project?.Value,
            was is { } old ? new { kind = "date", date = old } : null
        );

    private static async Task PassDaysAsync(TestApp app, int days)
    {
        for (var day = 0; day < days; day++)
            await app.PassTimeAsync(Duration.FromDays(1));
    }

    /// <summary>What runs have sent by mail.</summary>
    private static Task<List<string>> SubjectsAsync(TestApp app) =>
        app.AskAsync(db =>
            db.OutgoingMail.Where(mail => mail.EffectKey.StartsWith("run "))
                .OrderBy(mail => mail.Id)
                .Select(mail => mail.Subject)
                .ToListAsync()
        );
}
