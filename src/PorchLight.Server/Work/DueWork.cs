using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Server.Calendar;
using PorchLight.Server.Clients;
using PorchLight.Server.FollowThrough;
using PorchLight.Server.Hosting;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Messages;
using PorchLight.Server.Storage;
using PorchLight.Server.Webhooks;

namespace PorchLight.Server.Work;

/// <summary>
/// Carries out what has fallen due: steps of runs, outgoing mail, calls to webhooks and keeping the program in order, in many small
/// transactions.
/// </summary>
internal sealed class DueWork(
    IServiceScopeFactory scopes,
    BusinessClock clock,
    TimeProvider time,
    DataFolder folder,
    ILogger<DueWork> logger
)
{
    private static readonly Duration BetweenSweeps = Duration.FromHours(1);
    private const int BatchesOfWords = 40;
    private const int StepsAtATime = 50;

    // Whoever wants to write meanwhile waits for as many steps.
    private const int RunsTogether = 5;
    private static readonly Duration BetweenNotes = Duration.FromMinutes(1);
    private Instant? _swept;
    private Instant _noted = Instant.MinValue;

    /// <summary>When the last pass ended, in real time; before the first, when the program opened.</summary>
    public Instant LastPass { get; private set; } = time.Now();

    /// <summary>
    /// Puts in order what a crash, or a while in which the program did not run, left behind. To be called once, before the first pass.
    /// </summary>
    public Task LookAfterStartAsync(CancellationToken cancellationToken) =>
        InScopeAsync(async services =>
        {
            await services.GetRequiredService<MailQueue>().LookAfterCrashAsync(cancellationToken);
            if (time.Now() - folder.LastInUse is { } gap && gap > 2 * BetweenNotes)
                await services.GetRequiredService<RunWork>().StoodStillAsync(gap, cancellationToken);
            NoteInUse();
            return true;
        });

    private void NoteInUse()
    {
        _noted = time.Now();
        folder.NoteInUse(_noted);
    }

    /// <summary>
    /// Works through what is due and says how long until something else will be; null when nothing is planned, or when
    /// something failed and deserves a rest before the next try. Others go on.
    /// </summary>
    public async Task<Duration?> PassAsync(CancellationToken cancellationToken)
    {
        // Before the first run there is no business, and nothing to do for it.
        if (!await InScopeAsync(services => services.GetRequiredService<PorchDb>().Businesses.AnyAsync(cancellationToken)))
        {
            LastPass = time.Now();
            return null;
        }

        var allWell = await TryAsync(
            "housekeeping",
            "lights",
            services => services.GetRequiredService<Housekeeping>().TellOpenAgainAsync(cancellationToken)
        );
        allWell &= await TryAsync(
            "housekeeping",
            "forms left half-finished",
            services => services.GetRequiredService<TimedStarts>().AfterLeavingAsync(cancellationToken)
        );
        allWell &= await TryAsync(
            "housekeeping",
            "days",
            services => services.GetRequiredService<TimedStarts>().OnDaysAsync(cancellationToken)
        );
        allWell &= await TryAsync(
            "housekeeping",
            "what was parked",
            services => services.GetRequiredService<Housekeeping>().BringBackParkedAsync(cancellationToken)
        );
        if (_swept is not { } swept || time.Now() - swept >= BetweenSweeps)
        {
            _swept = time.Now();
            allWell &= await TryAsync(
                "housekeeping",
                "sweep",
                services => services.GetRequiredService<Housekeeping>().SweepAsync(cancellationToken)
            );
        }

        // Words to search by: as much as one pass may take, so that steps and mail do not wait behind a long list.
        var mayBeMore = true;
        for (var batch = 0; mayBeMore && batch < BatchesOfWords; batch++)
        {
            allWell &= await TryAsync(
                "search",
                "words",
                async services => mayBeMore = await services.GetRequiredService<ClientSearch>().CatchUpAsync(cancellationToken)
            );
        }

        // The commit of a batch wakes the next pass, so that a long file does not keep steps and mail waiting.
        allWell &= await TryAsync(
            "import",
            "clients",
            services => services.GetRequiredService<ClientImporter>().WorkAsync(cancellationToken)
        );
        foreach (var runs in (await InScopeAsync(DueRunsAsync)).Chunk(RunsTogether))
            allWell &= await WorkOnAsync(runs, cancellationToken);
        allWell &= await TryAsync(
            "notifications",
            "inquiries",
            services => services.GetRequiredService<Notifications>().TellDueAsync(clock.GetCurrentInstant(), cancellationToken)
        );
        var lineWorks = true;
        foreach (var mail in await InScopeAsync(services => services.GetRequiredService<MailQueue>().DueAsync(cancellationToken)))
        {
            allWell &= await TryAsync(
                "mail",
                mail,
                async services => lineWorks = await services.GetRequiredService<MailQueue>().HandOverAsync(mail, cancellationToken)
            );
            // One message that waits in vain for a server is enough; steps of runs shall not wait behind the others.
            if (!lineWorks)
                break;
        }

        // A host that does not answer is waited for once: its other calls come with a later pass.
        var silent = new HashSet<Id<Webhook>>();
        foreach (var call in await InScopeAsync(services => services.GetRequiredService<WebhookQueue>().DueAsync(cancellationToken)))
        {
            if (silent.Contains(call.Webhook))
                continue;
            allWell &= await TryAsync(
                "webhook",
                call.Id,
                async services =>
                {
                    if (!await services.GetRequiredService<WebhookQueue>().DeliverAsync(call.Id, cancellationToken))
                        silent.Add(call.Webhook);
                }
            );
            LastPass = time.Now();
        }

        LastPass = time.Now();
        if (LastPass - _noted >= BetweenNotes)
            NoteInUse();
        return allWell ? await InScopeAsync(NextAsync) : null;

        async Task<IReadOnlyList<Id<Run>>> DueRunsAsync(IServiceProvider services)
        {
            var now = clock.GetCurrentInstant();
            return await services
                .GetRequiredService<PorchDb>()
                .Runs.Where(run => run.NextMoment <= now)
                .OrderBy(run => run.NextMoment)
                .Select(run => run.Id)
                .Take(200)
                .ToListAsync(cancellationToken);
        }

        async Task<Duration?> NextAsync(IServiceProvider services)
        {
            var step =
                await services.GetRequiredService<PorchDb>().Runs.MinAsync(run => run.NextMoment, cancellationToken)
                - clock.GetCurrentInstant();
            var mail = await services.GetRequiredService<MailQueue>().NextTryAsync(cancellationToken) is { } next
                ? Duration.Max(Duration.Zero, next - time.Now())
                : (Duration?)null;
            var webhook = await services.GetRequiredService<WebhookQueue>().NextTryAsync(cancellationToken) is { } call
                ? Duration.Max(Duration.Zero, call - time.Now())
                : (Duration?)null;
            var telling = await services.GetRequiredService<Notifications>().NextAsync(cancellationToken) - clock.GetCurrentInstant();
            return new[] { step, mail, webhook, telling }.Min();
        }
    }

    /// <summary>
    /// Carries out what of some runs is due, a step of each in one transaction. When that fails each goes alone: what fails again is put
    /// off, and the others go on.
    /// </summary>
    private async Task<bool> WorkOnAsync(Id<Run>[] runs, CancellationToken cancellationToken)
    {
        for (var steps = 0; runs.Length > 0 && steps < StepsAtATime; steps++)
        {
            Exception? failed = null;
            if (
                await TryAsync(
                    "run",
                    string.Join(", ", runs),
                    async services => runs = await services.GetRequiredService<RunWork>().AdvanceAsync(runs, cancellationToken),
                    failure => failed = failure
                )
            )
                continue;
            if (runs is [var alone])
                return await TryAsync(
                    "run",
                    alone,
                    services => services.GetRequiredService<RunWork>().PutOffAsync(alone, failed!, cancellationToken)
                );
            var allWell = true;
            foreach (var run in runs)
                allWell &= await WorkOnAsync([run], cancellationToken);
            return allWell;
        }

        return true;
    }

    private async Task<bool> TryAsync(string what, object id, Func<IServiceProvider, Task> work, Action<Exception>? look = null)
    {
        try
        {
            await using var scope = scopes.CreateAsyncScope();
            await work(scope.ServiceProvider);
            return true;
        }
        catch (Exception failure) when (failure is not OperationCanceledException)
        {
            // What a person can put right is no failure of the program.
            logger.Log(
                failure is StepFailedException ? LogLevel.Warning : LogLevel.Error,
                failure,
                "Due {What} {Id} failed and will be tried again",
                what,
                id
            );
            look?.Invoke(failure);
            return false;
        }
    }

    private async Task<T> InScopeAsync<T>(Func<IServiceProvider, Task<T>> ask)
    {
        await using var scope = scopes.CreateAsyncScope();
        return await ask(scope.ServiceProvider);
    }
}

