using PorchLight.Core.Common;
using PorchLight.Core.Records;

namespace PorchLight.Core.FollowThrough;

/// <summary>The project came to one of some stages.</summary>
/// <param name="Stages">The keys of the stages; empty for whichever.</param>
[Kind("stage")]
public sealed record StageOccasion(IReadOnlyList<string> Stages) : Occasion
{
    /// <inheritdoc/>
    public override bool IsMetBy(DomainEvent happened) =>
        happened.StageReached() is { } stage && (Stages.Count == 0 || Stages.Contains(stage));

    /// <inheritdoc/>
    public override RunEnd End() => RunEnd.StageMoved;

    /// <inheritdoc/>
    public override string Say(FollowThroughNames names) =>
        Stages.Count == 0 ? "the stage moves on" : $"the project reaches {WordLists.Either(Stages.Select(names.Stage))}";

    /// <inheritdoc/>
    public override string? Gone(FollowThroughSurroundings around) => Stages.All(around.HasStage) ? null : "a stage that is gone";
}
