using System.Text.Json.Serialization;
using NodaTime;
using PorchLight.Core.Common;

namespace PorchLight.Core.Calendar;

/// <summary>Who of its hosts holds a meeting.</summary>
public enum HostChoice
{
    /// <summary>Any one of them who is free: who has fewest meetings that week, then who stands first.</summary>
    AnyOfThem,

    /// <summary>All of them together.</summary>
    AllTogether,
}

/// <summary>How long before a meeting it has to be booked.</summary>
/// <param name="Count">How many hours or days; 0 for none.</param>
/// <param name="InDays">Whether whole days are counted, in the business's zone: with 1 nobody books for today, with 2 not for tomorrow either.</param>
public sealed record SlotNotice(int Count, bool InDays)
{
    /// <summary>12 hours.</summary>
    public static SlotNotice Usual { get; } = new(12, InDays: false);

    /// <summary>The first moment that can be booked.</summary>
    /// <param name="now">The current instant.</param>
    /// <param name="zone">The business's zone.</param>
    public Instant Earliest(Instant now, DateTimeZone zone) =>
        InDays && Count > 0
            ? zone.AtStartOfDay(now.InZone(zone).Date.PlusDays(Count)).ToInstant()
            : now + Duration.FromHours(InDays ? 0 : Count);

    /// <summary>What it means today, as a sentence: "Someone booking now (today 22:00) could take tomorrow 10:00 or later."</summary>
    /// <param name="now">The current instant.</param>
    /// <param name="zone">The business's zone.</param>
    public string Example(Instant now, DateTimeZone zone) =>
        Count == 0
            ? "Someone booking now can take the next free time."
            : $"Someone booking now ({TimeWords.At(now, now, zone)}) can take {TimeWords.At(Earliest(now, zone), now, zone)} or later.";
}

/// <summary>When meetings of a type can be: what <see cref="Slots"/> go by. The usual values are practice, no source.</summary>
/// <param name="Minutes">How long one lasts; 5 to 720.</param>
public sealed record SlotRules(int Minutes)
{
    /// <summary>The longest meeting, in minutes.</summary>
    public const int LongestMeeting = 12 * 60;

    /// <summary>The longest time before or after a meeting, in minutes.</summary>
    public const int LongestBuffer = 8 * 60;

    /// <summary>The farthest horizon, in days.</summary>
    public const int FarthestHorizon = 365;

    /// <summary>Every how many minutes one can begin, counted from the full hour of the business's clock; divides 60.</summary>
    public int Grid { get; init; } = 30;

    /// <summary>The weekly hours of its own, within those of the hosts; null where it has none of its own.</summary>
    public IReadOnlyList<DayHours>? Hours { get; init; }

    /// <summary>For how many minutes before it the host has to be free; it may lie outside of the hours.</summary>
    public int BufferBefore { get; init; } = 15;

    /// <summary>For how many minutes after it the host has to be free; it may lie outside of the hours.</summary>
    public int BufferAfter { get; init; } = 15;

    /// <summary>How long before it has to be booked.</summary>
    public SlotNotice Notice { get; init; } = SlotNotice.Usual;

    /// <summary>For how many days from today on it can be booked, in the business's zone: with 0 for today alone.</summary>
    public int HorizonDays { get; init; } = 21;

    /// <summary>How many meetings of this type begin on a day at most; null for any number.</summary>
    public int? MostADay { get; init; }

    /// <summary>How many meetings of this type begin in a week at most; null for any number.</summary>
    public int? MostAWeek { get; init; }

    /// <summary>Who of its hosts holds it.</summary>
    public HostChoice HostChoice { get; init; }

    /// <summary>How long it lasts.</summary>
    [JsonIgnore]
    public Duration Length => Duration.FromMinutes(Minutes);

    /// <summary>The time during which its host has to be free for it: the meeting with what lies before and after.</summary>
    /// <param name="start">When the meeting begins.</param>
    public Span Needs(Instant start) => new(start - Duration.FromMinutes(BufferBefore), start + Length + Duration.FromMinutes(BufferAfter));

    /// <summary>What has to be put right before meetings can be booked by it, by the place of each value.</summary>
    public IReadOnlyList<Finding> Check()
    {
        var found = new List<Finding>();
        Say(Minutes is < 5 or > LongestMeeting, "minutes", $"A meeting lasts from 5 to {LongestMeeting} minutes.");
        Say(
            Grid is < 5 or > 60 || 60 % Grid != 0,
            "grid",
            "Meetings can begin every 5, 6, 10, 12, 15, 20, 30 or 60 minutes from the full hour."
        );
        Say(
            BufferBefore is < 0 or > LongestBuffer || BufferAfter is < 0 or > LongestBuffer,
            "buffers",
            $"The time before and after a meeting is from 0 to {LongestBuffer} minutes."
        );
        Say(
            Notice.Count < 0 || Notice.Count > (Notice.InDays ? FarthestHorizon : 24 * FarthestHorizon),
            "notice",
            "Say a number of hours or days that lies within a year."
        );
        Say(HorizonDays is < 0 or > FarthestHorizon, "horizonDays", $"Meetings can be booked for 0 to {FarthestHorizon} days ahead.");
        Say(MostADay < 1 || MostAWeek < 1, "most", "At least one meeting has to fit into a day and a week. Leave it empty for any number.");
        return found;

        void Say(bool wrong, string place, string sentence)
        {
            if (wrong)
                found.Add(new Finding(place, sentence));
        }
    }
}
