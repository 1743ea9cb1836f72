using NodaTime;
using PorchLight.Core.Common;

namespace PorchLight.Core.Calendar;

/// <summary>How fast the business says it answers.</summary>
/// <param name="Hours">In business hours; at least 1.</param>
/// <param name="Clock">Which hours count; the screen names it.</param>
public sealed record ReplyPromise(int Hours, PromiseClock Clock)
{
    /// <summary>What has to be put right: a promise is of 1 to 480 business hours.</summary>
    public IReadOnlyList<Finding> Check() =>
        Hours is >= 1 and <= 480 ? [] : [new Finding("hours", "Please promise an answer within 1 to 480 business hours.")];

    /// <summary>
    /// Until when an inquiry must be answered, or null when the business has no working day within 400 days and can
    /// promise nothing.
    /// </summary>
    /// <param name="received">When the inquiry came in.</param>
    /// <param name="calendar">When the business works.</param>
    public Instant? Deadline(Instant received, BusinessCalendar calendar) => calendar.AddHours(received, Hours, Clock);
}
