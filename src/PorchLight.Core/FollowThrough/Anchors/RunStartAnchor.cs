using NodaTime;
using PorchLight.Core.Common;

namespace PorchLight.Core.FollowThrough;

/// <summary>Counts from the instant the run started.</summary>
[Kind("runStart")]
public sealed record RunStartAnchor : Anchor
{
    /// <inheritdoc/>
    public override Instant? At(AnchorMoments moments) => moments.Started;

    /// <inheritdoc/>
    public override bool CanMove() => false;

    /// <inheritdoc/>
    public override string Say(bool isFirst, FollowThroughNames names) => "the start";

    /// <inheritdoc/>
    public override string SayNoLater(bool isFirst, bool atOnce, FollowThroughNames names) => atOnce ? "at once" : "at the start";
}
