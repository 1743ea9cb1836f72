using System.Data.Common;
using Microsoft.AspNetCore.Authorization;
using Microsoft.AspNetCore.SignalR;
using Microsoft.EntityFrameworkCore.Diagnostics;

namespace PorchLight.Server.Data;

/// <summary>Where signed-in browsers listen for news. They are only told that something changed, and ask what.</summary>
[Authorize]
internal sealed class NewsHub : Hub;

/// <summary>Beats after every commit: wakes the worker and tells the browsers.</summary>
internal sealed class Pulse(IHubContext<NewsHub> news) : IDisposable
{
    private readonly SemaphoreSlim _work = new(0, 1);

    public void Beat()
    {
        Wake();
        // Nobody waits for a slow browser; one that missed it asks again when it is looked at.
        _ = news.Clients.All.SendAsync("changed");
    }

    /// <summary>Wakes the worker alone, for a moved clock.</summary>
    public void Wake()
    {
        try
        {
            _work.Release();
        }
        catch (SemaphoreFullException)
        {
            // It is awake already and will look again.
        }
    }

    public void Dispose() => _work.Dispose();

    /// <summary>Waits for a beat, or until the time is up.</summary>
    public async Task WaitAsync(TimeSpan limit, TimeProvider time, CancellationToken stop)
    {
        using var timeUp = new CancellationTokenSource(limit, time);
        using var either = CancellationTokenSource.CreateLinkedTokenSource(timeUp.Token, stop);
        try
        {
            await _work.WaitAsync(either.Token);
        }
        catch (OperationCanceledException) when (!stop.IsCancellationRequested)
        {
        }
    }
}

/// <summary>Ties the pulse to the commits of the database.</summary>
internal sealed class PulseAfterCommit(Pulse pulse) : DbTransactionInterceptor
{
    public override Task TransactionCommittedAsync(
        DbTransaction transaction, TransactionEndEventData eventData, CancellationToken cancellationToken = default)
    {
        pulse.Beat();
        return Task.CompletedTask;
    }
}
