using NodaTime;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Records;
using PorchLight.Core.Tests.Calendar;

namespace PorchLight.Core.Tests.FollowThrough;

/// <summary>One run as a diary that is kept by hand: written from the rules alone, one step after the other.</summary>
internal sealed class NaiveRun
{
    private readonly FollowThroughContent _content;
    private readonly NaiveCalendar _calendar;
    private readonly DateTimeZone _zone;
    private readonly IRunFacts _facts;
    private readonly Instant _started;
    private readonly List<Step> _steps;
    private readonly List<LocalDate> _daysOfMail = [];
    private int _step;
    private Instant? _due;
    private Instant? _counted;
    private Instant _from;
    private bool _asked,
        _nodded,
        _paused,
        _isEnding,
        _over;

    public NaiveRun(FollowThroughContent content, NaiveCalendar calendar, DateTimeZone zone, IRunFacts facts, Instant started)
    {
        (_content, _calendar, _zone, _facts, _started, _from) = (content, calendar, zone, facts, started, started);
        _steps = [.. content.Steps];
        if (facts.LastAutomaticMessage is { } last)
            _daysOfMail.Add(DayOf(last));
        Plan(started);
    }

    /// <summary>What happened, in order.</summary>
    public List<string> Diary { get; } = [];

    /// <summary>Whether it asks for a nod that it does not have yet.</summary>
    public bool Waits => !Rests && _asked && !_nodded;

    private bool Rests => _over || _paused;

    private Step Now => _steps[_step];

    private bool IsFlow => Now.Action is FlowAction;

    // What they did a moment ago is answered at once, and that is not the message of the day.
    private bool IsThanks =>
        _step == 0
        && !_isEnding
        && Now.Schedule is { AtOnce: true, Amount: 0, Anchor: not (ProjectDateAnchor or MeetingAnchor) }
        && !Now.NeedsNod
        && (_content.Starts is InquiryStart || _content.Starts is BookedStart || _content.Starts is RepliedStart);

    private Instant Lapses => Later(_due!.Value, _content.LapseAfterDays);

    public void Work(Instant now)
    {
        while (!Rests && _due is { } due)
        {
            if (_asked && !_nodded)
            {
                if (Lapses > now)
                    return;
                Write("lapsed", Lapses);
                GoOn(Lapses);
                continue;
            }

            if (due > now)
                return;
            if (!_nodded && Now.Condition is { } condition && _facts.Judge(condition) != Truth.True)
                GoOn(due);
            else if (IsTooLate(due, now))
                GoOn(due);
            else if (Now.Action is WaitFor wait)
            {
                Write("in vain", due);
                GoOn(due, wait.Otherwise);
            }
            else if (Now.Action is Branch branch)
                GoOn(due, _facts.Judge(branch.If) == Truth.True ? branch.Then : branch.Otherwise);
            else if (Now.Action is EndRun)
            {
                _step = _steps.Count - 1;
                GoOn(due);
            }
            else if (Now.NeedsNod && !_nodded)
            {
                Write("asked", now);
                (_asked, _due) = (true, now);
            }
            else if (!MaySend(now))
                _due = _calendar.HoldTo(SendingWindow.Usual, now);
            else if (Now.Action is SendMessage && !_nodded && !IsThanks && _daysOfMail.Contains(DayOf(now)))
            {
                Write("moved", now);
                _due = _calendar.HoldTo(SendingWindow.Usual, DayOf(now).PlusDays(1).AtStartOfDayInZone(_zone).ToInstant());
            }
            else
                Send(now, byItself: !_nodded);
        }
    }

    public void Nod(Instant now, bool atAnyHour)
    {
        if (Rests || !_asked || (!_nodded && Lapses <= now))
            return;
        if (atAnyHour || MaySend(now))
        {
            Send(now, byItself: false);
            Work(now);
        }
        else if (!_nodded)
        {
            _nodded = true;
            _due = _calendar.HoldTo(SendingWindow.Usual, now);
        }
    }

    public void DoNow(Instant now)
    {
        if (Rests || _asked || IsFlow)
            return;
        Send(now, byItself: false);
        Work(now);
    }

    public void Skip(Instant now)
    {
        if (Rests || (_asked && !_nodded && Lapses <= now))
            return;
        if (Now.NeedsNod && !IsFlow && !_asked && _due <= now)
            Write("asked", now);
        GoOn(now);
    }

