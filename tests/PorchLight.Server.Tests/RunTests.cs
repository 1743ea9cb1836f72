using System.Net;
using CsCheck;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Conditions;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Meetings;
using PorchLight.Core.Messages;
using PorchLight.Core.Records;
using PorchLight.Server.FollowThrough;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;
using static PorchLight.Testing.Requests;
using Run = PorchLight.Server.FollowThrough.Run;

namespace PorchLight.Server.Tests;

/// <summary>What runs do in the program: each step of each kind.</summary>
public sealed class RunTests
{
    internal static readonly Schedule AtOnce = new(Anchor.RunStart, 0, TimeUnit.Minutes, AtOnce: true);
    internal static readonly Schedule Next = new(Anchor.PreviousSettled, 0, TimeUnit.Minutes, AtOnce: true);

    [Fact]
    public async Task Every_kind_of_step_does_what_it_says()
    {
        await using var app = new TestApp { Time = new(TestClock.Written) };
        await OthersAreOffAsync(app);
        var (client, project, inquiry) = await SomebodyAsync(app);
        var sunil = await app.AskAsync(db => db.Users.SingleAsync(user => user.Email == Demo.DemoBusiness.MemberMail));
        await StartAsync(
            app,
            Content(
                Step("task", new MakeTask("Measure the wall of {name}", 2, sunil.Id)),
                Step("stage", new MoveStage("parked", 30)),
                Step("day", new FillField("project.start", null)),
                Step("field", new FillField("project.budget", new TextAnswer("about four thousand"))) with
                {
                    Condition = new AnyCondition([]),
                },
                Step("give", new HandOverProject(sunil.Id)),
                Step("tell", new TellTeam([sunil.Id], "helper@example.com", "A wall for {firstName}", "Have a look."))
            ),
            new EventContext(client, project, inquiry)
        );
        await app.WorkAsync();
        var today = new LocalDate(2026, 11, 23);
        await app.AskAsync(async db =>
        {
            var task = await db.ClientTasks.SingleAsync();
            (task.Title, task.On, task.ForId, task.ProjectId).ShouldBe(
                ("Measure the wall of Tilda Brackenridge", today.PlusDays(2), sunil.Id, project)
            );
            var moved = await db.Projects.SingleAsync();
            (moved.Stage, moved.ParkedUntil, moved.LooksAfterId).ShouldBe(("parked", today.PlusDays(30), sunil.Id));
            var day = await db.FieldValues.SingleAsync(value => value.Field == "project.start");
            (day.Value, day.Origin, day.By).ShouldBe((new DateAnswer(today), ValueOrigin.FollowThrough, "Played"));
            var told = await db.OutgoingMail.OrderBy(mail => mail.To).ToListAsync();
            told.Select(mail => (mail.To, mail.Subject))
                .ShouldBe([("helper@example.com", "A wall for Tilda"), (Demo.DemoBusiness.MemberMail, "A wall for Tilda")]);
            (await db.Runs.SingleAsync()).State.Status.ShouldBe(RunStatus.Finished);
            return 0;
        });
        var said = (await app.Owner().GetAsync($"/api/clients/{client}").JsonAsync()).ToString();
        said.ShouldContain("A follow-through set the stage to Parked, until 23 December 2026.");
        said.ShouldContain("“give” was done automatically.");
    }

    [Fact]
    public async Task A_second_automatic_message_of_a_day_goes_the_next_and_it_says_so()
    {
        await using var app = new TestApp { Time = new(TestClock.Written) };
        await OthersAreOffAsync(app);
        var (client, project, inquiry) = await SomebodyAsync(app);
        await StartAsync(app, Content(Mail("one"), Mail("two", Next)), new EventContext(client, project, inquiry));
        await app.WorkAsync();
        (await SubjectsAsync(app)).ShouldBe(["one"]);
        (await app.Owner().GetAsync($"/api/clients/{client}").JsonAsync())
            .ToString()
            .ShouldContain("“two” waits until another day: Tilda Brackenridge was sent one automatic message today.");
        await app.PassTimeAsync(Duration.FromHours(22));
        (await SubjectsAsync(app)).ShouldBe(["one"], "Tuesday, 08:00");
        await app.PassTimeAsync(Duration.FromHours(1));
        (await SubjectsAsync(app)).ShouldBe(["one", "two"]);
    }

