using System.Text.Json.Serialization;
using NodaTime;

namespace PorchLight.Core.FollowThrough;

/// <summary>Where one step of a run stands.</summary>
public enum StepStatus
{
    /// <summary>The step before is not settled yet.</summary>
    Later,

    /// <summary>It has a date.</summary>
    Planned,

    /// <summary>Its date has come and it waits for a nod.</summary>
    Waiting,

    /// <summary>It has its nod and waits for the sending window.</summary>
    Approved,

    /// <summary>It took effect.</summary>
    Done,

    /// <summary>A person passed it over.</summary>
    Skipped,

    /// <summary>Nobody nodded in time.</summary>
    Lapsed,

    /// <summary>The run was stopped before it took effect.</summary>
    Cancelled,

    /// <summary>Its condition did not hold, or the run went on behind it.</summary>
    PassedOver,
}

/// <summary>One step of a run.</summary>
/// <param name="Key">The step's key.</param>
/// <param name="Status">Where it stands.</param>
/// <param name="Due">When it is due, or since when it waits; null before it is planned or when no working day comes.</param>
/// <param name="Settled">When it was sent, skipped or lapsed.</param>
/// <param name="By">The user who gave the nod; null for an automatic step and before it has one.</param>
public sealed record StepState(string Key, StepStatus Status, Instant? Due = null, Instant? Settled = null, Guid? By = null)
{
    /// <summary>When it was to come before anything held it back; null before it is planned.</summary>
    public Instant? Counted { get; init; }

    /// <summary>Whether it takes effect when it is due, at any hour: its nod came when it could have done so at once.</summary>
    public bool IsReleased { get; init; }

    /// <summary>Whether it can still take effect.</summary>
    [JsonIgnore]
    public bool IsPending => Status is StepStatus.Later or StepStatus.Planned or StepStatus.Waiting or StepStatus.Approved;
}

/// <summary>How a run stands.</summary>
public enum RunStatus
{
    /// <summary>Steps are still to come.</summary>
    Active,

    /// <summary>Every step is settled.</summary>
    Finished,

    /// <summary>An event ended it.</summary>
    Stopped,

    /// <summary>A person holds it back; nothing happens until it is resumed or stopped.</summary>
    Paused,
}

/// <summary>All that changes about a run.</summary>
/// <param name="Started">When it started.</param>
/// <param name="Steps">One for each step, in order; behind them the last step of the stop that ends it.</param>
/// <param name="Status">How it stands.</param>
/// <param name="Ended">When it finished or was stopped.</param>
/// <param name="StoppedBy">What stopped it, also while its last step is still to come.</param>
public sealed record RunState(
    Instant Started,
    IReadOnlyList<StepState> Steps,
    RunStatus Status = RunStatus.Active,
    Instant? Ended = null,
    RunEnd? StoppedBy = null
)
{
    /// <summary>From when the step that comes counts what counts from the one before; null in runs of old, and before any is settled.</summary>
    public Instant? CountsFrom { get; init; }

    /// <summary>The first step that is not settled, or null; of a paused run null, too: nothing comes.</summary>
    [JsonIgnore]
    public StepState? Current => Status == RunStatus.Active ? Next : null;

    /// <summary>The first step that is not settled, also while the run is paused, or null.</summary>
    [JsonIgnore]
    public StepState? Next => IsOver ? null : Steps.FirstOrDefault(step => step.IsPending);

    /// <summary>Whether nothing comes any more.</summary>
    [JsonIgnore]
    public bool IsOver => Status is RunStatus.Finished or RunStatus.Stopped;
}

/// <summary>What a transition of a run asks the rest of the program to do.</summary>
public enum RunEffectKind
{
    /// <summary>Carry the step's action out.</summary>
    TakeEffect,

    /// <summary>Ask a person for a nod.</summary>
    AskForNod,

    /// <summary>Note that nobody nodded in time.</summary>
    NoteLapse,

    /// <summary>Note that what was waited for did not happen in time.</summary>
    NoteWaitedInVain,

    /// <summary>Note that a message goes on a later day, because another went by itself to the same person today.</summary>
    NoteMoved,

    /// <summary>Note that the run has come to its end.</summary>
    NoteEnd,
}

/// <summary>One thing to do.</summary>
/// <param name="Kind">What.</param>
/// <param name="Step">The step's key; null for <see cref="RunEffectKind.NoteEnd"/>.</param>
/// <param name="At">When it fell.</param>
public sealed record RunEffect(RunEffectKind Kind, string? Step, Instant At);

/// <summary>A run after something happened.</summary>
/// <param name="State">How it stands now.</param>
/// <param name="Effects">What has to be done, in order.</param>
public sealed record Transition(RunState State, IReadOnlyList<RunEffect> Effects);
