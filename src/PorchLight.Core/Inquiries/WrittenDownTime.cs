using NodaTime;
using PorchLight.Core.Common;

namespace PorchLight.Core.Inquiries;

/// <summary>When an inquiry that somebody writes down by hand reached the business.</summary>
public static class WrittenDownTime
{
    /// <summary>How many days back is taken.</summary>
    public const int OldestDays = 3 * 366;

    /// <summary>
    /// The instant it came. Without a time it is now where the day is today, and noon of a day gone by. A time that the clocks skip that
    /// day counts as the one as much later; one that comes twice counts as the earlier.
    /// </summary>
    /// <param name="on">The day it came, in the business's zone: today or one of the last <see cref="OldestDays"/> days.</param>
    /// <param name="at">The time of that day; null where nobody knows it.</param>
    /// <param name="now">The business's now.</param>
    /// <param name="zone">The business's zone.</param>
    /// <returns>When it came; or what is wrong, at "on" for the day and at "at" for the time. One of the two is null.</returns>
    public static (Instant? Received, Finding? Refusal) Read(LocalDate on, LocalTime? at, Instant now, DateTimeZone zone)
    {
        var today = now.InZone(zone).Date;
        if (on > today)
            return (null, new Finding("on", "This day is still to come. Choose the day it reached you."));
        if (on < today.PlusDays(-OldestDays))
            return (null, new Finding("on", "This is longer than three years ago. Choose a later day."));
        var received =
            at is { } time ? zone.AtLeniently(on + time).ToInstant()
            : on == today ? now
            : zone.AtLeniently(on + LocalTime.Noon).ToInstant();
        return received > now
            ? (null, new Finding("at", "This time is still to come. Choose the time it reached you, or leave it out."))
            : (received, null);
    }
}
