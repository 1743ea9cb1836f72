using NodaTime;

namespace PorchLight.Core.Calendar;

/// <summary>When somebody of the business wants a mail about what came in.</summary>
/// <param name="DailyAt">The time of day at which everything comes in one mail; null for a mail at once.</param>
/// <param name="AtNight">Whether a mail may come at night, too; of no account for one mail a day.</param>
public sealed record NotificationTime(LocalTime? DailyAt, bool AtNight)
{
    /// <summary>From this time of day on it is night.</summary>
    public static readonly LocalTime NightFalls = new(21, 0);

    /// <summary>Until this time of day, it excluded, it is night.</summary>
    public static readonly LocalTime NightEnds = new(7, 0);

    /// <summary>
    /// When to write about something: at once by day, with the end of the night at night, or at the next time of the daily mail, which is
    /// this very instant when it falls on it. A time of day that a change of the clocks skips comes later by what is skipped; of one that
    /// comes twice it is the earlier.
    /// </summary>
    /// <param name="came">When it came in.</param>
    /// <param name="zone">The business's zone.</param>
    public Instant Due(Instant came, DateTimeZone zone)
    {
        var local = came.InZone(zone).LocalDateTime;
        if (DailyAt is { } daily)
            return Next(daily);
        return AtNight || (local.TimeOfDay >= NightEnds && local.TimeOfDay < NightFalls) ? came : Next(NightEnds);

        Instant Next(LocalTime time)
        {
            var today = zone.AtLeniently(local.Date + time).ToInstant();
            return today >= came ? today : zone.AtLeniently(local.Date.PlusDays(1) + time).ToInstant();
        }
    }
}
