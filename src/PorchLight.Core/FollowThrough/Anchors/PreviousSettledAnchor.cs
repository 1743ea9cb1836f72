using NodaTime;
using PorchLight.Core.Common;

namespace PorchLight.Core.FollowThrough;

/// <summary>Counts from the instant the step before was settled.</summary>
[Kind("previousSettled")]
public sealed record PreviousSettledAnchor : Anchor
{
    /// <inheritdoc/>
    public override Instant? At(AnchorMoments moments) => moments.Settled;

    /// <inheritdoc/>
    public override bool CanMove() => false;

    /// <inheritdoc/>
    public override string Say(bool isFirst, FollowThroughNames names) => isFirst ? RunStart.Say(isFirst, names) : "the one before";

    /// <inheritdoc/>
    public override string SayNoLater(bool isFirst, bool atOnce, FollowThroughNames names) =>
        isFirst ? RunStart.SayNoLater(isFirst, atOnce, names) : "right after the one before";
}
