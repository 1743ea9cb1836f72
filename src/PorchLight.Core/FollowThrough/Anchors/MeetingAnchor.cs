using NodaTime;
using PorchLight.Core.Common;

namespace PorchLight.Core.FollowThrough;

/// <summary>
/// Counts from the beginning of a meeting: of the one that started the run, else of the next that is booked about the same work. What is
/// counted back from it and comes too late is passed over: nobody is reminded of what is there already.
/// </summary>
[Kind("meeting")]
public sealed record MeetingAnchor : Anchor
{
    /// <inheritdoc/>
    public override Instant? At(AnchorMoments moments) => moments.Meeting;

    /// <inheritdoc/>
    public override bool CanMove() => true;

    /// <inheritdoc/>
    public override bool PassesOverWhatComesLate() => true;

    /// <inheritdoc/>
    public override string Say(bool isFirst, FollowThroughNames names) => "the meeting begins";

    /// <inheritdoc/>
    public override string SayNoLater(bool isFirst, bool atOnce, FollowThroughNames names) => "when the meeting begins";

    /// <inheritdoc/>
    public override string? CheckBeforeClient() => "There is no meeting yet to count from.";
}
