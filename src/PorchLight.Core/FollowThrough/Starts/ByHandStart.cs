using PorchLight.Core.Common;
using PorchLight.Core.Records;

namespace PorchLight.Core.FollowThrough;

/// <summary>Starts only when a person, or a step of another, starts it.</summary>
[Kind("byHand")]
public sealed record ByHandStart : StartOn
{
    /// <inheritdoc/>
    public override bool IsStartedBy(DomainEvent happened, IRunFacts facts) => false;

    /// <inheritdoc/>
    public override bool IsTheirDoing() => false;

    /// <inheritdoc/>
    public override string Say(FollowThroughNames names) => "someone starts it by hand";
}
