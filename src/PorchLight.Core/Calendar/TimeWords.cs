using System.Globalization;
using NodaTime;
using NodaTime.Text;

namespace PorchLight.Core.Calendar;

/// <summary>Says instants in words a person can act on, in the business's zone.</summary>
public static class TimeWords
{
    private static readonly LocalTimePattern ClockTime = LocalTimePattern.CreateWithInvariantCulture("HH:mm");
    private static readonly LocalDatePattern ShortDay = LocalDatePattern.CreateWithInvariantCulture("d MMM");
    private static readonly LocalDatePattern DayAndMonth = LocalDatePattern.CreateWithInvariantCulture("dddd d MMMM");

    /// <summary>A moment: "today 08:12", "yesterday 17:30", "last Friday 09:05", "Thursday 3 December, 09:05".</summary>
    /// <param name="moment">The moment, before or after now.</param>
    /// <param name="now">The instant of asking.</param>
    /// <param name="zone">The zone it is said in.</param>
    public static string At(Instant moment, Instant now, DateTimeZone zone)
    {
        var (local, today) = (moment.InZone(zone).LocalDateTime, now.InZone(zone).Date);
        var day = Day(local.Date, today);
        return day + (day.Any(char.IsDigit) ? ", " : " ") + ClockTime.Format(local.TimeOfDay);
    }

    /// <summary>The same as short as a list has room for: "today 08:12", "yesterday 17:30", "7 Nov", "7 Nov 2025".</summary>
    /// <param name="moment">The moment, before or after now.</param>
    /// <param name="now">The instant of asking.</param>
    /// <param name="zone">The zone it is said in.</param>
    public static string InList(Instant moment, Instant now, DateTimeZone zone)
    {
        var (day, today) = (moment.InZone(zone).Date, now.InZone(zone).Date);
        return Math.Abs(Period.DaysBetween(today, day)) <= 1 ? At(moment, now, zone)
            : day.Year == today.Year ? ShortDay.Format(day)
            : $"{ShortDay.Format(day)} {day.Year}";
    }

    /// <summary>The exact moment with its zone, for those who hover: "Tuesday 24 November 2026, 15:00 Europe/Dublin".</summary>
    /// <param name="moment">The moment; seconds are left out.</param>
    /// <param name="zone">The zone it is said in.</param>
    public static string Exactly(Instant moment, DateTimeZone zone)
    {
        var local = moment.InZone(zone).LocalDateTime;
        return string.Create(
            CultureInfo.InvariantCulture,
            $"{DayAndMonth.Format(local.Date)} {local.Year}, {ClockTime.Format(local.TimeOfDay)} {zone.Id}"
        );
    }

    /// <summary>A time of day: "09:05".</summary>
    /// <param name="time">The time of day; seconds are left out.</param>
    public static string Clock(LocalTime time) => ClockTime.Format(time);

    /// <summary>
    /// A day seen from another: "today", "tomorrow", "Thursday", "last Friday", "Thursday 3 December", "3 December
    /// 2027".
    /// </summary>
    /// <param name="day">The day.</param>
    /// <param name="today">The day it is seen from, in the same zone.</param>
    public static string Day(LocalDate day, LocalDate today) =>
        Period.DaysBetween(today, day) switch
        {
            0 => "today",
            1 => "tomorrow",
            -1 => "yesterday",
            > 1 and < 7 => day.DayOfWeek.ToString(),
            < -1 and > -7 => "last " + day.DayOfWeek,
            _ when day.Year == today.Year => DayAndMonth.Format(day),
            _ => DateWords.Say(day),
        };
}