    [Fact]
    public async Task A_step_moves_the_stage_without_ending_its_own_run_and_starts_what_waits_for_that_stage()
    {
        await using var app = new TestApp();
        await OthersAreOffAsync(app);
        var (client, project, inquiry) = await SomebodyAsync(app);
        await app.ChangeAsync(db =>
        {
            db.AddFollowThroughs([
                Content(Mail("welcome")) with
                {
                    Name = "Welcome",
                    Starts = new StageStart(["booked"]),
                    SideBySide = true,
                },
            ]);
            return Task.CompletedTask;
        });
        var run = await StartAsync(
            app,
            Content(Step("stage", new MoveStage("booked")), Mail("later", new Schedule(Anchor.PreviousSettled, 1, TimeUnit.Days))) with
            {
                SideBySide = true,
                Stops = [new StopOn(new StageOccasion([]))],
            },
            new EventContext(client, project, inquiry)
        );
        await app.WorkAsync();
        (await StateAsync(app, run)).Current!.Key.ShouldBe("later");
        (await SubjectsAsync(app)).ShouldBe(["welcome"]);
        await InWriteAsync(
            app,
            (_, services) =>
                services
                    .GetRequiredService<EventLog>()
                    .AppendAsync(new ProjectStageSet("under-way", Guid.NewGuid()), app.Now, new EventContext(client, project))
        );
        (await StateAsync(app, run)).StoppedBy.ShouldBe(RunEnd.StageMoved, "moved by a person it ends");
    }

    [Fact]
    public async Task A_stop_does_its_last_step_and_a_message_whose_stop_came_a_moment_before_is_not_sent()
    {
        await using var app = new TestApp();
        await OthersAreOffAsync(app);
        var (client, project, inquiry) = await SomebodyAsync(app);
        var run = await StartAsync(
            app,
            Content(Mail("due", new Schedule(Anchor.RunStart, 1, TimeUnit.Hours))) with
            {
                Stops = [new StopOn(new BookedOccasion(), Mail("see you", Next))],
            },
            new EventContext(client, project, inquiry)
        );
        app.Time.Advance(TimeSpan.FromHours(1));
        await HappensAsync(app, client, new MeetingBooked());
        await app.WorkAsync();
        (await SubjectsAsync(app)).ShouldBe(["see you"]);
        var state = await StateAsync(app, run);
        (state.Status, state.StoppedBy).ShouldBe((RunStatus.Stopped, RunEnd.Booked));
        state.Steps.Select(step => step.Status).ShouldBe([StepStatus.Cancelled, StepStatus.Done]);
    }

    [Fact]
    public async Task A_step_that_counts_from_a_day_of_the_project_follows_that_day_whenever_it_is_set_or_changed()
    {
        await using var app = new TestApp { Time = new(TestClock.Written) };
        await OthersAreOffAsync(app);
        var (client, project, inquiry) = await SomebodyAsync(app);
        var before = new Schedule(new ProjectDateAnchor("project.start"), -7, TimeUnit.Days);
        var run = await StartAsync(app, Content(Mail("before", before)), new EventContext(client, project, inquiry));
        await app.WorkAsync();
        (await StateAsync(app, run)).Current!.Due.ShouldBeNull("nobody knows the day");
        await SetStartAsync(new LocalDate(2026, 12, 21), null);
        (await StateAsync(app, run)).Current!.Due.ShouldBe(Instant.FromUtc(2026, 12, 14, 9, 0));
        await SetStartAsync(new LocalDate(2026, 12, 8), new LocalDate(2026, 12, 21));
        (await StateAsync(app, run)).Current!.Due.ShouldBe(Instant.FromUtc(2026, 12, 1, 9, 0));
        (await SubjectsAsync(app)).ShouldBeEmpty();
        await SetStartAsync(new LocalDate(2026, 11, 25), new LocalDate(2026, 12, 8));
        (await SubjectsAsync(app)).ShouldBe(["before"], "a week before is past already");

        async Task SetStartAsync(LocalDate day, LocalDate? was)
        {
            (
                await app.Owner()
                    .PutAsync(
                        $"/api/clients/{client}/values/project.start",
                        Body(
                            new
                            {
                                projectId = project.Value,
                                was = was is null ? null : new { kind = "date", date = was },
                                now = new { kind = "date", date = day },
                            }
                        )
                    )
            ).EnsureSuccessStatusCode();
            await app.WorkAsync();
        }
    }

