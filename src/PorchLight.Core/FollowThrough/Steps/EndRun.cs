using PorchLight.Core.Common;

namespace PorchLight.Core.FollowThrough;

/// <summary>Ends the run; what stands behind it is reached from a branch only.</summary>
[Kind("end")]
public sealed record EndRun : FlowAction
{
    /// <inheritdoc/>
    public override string Say(Step step, FollowThroughNames names) => "it ends here";

    /// <inheritdoc/>
    public override string? Check(Step step, IReadOnlyCollection<string> later, FollowThroughSurroundings around) => null;

    /// <inheritdoc/>
    public override bool NeedsClient() => false;

    /// <inheritdoc/>
    public override FlowTurn Turn(IRunFacts facts) => new(StepStatus.Done, EndsRun: true);
}
