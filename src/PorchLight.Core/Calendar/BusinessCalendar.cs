using NodaTime;

namespace PorchLight.Core.Calendar;

/// <summary>A span of opening hours within one day.</summary>
/// <param name="From">When it opens.</param>
/// <param name="To">When it closes; after <paramref name="From"/>. <see cref="EndOfDay"/> is 24:00, the midnight after.</param>
public sealed record OpenSpan(LocalTime From, LocalTime To)
{
    /// <summary>24:00. No time of day is later; the span ends with the day, not a tick before it.</summary>
    public static LocalTime EndOfDay => LocalTime.MaxValue;

    /// <summary>When it opens and closes, in ticks since midnight.</summary>
    internal (long From, long To) Ticks => (From.TickOfDay, To == EndOfDay ? NodaConstants.TicksPerDay : To.TickOfDay);
}

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
/// earlier, unless that lies before the instant that was started from. A working day has hours and is not closed. Hours
/// given for one weekday in several parts, or in spans that touch or overlap, count as their union.
/// </summary>
public sealed class BusinessCalendar(DateTimeZone zone, IEnumerable<DayHours> weekly, IEnumerable<LocalDate> closedDays)
{
    /// <summary>How many days ahead a working day is looked for before giving up.</summary>
    public const int Horizon = 400;

    private readonly Dictionary<IsoDayOfWeek, List<(long From, long To)>> _weekly = weekly
        .GroupBy(day => day.Day, day => day.Spans)
        .ToDictionary(day => day.Key, day => Union(day.SelectMany(spans => spans)));

    private readonly HashSet<LocalDate> _closed = [.. closedDays];

    /// <summary>The business's zone.</summary>
    public DateTimeZone Zone { get; } = zone;

    /// <summary>The wall-clock time in the business's zone.</summary>
    /// <param name="instant">Any instant.</param>
    public LocalDateTime ToLocal(Instant instant) => instant.InZone(Zone).LocalDateTime;

    /// <summary>The day in the business's zone.</summary>
    /// <param name="instant">Any instant; midnight belongs to the day that begins.</param>
    public LocalDate Today(Instant instant) => ToLocal(instant).Date;

    /// <summary>The instant at which the next day begins in the business's zone; where a clock jumps at midnight, after the gap.</summary>
    /// <param name="instant">Any instant; of a midnight, the next one.</param>
    public Instant Tomorrow(Instant instant) => ToInstant(Today(instant).PlusDays(1).AtMidnight());

    /// <summary>The instant of a local time: forward by the gap when skipped, the earlier when doubled.</summary>
    /// <param name="local">Any local time; what clock changes make of it stands above.</param>
    public Instant ToInstant(LocalDateTime local) => local.InZoneLeniently(Zone).ToInstant();

    /// <summary>Whether the business works on the day.</summary>
    /// <param name="date">The day: it has hours and is not closed.</param>
    public bool IsWorkingDay(LocalDate date) => HoursOf(date).Count > 0;

    /// <summary>
    /// The day that is a number of working days after another, the start day not counted, as the spreadsheet function
    /// WORKDAY has it. Null when no working day comes within 400 days of some day on the way.
    /// </summary>
    /// <param name="start">The start day; need not be a working day.</param>
    /// <param name="count">How many; 0 gives the start day itself, a negative number counts back.</param>
    public LocalDate? WorkingDaysAfter(LocalDate start, int count)
    {
        var step = Math.Sign(count);
        LocalDate? day = start;
        for (var i = 0; i != count && day is not null; i += step)
            day = NextWorkingDay(day.Value.PlusDays(step), step);
        return day;
    }

