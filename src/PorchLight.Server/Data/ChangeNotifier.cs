using System.Collections.Concurrent;
using System.Data.Common;
using Microsoft.AspNetCore.Authorization;
using Microsoft.AspNetCore.SignalR;
using Microsoft.EntityFrameworkCore.Diagnostics;
using PorchLight.Server.Identity;

namespace PorchLight.Server.Data;

/// <summary>Where signed-in browsers listen for news. They are only told that something changed, and ask what.</summary>
[Authorize]
internal sealed class ChangeHub(HubConnections connections) : Hub
{
    public override Task OnConnectedAsync()
    {
        connections.Add(Context);
        return base.OnConnectedAsync();
    }

    public override Task OnDisconnectedAsync(Exception? exception)
    {
        connections.Remove(Context);
        return base.OnDisconnectedAsync(exception);
    }
}

/// <summary>Who listens for news. A connection outlives the cookie it began with, so it is closed when its person is signed out.</summary>
internal sealed class HubConnections
{
    private readonly ConcurrentDictionary<string, HubCallerContext> _open = new();

    public void Add(HubCallerContext context) => _open[context.ConnectionId] = context;

    public void Remove(HubCallerContext context) => _open.TryRemove(context.ConnectionId, out _);

    /// <summary>Closes the connections of a seat, or of one of its sessions.</summary>
    public void Close(Guid seat, string? session = null)
    {
        foreach (var context in _open.Values.Where(one => one.UserIdentifier == seat.ToString() && (session is null || one.User?.FindFirst(Sessions.Claim)?.Value == session)))
            context.Abort();
    }
}

/// <summary>Beats after every commit: wakes the worker and tells the browsers, these at most once a second.</summary>
internal sealed class ChangeNotifier : IDisposable
{
    private static readonly TimeSpan BetweenNews = TimeSpan.FromSeconds(1);
    private readonly SemaphoreSlim _work = new(0, 1);
    private readonly IHubContext<ChangeHub> _news;
    private readonly ITimer _later;
    private readonly TimeProvider _time;
    private readonly Lock _telling = new();
    private long? _told;
    private bool _waiting;

    public ChangeNotifier(IHubContext<ChangeHub> news, TimeProvider time)
    {
        (_news, _time) = (news, time);
        _later = time.CreateTimer(_ => Tell(late: true), null, Timeout.InfiniteTimeSpan, Timeout.InfiniteTimeSpan);
    }

    public void Beat()
    {
        Wake();
        Tell(late: false);
    }

    // Every window asks for what it shows when it is told; of many commits in a row it is told of the first and of the last.
    private void Tell(bool late)
    {
        lock (_telling)
        {
            if (!late && _told is { } told && _time.GetElapsedTime(told) is var since && since < BetweenNews)
            {
                if (!_waiting)
                    _later.Change(BetweenNews - since, Timeout.InfiniteTimeSpan);
                _waiting = true;
                return;
            }

            (_told, _waiting) = (_time.GetTimestamp(), false);
        }

        // Nobody waits for a slow browser; one that missed it asks again when it is looked at.
        _ = _news.Clients.All.SendAsync("changed");
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

    public void Dispose()
    {
        _later.Dispose();
        _work.Dispose();
    }

    /// <summary>Waits for a beat, or until the time is up.</summary>
    public async Task WaitAsync(TimeSpan limit, TimeProvider time, CancellationToken cancellationToken)
    {
        using var timeUp = new CancellationTokenSource(limit, time);
        using var either = CancellationTokenSource.CreateLinkedTokenSource(timeUp.Token, cancellationToken);
        try
        {
            await _work.WaitAsync(either.Token);
        }
        catch (OperationCanceledException) when (!cancellationToken.IsCancellationRequested)
        {
        }
    }
}

/// <summary>Ties the pulse to the commits of the database.</summary>
internal sealed class NotifyAfterCommit(ChangeNotifier notifier) : DbTransactionInterceptor
{
    public override Task TransactionCommittedAsync(
        DbTransaction transaction, TransactionEndEventData eventData, CancellationToken cancellationToken = default)
    {
        notifier.Beat();
        return Task.CompletedTask;
    }
}
