using NodaTime;

namespace PorchLight.Core.Calendar;

/// <summary>
/// Says until when something is promised, as a person would say it: nobody reads "by Monday 03:28". A deadline inside opening
/// hours is said by the clock, one at a day's end as that, and any other by the part of its day.
/// </summary>
public static class DeadlineWords
{
    private static readonly LocalTime Noon = new(12, 0);
    private static readonly LocalTime Evening = new(18, 0);

    /// <summary>To a lead: "by 15:00 today", "by tomorrow 11:20", "by the end of Tuesday", "by Monday morning".</summary>
    /// <param name="deadline">The deadline; not before <paramref name="now"/>.</param>
    /// <param name="now">The business's now.</param>
    /// <param name="calendar">The business's hours and zone.</param>
    public static string ToLead(Instant deadline, Instant now, BusinessCalendar calendar) => "by " + Until(deadline, now, calendar);

    /// <summary>
    /// To the owner, who has to answer while the business is open: as to a lead, but outside opening hours with the last
    /// closing before it, when that is still to come: "answer by Friday 17:00, promised until Monday morning". What has passed: "was
    /// due Friday 09:15", "was due at the end of yesterday", "was due last Monday morning".
    /// </summary>
    /// <param name="deadline">The deadline, also when it has passed.</param>
    /// <param name="now">The business's now.</param>
    /// <param name="calendar">The business's hours and zone.</param>
    public static string ToOwner(Instant deadline, Instant now, BusinessCalendar calendar)
    {
        if (deadline < now)
            return "was due " + (IsEndOfDay(deadline, calendar) ? "at " : "") + Until(deadline, now, calendar);
        return !IsEndOfDay(deadline, calendar) && !calendar.IsOpen(deadline) && calendar.LastOpen(deadline) is { } closing && closing > now
            ? $"answer by {Until(closing, now, calendar)}, promised until {Until(deadline, now, calendar)}"
            : ToLead(deadline, now, calendar);
    }

    /// <summary>
    /// In a list, where one line has to do: when the owner has to have answered, "by tomorrow 17:30", also where more is promised. What has
    /// passed is said as to the owner, but for the end of a day, of which the day is said.
    /// </summary>
    /// <param name="deadline">The deadline, also when it has passed.</param>
    /// <param name="now">The business's now.</param>
    /// <param name="calendar">The business's hours and zone.</param>
    public static string InList(Instant deadline, Instant now, BusinessCalendar calendar) =>
        deadline >= now
        && !IsEndOfDay(deadline, calendar)
        && !calendar.IsOpen(deadline)
        && calendar.LastOpen(deadline) is { } closing
        && closing > now
            ? ToLead(closing, now, calendar)
        : deadline < now && IsEndOfDay(deadline, calendar)
            ? $"was due {TimeWords.Day(calendar.ToLocal(deadline).Date.PlusDays(-1), calendar.Today(now))}"
        : ToOwner(deadline, now, calendar);

    private static string Until(Instant deadline, Instant now, BusinessCalendar calendar)
    {
        var (due, today) = (calendar.ToLocal(deadline), calendar.Today(now));
        if (IsEndOfDay(deadline, calendar))
            return "the end of " + TimeWords.Day(due.Date.PlusDays(-1), today);
        if (calendar.IsOpen(deadline))
            return due.Date == today ? $"{TimeWords.Clock(due.TimeOfDay)} today" : TimeWords.At(deadline, now, calendar.Zone);
        var part =
            due.TimeOfDay < Noon ? "morning"
            : due.TimeOfDay < Evening ? "afternoon"
            : "evening";
        var day = TimeWords.Day(due.Date, today);
        return due.Date == today ? "this " + part
            : day.Any(char.IsDigit) ? $"the {part} of {day}"
            : $"{day} {part}";
    }

    // Also where the clock jumps at midnight, and the next day begins at 01:00.
    private static bool IsEndOfDay(Instant deadline, BusinessCalendar calendar)
    {
        var local = calendar.ToLocal(deadline);
        return local.TimeOfDay == LocalTime.Midnight || calendar.ToInstant(local.Date.AtMidnight()) == deadline;
    }
}
