using NodaTime;
using PorchLight.Core.Calendar;

namespace PorchLight.Core.Inquiries;

/// <summary>Says how it stands with the reply promise of one inquiry.</summary>
public static class PromiseWords
{
    /// <summary>
    /// A promise that is open, or how it ended; null only when nothing could be promised and nobody has answered yet.
    /// </summary>
    /// <param name="promisedBy">The deadline; null when a no was said on the page, or nothing could be promised.</param>
    /// <param name="stopped">When the first personal word went, a meeting was booked or the no was said; null while open.</param>
    /// <param name="turnedAway">Whether a no was said on the page.</param>
    /// <param name="now">The business's now.</param>
    /// <param name="calendar">The business's hours and zone.</param>
    public static string? Say(Instant? promisedBy, Instant? stopped, bool turnedAway, Instant now, BusinessCalendar calendar) =>
        (promisedBy, stopped) switch
        {
            ({ } due, null) when due < now => $"Your first reply {DeadlineWords.ToOwner(due, now, calendar)}.",
            ({ } due, null) => DeadlineWords.ToOwner(due, now, calendar) is var words
            && words.StartsWith("answer", StringComparison.Ordinal)
                ? $"A{words[1..]}."
                : $"You promised a first reply {words}.",
            (null, null) => null,
            (null, _) when turnedAway => "The page said a friendly no, so you owe no reply.",
            (null, { } answered) => $"First personal reply {TimeWords.At(answered, now, calendar.Zone)}.",
            ({ } due, { } kept) when kept <= due => $"Kept: first personal reply {TimeWords.At(kept, now, calendar.Zone)}.",
            (_, { } late) => $"Missed: the first personal reply went {TimeWords.At(late, now, calendar.Zone)}.",
        };
}
