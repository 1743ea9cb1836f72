using PorchLight.Core.Common;

namespace PorchLight.Core.FollowThrough;

/// <summary>
/// Waits until something happens, at most as long as the step's schedule has it; what follows counts from then.
/// </summary>
/// <param name="On">What it waits for.</param>
/// <param name="Otherwise">The key of the later step it goes on at when the time is over; null for the next one.</param>
[Kind("waitFor")]
public sealed record WaitFor(Occasion On, string? Otherwise = null) : FlowAction
{
    /// <inheritdoc/>
    public override string Say(Step step, FollowThroughNames names) =>
        $"waits until {On.Say(names)}, at most {FollowThroughWords.Span(step.Schedule.Amount, step.Schedule.Unit)}";

    /// <inheritdoc/>
    public override string? Check(Step step, IReadOnlyCollection<string> later, FollowThroughSurroundings around) =>
        Otherwise is { } target && !later.Contains(target) ? NotLater
        : On.Gone(around) is { } gone ? $"It waits for {gone}. Choose another one."
        : null;

    /// <inheritdoc/>
    public override bool NeedsClient() => true;

    /// <inheritdoc/>
    public override Occasion WaitsFor() => On;

    /// <inheritdoc/>
    public override FlowTurn Turn(IRunFacts facts) => new(StepStatus.Lapsed, Otherwise, RunEffectKind.NoteWaitedInVain);
}