    [Fact]
    public async Task What_fails_is_tried_again_after_growing_pauses_then_waits_with_its_reason_and_others_go_on()
    {
        await using var app = new TestApp { BreaksSomething = true };
        await OthersAreOffAsync(app);
        var about = new List<EventContext>();
        for (var number = 0; number < 4; number++)
        {
            var (client, project, inquiry) = await SomebodyAsync(app);
            about.Add(new EventContext(client, project, inquiry));
        }

        var failing = new List<Id<Run>>();
        foreach (var one in about.Take(3))
            failing.Add(await StartAsync(app, Content(Step("gone", new MoveStage("no-such-stage"))), one));
        await StartAsync(app, Content(Step("task", new MakeTask("Go on", 0, null))), about[3]);
        await app.WorkAsync();
        (await app.AskAsync(db => db.ClientTasks.CountAsync())).ShouldBe(1, "those that fail hold nobody else up");
        var pauses = new List<int>();
        while ((await app.AskAsync(db => db.Runs.SingleAsync(one => one.Id == failing[0]))).NextMoment is { } again)
        {
            pauses.Add((int)(again - app.Now).TotalMinutes);
            await app.PassTimeAsync(again - app.Now);
        }

        pauses.ShouldBe([1, 2, 4, 8, 16, 32, 64]);
        var stuck = await app.AskAsync(db => db.Runs.SingleAsync(one => one.Id == failing[0]));
        (stuck.Active, stuck.Tries, stuck.Failure).ShouldBe(
            (true, 8, "The stage it moves to is not in your list any more. Put it back, or change the step.")
        );
        var owner = app.Owner();
        (await owner.GetAsync($"/api/clients/{about[0].ClientId}").JsonAsync())
            .ToString()
            .ShouldContain("“gone” failed again and again, and needs someone to look.");
        var runs = await owner.GetAsync($"/api/clients/{about[0].ClientId}/runs").JsonAsync();
        runs[0].Text("failure").ShouldContain("not in your list");

        // Somebody skips what cannot be done.
        (await owner.PostAsync($"/api/runs/{failing[0]}/steps/gone/skip", null)).EnsureSuccessStatusCode();
        (await StateAsync(app, failing[0])).Status.ShouldBe(RunStatus.Finished);
        (await owner.PostAsync($"/api/runs/{failing[1]}/try-again", null)).EnsureSuccessStatusCode();
        await app.WorkAsync();
        (await app.AskAsync(db => db.Runs.SingleAsync(one => one.Id == failing[1]))).Tries.ShouldBe(1);
    }

    [Fact]
    public async Task Two_hundred_that_fail_do_not_starve_the_next()
    {
        await using var app = new TestApp { BreaksSomething = true };
        await OthersAreOffAsync(app);
        var (client, project, inquiry) = await SomebodyAsync(app);
        var about = new EventContext(client, project, inquiry);
        var failing = Content(Step("gone", new MoveStage("no-such-stage"))) with { SideBySide = true };
        var first = await StartAsync(app, failing, about);
        await app.ChangeAsync(async db =>
        {
            var one = await db.Runs.AsNoTracking().SingleAsync(run => run.Id == first);
            db.Runs.AddRange(
                Enumerable
                    .Range(0, 199)
                    .Select(_ => new Run
                    {
                        Id = new Id<Run>(Guid.CreateVersion7()),
                        FollowThroughId = one.FollowThroughId,
                        FollowThroughNumber = one.FollowThroughNumber,
                        ClientId = one.ClientId,
                        ProjectId = one.ProjectId,
                        InquiryId = one.InquiryId,
                        State = one.State,
                        Drafts = RunDrafts.None,
                        NextMoment = one.NextMoment,
                        Active = true,
                    })
            );
        });
        await StartAsync(app, Content(Step("task", new MakeTask("Go on", 0, null))) with { SideBySide = true }, about);
        await app.PassTimeAsync(Duration.FromSeconds(1));
        await app.WorkAsync();
        (await app.AskAsync(db => db.ClientTasks.CountAsync())).ShouldBe(1);
        (await app.AskAsync(db => db.Runs.CountAsync(run => run.Tries == 1))).ShouldBe(200, "each was tried once");
    }