    /// <summary>
    /// How many working days lie between two days, both counted, as the spreadsheet function NETWORKDAYS has it: negative
    /// when the last day comes before the first.
    /// </summary>
    /// <param name="from">The first day.</param>
    /// <param name="to">The last day.</param>
    public int WorkingDaysBetween(LocalDate from, LocalDate to) =>
        to < from
            ? -WorkingDaysBetween(to, from)
            : Enumerable.Range(0, Period.DaysBetween(from, to) + 1).Count(offset => IsWorkingDay(from.PlusDays(offset)));

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
                    return ToInstantFrom(start, day.Value.AtMidnight().PlusTicks(begin + left));
                left -= to - begin;
            }
        }

        return null;
    }

    /// <summary>
    /// The first instant at or after the given one that lies on a working day between two times of day, the first
    /// included and the second not. Null when no working day comes within 400 days. A window that a clock change skips
    /// altogether opens the next working day; in a doubled hour it may open twice.
    /// </summary>
    /// <param name="window">The two times of day; one whose start is not before its end holds nothing, and gives null.</param>
    /// <param name="instant">The earliest instant.</param>
    public Instant? HoldTo(SendingWindow window, Instant instant)
    {
        for (var day = NextWorkingDay(Today(instant)); day is not null; day = NextWorkingDay(day.Value.PlusDays(1)))
        {
            if (
                Openings(day.Value, window.From.TickOfDay, window.To.TickOfDay)
                    .Where(open => open.To > instant)
                    .Select(open => (Instant?)Instant.Max(open.From, instant))
                    .FirstOrDefault() is
                { } held
            )
                return held;
        }

        return null;
    }

    /// <summary>
    /// The last moment at or before the given one at which the business was open or just closed; null when there was none
    /// within 400 days.
    /// </summary>
    /// <param name="instant">The latest instant; it is given back itself while the business is open.</param>
    public Instant? LastOpen(Instant instant)
    {
        var local = ToLocal(instant);
        for (var day = NextWorkingDay(local.Date, -1); day is not null; day = NextWorkingDay(day.Value.PlusDays(-1), -1))
        {
            var until = day == local.Date ? local.TimeOfDay.TickOfDay : NodaConstants.TicksPerDay;
            if (
                HoursOf(day.Value).Where(span => span.From <= until).Select(span => (long?)Math.Min(span.To, until)).LastOrDefault() is
                { } last
            )
                return Instant.Min(instant, ToInstant(day.Value.AtMidnight().PlusTicks(last)));
        }

        return null;
    }

    /// <summary>Whether the business is open, or just closes.</summary>
    /// <param name="instant">Any instant; both ends of a span of hours count.</param>
    public bool IsOpen(Instant instant)
    {
        var local = ToLocal(instant);
        return HoursOf(local.Date).Any(span => span.From <= local.TimeOfDay.TickOfDay && local.TimeOfDay.TickOfDay <= span.To);
    }

    /// <summary>
    /// A time for a talk on a day: an hour after the business opens where it is still open long enough then, else when it opens. Null when
    /// it never opens for that long.
    /// </summary>
    /// <param name="date">The day, in the business's zone.</param>
    /// <param name="lasts">How long the talk lasts; not negative.</param>
    public LocalTime? TimeToTalk(LocalDate date, Duration lasts)
    {
        var spans = HoursOf(date).Where(span => span.To - span.From >= lasts.BclCompatibleTicks).ToList();
        if (spans.Count == 0)
            return null;
        var (from, to) = spans[0];
        var later = from + NodaConstants.TicksPerHour;
        return LocalTime.FromTicksSinceMidnight(later + lasts.BclCompatibleTicks <= to ? later : from);
    }

    /// <summary>
    /// When the business is open on some days: each moment whose wall-clock time lies within the hours of its day. Of hours that a clock
    /// change skips nothing is left, and those it doubles come twice.
    /// </summary>
    /// <param name="first">The first day.</param>
    /// <param name="last">The last day; before the first there is none.</param>
    /// <returns>In order; hours up to midnight and from midnight on are one span.</returns>
    public IReadOnlyList<Span> OpenSpans(LocalDate first, LocalDate last) =>
        Spans.Union(
            Enumerable
                .Range(0, Math.Max(0, Period.DaysBetween(first, last) + 1))
                .Select(first.PlusDays)
                .SelectMany(day => HoursOf(day).SelectMany(span => Openings(day, span.From, span.To)))
        );

    private List<(long From, long To)> HoursOf(LocalDate date) =>
        _closed.Contains(date) ? [] : _weekly.GetValueOrDefault(date.DayOfWeek, []);

    private List<(long From, long To)> Counted(LocalDate day, PromiseClock clock) =>
        clock == PromiseClock.WorkingDays ? [(0, NodaConstants.TicksPerDay)] : HoursOf(day);

    /// <summary>When a part of a day, in ticks since its midnight, is there: once, or as often as clock changes tear it.</summary>
    private IEnumerable<Span> Openings(LocalDate day, long from, long to)
    {
        var (begin, end) = (day.AtMidnight().PlusTicks(from), day.AtMidnight().PlusTicks(to));
        var (dawn, dusk) = (ToInstant(day.AtMidnight()), ToInstant(day.PlusDays(1).AtMidnight()));
        return dawn >= dusk
            ? []
            : Zone.GetZoneIntervals(dawn, dusk)
                .Select(span => new Span(
                    Instant.Max(span.HasStart ? span.Start : Instant.MinValue, begin.WithOffset(span.WallOffset).ToInstant()),
                    Instant.Min(span.HasEnd ? span.End : Instant.MaxValue, end.WithOffset(span.WallOffset).ToInstant())
                ))
                .Where(open => !open.IsEmpty);
    }

    private Instant ToInstantFrom(Instant start, LocalDateTime local)
    {
        var earlier = ToInstant(local);
        return earlier < start ? Zone.MapLocal(local).Last().ToInstant() : earlier;
    }

    private LocalDate? NextWorkingDay(LocalDate from, int step = 1)
    {
        for (var offset = 0; offset <= Horizon; offset++)
        {
            if (IsWorkingDay(from.PlusDays(offset * step)))
                return from.PlusDays(offset * step);
        }

        return null;
    }

    private static List<(long From, long To)> Union(IEnumerable<OpenSpan> spans)
    {
        var union = new List<(long From, long To)>();
        foreach (var (from, to) in spans.Select(span => span.Ticks).Where(span => span.From < span.To).Order())
        {
            if (union is [.., var last] && from <= last.To)
                union[^1] = (last.From, Math.Max(last.To, to));
            else
                union.Add((from, to));
        }

        return union;
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
    /// <param name="time">The time of day; the start lies in it, the end does not.</param>
    public bool Contains(LocalTime time) => time >= From && time < To;
}

/// <summary>When a business works and sends.</summary>
/// <param name="Weekly">The hours of each working weekday.</param>
/// <param name="Closed">Days without hours.</param>
/// <param name="Window">When messages go out.</param>
public sealed record WorkingHours(IReadOnlyList<DayHours> Weekly, IReadOnlyList<LocalDate> Closed, SendingWindow Window);
