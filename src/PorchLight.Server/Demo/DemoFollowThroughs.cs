using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Messages;
using PorchLight.Core.Ready;
using PorchLight.Server.FollowThrough;
using PorchLight.Server.Identity;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Demo;

/// <summary>
/// The follow-throughs of the demo beside those of its forms, with people on them at different days: each run is played from its start
/// to now by the engine that serves real use.
/// </summary>
internal sealed class DemoFollowThroughs(IServiceScopeFactory scopes)
{
    private const int Waiting = 12;
    private const int People = 40;

    private static readonly string[] Lines =
    [
        "The corner by the window would catch the morning light.",
        "I walked past on Sunday and saw how far down the street it can be read.",
        "We painted a wall of that size in May; I put two pictures of it below.",
        "Your neighbours told me how much they like the colour of your door.",
    ];

    /// <summary>By the stage their work stands in: what follows it, how many are on it, and how many days ago each began.</summary>
    private static readonly (string Ready, string[] Stages, int People, int Begins, int Every)[] Played =
    [
        ("call", ["talking"], 7, 2, 1),
        ("proposal", ["offered"], 7, 1, 1),
        ("onboarding", ["booked", "under-way"], 8, 2, 3),
        ("support", ["finished"], 13, 3, 4),
        ("later", ["parked", "lost"], 9, 84, 2),
    ];

    /// <summary>Plays all of it.</summary>
    /// <param name="owner">The owner, who nods.</param>
    /// <param name="now">The real now of the demo.</param>
    public async Task PlayAsync(User owner, Instant now)
    {
        await using (var scope = scopes.CreateAsyncScope())
        {
            var services = scope.ServiceProvider;
            await DemoLibrary.AddAsync(services.GetRequiredService<PorchDb>(), services.GetRequiredService<Tokens>(), owner.Id, now);
        }

        var versions = await AddAsync(now);
        await FailAsync(versions["sign"], now);
        var started = await CountAsync(run => run.Active);
        foreach (var (ready, stages, people, begins, every) in Played)
        {
            var number = 0;
            foreach (var about in await FindAsync(stages, people))
            {
                if (started++ >= People)
                    break;
                var start = now - Duration.FromDays(begins + every * number++) - Duration.FromHours(number % 5);
                await RunAsync(versions[ready], about, start, owner, now, number);
            }
        }

        await DoTasksAsync(owner, now);
    }

    /// <summary>The follow-throughs, in force since a while ago.</summary>
    private async Task<Dictionary<string, FollowThroughVersion>> AddAsync(Instant now)
    {
        await using var scope = scopes.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<PorchDb>();
        await using var write = await db.WriteAsync(CancellationToken.None);
        var stages = (await db.BusinessAsync()).Lists.Stages;
        var board = (await db.Webhooks.FirstAsync()).Id.Value;
        var versions = new Dictionary<string, FollowThroughVersion>();
        foreach (var (ready, _, _, _, _) in Played)
        {
            var content = ReadyFollowThroughs.All.Single(one => one.Key == ready).Make(stages);
            versions[ready] = Add(ready == "onboarding" ? DemoLibrary.Telling(content, board) : content, null);
        }

        // Somebody put away what this one starts.
        var gone = Add(
            ReadyFollowThroughs.All.Single(one => one.Key == "later").Make(stages) with
            {
                Name = "Last year's season greetings",
            },
            now
        );
        versions["sign"] = Add(
            new FollowThroughContent(
                "After the sign is up",
                new ByHandStart(),
                [
                    new Step(
                        "greetings",
                        "Season greetings begin",
                        new StartAnother(gone.FollowThroughId.Value),
                        new Schedule(Anchor.RunStart, 0, TimeUnit.Days),
                        NeedsNod: false
                    ),
                ],
                []
            ),
            null
        );
        await write.SaveAsync(CancellationToken.None);
        return versions;

        FollowThroughVersion Add(FollowThroughContent content, Instant? archived)
        {
            var id = new Id<StoredFollowThrough>(Guid.CreateVersion7());
            db.FollowThroughs.Add(
                new StoredFollowThrough
                {
                    Id = id,
                    Number = 1,
                    IsOn = archived is null && content.Starts is not ByHandStart,
                    Archived = archived,
                }
            );
            return db
                .FollowThroughVersions.Add(
                    new FollowThroughVersion
                    {
                        FollowThroughId = id,
                        Number = 1,
                        Content = content,
                    }
                )
                .Entity;
        }
    }

