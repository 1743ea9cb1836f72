using NodaTime;

namespace PorchLight.Core.Calendar;

/// <summary>How fast the business says it answers.</summary>
/// <param name="Hours">In business hours; at least 1.</param>
/// <param name="Clock">Which hours count; the screen names it.</param>
public sealed record ReplyPromise(int Hours, PromiseClock Clock)
{
    /// <summary>
    /// Until when an inquiry must be answered, or null when the business has no working day within 400 days and can
    /// promise nothing.
    /// </summary>
    public Instant? Deadline(Instant received, BusinessCalendar calendar) => calendar.AddHours(received, Hours, Clock);
}
