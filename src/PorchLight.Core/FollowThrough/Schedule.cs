using NodaTime;
using PorchLight.Core.Calendar;

namespace PorchLight.Core.FollowThrough;

/// <summary>A unit of time between steps.</summary>
public enum TimeUnit
{
    /// <summary>Elapsed minutes.</summary>
    Minutes,

    /// <summary>Elapsed hours.</summary>
    Hours,

    /// <summary>Calendar days at the same time of day.</summary>
    Days,

    /// <summary>Working days at the same time of day; the start day is not counted.</summary>
    WorkingDays,

    /// <summary>Weeks at the same time of day.</summary>
    Weeks,

    /// <summary>Months at the same time of day, clamped to the month's end.</summary>
    Months,
}

/// <summary>When a step is due.</summary>
/// <param name="Anchor">From what it is counted.</param>
/// <param name="Amount">How much later; a negative amount is earlier, which only a day of the project can be counted from.</param>
/// <param name="Unit">In which unit.</param>
/// <param name="AtOnce">Whether it goes at any hour; otherwise it is held to the sending window.</param>
public sealed record Schedule(Anchor Anchor, int Amount, TimeUnit Unit, bool AtOnce = false)
{
    /// <summary>No wait is longer: ten years, in days.</summary>
    public const int LongestDays = 3653;

    /// <summary>
    /// The instant counted from the anchor's, held to the window unless at once; null when no working day comes, or when
    /// the wait is longer than ten years.
    /// </summary>
    /// <param name="anchor">The instant it is counted from.</param>
    /// <param name="calendar">When the business works; days and hours are counted in its zone.</param>
    /// <param name="window">When messages may go; not looked at by what goes at once.</param>
    public Instant? Due(Instant anchor, BusinessCalendar calendar, SendingWindow window) =>
        Counted(anchor, calendar) is { } instant && !AtOnce ? calendar.HoldTo(window, instant) : Counted(anchor, calendar);

    /// <summary>The same before it is held to the sending window.</summary>
    /// <param name="anchor">The instant it is counted from.</param>
    /// <param name="calendar">When the business works; days and hours are counted in its zone.</param>
    public Instant? Counted(Instant anchor, BusinessCalendar calendar)
    {
        var local = calendar.ToLocal(anchor);
        return (Math.Abs((long)Amount), Unit) switch
        {
            (0, _) => anchor,
            (<= LongestDays * NodaConstants.MinutesPerDay, TimeUnit.Minutes) => anchor + Duration.FromMinutes(Amount),
            (<= LongestDays * NodaConstants.HoursPerDay, TimeUnit.Hours) => anchor + Duration.FromHours(Amount),
            (<= LongestDays, TimeUnit.Days) => calendar.ToInstant(local.PlusDays(Amount)),
            (<= LongestDays / 7, TimeUnit.Weeks) => calendar.ToInstant(local.PlusWeeks(Amount)),
            (<= LongestDays / 30, TimeUnit.Months) => calendar.ToInstant(local.PlusMonths(Amount)),
            (<= LongestDays, TimeUnit.WorkingDays) when calendar.WorkingDaysAfter(local.Date, Amount) is { } day => calendar.ToInstant(
                day + local.TimeOfDay
            ),
            _ => null,
        };
    }
}
