using NodaTime;
using PorchLight.Core.Calendar;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Tests.Calendar;

namespace PorchLight.Core.Tests.FollowThrough;

/// <summary>One run as a diary that is kept by hand: written from the rules alone, one step after the other.</summary>
internal sealed class NaiveRun
{
    private readonly FollowThroughContent _content;
    private readonly NaiveCalendar _calendar;
    private readonly DateTimeZone _zone;
    private readonly Instant _started;
    private int _step;
    private Instant _due;
    private bool _asked,
        _nodded,
        _stopped;

    public NaiveRun(FollowThroughContent content, NaiveCalendar calendar, DateTimeZone zone, Instant started)
    {
        (_content, _calendar, _zone, _started) = (content, calendar, zone, started);
        _due = DueFrom(started);
    }

    /// <summary>What happened, in order.</summary>
    public List<string> Diary { get; } = [];

    private bool IsOver => _stopped || _step == _content.Steps.Count;

    private Step Now => _content.Steps[_step];

    private Instant Lapses => Later(_due, _content.LapseAfterDays);

    public void Work(Instant now)
    {
        while (!IsOver)
        {
            if (_asked && !_nodded)
            {
                if (Lapses > now)
                    return;
                Write("lapsed", Lapses);
                GoOn(Lapses);
            }
            else if (_due > now)
            {
                return;
            }
            else if (Now.NeedsNod && !_nodded)
            {
                Write("asked", _due);
                _asked = true;
            }
            else if (MaySend(now))
            {
                Write("sent", now);
                GoOn(now);
            }
            else
            {
                _due = _calendar.HoldTo(SendingWindow.Usual, now);
            }
        }
    }

    public void Nod(Instant now, bool atAnyHour)
    {
        if (IsOver || !_asked || (!_nodded && Lapses <= now))
            return;
        if (atAnyHour || MaySend(now))
        {
            Write("sent", now);
            GoOn(now);
            Work(now);
        }
        else if (!_nodded)
        {
            _nodded = true;
            _due = _calendar.HoldTo(SendingWindow.Usual, now);
        }
    }

    public void Skip(Instant now)
    {
        if (IsOver || (_asked && !_nodded && Lapses <= now))
            return;
        if (Now.NeedsNod && !_asked && _due <= now)
            Write("asked", _due);
        GoOn(now);
    }

    public void Stop() => _stopped = true;

    private bool MaySend(Instant now) => Now.Schedule.AtOnce || _calendar.HoldTo(SendingWindow.Usual, now) == now;

    private void Write(string what, Instant at) => Diary.Add($"{Now.Key} {what} {at}");

    private void GoOn(Instant settled)
    {
        _step++;
        (_asked, _nodded) = (false, false);
        if (!IsOver)
            _due = DueFrom(settled);
    }

    private Instant DueFrom(Instant settled)
    {
        var when = Now.Schedule;
        var from = when.Anchor == Anchor.RunStart ? _started : settled;
        var counted = when.Unit switch
        {
            _ when when.Amount == 0 => from,
            TimeUnit.Minutes => from.Plus(Duration.FromSeconds(60 * when.Amount)),
            TimeUnit.Hours => from.Plus(Duration.FromSeconds(3600 * when.Amount)),
            TimeUnit.Days => Later(from, when.Amount),
            TimeUnit.Weeks => Later(from, 7 * when.Amount),
            TimeUnit.WorkingDays => AtSameTime(from, _calendar.WorkingDaysAfter(from.InZone(_zone).Date, when.Amount)),
            _ => AtSameTime(from, SameDayOfMonth(from.InZone(_zone).Date, when.Amount)),
        };
        return when.AtOnce ? counted : _calendar.HoldTo(SendingWindow.Usual, counted);
    }

    private Instant Later(Instant from, int days) => AtSameTime(from, from.InZone(_zone).Date.PlusDays(days));

    private Instant AtSameTime(Instant from, LocalDate day) => (day + from.InZone(_zone).TimeOfDay).InZoneLeniently(_zone).ToInstant();

    private static LocalDate SameDayOfMonth(LocalDate from, int months)
    {
        var (year, month) = (from.Year + (from.Month - 1 + months) / 12, (from.Month - 1 + months) % 12 + 1);
        return new LocalDate(year, month, Math.Min(from.Day, CalendarSystem.Iso.GetDaysInMonth(year, month)));
    }
}
