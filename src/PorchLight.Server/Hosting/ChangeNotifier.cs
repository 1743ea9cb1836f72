using System.Collections.Concurrent;
using System.Security.Claims;
using Microsoft.AspNetCore.Authorization;
using Microsoft.AspNetCore.SignalR;
using PorchLight.Server.Identity;

namespace PorchLight.Server.Hosting;

/// <summary>Knows whether somebody was signed out.</summary>
internal interface ISignedOut
{
    /// <summary>Whether the session somebody asks with has ended.</summary>
    Task<bool> HasEndedAsync(ClaimsPrincipal? who);
}

/// <summary>
/// Where signed-in browsers listen for changes. They are only told which areas changed, and ask for what they show of
/// them.
/// </summary>
[Authorize]
internal sealed class ChangeHub(HubConnections connections, ISignedOut signedOut) : Hub
{
    public override async Task OnConnectedAsync()
    {
        connections.Add(Context);
        // Who signed out between the handshake and this moment was not among the open ones.
        if (await signedOut.HasEndedAsync(Context.User))
            Context.Abort();
        await base.OnConnectedAsync();
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

    /// <summary>Closes the connections of a user, or of one of its sessions.</summary>
    public void Close(Guid user, string? session = null)
    {
        foreach (
            var context in _open.Values.Where(one =>
                one.UserIdentifier == user.ToString() && (session is null || one.User?.FindFirst(Sessions.Claim)?.Value == session)
            )
        )
            context.Abort();
    }
}

/// <summary>After every write: wakes the worker, and tells the browsers which areas changed, these at most once a second.</summary>
internal sealed class ChangeNotifier : IDisposable
{
    private static readonly TimeSpan BetweenMessages = TimeSpan.FromSeconds(1);
    private TaskCompletionSource _woken = new(TaskCreationOptions.RunContinuationsAsynchronously);
    private readonly IHubContext<ChangeHub> _browsers;
    private readonly ITimer _later;
    private readonly TimeProvider _time;
    private readonly Lock _telling = new();
    private readonly HashSet<string> _untold = [];
    private long? _told;

    public ChangeNotifier(IHubContext<ChangeHub> browsers, TimeProvider time)
    {
        (_browsers, _time) = (browsers, time);
        _later = time.CreateTimer(_ => Tell(), null, Timeout.InfiniteTimeSpan, Timeout.InfiniteTimeSpan);
    }

    /// <summary>Something of these areas has changed.</summary>
    public void Changed(IReadOnlyCollection<string> areas)
    {
        Wake();
        // Every window asks for what it shows when it is told; of many writes in a row it is told of the first, and of the others together.
        lock (_telling)
        {
            var isFirst = _untold.Count == 0;
            _untold.UnionWith(areas);
            if (_told is { } told && _time.GetElapsedTime(told) is var since && since < BetweenMessages)
            {
                if (isFirst)
                    _later.Change(BetweenMessages - since, Timeout.InfiniteTimeSpan);
                return;
            }
        }

        Tell();
    }

    private void Tell()
    {
        string[] areas;
        lock (_telling)
        {
            (areas, _told) = ([.. _untold.Order(StringComparer.Ordinal)], _time.GetTimestamp());
            _untold.Clear();
        }

        // Nobody waits for a slow browser; one that missed it asks again when it is looked at.
        if (areas.Length > 0)
            _ = _browsers.Clients.All.SendAsync("changed", areas);
    }

    /// <summary>
    /// Done as soon as there may be work: whoever takes it before looking for some, and waits for it after, misses nothing.
    /// </summary>
    public Task Woken => Volatile.Read(ref _woken).Task;

    /// <summary>Wakes the worker alone, for a moved clock.</summary>
    public void Wake() => Interlocked.Exchange(ref _woken, new(TaskCreationOptions.RunContinuationsAsynchronously)).TrySetResult();

    public void Dispose() => _later.Dispose();
}
