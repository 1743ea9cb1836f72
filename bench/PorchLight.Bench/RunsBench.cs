using System.Diagnostics;
using System.Net.Http.Json;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Messages;
using PorchLight.Core.Records;
using PorchLight.Server.FollowThrough;
using PorchLight.Server.Hosting;
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
        var runs = await FillAsync(app);
        // So many new people have words to be found by, which is no step's work.
        while (await app.AskAsync(db => db.Clients.AnyAsync(client => client.IsUnindexed)))
            await Task.Delay(100);
        var noted = await app.AskAsync(db => db.Clients.Select(client => client.Id).FirstAsync());
        var quiet = await MeanwhileAsync(owner, noted, count => Task.FromResult(count < 40));
        var bare = await InsertsASecondAsync(app);
        var started = Stopwatch.GetTimestamp();
        await app.ChangeAsync(db =>
            db.Runs.Where(run => runs.Contains(run.Id))
                .ExecuteUpdateAsync(all => all.SetProperty(run => run.NextMoment, app.Now - Duration.FromMinutes(1)))
        );
        var busy = await MeanwhileAsync(owner, noted, async _ => await DueAsync(app) > 0);
        var stepsASecond = Due / Stopwatch.GetElapsedTime(started).TotalSeconds;
        Console.WriteLine(
            $"{All:N0} runs, {Due:N0} due at once: {stepsASecond:0} steps a second, {bare:0} bare inserts a second; meanwhile {Say(busy)}; "
                + $"before {Say(quiet)}"
        );
    }

    private static string Say((List<double> Looks, List<double> Notes) waits) => $"Today {Say(waits.Looks)}, a note {Say(waits.Notes)}";

    private static string Say(List<double> waits) =>
        $"{At(waits, 0.5):0} ms at the median and {At(waits, 0.95):0} at the 95th percentile of {waits.Count}";

    private static Task<int> DueAsync(BenchApp app) => app.AskAsync(db => db.Runs.CountAsync(run => run.NextMoment <= app.Now));

    /// <summary>What an owner waits for who looks at Today and writes a note, as often as five people would who never rest.</summary>
    private static async Task<(List<double> Looks, List<double> Notes)> MeanwhileAsync(
        HttpClient owner,
        Id<Client> noted,
        Func<int, Task<bool>> goesOn
    )
    {
        var (looks, notes) = (new List<double>(), new List<double>());
        while (await goesOn(looks.Count))
        {
            looks.Add(await WaitAsync(() => owner.GetAsync("/api/today")));
            if (looks.Count % 4 == 0)
                notes.Add(await WaitAsync(() => NoteAsync(owner, noted)));
            await Task.Delay(50);
        }

        return (looks, notes);
    }

    private static async Task<double> WaitAsync(Func<Task<HttpResponseMessage>> ask)
    {
        var asked = Stopwatch.GetTimestamp();
        using var answer = await ask();
        answer.EnsureSuccessStatusCode();
        await answer.Content.ReadAsByteArrayAsync();
        return Stopwatch.GetElapsedTime(asked).TotalMilliseconds;
    }

    private static async Task<HttpResponseMessage> NoteAsync(HttpClient owner, Id<Client> noted)
    {
        using var note = new HttpRequestMessage(HttpMethod.Post, $"/api/clients/{noted}/notes")
        {
            Content = JsonContent.Create(new ClientEdits.NewNote(null, "Rang, calls back.")),
        };
        note.Headers.Add(SendOnce.Header, Guid.NewGuid().ToString());
        return await owner.SendAsync(note);
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