    public void Pause() => _paused = !_over;

    public void Resume(Instant now)
    {
        if (!_paused)
            return;
        _paused = false;
        if (_asked && !_nodded)
            _due = now;
        Work(now);
    }

    public void Happens(DomainEvent what, Instant now)
    {
        if (_over)
            return;
        if (_content.Stops.FirstOrDefault(stop => stop.On.IsMetBy(what)) is { } stop)
        {
            if (_isEnding || stop.Last is null)
            {
                _over = true;
                return;
            }

            _steps.Add(stop.Last);
            (_step, _isEnding, _paused, _asked, _nodded, _from) = (_steps.Count - 1, true, false, false, false, now);
            Plan(now);
            Work(now);
        }
        else if (!_paused && Now.Action is WaitFor wait && wait.On.IsMetBy(what))
        {
            _counted = null;
            GoOn(now);
            Work(now);
        }
    }

    // Nobody is reminded of a meeting that has begun, or by a mail whose time had gone by before it was planned.
    private bool IsTooLate(Instant due, Instant now) =>
        Now.Schedule is { Amount: < 0, Anchor: MeetingAnchor }
        && (_facts.Meeting <= now || (!_nodded && Now.Schedule.AtOnce && due > _counted));

    private bool MaySend(Instant now) => Now.Schedule.AtOnce || IsFlow || _calendar.HoldTo(SendingWindow.Usual, now) == now;

    private void Send(Instant now, bool byItself)
    {
        Write("done", now);
        if (byItself && Now.Action is SendMessage && !IsThanks)
            _daysOfMail.Add(DayOf(now));
        GoOn(now);
    }

    private void Write(string what, Instant at) => Diary.Add($"{Now.Key} {what} {at}");

    private void GoOn(Instant settled, string? at = null)
    {
        _from = _content.KeepsRhythm && _counted is { } counted ? counted : settled;
        var target = at is null ? -1 : _steps.FindIndex(step => step.Key == at);
        _step = Math.Max(_step + 1, target);
        (_asked, _nodded) = (false, false);
        if (_step >= _steps.Count)
            _over = true;
        else
            Plan(settled);
    }

    private void Plan(Instant earliest)
    {
        var when = Now.Schedule;
        Instant? from = when.Anchor switch
        {
            RunStartAnchor => _started,
            PreviousSettledAnchor => _from,
            MeetingAnchor => _facts.Meeting,
            ProjectDateAnchor date => _facts.DayOf(date.Field) is { } day
                ? (day + new LocalTime(9, 0)).InZoneLeniently(_zone).ToInstant()
                : null,
            _ => null,
        };
        (_counted, _due) = (null, null);
        if (from is not { } anchor)
            return;
        _counted = when.Unit switch
        {
            _ when when.Amount == 0 => anchor,
            TimeUnit.Minutes => anchor.Plus(Duration.FromSeconds(60 * when.Amount)),
            TimeUnit.Hours => anchor.Plus(Duration.FromSeconds(3600 * when.Amount)),
            TimeUnit.Days => Later(anchor, when.Amount),
            TimeUnit.Weeks => Later(anchor, 7 * when.Amount),
            TimeUnit.WorkingDays => AtSameTime(anchor, _calendar.WorkingDaysAfter(anchor.InZone(_zone).Date, when.Amount)),
            _ => AtSameTime(anchor, SameDayOfMonth(anchor.InZone(_zone).Date, when.Amount)),
        };
        var comes = _counted < earliest ? earliest : _counted.Value;
        _due = when.AtOnce || IsFlow ? comes : _calendar.HoldTo(SendingWindow.Usual, comes);
    }

    private LocalDate DayOf(Instant at) => at.InZone(_zone).Date;

    private Instant Later(Instant from, int days) => AtSameTime(from, from.InZone(_zone).Date.PlusDays(days));

    private Instant AtSameTime(Instant from, LocalDate day) => (day + from.InZone(_zone).TimeOfDay).InZoneLeniently(_zone).ToInstant();

    private static LocalDate SameDayOfMonth(LocalDate from, int months)
    {
        var all = from.Year * 12 + (from.Month - 1) + months;
        var (year, month) = (all / 12, all % 12 + 1);
        return new LocalDate(year, month, Math.Min(from.Day, CalendarSystem.Iso.GetDaysInMonth(year, month)));
    }
}
