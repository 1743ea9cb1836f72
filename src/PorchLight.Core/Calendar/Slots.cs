using NodaTime;

namespace PorchLight.Core.Calendar;

/// <summary>A time at which a meeting can be booked.</summary>
/// <param name="Start">When it begins.</param>
/// <param name="End">When it ends.</param>
/// <param name="Hosts">The identifiers of those who hold it.</param>
public sealed record Slot(Instant Start, Instant End, IReadOnlyList<Guid> Hosts);

/// <summary>Somebody who holds meetings, as they stand when times are looked for.</summary>
/// <param name="Id">Their identifier.</param>
/// <param name="Weekly">Their weekly hours, on the business's clock.</param>
/// <param name="DaysOff">Days without hours: the business's closed days and their own.</param>
/// <param name="Busy">When they are busy, in any order: their meetings with <em>their</em> buffers, times held for somebody, and what was imported.</param>
/// <param name="Meetings">When the meetings they hold begin, of every type, for who has fewest in a week.</param>
public sealed record SlotHost(
    Guid Id,
    IReadOnlyList<DayHours> Weekly,
    IReadOnlyList<LocalDate> DaysOff,
    IReadOnlyList<Span> Busy,
    IReadOnlyList<Instant> Meetings
);

/// <summary>
/// The free times of a meeting type. A time is free if the meeting lies inside the hours, the time it needs with its buffers overlaps nothing
/// its hosts are busy with (touching is free), and it begins on the grid, at or after its notice and any waiting period, within the horizon,
/// on a day and in a week that are below their limits. Days, weeks, hours and grid are those of the business's zone. A time of day that a
/// clock change skips is never offered, and of one that it doubles only the earlier.
/// </summary>
/// <remarks>
/// Whoever moves a meeting looks for times without it: it is left out of the busy times, of the meetings and of what is taken, and so is no
/// obstacle to its own moving.
/// </remarks>
public sealed class Slots
{
    /// <summary>How many times are offered in place of one that is gone.</summary>
    public const int Nearest = 3;

    private readonly SlotRules _rules;
    private readonly DateTimeZone _zone;
    private readonly IsoDayOfWeek _weekBegins;
    private readonly Instant _earliest;
    private readonly LocalDate _today;
    private readonly LocalDate _last;
    private readonly IReadOnlyList<Hosted> _hosts;
    private readonly Dictionary<LocalDate, int> _byDay;
    private readonly Dictionary<LocalDate, int> _byWeek;

    /// <summary>The free times as things are.</summary>
    /// <param name="rules">When meetings of the type can be; without a finding.</param>
    /// <param name="hosts">Who can hold it, in the order of the business's list; without any nothing is free.</param>
    /// <param name="taken">When the meetings of this type begin that are booked or held, for the limits of days and weeks.</param>
    /// <param name="zone">The business's zone.</param>
    /// <param name="weekBegins">The first day of the business's week.</param>
    /// <param name="now">The current instant.</param>
    /// <param name="waitUntil">When a waiting period of whoever books ends; null for none.</param>
    public Slots(
        SlotRules rules,
        IReadOnlyList<SlotHost> hosts,
        IEnumerable<Instant> taken,
        DateTimeZone zone,
        IsoDayOfWeek weekBegins,
        Instant now,
        Instant? waitUntil = null
    )
    {
        (_rules, _zone, _weekBegins) = (rules, zone, weekBegins);
        _earliest = Instant.Max(rules.Notice.Earliest(now, zone), waitUntil ?? Instant.MinValue);
        _today = DayOf(now);
        _last = _today.PlusDays(rules.HorizonDays);
        // A meeting that begins on the last day may go on into the next.
        var until = _last.PlusDays(1);
        var own = rules.Hours is { } hours ? new BusinessCalendar(zone, hours, []).OpenSpans(_today, until) : null;
        _hosts = [.. hosts.Select(host => Read(host, own, until))];
        var begun = taken.Select(DayOf).ToList();
        _byDay = begun.CountBy(day => day).ToDictionary();
        _byWeek = begun.CountBy(WeekOf).ToDictionary();
    }

