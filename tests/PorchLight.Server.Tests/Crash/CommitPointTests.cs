using System.Net;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Time.Testing;
using PorchLight.Core.Messages;
using PorchLight.Server.Brand;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;
using PorchLight.Server.Work;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests.Crash;

/// <summary>The program dies once at either side of every commit of a story, and people go on with it as people do.</summary>
public sealed class CommitPointTests : IDisposable
{
    private static readonly Guid First = new("019abc00-0000-7000-8000-000000000001");
    private static readonly Guid Second = new("019abc00-0000-7000-8000-000000000002");

    /// <summary>What happens, hours after the start. Whoever got no answer does the same again.</summary>
    private static readonly (int Hour, Func<TestApp, Task> Do)[] Story =
    [
        (0, app => ShouldEndAsync(app.SendAsync(Answers(), First), HttpStatusCode.OK)),
        (0, app => app.WorkAsync()),
        (1, AskForACallAsync),
        (24, app => app.WorkAsync()),
        (25, app => FillTheGapAsync(app, "I know that wall.")),
        // Whoever sends a second time what has gone already is told so.
        (26, app => SendTheNodAsync(app, HttpStatusCode.OK, HttpStatusCode.Conflict, HttpStatusCode.NotFound)),
        (26, app => app.WorkAsync()),
        (27, app => ShouldEndAsync(app.SendAsync(Answers(budget: "1500-4000"), Second), HttpStatusCode.OK)),
        (27, app => app.WorkAsync()),
    ];

    private readonly string _folder = Directory.CreateTempSubdirectory("porch-light-commit-points-").FullName;

    [Fact]
    public async Task Wherever_it_dies_going_on_leads_to_the_same_end_and_nothing_happens_twice()
    {
        var points = new CommitPoints(_folder);
        var began = new List<int>();
        Dictionary<string, long> undisturbed;
        await using (var app = Watched(points))
        {
            await OpenAsync(app, points);
            for (var act = 0; act < Story.Length; act++)
            {
                await ActAsync(app, act);
                began.AddRange(Enumerable.Repeat(act, points.Taken.Count - began.Count));
            }

            points.Watched = null;
            undisturbed = await app.AskAsync(CountsAsync);
        }

        points.Taken.Count.ShouldBeGreaterThan(2 * Story.Length, "the story writes with nearly every act");
        undisturbed["Inquiries"].ShouldBe(2);
        undisturbed["PracticeMail"].ShouldBe(2);
        foreach (var (copy, act) in points.Taken.Zip(began))
        {
            var because = $"it died at commit point {Path.GetFileName(copy)}, in act {act}";
            await using var app = Revived(copy, Story[act].Hour);
            await app.Services.GetRequiredService<DueWork>().LookAfterStartAsync(CancellationToken.None);
            for (var next = act; next < Story.Length; next++)
                await ActAsync(app, next);
            await app.AskAsync(async db =>
            {
                (await CountsAsync(db)).ShouldBe(undisturbed, ignoreOrder: true, because);
                await DataConsistency.ShouldBeSoundAsync(db, because);
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
        await using (var app = Watched(points))
        {
            await OpenAsync(app, points);
            points.Watched = null;
            await app.ChangeAsync(async db =>
            {
                (await db.BusinessAsync()).Smtp = new SmtpSettings("127.0.0.1", server.Port, MailSecurity.None, null, null);
            });
            (await app.SendAsync(Answers(), First)).EnsureSuccessStatusCode();
            await app.AskAsync(db => new ClientSearch(db, new AlikeClients(db)).CatchUpAsync(CancellationToken.None));
            points.Watched = app.Folder;
            await app.WorkAsync();
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
            await using var app = Revived(copy, 0);
            await app.Services.GetRequiredService<DueWork>().LookAfterStartAsync(CancellationToken.None);
            await app.WorkAsync();
            ends.Add((await app.AskAsync(db => db.OutgoingMail.SingleAsync())).State);
            (already + server.Taken.Count - before).ShouldBeLessThanOrEqualTo(1, $"a second mail after {Path.GetFileName(copy)}");
        }

        ends.ShouldBe([MailState.HandedOver, MailState.PerhapsSent, MailState.PerhapsSent, MailState.HandedOver]);
    }

    public void Dispose() => Directory.Delete(_folder, recursive: true);

    internal static TestApp Watched(CommitPoints points, params (string Name, string Value)[] settings) =>
        new()
        {
            Durable = true,
            Time = new(TestClock.Written),
            Change = services => services.ConfigureDbContext<PorchDb>(options => options.AddInterceptors(points)),
            Settings = settings.ToDictionary(setting => setting.Name, setting => setting.Value),
        };

    internal static TestApp Revived(string copy, int hour, params (string Name, string Value)[] settings) =>
        new()
        {
            Folder = copy,
            Time = TimeAt(hour),
            Settings = settings.ToDictionary(setting => setting.Name, setting => setting.Value),
        };

    private static FakeTimeProvider TimeAt(int hour)
    {
        var time = new FakeTimeProvider(TestClock.Written);
        time.Advance(TimeSpan.FromHours(hour));
        return time;
    }

    /// <summary>Does what the worker does at each start, and copies from here on.</summary>
    private static async Task OpenAsync(TestApp app, CommitPoints points)
    {
        _ = app.Server;
        await app.Services.GetRequiredService<DueWork>().LookAfterStartAsync(CancellationToken.None);
        await app.WorkAsync();
        points.Watched = app.Folder;
    }

    private static async Task ActAsync(TestApp app, int act)
    {
        var (hour, doIt) = Story[act];
        app.Time.SetUtcNow(TestClock.Written.AddHours(hour));
        await doIt(app);
    }

    private static async Task AskForACallAsync(TestApp app)
    {
        var receipt = (await app.SendAsync(Answers(), First).JsonAsync()).Text("receipt");
        await ShouldEndAsync(app.CreateClient().PostAsync($"/public/receipts/{receipt}/call", null), HttpStatusCode.NoContent);
    }

    private static async Task FillTheGapAsync(TestApp app, string words)
    {
        var (path, draft) = await WaitingAsync(app);
        var now = draft with { Parts = [.. draft.Parts.Select(part => part is GapPart gap ? gap with { Filled = words } : part)] };
        await ShouldEndAsync(app.Owner().PutAsync(path, Body(new { was = draft, now })), HttpStatusCode.OK);
    }

    private static async Task SendTheNodAsync(TestApp app, params HttpStatusCode[] ends)
    {
        var (path, draft) = await WaitingAsync(app);
        await ShouldEndAsync(app.Owner().PostAsync(path + "/send", Body(new { seen = draft, now = true })), ends);
    }

    private static async Task<(string Path, MessageDraft Draft)> WaitingAsync(TestApp app)
    {
        var run = (await app.AskAsync(db => db.Runs.ToListAsync())).MinBy(run => run.Id.Value)!;
        return ($"/api/nods/{run.Id}/first", run.Drafts.ByStep["first"]);
    }

    private static async Task ShouldEndAsync(Task<HttpResponseMessage> request, params HttpStatusCode[] ends)
    {
        var response = await request;
        ends.ShouldContain(response.StatusCode, await response.Content.ReadAsStringAsync());
    }

    internal static async Task<Dictionary<string, long>> CountsAsync(PorchDb db)
    {
        var counts = new Dictionary<string, long>();
        foreach (var table in db.Model.GetEntityTypes().Select(entity => entity.GetTableName()!).Distinct())
            counts[table] = await db.Database.SqlQueryRaw<long>($"SELECT count(*) AS \"Value\" FROM \"{table}\"").SingleAsync();
        return counts;
    }
}
