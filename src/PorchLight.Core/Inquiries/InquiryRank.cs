using NodaTime;
using PorchLight.Core.Projects;
using PorchLight.Core.Records;

namespace PorchLight.Core.Inquiries;

/// <summary>What an inquiry needs, in the order a list shows it.</summary>
public enum InquiryNeed
{
    /// <summary>A first reply is owed, or they wrote and wait for an answer.</summary>
    Reply,

    /// <summary>Nothing is promised, and nobody of the business has written yet.</summary>
    New,

    /// <summary>It is their turn.</summary>
    Theirs,

    /// <summary>Nothing happens until a later time.</summary>
    Parked,

    /// <summary>The work is agreed, or under way.</summary>
    Agreed,

    /// <summary>It is closed.</summary>
    Ended,

    /// <summary>It is spam or a test, and never counts.</summary>
    Aside,
}

/// <summary>Where an inquiry stands in a list that is in order of what inquiries need.</summary>
/// <param name="Need">What it needs.</param>
/// <param name="Urgency">
/// The smaller, the further up among those who need the same: the ticks of the deadline or of what they wrote, the day they are parked
/// until, or for all others the newest first.
/// </param>
public sealed record InquiryRank(InquiryNeed Need, long Urgency)
{
    /// <summary>Where an inquiry stands.</summary>
    /// <param name="turn">Whose turn it is.</param>
    /// <param name="received">When it came in.</param>
    /// <param name="promisedBy">Until when a first reply is promised; null when none is.</param>
    /// <param name="stage">What the stage of its project means; null for a stage the business keeps no more, which counts as open.</param>
    /// <param name="parkedUntil">The day a parked project comes back; null for none.</param>
    /// <param name="aside">Why it is kept apart; null where it is not.</param>
    public static InquiryRank Of(
        InquiryTurn turn,
        Instant received,
        Instant? promisedBy,
        StageKind? stage,
        LocalDate? parkedUntil,
        AsideReason? aside = null
    )
    {
        var newestFirst = -received.ToUnixTimeTicks();
        if (aside is not null)
            return new InquiryRank(InquiryNeed.Aside, newestFirst);
        if (turn.Closed is not null)
            return new InquiryRank(InquiryNeed.Ended, newestFirst);
        // What is parked rests until its day, unless they write.
        if (stage == StageKind.Parked && turn.WroteBack is null)
            return new InquiryRank(
                InquiryNeed.Parked,
                (parkedUntil ?? LocalDate.MaxIsoValue).AtMidnight().InUtc().ToInstant().ToUnixTimeTicks()
            );
        if (turn.PromiseStopped is null || turn.WroteBack is not null)
        {
            // Where nothing could be promised, who came first is first.
            var owed = turn.PromiseStopped is null ? promisedBy ?? received : Instant.MaxValue;
            return new InquiryRank(InquiryNeed.Reply, Instant.Min(owed, turn.WroteBack ?? Instant.MaxValue).ToUnixTimeTicks());
        }

        return stage switch
        {
            StageKind.Lost or StageKind.Done => new InquiryRank(InquiryNeed.Ended, newestFirst),
            StageKind.Won => new InquiryRank(InquiryNeed.Agreed, newestFirst),
            _ => new InquiryRank(turn.PromiseStopped <= received ? InquiryNeed.New : InquiryNeed.Theirs, newestFirst),
        };
    }
}

/// <summary>Says what inquiries need.</summary>
public static class InquiryNeeds
{
    /// <summary>The heading over those who need the same: "Waiting for you".</summary>
    /// <param name="need">The need.</param>
    public static string Say(this InquiryNeed need) =>
        need switch
        {
            InquiryNeed.Reply => "Waiting for you",
            InquiryNeed.New => "New, nothing promised",
            InquiryNeed.Theirs => "Waiting for them",
            InquiryNeed.Parked => "Parked",
            InquiryNeed.Agreed => "Agreed",
            InquiryNeed.Ended => "Ended",
            _ => "Set aside: spam and tests",
        };
}
