using System.Net;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Time.Testing;
using PorchLight.Core.Messages;
using PorchLight.Server.Data;
using PorchLight.Server.Messages;
using PorchLight.Server.Work;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests.Crash;

/// <summary>The house dies once at either side of every commit of a story, and people go on with it as people do.</summary>
public sealed class CommitPointTests : IDisposable
{
    private static readonly Guid First = new("019abc00-0000-7000-8000-000000000001");
    private static readonly Guid Second = new("019abc00-0000-7000-8000-000000000002");

    /// <summary>What happens, hours after the start. Whoever got no answer does the same again.</summary>
    private static readonly (int Hour, Func<TestHouse, Task> Do)[] Story =
    [
        (0, house => ShouldEndAsync(house.SendAsync(Answers(), First), HttpStatusCode.OK)),
        (0, house => house.WorkAsync()),
        (1, AskForACallAsync),
        (24, house => house.WorkAsync()),
        (25, house => FillTheGapAsync(house, "I know that wall.")),
        // Whoever sends a second time what has gone already is told so.
        (26, house => SendTheNodAsync(house, HttpStatusCode.OK, HttpStatusCode.Conflict, HttpStatusCode.NotFound)),
        (26, house => house.WorkAsync()),
        (27, house => ShouldEndAsync(house.SendAsync(Answers(budget: "1500-4000"), Second), HttpStatusCode.OK)),
        (27, house => house.WorkAsync()),
    ];

    private readonly string _folder = Directory.CreateTempSubdirectory("porch-light-commit-points-").FullName;

    [Fact]
    public async Task Wherever_it_dies_going_on_leads_to_the_same_end_and_nothing_happens_twice()
    {
        var points = new CommitPoints(_folder);
        var began = new List<int>();
        Dictionary<string, long> undisturbed;
        await using (var house = Watched(points))
        {
            await OpenAsync(house, points);
            for (var act = 0; act < Story.Length; act++)
            {
                await ActAsync(house, act);
                began.AddRange(Enumerable.Repeat(act, points.Taken.Count - began.Count));
            }

            points.Watched = null;
            undisturbed = await house.AskAsync(CountsAsync);
        }

        points.Taken.Count.ShouldBeGreaterThan(2 * Story.Length, "the story writes with nearly every act");
        undisturbed["Inquiries"].ShouldBe(2);
        undisturbed["PracticeMail"].ShouldBe(2);
        foreach (var (copy, act) in points.Taken.Zip(began))
        {
            var because = $"it died at commit point {Path.GetFileName(copy)}, in act {act}";
            await using var house = Revived(copy, Story[act].Hour);
            await house.Services.GetRequiredService<DueWork>().LookAfterCrashAsync(CancellationToken.None);
            for (var next = act; next < Story.Length; next++)
                await ActAsync(house, next);
            await house.AskAsync(async db =>
            {
                (await CountsAsync(db)).ShouldBe(undisturbed, ignoreOrder: true, because);
                await SoundHouse.ShouldBeSoundAsync(db, because);
                return 0;
            });
        }
    }

    [Fact]
    public async Task A_message_to_a_mail_server_goes_out_once_or_waits_for_a_person_to_look()
    {
        await using var server = new SmtpHost();
        var points = new CommitPoints(_folder);
        var gone = new List<int>();
        await using (var house = Watched(points))
        {
            await OpenAsync(house, points);
            points.Watched = null;
            await house.AskAsync(async db =>
            {
                (await db.BusinessAsync()).Smtp = new SmtpSettings("127.0.0.1", server.Port, SmtpSecurity.None, null, null);
                return await db.SaveChangesAsync();
            });
            (await house.SendAsync(Answers(), First)).EnsureSuccessStatusCode();
            points.Watched = house.Folder;
            await house.WorkAsync();
            points.Watched = null;
            // Before the claim and at both sides of its commit nothing is on the line; from "how it ended" on it has gone.
            gone.AddRange(points.Taken.Select((_, index) => index < 2 ? 0 : 1));
        }

        points.Taken.Count.ShouldBe(4, "the claim and how it ended, each with two sides");
        server.Taken.Count.ShouldBe(1);
        var ends = new List<MailState>();
        foreach (var (copy, already) in points.Taken.Zip(gone))
        {
            var before = server.Taken.Count;
            await using var house = Revived(copy, 0);
            await house.Services.GetRequiredService<DueWork>().LookAfterCrashAsync(CancellationToken.None);
            await house.WorkAsync();
            ends.Add((await house.AskAsync(db => db.OutgoingMail.SingleAsync())).State);
            (already + server.Taken.Count - before).ShouldBeLessThanOrEqualTo(1, $"a second mail after {Path.GetFileName(copy)}");
        }

        ends.ShouldBe([MailState.HandedOver, MailState.PerhapsSent, MailState.PerhapsSent, MailState.HandedOver]);
    }

