namespace PorchLight.Browser.Tests;

/// <summary>
/// Runs like the real clock, but began last Monday at ten: whatever the hour of the real day, the business of the demo works,
/// and what it promises is the same.
/// </summary>
internal sealed class OfficeClock : TimeProvider
{
    private static readonly TimeSpan Behind = BehindOf(System.GetUtcNow());

    public static OfficeClock Instance { get; } = new();

    public override DateTimeOffset GetUtcNow() => System.GetUtcNow() - Behind;

    private static TimeSpan BehindOf(DateTimeOffset now)
    {
        var thisMonday = new DateTimeOffset(now.Date.AddDays(-(((int)now.DayOfWeek + 6) % 7)).AddHours(10), TimeSpan.Zero);
        return now - (thisMonday > now ? thisMonday.AddDays(-7) : thisMonday);
    }
}
