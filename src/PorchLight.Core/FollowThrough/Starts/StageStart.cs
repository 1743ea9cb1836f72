using PorchLight.Core.Common;
using PorchLight.Core.Records;

namespace PorchLight.Core.FollowThrough;

/// <summary>Starts when a project comes to one of some stages.</summary>
/// <param name="Stages">The keys of the stages; at least one.</param>
[Kind("stage")]
public sealed record StageStart(IReadOnlyList<string> Stages) : StartOn
{
    /// <inheritdoc/>
    public override bool IsStartedBy(DomainEvent happened, IRunFacts facts) =>
        happened.StageReached() is { } stage && Stages.Contains(stage);

    /// <inheritdoc/>
    public override bool IsTheirDoing() => false;

    /// <inheritdoc/>
    public override string Say(FollowThroughNames names) => $"a project reaches {WordLists.Either(Stages.Select(names.Stage))}";

    /// <inheritdoc/>
    public override string? Check(FollowThroughSurroundings around) =>
        Stages.Count > 0 && Stages.All(around.HasStage) ? null : "Say which stage starts it.";
}