    [Fact]
    public async Task A_person_holds_a_run_back_lets_it_go_on_has_a_step_done_now_and_stops_it()
    {
        await using var app = new TestApp();
        await OthersAreOffAsync(app);
        var (client, project, inquiry) = await SomebodyAsync(app);
        var day = new Schedule(Anchor.PreviousSettled, 1, TimeUnit.Days);
        var run = await StartAsync(
            app,
            Content(Mail("one", day), Mail("two", day), Mail("three", day)),
            new EventContext(client, project, inquiry)
        );
        var owner = app.Owner();
        (await owner.PutAsync($"/api/runs/{run}/paused", Body(new { isPaused = true }))).EnsureSuccessStatusCode();
        await app.PassTimeAsync(Duration.FromDays(3));
        (await SubjectsAsync(app)).ShouldBeEmpty();
        (await owner.PutAsync($"/api/runs/{run}/paused", Body(new { isPaused = false }))).EnsureSuccessStatusCode();
        await app.WorkAsync();
        (await SubjectsAsync(app)).ShouldBe(["one"]);
        (await owner.PostAsync($"/api/runs/{run}/steps/one/now", null)).StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await owner.PostAsync($"/api/runs/{run}/steps/two/now", null)).EnsureSuccessStatusCode();
        (await SubjectsAsync(app)).ShouldBe(["one", "two"]);
        (await owner.PostAsync($"/api/runs/{run}/stop", null)).EnsureSuccessStatusCode();
        await app.PassTimeAsync(Duration.FromDays(9));
        (await SubjectsAsync(app)).ShouldBe(["one", "two"]);
        (await owner.PutAsync($"/api/runs/{run}/paused", Body(new { isPaused = true }))).StatusCode.ShouldBe(HttpStatusCode.Conflict);
    }

    internal static Task OthersAreOffAsync(TestApp app) =>
        app.ChangeAsync(async db =>
        {
            foreach (var one in await db.FollowThroughs.ToListAsync())
                one.IsOn = false;
        });

    /// <summary>Somebody new who has sent an inquiry.</summary>
    internal static async Task<(Id<Client> Client, Id<Project> Project, Id<Inquiry> Inquiry)> SomebodyAsync(TestApp app)
    {
        (await app.SendAsync(Answers($"{Guid.NewGuid():N}@pell.example"))).EnsureSuccessStatusCode();
        var inquiry = await app.AskAsync(db => db.Inquiries.OrderByDescending(one => one.Id).FirstAsync());
        return (inquiry.ClientId, inquiry.ProjectId, inquiry.Id);
    }

    internal static async Task<Id<Run>> StartAsync(TestApp app, FollowThroughContent content, EventContext about)
    {
        Id<Run> run = default;
        await InWriteAsync(
            app,
            async (db, services) =>
            {
                var id = new Id<StoredFollowThrough>(Guid.CreateVersion7());
                db.FollowThroughs.Add(
                    new StoredFollowThrough
                    {
                        Id = id,
                        Number = 1,
                        IsOn = false,
                    }
                );
                var version = db.FollowThroughVersions.Add(
                    new FollowThroughVersion
                    {
                        FollowThroughId = id,
                        Number = 1,
                        Content = content,
                    }
                );
                run = (await services.GetRequiredService<RunEngine>().StartAsync(version.Entity, about, app.Now)).Id;
            }
        );
        return run;
    }

    internal static Task HappensAsync(TestApp app, Id<Client> client, DomainEvent what) =>
        InWriteAsync(
            app,
            async (db, services) =>
                await services.GetRequiredService<EventLog>().AppendAsync(what, app.Now, await Promises.AboutAsync(db, client))
        );

    internal static async Task InWriteAsync(TestApp app, Func<PorchDb, IServiceProvider, Task> act)
    {
        await using var scope = app.Services.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<PorchDb>();
        await using var write = await db.WriteAsync(CancellationToken.None);
        await act(db, scope.ServiceProvider);
        await write.SaveAsync(CancellationToken.None);
    }

    internal static async Task<T> InAsync<T>(TestApp app, Func<PorchDb, IServiceProvider, Task<T>> act)
    {
        await using var scope = app.Services.CreateAsyncScope();
        return await act(scope.ServiceProvider.GetRequiredService<PorchDb>(), scope.ServiceProvider);
    }

    internal static async Task<RunState> StateAsync(TestApp app, Id<Run> run) =>
        (await app.AskAsync(db => db.Runs.SingleAsync(one => one.Id == run))).State;

    internal static Task<List<string>> SubjectsAsync(TestApp app) =>
        app.AskAsync(db =>
            db.OutgoingMail.OrderBy(mail => mail.Written).ThenBy(mail => mail.Id).Select(mail => mail.Subject).ToListAsync()
        );

    internal static FollowThroughContent Content(params Step[] steps) =>
        new("Played", new ByHandStart(), steps, [StopOn.Replied, StopOn.Booked]);

    internal static Step Mail(string key, Schedule? when = null) =>
        new(key, key, new SendMessage(new MessageTemplate(key, [new TextPart("text", "A word.")])), when ?? AtOnce, NeedsNod: false);

    internal static Step Step(string key, StepAction action) => new(key, key, action, Next, NeedsNod: false);
}
