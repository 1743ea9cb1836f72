using PorchLight.Server.Hosting;

namespace PorchLight.Server.Work;

/// <summary>
/// Keeps the work of every lane going, each beside the others: after every commit, when something falls due, and at least twice a minute.
/// </summary>
internal sealed class WorkLoop(DueWork work, ChangeNotifier notifier, TimeProvider time, ILogger<WorkLoop> logger) : BackgroundService
{
    private static readonly TimeSpan Longest = TimeSpan.FromSeconds(30);
    private static readonly TimeSpan Shortest = TimeSpan.FromMilliseconds(200);

    // The worker is woken by the commit and would share processor and write lock with the answer that somebody waits for.
    private static readonly TimeSpan AnswersFirst = TimeSpan.FromMilliseconds(25);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        await work.LookAfterStartAsync(stoppingToken);
        await Task.WhenAll(work.Lanes.Select(lane => KeepGoingAsync(lane, stoppingToken)));
    }

    private async Task KeepGoingAsync(DueLane lane, CancellationToken stoppingToken)
    {
        while (!stoppingToken.IsCancellationRequested)
        {
            // Taken before the pass: what is written while it goes on wakes the next one.
            var woken = notifier.Woken;
            var pause = Longest;
            try
            {
                if (await work.PassAsync(lane, stoppingToken) is { } next)
                    pause = TimeSpan.FromMilliseconds(
                        Math.Clamp(next.TotalMilliseconds, Shortest.TotalMilliseconds, Longest.TotalMilliseconds)
                    );
            }
            catch (Exception failure) when (failure is not OperationCanceledException)
            {
                logger.LogError(failure, "A pass of the due work failed");
            }

            try
            {
                await woken.WaitAsync(pause, time, stoppingToken);
            }
            catch (TimeoutException)
            {
                // Nobody wrote anything; something may have fallen due.
            }

            await Task.Delay(AnswersFirst, time, stoppingToken);
        }
    }
}
