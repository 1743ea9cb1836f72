using PorchLight.Core.Common;
using PorchLight.Core.Conditions;

namespace PorchLight.Core.FollowThrough;

/// <summary>
/// What a step does. Each kind is a record in a file of its own with a <see cref="KindAttribute"/>, and answers here all that is asked of
/// it. What is done outside a run (<see cref="OutsideAction"/>) the area that owns it carries out; how a run goes on
/// (<see cref="FlowAction"/>) the planner decides alone.
/// </summary>
[KindFamily]
public abstract record StepAction
{
    /// <summary>What it does, as a part of a sentence: "a task: “Call {firstName}”".</summary>
    /// <param name="step">The step that does it.</param>
    /// <param name="names">What those are called whom it names.</param>
    public abstract string Say(Step step, FollowThroughNames names);

    /// <summary>What has to be put right in it before it can be put into force, as a sentence; null for nothing.</summary>
    /// <param name="step">The step that does it; any value is allowed.</param>
    /// <param name="later">The keys of the steps behind it, where a run may go on.</param>
    /// <param name="around">What it may name.</param>
    public abstract string? Check(Step step, IReadOnlyCollection<string> later, FollowThroughSurroundings around);

    /// <summary>Whether it needs a client, so that it cannot follow a form that was left half-finished.</summary>
    public abstract bool NeedsClient();

    /// <summary>Whether it writes to the client: nobody gets two messages on one day that no person wrote or nodded to.</summary>
    public virtual bool IsMessage() => false;

    /// <summary>What the client sees of it, before answers are set in; null for nothing.</summary>
    public virtual string? Seen() => null;

    /// <summary>What of it is still to be written; empty for nothing.</summary>
    public virtual string StillToWrite() => "";

    /// <summary>All the words that somebody wrote into it.</summary>
    public virtual IEnumerable<string> Words() => [];

    /// <summary>What it waits for; null for nothing. Its step's schedule then says how long it waits at most.</summary>
    public virtual Occasion? WaitsFor() => null;

    /// <summary>The condition it hangs on how the run goes on; null for none.</summary>
    public virtual Condition? Asks() => null;

    /// <summary>Whether it makes another follow-through start.</summary>
    /// <param name="other">The other one.</param>
    public virtual bool Starts(OtherFollowThrough other) => false;
}

/// <summary>Something that is done outside the run.</summary>
public abstract record OutsideAction : StepAction;

/// <summary>How a run goes on.</summary>
public abstract record FlowAction : StepAction
{
    internal const string NotLater = "It continues at a step that does not come later. Choose a later one.";

    /// <summary>How the run goes on when the time of the step has come.</summary>
    /// <param name="facts">What is known by then.</param>
    public abstract FlowTurn Turn(IRunFacts facts);
}

/// <summary>How a run goes on at a step.</summary>
/// <param name="Status">What becomes of the step.</param>
/// <param name="GoOnAt">The key of the later step it goes on at; null for the next one.</param>
/// <param name="Note">What is noted of it; null for nothing.</param>
/// <param name="EndsRun">Whether nothing comes behind it.</param>
public sealed record FlowTurn(StepStatus Status, string? GoOnAt = null, RunEffectKind? Note = null, bool EndsRun = false);