    /// <summary>All free times, in order.</summary>
    public IEnumerable<Slot> Free() =>
        from day in Enumerable.Range(0, _rules.HorizonDays + 1).Select(_today.PlusDays)
        where HasRoom(day)
        from start in StartsOn(day)
        let slot = At(start)
        where slot is not null
        select slot;

    /// <summary>The slot that begins at a moment; null where that is no free time.</summary>
    /// <param name="start">The moment, as somebody asks for it.</param>
    public Slot? Find(Instant start)
    {
        var local = start.InZone(_zone).LocalDateTime;
        var isOnGrid = local.Minute % _rules.Grid == 0 && local.TickOfSecond == 0 && local.Second == 0;
        return isOnGrid && _zone.MapLocal(local).First().ToInstant() == start && local.Date <= _last && HasRoom(local.Date)
            ? At(start)
            : null;
    }

    /// <summary>The free times nearest to one that is gone, in order of time; of two that are as near, the earlier.</summary>
    /// <param name="wanted">When the one that is gone begins.</param>
    public IReadOnlyList<Slot> NearestTo(Instant wanted) =>
        [
            .. Free()
                .Where(slot => slot.Start != wanted)
                .OrderBy(slot => slot.Start < wanted ? wanted - slot.Start : slot.Start - wanted)
                .ThenBy(slot => slot.Start)
                .Take(Nearest)
                .OrderBy(slot => slot.Start),
        ];

    /// <summary>The slots without those whose time of day another has already for whoever looks: of a doubled hour the earlier stays.</summary>
    /// <param name="slots">Slots in order.</param>
    /// <param name="viewer">The zone of whoever looks.</param>
    public static IEnumerable<Slot> SeenFrom(IEnumerable<Slot> slots, DateTimeZone viewer) =>
        slots.Where(slot =>
        {
            var local = viewer.MapLocal(slot.Start.InZone(viewer).LocalDateTime);
            return local.First().ToInstant() == slot.Start;
        });

    private Hosted Read(SlotHost host, IReadOnlyList<Span>? own, LocalDate until)
    {
        var open = new BusinessCalendar(_zone, host.Weekly, host.DaysOff).OpenSpans(_today, until);
        return new Hosted(
            host.Id,
            own is null ? open : Spans.Intersection(open, own),
            Spans.Union(host.Busy),
            host.Meetings.Select(DayOf).CountBy(WeekOf).ToDictionary()
        );
    }

    private Slot? At(Instant start)
    {
        if (start < _earliest)
            return null;
        var (meeting, needs) = (new Span(start, start + _rules.Length), _rules.Needs(start));
        var free = _hosts.Where(host => meeting.IsWithin(host.Open) && needs.IsClearOf(host.Busy)).ToList();
        if (_rules.HostChoice == HostChoice.AllTogether)
            return free.Count > 0 && free.Count == _hosts.Count ? new Slot(start, meeting.To, [.. free.Select(host => host.Id)]) : null;
        var week = WeekOf(DayOf(start));
        return free.MinBy(host => host.MeetingsByWeek.GetValueOrDefault(week)) is { } host ? new Slot(start, meeting.To, [host.Id]) : null;
    }

    private bool HasRoom(LocalDate day) =>
        !(_byDay.GetValueOrDefault(day) >= _rules.MostADay) && !(_byWeek.GetValueOrDefault(WeekOf(day)) >= _rules.MostAWeek);

    private IEnumerable<Instant> StartsOn(LocalDate day) =>
        from minute in Enumerable.Range(0, 24 * 60 / _rules.Grid).Select(step => step * _rules.Grid)
        let local = _zone.MapLocal(day.AtMidnight().PlusMinutes(minute))
        where local.Count > 0
        select local.First().ToInstant();

    private LocalDate DayOf(Instant instant) => instant.InZone(_zone).Date;

    private LocalDate WeekOf(LocalDate day) => day.PlusDays(1).Previous(_weekBegins);

    private sealed record Hosted(Guid Id, IReadOnlyList<Span> Open, IReadOnlyList<Span> Busy, Dictionary<LocalDate, int> MeetingsByWeek);
}
