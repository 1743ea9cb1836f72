using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using PorchLight.Core.Conditions;
using PorchLight.Core.Forms;
using PorchLight.Core.Inquiries;
using PorchLight.Core.Messages;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Tests.Crash;

public sealed class CrashTests : IDisposable
{
    private readonly string _folder = Directory.CreateTempSubdirectory("porch-light-crash-test-").FullName;
    private readonly int _kills = Given("PORCH_LIGHT_KILLS") ?? 2;
    private readonly int _seed = Given("PORCH_LIGHT_SEED") ?? Random.Shared.Next();

    [Fact]
    public async Task Killed_while_it_starts_for_the_first_time_it_comes_up_the_next_time()
    {
        var random = new Random(_seed);
        await using var app = new AppProcess(_folder);
        for (var n = 0; n < Math.Max(2, _kills / 2); n++)
            await app.DieWhileStartingAsync(random.Next(200, 1500));
        await app.StartAsync();
        (await app.MailHealthAsync()).ShouldNotBeNullOrEmpty(
            $"./crash --kills {_kills} --seed {_seed} does the same again; the program said: {app.Said()}"
        );
    }

    [Fact]
    public async Task However_often_the_program_is_killed_nothing_acknowledged_is_lost_and_nothing_happens_twice()
    {
        var random = new Random(_seed);
        await using var app = new AppProcess(_folder);
        var people = new SimulatedPeople(app, new Uri(app.Address, await FormPathAsync()), random);
        using var cancellation = new CancellationTokenSource();
        var acts = Enumerable
            .Range(0, 3)
            .Select(who => people.LeadsAsync(who, cancellation.Token))
            .Append(people.OwnerAsync(cancellation.Token))
            .ToList();
        for (var n = 0; n < _kills; n++)
        {
            await app.StartAsync();
            // Mostly in the middle of things, now and then before anybody has been answered.
            if (n % 5 != 0)
                await SomebodyWasAnsweredAsync(() => n % 2 == 0 ? people.Acknowledged.Count : people.Nodded.Count, acts);
            int moment;
            lock (random)
                moment = random.Next(600);
            await Task.Delay(moment);
            await app.KillAsync();
        }

        await app.StartAsync();
        await cancellation.CancelAsync();
        foreach (var act in acts)
            await act.ContinueWith(done => done.IsFaulted ? throw done.Exception!.InnerException! : 0, TaskScheduler.Default);
        while (await app.MailHealthAsync() != "ready")
            await Task.Delay(50);
        await app.KillAsync();

        await using var after = new TestApp { Folder = _folder };
        var because = $"./crash --kills {_kills} --seed {_seed} does the same again; the program said: {app.Said()}";
        people.Surprises.ShouldBeEmpty(because);
        people.Acknowledged.Count.ShouldBeGreaterThan(_kills, because);
        people.Nodded.Count.ShouldBeGreaterThan(_kills / 8, because);
        await after.AskAsync(async db =>
        {
            await EveryAcknowledgedSendingIsThereOnceAsync(db, after, people, because);
            await DataConsistency.ShouldBeSoundAsync(db, because);
            var effects = (await db.OutgoingMail.ToListAsync()).ToLookup(mail => mail.EffectKey);
            effects.ShouldAllBe(mails => mails.Single().State == MailState.HandedOver, because);
            foreach (var (run, step) in people.Nodded)
                effects[$"run {run} step {step}"].ShouldHaveSingleItem(because);
            return 0;
        });
    }

    private static int? Given(string name) =>
        int.TryParse(Environment.GetEnvironmentVariable(name), CultureInfo.InvariantCulture, out var number) ? number : null;

    private static async Task SomebodyWasAnsweredAsync(Func<int> answered, List<Task> acts)
    {
        var (before, began) = (answered(), TestClock.Machine.GetTimestamp());
        while (
            answered() == before
            && TestClock.Machine.GetElapsedTime(began) < TimeSpan.FromSeconds(30)
            && acts.TrueForAll(act => !act.IsCompleted)
        )
            await Task.Delay(5);
    }

    public void Dispose() => Directory.Delete(_folder, recursive: true);

    private static async Task EveryAcknowledgedSendingIsThereOnceAsync(PorchDb db, TestApp app, SimulatedPeople people, string because)
    {
        await using var scope = app.Services.CreateAsyncScope();
        var tokens = scope.ServiceProvider.GetRequiredService<Tokens>();
        var submissions = (await db.Submissions.ToListAsync()).ToLookup(submission => submission.SendKey);
        var inquiries = (await db.Inquiries.ToListAsync()).ToLookup(inquiry => inquiry.SubmissionId);
        var runs = (await db.Runs.ToListAsync()).ToLookup(run => run.InquiryId);
        var clients = (await db.Clients.Select(client => client.Id).ToListAsync()).ToHashSet();
        var projects = (await db.Projects.Select(project => project.Id).ToListAsync()).ToHashSet();
        var received = (await db.Events.ToListAsync()).Where(logged => logged.What is InquiryReceived).ToLookup(logged => logged.InquiryId);
        foreach (var (key, receipt) in people.Acknowledged)
        {
            var submission = submissions[key].ShouldHaveSingleItem(because);
            tokens.Open(submission.ReceiptSealed).ShouldBe(receipt, because);
            var inquiry = inquiries[submission.Id].ShouldHaveSingleItem(because);
            clients.ShouldContain(inquiry.ClientId, because);
            projects.ShouldContain(inquiry.ProjectId, because);
            ((Fit?)inquiry.Verdict.Fit).ShouldBe(inquiry.Fit, because);
            runs[inquiry.Id].ShouldHaveSingleItem(because);
            received[inquiry.Id].ShouldHaveSingleItem(because);
        }

        people.GivenUp.ShouldAllBe(key => submissions[key].Count() <= 1, because);
        submissions.Count.ShouldBeLessThanOrEqualTo(people.Acknowledged.Count + people.GivenUp.Count, because);
        clients.Count.ShouldBe(submissions.Count, because);
    }

    /// <summary>Makes the business while nobody watches, and says where its form takes inquiries.</summary>
    private async Task<string> FormPathAsync()
    {
        await using var app = new TestApp { Folder = _folder };
        // These leads are faster than people.
        await app.ChangeFormAsync(settings => settings with { Guard = new SpamGuard(LeastSeconds: 0) });
        return $"/public/forms/{await app.LinkAsync()}/";
    }
}
