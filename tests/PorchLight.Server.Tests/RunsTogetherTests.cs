using CsCheck;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Core.FollowThrough;
using PorchLight.Server.FollowThrough;
using PorchLight.Server.Records;
using static PorchLight.Server.Tests.RehearsedRunTests;
using static PorchLight.Server.Tests.RunTests;
using Run = PorchLight.Server.FollowThrough.Run;

namespace PorchLight.Server.Tests;

/// <summary>Steps of several runs in one transaction.</summary>
public sealed class RunsTogetherTests
{
    private const int RunsOfEach = 2;

    [Fact]
    public async Task Together_they_end_exactly_as_one_after_the_other()
    {
        await using var app = new TestApp();
        await OthersAreOffAsync(app);
        var cases = new List<FollowThroughContent[]>();
        Gen.Select(RandomContent, Gen.Bool, (content, beside) => Unattended(content) with { SideBySide = beside })
            .Array[2 * RunsOfEach]
            .Sample(cases.Add, iter: 5, threads: 1);
        foreach (var contents in cases)
        {
            var together = await BeginAsync(app, contents);
            var alone = await BeginAsync(app, contents);
            for (var moment = 0; moment < 15; moment++)
            {
                for (var due = await DueAsync(app, together); due.Length > 0; )
                    due = await AdvanceAsync(app, due);
                for (var due = await DueAsync(app, alone); due.Length > 0; )
                    due = await OneAfterTheOtherAsync(app, due);
                if (await NextAsync(app) is not { } next)
                    break;
                app.Time.Advance((next - app.Now).ToTimeSpan());
            }

            (await DiaryAsync(app, together)).ShouldBe(await DiaryAsync(app, alone));
            await app.ChangeAsync(db => db.Runs.ExecuteDeleteAsync());
        }
    }

    [Fact]
    public async Task When_one_fails_nothing_of_the_others_has_happened()
    {
        await using var app = new TestApp { Time = new(TestClock.Written) };
        await OthersAreOffAsync(app);
        var runs = new List<Id<Run>>();
        foreach (StepAction action in new StepAction[] { new MakeTask("Measure", 0, null), new MoveStage("no-such-stage") })
        {
            var (client, project, inquiry) = await SomebodyAsync(app);
            runs.Add(await StartAsync(app, Content(Step("first", action)), new EventContext(client, project, inquiry)));
        }

        await Should.ThrowAsync<StepFailedException>(() => AdvanceAsync(app, runs));
        (await app.AskAsync(db => db.ClientTasks.CountAsync())).ShouldBe(0);
        (await app.AskAsync(db => db.Runs.CountAsync(run => run.NextMoment <= app.Now))).ShouldBe(2, "both are due as before");
        await app.WorkAsync();
        (await app.AskAsync(db => db.ClientTasks.CountAsync())).ShouldBe(1);
        (await app.AskAsync(db => db.Runs.OrderBy(run => run.Id).Select(run => run.Tries).ToListAsync())).ShouldBe([0, 1]);
    }

    private static FollowThroughContent Unattended(FollowThroughContent content) =>
        content with
        {
            Steps = [.. content.Steps.Select(step => step with { NeedsNod = false })],
        };

    /// <summary>Two people, each with runs that may get into each other's way.</summary>
    private static async Task<List<Id<Run>>> BeginAsync(TestApp app, FollowThroughContent[] contents)
    {
        var runs = new List<Id<Run>>();
        foreach (var ofOne in contents.Chunk(RunsOfEach))
        {
            var (client, project, inquiry) = await SomebodyAsync(app);
            foreach (var content in ofOne)
                runs.Add(await StartAsync(app, content, new EventContext(client, project, inquiry)));
        }

        return runs;
    }

    private static Task<Id<Run>[]> AdvanceAsync(TestApp app, IReadOnlyList<Id<Run>> runs) =>
        InAsync(app, (_, services) => services.GetRequiredService<RunWork>().AdvanceAsync(runs, CancellationToken.None));

    private static async Task<Id<Run>[]> OneAfterTheOtherAsync(TestApp app, Id<Run>[] runs)
    {
        var stillDue = new List<Id<Run>>();
        foreach (var run in runs)
            stillDue.AddRange(await AdvanceAsync(app, [run]));
        return [.. stillDue];
    }

    private static Task<Id<Run>[]> DueAsync(TestApp app, List<Id<Run>> among) =>
        app.AskAsync(db =>
            db.Runs.Where(run => among.Contains(run.Id) && run.NextMoment <= app.Now)
                .OrderBy(run => run.Id)
                .Select(run => run.Id)
                .ToArrayAsync()
        );

    private static Task<Instant?> NextAsync(TestApp app) => app.AskAsync(db => db.Runs.MinAsync(run => run.NextMoment));

    /// <summary>How each run stands, what its person was sent, and what is told of them.</summary>
    private static Task<List<string>> DiaryAsync(TestApp app, List<Id<Run>> runs) =>
        app.AskAsync(async db =>
        {
            var lines = new List<string>();
            foreach (var run in await db.Runs.Where(run => runs.Contains(run.Id)).OrderBy(run => run.Id).ToListAsync())
            {
                lines.Add($"{run.State.Status} {run.State.StoppedBy} {run.NextMoment} {string.Join(' ', run.State.Steps.Select(Plain))}");
                var mail = await db.OutgoingMail.Where(mail => mail.ClientId == run.ClientId).OrderBy(mail => mail.Id).ToListAsync();
                lines.AddRange(mail.Select(one => $"{one.Subject} {one.Written}"));
                lines.Add($"{await db.ClientTasks.CountAsync(task => task.ClientId == run.ClientId)} tasks");
                var told = await db.Events.Where(one => one.RunId == run.Id).OrderBy(one => one.Seq).ToListAsync();
                lines.AddRange(told.Select(one => $"{one.What} {one.At}"));
            }

            return lines;
        });
}
