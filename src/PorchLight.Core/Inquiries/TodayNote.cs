using NodaTime;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;

namespace PorchLight.Core.Inquiries;

/// <summary>In which group of the day's list an owed reply stands.</summary>
public enum PromiseGroup
{
    /// <summary>The promise is broken.</summary>
    Late,

    /// <summary>It ends today.</summary>
    Today,

    /// <summary>It ends another day, or nothing could be promised.</summary>
    Later,

    /// <summary>The promise is kept, and they have written since.</summary>
    WroteBack,
}

/// <summary>Somebody who waits for a first reply.</summary>
/// <param name="Client">Who: a person with two inquiries is one person.</param>
/// <param name="Deadline">Until when it was promised; null where nothing could be promised.</param>
public sealed record OwedReply(Guid Client, Instant? Deadline);

/// <summary>Says how the day stands, as a short note.</summary>
public static class TodayNote
{
    /// <summary>
    /// Whether an inquiry wants somebody today: its promise is broken or ends today, or they wrote and wait for an
    /// answer.
    /// </summary>
    /// <param name="group">How its promise stands; null when nothing is owed.</param>
    /// <param name="wroteBack">Whether they wrote and were not answered since.</param>
    public static bool IsUrgent(PromiseGroup? group, bool wroteBack) => wroteBack || group is PromiseGroup.Late or PromiseGroup.Today;

    /// <summary>The group of a deadline; the end of a day belongs to that day.</summary>
    /// <param name="deadline">Until when an answer is promised; null when none is.</param>
    /// <param name="now">The instant of asking.</param>
    /// <param name="zone">The zone whose days count.</param>
    public static PromiseGroup Group(Instant? deadline, Instant now, DateTimeZone zone) =>
        deadline switch
        {
            null => PromiseGroup.Later,
            { } due when due < now => PromiseGroup.Late,
            { } due when (due - Duration.Epsilon).InZone(zone).Date <= now.InZone(zone).Date => PromiseGroup.Today,
            _ => PromiseGroup.Later,
        };

    /// <summary>
    /// "Three people are waiting for a first reply, one of them by 15:00 today. One person has written back. Four messages wait for
    /// your nod." People are counted, not inquiries.
    /// </summary>
    /// <param name="owed">The reply promises that are still open.</param>
    /// <param name="wroteBack">The people who have written and were not answered since.</param>
    /// <param name="nods">How many steps wait for a nod.</param>
    /// <param name="stuck">How many messages could not be delivered, or perhaps were not.</param>
    /// <param name="now">The business's now.</param>
    /// <param name="calendar">The business's hours and zone.</param>
    public static string Say(
        IReadOnlyList<OwedReply> owed,
        IReadOnlyCollection<Guid> wroteBack,
        int nods,
        int stuck,
        Instant now,
        BusinessCalendar calendar
    )
    {
        // The most urgent promise of each person.
        var deadlines = owed.GroupBy(one => one.Client)
            .Select(person => person.Min(one => one.Deadline ?? Instant.MaxValue))
            .Select(deadline => deadline == Instant.MaxValue ? (Instant?)null : deadline)
            .ToList();
        var waiting = deadlines.Count switch
        {
            0 => "Nobody is waiting for a first reply.",
            1 => $"One person is waiting for a first reply{Urgency()}.",
            var count => $"{Capital(NumberWords.Say(count))} people are waiting for a first reply{Urgency()}.",
        };
        return waiting
            + wroteBack.Distinct().Count() switch
            {
                0 => "",
                1 => " One person has written back.",
                var count => $" {Capital(NumberWords.Say(count))} people have written back.",
            }
            + nods switch
            {
                0 => "",
                1 => " One message waits for your nod.",
                _ => $" {Capital(NumberWords.Say(nods))} messages wait for your nod.",
            }
            + stuck switch
            {
                0 => "",
                1 => " One message did not get through.",
                _ => $" {Capital(NumberWords.Say(stuck))} messages did not get through.",
            };

        string Urgency()
        {
            var late = deadlines.Count(deadline => Group(deadline, now, calendar.Zone) == PromiseGroup.Late);
            var today = deadlines.Where(deadline => Group(deadline, now, calendar.Zone) == PromiseGroup.Today).ToList();
            if (late > 0)
                return deadlines.Count == late
                    ? late == 1
                        ? ", overdue"
                        : ", all of them overdue"
                    : $", {NumberWords.Say(late)} of them overdue";
            if (today.Count == 0)
                return "";
            var first = DeadlineWords.ToLead(today.Min()!.Value, now, calendar);
            return deadlines.Count == 1 ? ", " + first : $", {NumberWords.Say(today.Count)} of them {first}";
        }
    }

    /// <summary>How many of the waiting messages have a gap: "two have a gap to fill"; null when none has.</summary>
    /// <param name="withGaps">How many; not negative.</param>
    public static string? SayGaps(int withGaps) =>
        withGaps switch
        {
            0 => null,
            1 => "one has a gap to fill",
            _ => $"{NumberWords.Say(withGaps)} have a gap to fill",
        };

    private static string Capital(string word) => char.ToUpperInvariant(word[0]) + word[1..];
}
