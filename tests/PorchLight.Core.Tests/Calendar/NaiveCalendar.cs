using NodaTime;
using PorchLight.Core.Calendar;

namespace PorchLight.Core.Tests.Calendar;

/// <summary>Business time by walking from minute to minute: slow, and written from its rules alone.</summary>
internal sealed class NaiveCalendar(DateTimeZone zone, IReadOnlyList<DayHours> weekly, IReadOnlyList<LocalDate> closed)
{
    private static readonly Duration Minute = Duration.FromMinutes(1);

    public bool IsWorkingDay(LocalDate day) =>
        !closed.Contains(day) && weekly.Any(hours => hours.Day == day.DayOfWeek && hours.Spans.Any(span => span.From < span.To));

    public Instant AddHours(Instant start, int hours, PromiseClock clock)
    {
        var local = Local(start);
        for (var left = hours * 60; left > 0; local = local.PlusMinutes(1))
        {
            if (clock == PromiseClock.WorkingDays ? IsWorkingDay(local.Date) : IsOpen(local))
                left--;
        }

        return ToInstant(local, start);
    }

    public Instant HoldTo(SendingWindow window, Instant from)
    {
        while (!IsWorkingDay(Local(from).Date) || Local(from).TimeOfDay < window.From || Local(from).TimeOfDay >= window.To)
            from += Minute;
        return from;
    }

    public LocalDate WorkingDaysAfter(LocalDate start, int count)
    {
        while (count != 0)
        {
            start = start.PlusDays(count > 0 ? 1 : -1);
            if (IsWorkingDay(start))
                count += count > 0 ? -1 : 1;
        }

        return start;
    }

    /// <summary>
    /// The earliest minute from the start on that the clock on the wall shows so; when it never does, the time that is
    /// as much later as the clock jumps.
    /// </summary>
    private Instant ToInstant(LocalDateTime wanted, Instant start)
    {
        var around = wanted.InUtc().ToInstant();
        var (from, to) = (Instant.Max(start, around - Duration.FromHours(15)), around + Duration.FromHours(15));
        for (var at = from; at < to; at += Minute)
        {
            if (Local(at) == wanted)
                return at;
        }

        for (var at = from; at < to; at += Minute)
        {
            var jump = Local(at) - Local(at - Minute);
            if (Local(at - Minute) < wanted && wanted < Local(at))
                return ToInstant(wanted + jump - Period.FromMinutes(1), start);
        }

        throw new InvalidOperationException($"{wanted} never comes.");
    }

    private LocalDateTime Local(Instant at) => at.InZone(zone).LocalDateTime;

    private bool IsOpen(LocalDateTime local) =>
        !closed.Contains(local.Date)
        && weekly
            .Where(hours => hours.Day == local.DayOfWeek)
            .SelectMany(hours => hours.Spans)
            .Any(span => span.From <= local.TimeOfDay && local.TimeOfDay < span.To);
}
