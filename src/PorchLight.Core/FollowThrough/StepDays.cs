using NodaTime;
using PorchLight.Core.Calendar;

namespace PorchLight.Core.FollowThrough;

/// <summary>The days on which the steps of a follow-through stand before it is known when it starts.</summary>
public static class StepDays
{
    private static readonly BusinessCalendar Weeks = new(
        DateTimeZone.Utc,
        Enumerable.Range(1, 5).Select(day => new DayHours((IsoDayOfWeek)day, [new OpenSpan(LocalTime.Midnight, OpenSpan.EndOfDay)])),
        []
    );

    // A Monday, so that five working days are a week.
    private static readonly Instant Start = Instant.FromUtc(2027, 1, 4, 9, 0);

    /// <summary>
    /// The day of each step, the day of the start being 0: as if each were settled the moment it comes, and nothing were held to a sending
    /// window. Working days are Monday to Friday, from a Monday on. Null for a step that counts from a day of the project or a meeting, and for what
    /// counts from such a step.
    /// </summary>
    /// <param name="content">The follow-through; a branch is looked at as if everything were done in order.</param>
    public static IReadOnlyList<int?> DaysOf(FollowThroughContent content)
    {
        var days = new List<int?>();
        Instant? settled = Start;
        // However little is known of what stands between, no step comes before one that stands above it.
        var latest = Start;
        foreach (var step in content.Steps)
        {
            var anchor =
                step.Schedule.Anchor is PreviousSettledAnchor
                    ? settled
                    : step.Schedule.Anchor.At(new AnchorMoments(Start, Start, _ => null, Meeting: null));
            settled = anchor is { } from && step.Schedule.Counted(from, Weeks) is { } counted ? Instant.Max(counted, latest) : null;
            latest = settled ?? latest;
            days.Add(settled is { } day ? Period.DaysBetween(Weeks.Today(Start), Weeks.Today(day)) : null);
        }

        return days;
    }
}