    /// <summary>Work in one of some stages, of people who can be written to and whom nobody owes a word.</summary>
    private async Task<List<EventContext>> FindAsync(string[] stages, int most)
    {
        await using var scope = scopes.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<PorchDb>();
        var found = await (
            from inquiry in db.CountingInquiries
            join project in db.Projects on inquiry.ProjectId equals project.Id
            join client in db.CountingClients on inquiry.ClientId equals client.Id
            where project.IsLatest && stages.Contains(project.Stage) && client.Email != null && client.MergedIntoId == null
            where
                inquiry.PromiseStopped != null && inquiry.WroteBack == null && !db.Runs.Any(run => run.ClientId == client.Id && run.Active)
            orderby inquiry.Received descending
            select new
            {
                client.Id,
                Project = project.Id,
                Inquiry = inquiry.Id,
            }
        ).ToListAsync();
        return [.. found.DistinctBy(one => one.Id).Take(most).Select(one => new EventContext(one.Id, one.Project, one.Inquiry))];
    }

    /// <summary>One run from its start to now: the owner nods soon after she is asked, but for those that still wait.</summary>
    private async Task RunAsync(FollowThroughVersion version, EventContext about, Instant start, User owner, Instant now, int number)
    {
        Id<Run> id = default;
        await InWriteAsync(
            async (db, engine) =>
            {
                var inForce = (await db.FollowThroughVersions.FindAsync(version.FollowThroughId, version.Number))!;
                id = (await engine.StartAsync(inForce, about, start)).Id;
            }
        );
        for (var goesOn = true; goesOn; )
            await InWriteAsync(
                async (db, engine) =>
                {
                    var run = (await db.Runs.FindAsync(id))!;
                    // Every third of them is left alone; what was asked too long ago has lapsed then.
                    var nod =
                        run.State.Current is { Status: StepStatus.Waiting, Due: { } since } && (number % 3 != 1 || await IsEnoughAsync(db))
                            ? since + Duration.FromMinutes(20)
                            : (Instant?)null;
                    if (nod <= now && !(run.NextMoment < nod))
                    {
                        var step = run.State.Current!.Key;
                        if (run.Drafts.ByStep.GetValueOrDefault(step) is { } draft)
                            run.Drafts = run.Drafts.With(step, Filled(draft, number));
                        await engine.NodAsync(run, step, nod.Value, sendNow: true, owner.Id);
                    }
                    else if (run.NextMoment is { } moment && moment <= now)
                        await engine.AdvanceAsync(run, moment);
                    else
                        goesOn = false;
                }
            );
    }

    /// <summary>What a step gave somebody to do was done the day after, but for the last days.</summary>
    private async Task DoTasksAsync(User owner, Instant now)
    {
        await using var scope = scopes.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<PorchDb>();
        await using var write = await db.WriteAsync(CancellationToken.None);
        var names = Played.Select(one => ReadyFollowThroughs.All.Single(ready => ready.Key == one.Ready).Name).ToList();
        var old = now - Duration.FromDays(3);
        foreach (var task in await db.ClientTasks.Where(task => names.Contains(task.By) && task.At < old).ToListAsync())
            (task.Done, task.DoneBy) = (task.At + Duration.FromDays(1), owner.DisplayName);
        await write.SaveAsync(CancellationToken.None);
    }

    private static async Task<bool> IsEnoughAsync(PorchDb db) =>
        (await db.Runs.Where(run => run.Active).ToListAsync()).Count(run => run.State.Current?.Status == StepStatus.Waiting) > Waiting;

    private static MessageDraft Filled(MessageDraft draft, int number) =>
        draft with
        {
            Parts = [.. draft.Parts.Select(part => part is GapPart gap ? gap with { Filled = Lines[number % Lines.Length] } : part)],
        };

    /// <summary>Somebody whose step cannot be done, tried until it waits for a person.</summary>
    private async Task FailAsync(FollowThroughVersion version, Instant now)
    {
        var about = (await FindAsync(["finished", "under-way", "booked", "lost"], 1)).Single();
        Id<Run> id = default;
        await InWriteAsync(
            async (db, engine) =>
            {
                var inForce = (await db.FollowThroughVersions.FindAsync(version.FollowThroughId, version.Number))!;
                id = (await engine.StartAsync(inForce, about, now - Duration.FromDays(3))).Id;
            }
        );
        for (var tries = 0; tries < Retries.Most; tries++)
        {
            try
            {
                await InWriteAsync(async (db, engine) => await engine.AdvanceAsync((await db.Runs.FindAsync(id))!, now));
                return;
            }
            catch (StepFailedException failure)
            {
                await using var scope = scopes.CreateAsyncScope();
                await scope.ServiceProvider.GetRequiredService<RunWork>().PutOffAsync(id, failure, CancellationToken.None);
            }
        }
    }

    private async Task<int> CountAsync(System.Linq.Expressions.Expression<Func<Run, bool>> which)
    {
        await using var scope = scopes.CreateAsyncScope();
        return await scope.ServiceProvider.GetRequiredService<PorchDb>().Runs.CountAsync(which);
    }

    private async Task InWriteAsync(Func<PorchDb, RunEngine, Task> act)
    {
        await using var scope = scopes.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<PorchDb>();
        await using var write = await db.WriteAsync(CancellationToken.None);
        await act(db, scope.ServiceProvider.GetRequiredService<RunEngine>());
        await write.SaveAsync(CancellationToken.None);
    }
}