    public void Dispose() => Directory.Delete(_folder, recursive: true);

    private static TestHouse Watched(CommitPoints points) => new()
    {
        Durable = true,
        Change = services => services.ConfigureDbContext<PorchDb>(options => options.AddInterceptors(points)),
    };

    private static TestHouse Revived(string copy, int hour) => new() { Folder = copy, Time = TimeAt(hour) };

    private static FakeTimeProvider TimeAt(int hour)
    {
        var time = new FakeTimeProvider(TestHouse.Usual);
        time.Advance(TimeSpan.FromHours(hour));
        return time;
    }

    /// <summary>Does what the worker does at each start, and copies from here on.</summary>
    private static async Task OpenAsync(TestHouse house, CommitPoints points)
    {
        _ = house.Server;
        await house.Services.GetRequiredService<DueWork>().LookAfterCrashAsync(CancellationToken.None);
        await house.WorkAsync();
        points.Watched = house.Folder;
    }

    private static async Task ActAsync(TestHouse house, int act)
    {
        var (hour, doIt) = Story[act];
        house.Time.SetUtcNow(TestHouse.Usual.AddHours(hour));
        await doIt(house);
    }

    private static async Task AskForACallAsync(TestHouse house)
    {
        var receipt = (await house.SendAsync(Answers(), First).JsonAsync()).Text("receipt");
        await ShouldEndAsync(house.CreateClient().PostAsync($"/public/receipts/{receipt}/call", null), HttpStatusCode.NoContent);
    }

    private static async Task FillTheGapAsync(TestHouse house, string words)
    {
        var (path, draft) = await WaitingAsync(house);
        var now = draft with { Parts = [.. draft.Parts.Select(part => part is GapPart gap ? gap with { Filled = words } : part)] };
        await ShouldEndAsync(house.Owner().PutAsync(path, Body(new { was = draft, now })), HttpStatusCode.OK);
    }

    private static async Task SendTheNodAsync(TestHouse house, params HttpStatusCode[] ends)
    {
        var (path, draft) = await WaitingAsync(house);
        await ShouldEndAsync(house.Owner().PostAsync(path + "/send", Body(new { seen = draft, now = true })), ends);
    }

    private static async Task<(string Path, MessageDraft Draft)> WaitingAsync(TestHouse house)
    {
        var run = (await house.AskAsync(db => db.Runs.ToListAsync())).MinBy(run => run.Id.Value)!;
        return ($"/api/nods/{run.Id}/first", run.Drafts.ByStep["first"]);
    }

    private static async Task ShouldEndAsync(Task<HttpResponseMessage> request, params HttpStatusCode[] ends)
    {
        var response = await request;
        ends.ShouldContain(response.StatusCode, await response.Content.ReadAsStringAsync());
    }

    private static async Task<Dictionary<string, long>> CountsAsync(PorchDb db)
    {
        var counts = new Dictionary<string, long>();
        foreach (var table in db.Model.GetEntityTypes().Select(entity => entity.GetTableName()!).Distinct())
            counts[table] = await db.Database.SqlQueryRaw<long>($"SELECT count(*) AS \"Value\" FROM \"{table}\"").SingleAsync();
        return counts;
    }
}
