using NodaTime;
using PorchLight.Core.Calendar;

namespace PorchLight.Core.Meetings;

/// <summary>How a meeting stands.</summary>
public enum MeetingState
{
    /// <summary>It is to be, or has been.</summary>
    Booked,

    /// <summary>It was called off.</summary>
    Cancelled,

    /// <summary>Whoever booked did not come.</summary>
    Missed,
}

/// <summary>What can still be done with a meeting.</summary>
public static class MeetingChange
{
    /// <summary>The longest reason that somebody gives.</summary>
    public const int LongestReason = 1_000;

    /// <summary>The last moment at which whoever booked can move or cancel it.</summary>
    /// <param name="start">When it begins.</param>
    /// <param name="hours">How many hours before it that ends.</param>
    public static Instant Last(Instant start, int hours) => start - Duration.FromHours(hours);

    /// <summary>Why whoever booked cannot move or cancel it, as a sentence; null where they can, up to the last moment itself.</summary>
    /// <param name="state">How it stands.</param>
    /// <param name="start">When it begins.</param>
    /// <param name="hours">How many hours before it moving and cancelling end.</param>
    /// <param name="now">The current instant.</param>
    /// <param name="viewer">The zone of whoever looks.</param>
    public static string? RefuseTheirs(MeetingState state, Instant start, int hours, Instant now, DateTimeZone viewer) =>
        RefuseOurs(state, start, now) is { } over ? over
        : now > Last(start, hours)
            ? $"This could be moved or cancelled until {TimeWords.At(Last(start, hours), now, viewer)}. Please get in touch with us instead."
        : null;

    /// <summary>Why the business cannot move or cancel it, as a sentence; null where it can.</summary>
    /// <param name="state">How it stands.</param>
    /// <param name="start">When it begins.</param>
    /// <param name="now">The current instant.</param>
    public static string? RefuseOurs(MeetingState state, Instant start, Instant now) =>
        state == MeetingState.Cancelled ? "This meeting has been cancelled."
        : start <= now ? "This meeting has begun or is over, so it can’t be moved or cancelled any more."
        : null;

    /// <summary>Why it cannot be said that they did not come, as a sentence; null where it can.</summary>
    /// <param name="state">How it stands.</param>
    /// <param name="start">When it begins.</param>
    /// <param name="now">The current instant.</param>
    public static string? RefuseMissed(MeetingState state, Instant start, Instant now) =>
        state == MeetingState.Cancelled ? "This meeting has been cancelled."
        : start > now ? "This meeting is still to come."
        : null;
}
