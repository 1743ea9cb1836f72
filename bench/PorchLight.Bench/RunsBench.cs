using System.Diagnostics;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Messages;
using PorchLight.Core.Records;
using PorchLight.Server.FollowThrough;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Bench;

/// <summary>
/// Ten thousand runs, a thousand of them due at once: how fast their steps are carried out, and what somebody waits for meanwhile.
/// </summary>
internal static class RunsBench
{
    private const int All = 10_000;
    private const int Due = 1_000;

    private static readonly FollowThroughContent Content = new(
        "Of the bench",
        new ByHandStart(),
        [Step("first"), Step("second")],
        [StopOn.Replied, StopOn.Booked]
    )
    {
        SideBySide = true,
    };

    /// <summary>Measures; the runs stay.</summary>
    public static async Task MeasureAsync(BenchApp app)
    {
        using var owner = await ListBench.SignInAsync(app);
        var quiet = await LookAsync(owner, () => Task.FromResult(false), 40);
        var runs = await FillAsync(app);
        var bare = await InsertsASecondAsync(app);
        var started = Stopwatch.GetTimestamp();
        await app.ChangeAsync(db =>
            db.Runs.Where(run => runs.Contains(run.Id))
                .ExecuteUpdateAsync(all => all.SetProperty(run => run.NextMoment, app.Now - Duration.FromMinutes(1)))
        );
        var busy = await LookAsync(owner, async () => await DueAsync(app) > 0, int.MaxValue);
        var seconds = Stopwatch.GetElapsedTime(started).TotalSeconds;
        var stepsASecond = Due / seconds;
        Console.WriteLine(
            $"{All:N0} runs, {Due:N0} due at once: {stepsASecond:0} steps a second, {bare:0} bare inserts a second; Today meanwhile "
                + $"{At(busy, 0.5):0} ms at the median, {At(busy, 0.95):0} ms at the 95th percentile of {busy.Count}, "
                + $"before {At(quiet, 0.5):0} and {At(quiet, 0.95):0} ms"
        );
    }

    private static Task<int> DueAsync(BenchApp app) => app.AskAsync(db => db.Runs.CountAsync(run => run.NextMoment <= app.Now));

    private static async Task<List<double>> LookAsync(HttpClient owner, Func<Task<bool>> goesOn, int times)
    {
        var waits = new List<double>();
        while (waits.Count < times && (times < int.MaxValue || await goesOn()))
        {
            var asked = Stopwatch.GetTimestamp();
            using var answer = await owner.GetAsync("/api/today");
            answer.EnsureSuccessStatusCode();
            await answer.Content.ReadAsByteArrayAsync();
            waits.Add(Stopwatch.GetElapsedTime(asked).TotalMilliseconds);
            // As often as five people look who never rest.
            await Task.Delay(50);
        }

        return waits;
    }

    private static async Task<double> InsertsASecondAsync(BenchApp app)
    {
        using var http = new HttpClient { BaseAddress = app.Address };
        var started = Stopwatch.GetTimestamp();
        const int times = 200;
        for (var time = 0; time < times; time++)
            (await http.GetAsync("/bare/insert")).EnsureSuccessStatusCode();
        return times / Stopwatch.GetElapsedTime(started).TotalSeconds;
    }

    /// <summary>The runs that fall due; the others come next year.</summary>
    private static async Task<HashSet<Id<Run>>> FillAsync(BenchApp app)
    {
        var (id, number) = await app.AskAsync(async db =>
        {
            await using var write = await db.WriteAsync(CancellationToken.None);
            db.AddFollowThroughs([Content]);
            await write.SaveAsync(CancellationToken.None);
            var version = (await db.FollowThroughVersions.ToListAsync()).Single(one => one.Content.Name == Content.Name);
            return (version.FollowThroughId, version.Number);
        });
        var due = new HashSet<Id<Run>>();
        for (var batch = 0; batch < All; batch += 1000)
            await app.AskAsync(async db =>
            {
                await using var write = await db.WriteAsync(CancellationToken.None);
                for (var index = batch; index < batch + 1000; index++)
                {
                    var run = Add(db, app.Now, index, id, number);
                    if (index % (All / Due) == 0)
                        due.Add(run);
                }

                await write.SaveAsync(CancellationToken.None);
                return 0;
            });
        return due;
    }

    private static Id<Run> Add(PorchDb db, Instant now, int index, Id<StoredFollowThrough> followThrough, int number)
    {
        var client = db
            .Clients.Add(
                new Client
                {
                    Id = new Id<Client>(Guid.CreateVersion7()),
                    Name = $"Runner {index}",
                    Email = $"runner{index}@bench.example",
                    EmailKey = $"runner{index}@bench.example",
                    Standing = Standing.Lead,
                    Since = now,
                    IsUnindexed = false,
                }
            )
            .Entity;
        var project = db
            .Projects.Add(
                new Project
                {
                    Id = new Id<Project>(Guid.CreateVersion7()),
                    ClientId = client.Id,
                    FormId = null,
                    Title = "A wall",
                    Opened = now,
                    Stage = "talking",
                }
            )
            .Entity;
        new RecordWriter(db).Write(
            client,
            null,
            BuiltInFields.Name.Key,
            new PersonNameAnswer("Runner", $"{index}"),
            null,
            new ValueSource(ValueOrigin.Hand, "Bench", now)
        );
        var run = new Run
        {
            Id = new Id<Run>(Guid.CreateVersion7()),
            FollowThroughId = followThrough,
            FollowThroughNumber = number,
            ClientId = client.Id,
            ProjectId = project.Id,
            InquiryId = null,
            State = new RunState(
                now - Duration.FromDays(1),
                [new StepState("first", StepStatus.Planned, now - Duration.FromHours(1)), new StepState("second", StepStatus.Later)]
            ),
            Drafts = RunDrafts.None,
            NextMoment = now + Duration.FromDays(365),
        };
        db.Runs.Add(run);
        return run.Id;
    }

    private static Step Step(string key) =>
        new(
            key,
            key,
            new SendMessage(new MessageTemplate("A word, {firstName}", [new TextPart("text", "Dear {firstName},\n\na word.\n\n{owner}")])),
            new Schedule(Anchor.PreviousSettled, 1, TimeUnit.Days, AtOnce: true),
            NeedsNod: false
        );

    private static double At(List<double> times, double share) =>
        times.Order().ElementAt(Math.Min(times.Count - 1, (int)(times.Count * share)));
}
