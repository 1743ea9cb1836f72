using NodaTime;

namespace PorchLight.Core.Calendar;

/// <summary>A span of opening hours within one day.</summary>
/// <param name="From">When it opens.</param>
/// <param name="To">When it closes; after <paramref name="From"/>.</param>
public sealed record OpenSpan(LocalTime From, LocalTime To);

/// <summary>The opening hours of one weekday.</summary>
/// <param name="Day">The weekday.</param>
/// <param name="Spans">In order, not overlapping; none means the business does not work that day.</param>
public sealed record DayHours(IsoDayOfWeek Day, IReadOnlyList<OpenSpan> Spans);

/// <summary>Which clock a number of business hours is counted on.</summary>
public enum PromiseClock
{
    /// <summary>Every working day counts 24 hours of wall-clock time, other days none.</summary>
    WorkingDays,

    /// <summary>Only opening hours count.</summary>
    OpenHours,
}

/// <summary>
/// When a business works: zone, weekly hours and closed days. All sums are done in local wall-clock time and brought
/// back to instants at the end: a local time that a clock change skips moves forward by the gap, a doubled one is the
/// earlier. A working day has hours and is not closed.
/// </summary>
public sealed class BusinessCalendar(DateTimeZone zone, IEnumerable<DayHours> weekly, IEnumerable<LocalDate> closedDays)
{
    /// <summary>How many days ahead a working day is looked for before giving up.</summary>
    public const int Horizon = 400;

    private readonly Dictionary<IsoDayOfWeek, IReadOnlyList<OpenSpan>> _weekly = weekly.ToDictionary(day => day.Day, day => day.Spans);
    private readonly HashSet<LocalDate> _closed = [.. closedDays];

    /// <summary>The business's zone.</summary>
    public DateTimeZone Zone { get; } = zone;

    /// <summary>The wall-clock time in the business's zone.</summary>
    public LocalDateTime ToLocal(Instant instant) => instant.InZone(Zone).LocalDateTime;

    /// <summary>The day in the business's zone.</summary>
    public LocalDate Today(Instant instant) => ToLocal(instant).Date;

    /// <summary>The instant of a local time: forward by the gap when skipped, the earlier when doubled.</summary>
    public Instant ToInstant(LocalDateTime local) => local.InZoneLeniently(Zone).ToInstant();

    /// <summary>Whether the business works on the day.</summary>
    public bool IsWorkingDay(LocalDate date) => Hours(date).Count > 0;

    /// <summary>
    /// The day that is a number of working days after another, the start day not counted, as the spreadsheet function
    /// WORKDAY has it. Null when no working day comes within 400 days.
    /// </summary>
    /// <param name="start">The start day; need not be a working day.</param>
    /// <param name="count">How many; 0 gives the start day itself.</param>
    public LocalDate? WorkingDaysAfter(LocalDate start, int count)
    {
        LocalDate? day = start;
        for (var i = 0; i < count && day is not null; i++)
            day = NextWorkingDay(day.Value.PlusDays(1));
        return day;
    }

    /// <summary>
    /// How many working days lie between two days, both counted, as the spreadsheet function NETWORKDAYS has it.
    /// </summary>
    /// <param name="from">The first day.</param>
    /// <param name="to">The last day; not before <paramref name="from"/>.</param>
    public int WorkingDaysBetween(LocalDate from, LocalDate to) =>
        Enumerable.Range(0, Math.Max(0, Period.DaysBetween(from, to) + 1)).Count(offset => IsWorkingDay(from.PlusDays(offset)));

    /// <summary>
    /// The instant at which so many business hours have passed. Null when they never do, because no working day comes
    /// within 400 days of some day on the way. On the working-day clock hours that are used up exactly as a day ends give
    /// the midnight after it.
    /// </summary>
    /// <param name="start">From when.</param>
    /// <param name="hours">How many hours; not negative.</param>
    /// <param name="clock">Which hours count.</param>
    public Instant? AddHours(Instant start, int hours, PromiseClock clock)
    {
        if (hours == 0)
            return start;
        var left = Duration.FromHours(hours).BclCompatibleTicks;
        var local = ToLocal(start);
        for (var day = NextWorkingDay(local.Date); day is not null; day = NextWorkingDay(day.Value.PlusDays(1)))
        {
            var reached = day == local.Date ? local.TimeOfDay.TickOfDay : 0;
            foreach (var (from, to) in Counted(day.Value, clock))
            {
                var begin = Math.Max(from, reached);
                if (begin >= to)
                    continue;
                if (left <= to - begin)
                    return ToInstant(day.Value.AtMidnight().PlusTicks(begin + left));
                left -= to - begin;
            }
        }

        return null;
    }

    /// <summary>
    /// The first instant at or after the given one that lies on a working day between two times of day, the first
    /// included and the second not. Null when no working day comes within 400 days.
    /// </summary>
    public Instant? HoldTo(SendingWindow window, Instant instant)
    {
        var local = ToLocal(instant);
        if (IsWorkingDay(local.Date) && window.Contains(local.TimeOfDay))
            return instant;
        var from = IsWorkingDay(local.Date) && local.TimeOfDay < window.From ? local.Date : local.Date.PlusDays(1);
        return NextWorkingDay(from) is { } day ? ToInstant(day + window.From) : null;
    }

    private IReadOnlyList<OpenSpan> Hours(LocalDate date) =>
        _closed.Contains(date) ? [] : _weekly.GetValueOrDefault(date.DayOfWeek, []);

    private IEnumerable<(long From, long To)> Counted(LocalDate day, PromiseClock clock) => clock == PromiseClock.WorkingDays
        ? [(0, NodaConstants.TicksPerDay)]
        : Hours(day).Select(span => (span.From.TickOfDay, span.To.TickOfDay));

    private LocalDate? NextWorkingDay(LocalDate from)
    {
        for (var offset = 0; offset <= Horizon; offset++)
        {
            if (IsWorkingDay(from.PlusDays(offset)))
                return from.PlusDays(offset);
        }

        return null;
    }
}

/// <summary>The hours in which messages go out on a working day.</summary>
/// <param name="From">The first moment.</param>
/// <param name="To">The first moment that is too late.</param>
public sealed record SendingWindow(LocalTime From, LocalTime To)
{
    /// <summary>Working days from 09:00 to 17:00.</summary>
    public static SendingWindow Usual { get; } = new(new LocalTime(9, 0), new LocalTime(17, 0));

    /// <summary>Whether the time of day lies in the window.</summary>
    public bool Contains(LocalTime time) => time >= From && time < To;
}

/// <summary>When a business works and sends.</summary>
/// <param name="Weekly">The hours of each working weekday.</param>
/// <param name="Closed">Days without hours.</param>
/// <param name="Window">When messages go out.</param>
public sealed record WorkingHours(IReadOnlyList<DayHours> Weekly, IReadOnlyList<LocalDate> Closed, SendingWindow Window);