/// <summary>Keeps the work going: after every commit, when something falls due, and at least twice a minute.</summary>
internal sealed class WorkLoop(DueWork work, ChangeNotifier notifier, TimeProvider time, ILogger<WorkLoop> logger) : BackgroundService
{
    private static readonly TimeSpan Longest = TimeSpan.FromSeconds(30);
    private static readonly TimeSpan Shortest = TimeSpan.FromMilliseconds(200);

    // The worker is woken by the commit and would share processor and write lock with the answer that somebody waits for.
    private static readonly TimeSpan AnswersFirst = TimeSpan.FromMilliseconds(25);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        await work.LookAfterStartAsync(stoppingToken);
        while (!stoppingToken.IsCancellationRequested)
        {
            var pause = Longest;
            try
            {
                if (await work.PassAsync(stoppingToken) is { } next)
                    pause = TimeSpan.FromMilliseconds(
                        Math.Clamp(next.TotalMilliseconds, Shortest.TotalMilliseconds, Longest.TotalMilliseconds)
                    );
            }
            catch (Exception failure) when (failure is not OperationCanceledException)
            {
                logger.LogError(failure, "A pass of the due work failed");
            }

            await notifier.WaitAsync(pause, time, stoppingToken);
            await Task.Delay(AnswersFirst, time, stoppingToken);
        }
    }
}
