using NodaTime;

namespace PorchLight.Core.Inquiries;

/// <summary>A first reply that was promised.</summary>
/// <param name="By">Until when.</param>
/// <param name="Stopped">When the promise was kept or fell away; null while it stands.</param>
/// <param name="Closed">When the inquiry was closed; null while it is open.</param>
public sealed record PromisedReply(Instant By, Instant? Stopped, Instant? Closed);

/// <summary>How many promised replies went in time.</summary>
/// <param name="Kept">
/// Those a person of the business wrote, or had a meeting for, until the promised instant, that instant included.
/// </param>
/// <param name="Broken">Those that came later, or are late now.</param>
public sealed record PromiseRecord(int Kept, int Broken)
{
    /// <summary>How far back the business looks at how it keeps its promise.</summary>
    public static readonly Duration Span = Duration.FromDays(90);

    /// <summary>All that are decided.</summary>
    public int Decided => Kept + Broken;

    /// <summary>
    /// Counts promises. One that still stands and is not late is not decided; one that ended because the inquiry was closed in time was
    /// neither kept nor broken.
    /// </summary>
    /// <param name="replies">What was promised.</param>
    /// <param name="now">The instant of counting.</param>
    public static PromiseRecord Of(IEnumerable<PromisedReply> replies, Instant now)
    {
        var (kept, broken) = (0, 0);
        foreach (var reply in replies)
        {
            if (reply.Stopped is { } stopped ? stopped > reply.By : now > reply.By)
                broken++;
            else if (reply.Stopped is { } kind && kind != reply.Closed)
                kept++;
        }

        return new PromiseRecord(kept, broken);
    }

    /// <summary>
    /// The record in a sentence, or null where nothing is decided: "You kept 46 of 50 promises in the last 90 days (92 %)."
    /// </summary>
    public string? Say() =>
        Decided == 0 ? null
        : Broken == 0 ? $"You kept {(Kept == 1 ? "the one promise" : $"all {Kept} promises")} of the last {(int)Span.TotalDays} days."
        : $"You kept {Kept} of {Decided} {(Decided == 1 ? "promise" : "promises")} in the last {(int)Span.TotalDays} days ({(int)Math.Floor(100m * Kept / Decided)} %).";
}
