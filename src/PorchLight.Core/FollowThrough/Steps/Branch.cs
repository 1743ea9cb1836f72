using PorchLight.Core.Common;
using PorchLight.Core.Conditions;

namespace PorchLight.Core.FollowThrough;

/// <summary>Goes on at one step or at another.</summary>
/// <param name="If">What is judged when the step falls due.</param>
/// <param name="Then">The key of the later step it goes on at where that is true for certain; null for the next one.</param>
/// <param name="Otherwise">The same where it is not; null for the next one.</param>
[Kind("branch")]
public sealed record Branch(Condition If, string? Then, string? Otherwise) : FlowAction
{
    /// <inheritdoc/>
    public override string Say(Step step, FollowThroughNames names) =>
        IsUndecided() ? "one way or another" : $"if {names.Condition(If)}, one way; else another";

    /// <inheritdoc/>
    public override string? Check(Step step, IReadOnlyCollection<string> later, FollowThroughSurroundings around) =>
        IsUndecided() ? "Say what decides which way it goes."
        : new[] { Then, Otherwise }.OfType<string>().Any(target => !later.Contains(target)) ? NotLater
        : Then == Otherwise ? "Both ways go on at the same step. Say where one of them goes on."
        : null;

    /// <inheritdoc/>
    public override bool NeedsClient() => false;

    /// <inheritdoc/>
    public override Condition Asks() => If;

    /// <inheritdoc/>
    public override FlowTurn Turn(IRunFacts facts) => new(StepStatus.Done, facts.Judge(If) == Truth.True ? Then : Otherwise);

    private bool IsUndecided() => If is AllCondition { Parts.Count: 0 };
}
