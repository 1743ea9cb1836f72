using NodaTime;

namespace PorchLight.Server.Calendar;

/// <summary>
/// The clock of promises, follow-throughs and bookings: real time, plus what has been skipped in the demo. Sign-in and
/// tokens go by <see cref="TimeProvider"/> instead, so that skipping ahead signs nobody out.
/// </summary>
internal sealed class BusinessClock(TimeProvider time) : IClock
{
    private long _aheadSeconds;

    /// <summary>How far it runs ahead of real time.</summary>
    public Duration Ahead
    {
        get => Duration.FromSeconds(Interlocked.Read(ref _aheadSeconds));
        set => Interlocked.Exchange(ref _aheadSeconds, (long)value.TotalSeconds);
    }

    public Instant GetCurrentInstant() => time.Now() + Ahead;
}

internal static class MachineTime
{
    /// <summary>Real time, for what machines count: links, pauses between tries.</summary>
    public static Instant Now(this TimeProvider time) => Instant.FromDateTimeOffset(time.GetUtcNow());
}
