using System.Globalization;
using NodaTime;
using NodaTime.Text;

namespace PorchLight.Core.Calendar;

/// <summary>Says instants in words a person can act on, in the business's zone.</summary>
public static class TimeWords
{
    private static readonly LocalTimePattern Clock = LocalTimePattern.CreateWithInvariantCulture("HH:mm");
    private static readonly LocalDatePattern DayAndMonth = LocalDatePattern.CreateWithInvariantCulture("dddd d MMMM");
    private static readonly LocalDatePattern WithYear = LocalDatePattern.CreateWithInvariantCulture("d MMMM uuuu");

    /// <summary>
    /// A deadline: "by 15:00 today", "by tomorrow 11:20", "by Thursday 09:05", "by Thursday 3 December, 09:05"; a
    /// deadline at midnight is "by the end of" the day before.
    /// </summary>
    public static string By(Instant deadline, Instant now, DateTimeZone zone)
    {
        var (due, today) = (deadline.InZone(zone).LocalDateTime, now.InZone(zone).Date);
        if (due.TimeOfDay == LocalTime.Midnight)
            return "by the end of " + Day(due.Date.PlusDays(-1), today);
        return due.Date == today ? $"by {Clock.Format(due.TimeOfDay)} today" : $"by {At(deadline, now, zone)}";
    }

    /// <summary>A deadline that may have passed: as <see cref="By"/>, or "was due last Friday 09:15".</summary>
    public static string ByOrWasDue(Instant deadline, Instant now, DateTimeZone zone) =>
        deadline < now ? "was due " + At(deadline, now, zone) : By(deadline, now, zone);

    /// <summary>A moment: "today 08:12", "yesterday 17:30", "last Friday 09:05", "Thursday 3 December, 09:05".</summary>
    public static string At(Instant moment, Instant now, DateTimeZone zone)
    {
        var (local, today) = (moment.InZone(zone).LocalDateTime, now.InZone(zone).Date);
        var day = Day(local.Date, today);
        return day + (day.Any(char.IsDigit) ? ", " : " ") + Clock.Format(local.TimeOfDay);
    }

    /// <summary>The exact moment with its zone, for those who hover: "Tuesday 24 November 2026, 15:00 Europe/Dublin".</summary>
    public static string Exactly(Instant moment, DateTimeZone zone)
    {
        var local = moment.InZone(zone).LocalDateTime;
        return string.Create(CultureInfo.InvariantCulture,
            $"{DayAndMonth.Format(local.Date)} {local.Year}, {Clock.Format(local.TimeOfDay)} {zone.Id}");
    }

    private static string Day(LocalDate day, LocalDate today) => Period.DaysBetween(today, day) switch
    {
        0 => "today",
        1 => "tomorrow",
        -1 => "yesterday",
        > 1 and < 7 => day.DayOfWeek.ToString(),
        < -1 and > -7 => "last " + day.DayOfWeek,
        _ when day.Year == today.Year => DayAndMonth.Format(day),
        _ => WithYear.Format(day),
    };
}
