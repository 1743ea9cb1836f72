using System.Collections.Concurrent;
using NodaTime;
using PorchLight.Server.Calendar;

namespace PorchLight.Server.Hosting;

/// <summary>
/// How often something may be done to one person, with one link or with one ticket, whoever asks and from wherever: what limits
/// by address do not hold back. Counted in memory over fixed spans of time.
/// </summary>
internal sealed class Quotas(TimeProvider time)
{
    private const int MostRemembered = 100_000;
    private readonly ConcurrentDictionary<(string What, string Whom), (Instant Until, int Used)> _used = new();

    /// <summary>Uses one of so many within a span that begins with the first use; false when none is left.</summary>
    public bool Use(string what, string whom, int most, Duration within)
    {
        var now = time.Now();
        if (_used.Count > MostRemembered)
            Forget(now);
        return _used
                .AddOrUpdate(
                    (what, whom),
                    (now + within, 1),
                    (_, used) => used.Until <= now ? (now + within, 1) : (used.Until, used.Used + 1)
                )
                .Used <= most;
    }

    /// <summary>Whether any is left; uses none.</summary>
    public bool IsLeft(string what, string whom, int most) =>
        !_used.TryGetValue((what, whom), out var used) || used.Until <= time.Now() || used.Used < most;

    /// <summary>Begins anew.</summary>
    public void GiveBack(string what, string whom) => _used.TryRemove((what, whom), out _);

    private void Forget(Instant now)
    {
        foreach (var (key, _) in _used.Where(one => one.Value.Until <= now))
            _used.TryRemove(key, out _);
    }
}
