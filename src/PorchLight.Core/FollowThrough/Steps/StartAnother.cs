using PorchLight.Core.Common;

namespace PorchLight.Core.FollowThrough;

/// <summary>Starts another follow-through for the same project, which ends this one unless both may run side by side.</summary>
/// <param name="FollowThrough">Its identifier.</param>
[Kind("startAnother")]
public sealed record StartAnother(Guid FollowThrough) : OutsideAction
{
    /// <inheritdoc/>
    public override string Say(Step step, FollowThroughNames names) => $"“{names.FollowThrough(FollowThrough)}” starts";

    /// <inheritdoc/>
    public override string? Check(Step step, IReadOnlyCollection<string> later, FollowThroughSurroundings around) =>
        around.FollowThroughs.Contains(FollowThrough) ? null : "Choose what it starts; it has to be in force.";

    /// <inheritdoc/>
    public override bool NeedsClient() => true;

    /// <inheritdoc/>
    public override bool Starts(OtherFollowThrough other) => other.Id == FollowThrough;
}
