using NodaTime;
using PorchLight.Core.Calendar;

namespace PorchLight.Core.Tests.Calendar;

/// <summary>Everything that times are looked for by.</summary>
internal sealed record SlotScene(
    SlotRules Rules,
    IReadOnlyList<SlotHost> Hosts,
    IReadOnlyList<Instant> Taken,
    DateTimeZone Zone,
    IsoDayOfWeek WeekBegins,
    Instant Now,
    Instant? WaitUntil
)
{
    public Slots Slots => new(Rules, Hosts, Taken, Zone, WeekBegins, Now, WaitUntil);
}

/// <summary>
/// Free times by trying every moment there is, five minutes apart, as the rule says it in words. All that happens in a scene happens at such
/// a moment.
/// </summary>
internal sealed class NaiveSlots
{
    private const int Step = 5;
    private readonly SlotScene _scene;
    private readonly List<(Instant At, LocalDateTime Local)> _moments = [];

    public NaiveSlots(SlotScene scene)
    {
        _scene = scene;
        var from = scene.Zone.AtStartOfDay(Day(scene.Now)).ToInstant();
        var to = scene.Zone.AtStartOfDay(Day(scene.Now).PlusDays(scene.Rules.HorizonDays + 2)).ToInstant();
        for (var at = from; at < to; at += Duration.FromMinutes(Step))
            _moments.Add((at, Local(at)));
    }

    public List<(Instant Start, string Hosts)> Free()
    {
        var shown = new HashSet<LocalDateTime>();
        var free = new List<(Instant, string)>();
        for (var index = 0; index < _moments.Count; index++)
        {
            var (at, local) = _moments[index];
            // A time of day that was there already is not offered again.
            if (!shown.Add(local) || local.Minute % _scene.Rules.Grid != 0 || !MayBegin(at, local.Date))
                continue;
            var hosts = _scene.Hosts.Where(host => IsFree(host, index)).ToList();
            if (_scene.Rules.HostChoice == HostChoice.AllTogether)
            {
                if (hosts.Count > 0 && hosts.Count == _scene.Hosts.Count)
                    free.Add((at, string.Join(' ', hosts.Select(host => host.Id))));
            }
            else if (hosts.Count > 0)
            {
                var fewest = hosts.Min(host => host.Meetings.Count(meeting => IsSameWeek(Day(meeting), local.Date)));
                var chosen = hosts.First(host => host.Meetings.Count(meeting => IsSameWeek(Day(meeting), local.Date)) == fewest);
                free.Add((at, chosen.Id.ToString()));
            }
        }

        return free;
    }

    private bool MayBegin(Instant at, LocalDate day)
    {
        var (rules, today) = (_scene.Rules, Day(_scene.Now));
        if (at < _scene.Now)
            return false;
        if (rules.Notice.InDays ? day < today.PlusDays(rules.Notice.Count) : at < _scene.Now + Duration.FromHours(rules.Notice.Count))
            return false;
        if (day > today.PlusDays(rules.HorizonDays) || at < _scene.WaitUntil)
            return false;
        if (rules.MostADay is { } aDay && _scene.Taken.Count(taken => Day(taken) == day) >= aDay)
            return false;
        return rules.MostAWeek is not { } aWeek || _scene.Taken.Count(taken => IsSameWeek(Day(taken), day)) < aWeek;
    }

    private bool IsFree(SlotHost host, int first)
    {
        var rules = _scene.Rules;
        for (var index = first; index < first + rules.Minutes / Step; index++)
        {
            if (index >= _moments.Count || !IsOpen(host, _moments[index].Local))
                return false;
        }

        var begins = _moments[first].At - Duration.FromMinutes(rules.BufferBefore);
        var ends = _moments[first].At + Duration.FromMinutes(rules.Minutes + rules.BufferAfter);
        for (var at = begins; at < ends; at += Duration.FromMinutes(Step))
        {
            if (host.Busy.Any(busy => busy.From <= at && at < busy.To))
                return false;
        }

        return true;
    }

    private bool IsOpen(SlotHost host, LocalDateTime at) =>
        !host.DaysOff.Contains(at.Date) && Covers(host.Weekly, at) && (_scene.Rules.Hours is null || Covers(_scene.Rules.Hours, at));

    private static bool Covers(IReadOnlyList<DayHours> weekly, LocalDateTime at) =>
        weekly.Any(day =>
            day.Day == at.DayOfWeek
            && day.Spans.Any(span => span.From <= at.TimeOfDay && (at.TimeOfDay < span.To || span.To == OpenSpan.EndOfDay))
        );

    private bool IsSameWeek(LocalDate one, LocalDate other) => FirstOfWeek(one) == FirstOfWeek(other);

    private LocalDate FirstOfWeek(LocalDate day)
    {
        while (day.DayOfWeek != _scene.WeekBegins)
            day = day.PlusDays(-1);
        return day;
    }

    private LocalDate Day(Instant at) => Local(at).Date;

    private LocalDateTime Local(Instant at) => at.InZone(_scene.Zone).LocalDateTime;
}
