using System.Text.Json.Serialization;
using NodaTime;
using PorchLight.Core.Calendar;
using PorchLight.Core.Records;

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
}

/// <summary>One step of a run.</summary>
/// <param name="Key">The step's key.</param>
/// <param name="Status">Where it stands.</param>
/// <param name="Due">When it is due, or since when it waits; null before it is planned or when no working day comes.</param>
/// <param name="Settled">When it was sent, skipped or lapsed.</param>
/// <param name="By">The user who gave the nod; null for an automatic step and before it has one.</param>
public sealed record StepState(string Key, StepStatus Status, Instant? Due = null, Instant? Settled = null, Guid? By = null)
{
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
}

/// <summary>All that changes about a run.</summary>
/// <param name="Started">When it started.</param>
/// <param name="Steps">One for each step, in order.</param>
/// <param name="Status">How it stands.</param>
/// <param name="Ended">When it finished or was stopped.</param>
/// <param name="StoppedBy">What stopped it.</param>
public sealed record RunState(
    Instant Started,
    IReadOnlyList<StepState> Steps,
    RunStatus Status = RunStatus.Active,
    Instant? Ended = null,
    RunEnd? StoppedBy = null
)
{
    /// <summary>The first step that is not settled, or null.</summary>
    [JsonIgnore]
    public StepState? Current => Status == RunStatus.Active ? Steps.FirstOrDefault(step => step.IsPending) : null;
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

/// <summary>
/// Plans and moves runs. The same functions serve the worker, which asks at the real time, and a rehearsal, which asks
/// at assumed times.
/// </summary>
public sealed class RunPlanner(FollowThroughContent content, BusinessCalendar calendar, SendingWindow window)
{
    /// <summary>A new run whose first step is planned.</summary>
    /// <param name="now">The instant it starts, which its first anchor is.</param>
    public RunState Start(Instant now) =>
        PlanNext(new RunState(now, [.. content.Steps.Select(step => new StepState(step.Key, StepStatus.Later))]), now);

    /// <summary>When the run next has to be looked at; null when nothing comes by itself.</summary>
    /// <param name="run">The run; an ended one needs no looking at.</param>
    public Instant? NextMoment(RunState run) =>
        run.Current switch
        {
            { Status: StepStatus.Planned or StepStatus.Approved } step => step.Due,
            { Status: StepStatus.Waiting, Due: { } since } => LapseAt(since),
            _ => null,
        };

    /// <summary>
    /// Everything that has fallen due by now. A step settles at the instant it takes effect, so that what follows counts
    /// from then; an unanswered nod lapses at the end of its days. However late this is called, nothing takes effect
    /// outside the sending window unless its step goes at once: it is held to the window again.
    /// </summary>
    /// <param name="run">The run; an ended one stays as it is.</param>
    /// <param name="now">The instant of asking; before the next moment nothing happens.</param>
    public Transition Advance(RunState run, Instant now)
    {
        var effects = new List<RunEffect>();
        return new Transition(Advance(run, now, effects), effects);
    }

    /// <summary>
    /// A person nods. Inside the sending window, or when told to send now, the step takes effect at once; outside it
    /// waits for the window to open. Null when the step does not wait for a nod (any more), its days are over, or it has
    /// its nod and is told nothing new.
    /// </summary>
    /// <param name="run">The run.</param>
    /// <param name="stepKey">The step that is meant.</param>
    /// <param name="now">The instant of the nod.</param>
    /// <param name="by">The user who nods.</param>
    /// <param name="sendNow">Whether it goes at once, also outside the sending window.</param>
    public Transition? Nod(RunState run, string stepKey, Instant now, Guid by, bool sendNow = false)
    {
        if (run.Current is not { Status: StepStatus.Waiting or StepStatus.Approved } step || step.Key != stepKey || HasLapsed(run, now))
            return null;
        var due = sendNow ? now : Held(step, now);
        if (due != now)
            return step.Status == StepStatus.Approved
                ? null
                : new Transition(With(run, step with { Status = StepStatus.Approved, Due = due, By = by }), []);
        var effects = new List<RunEffect>();
        run = Settle(run, step with { Due = now, By = by }, StepStatus.Done, now, effects, RunEffectKind.TakeEffect);
        return new Transition(Advance(run, now, effects), effects);
    }

    /// <summary>
    /// A person passes a step over. Null when the step is not the next one of an active run, or has lapsed by now. A step
    /// whose date has come unnoticed is asked about first, so that the skip can be taken back.
    /// </summary>
    /// <param name="run">The run.</param>
    /// <param name="stepKey">The step that is meant.</param>
    /// <param name="now">The instant of the skip, from which what follows counts.</param>
    public Transition? Skip(RunState run, string stepKey, Instant now)
    {
        if (run.Current is not { } step || step.Key != stepKey || HasLapsed(run, now))
            return null;
        var effects = new List<RunEffect>();
        if (step is { Status: StepStatus.Planned, Due: { } due } && due <= now && content.Step(stepKey).NeedsNod)
            effects.Add(new RunEffect(RunEffectKind.AskForNod, stepKey, due));
        return new Transition(Settle(run, step, StepStatus.Skipped, now, effects, null), effects);
    }

    /// <summary>
    /// A person takes a skip back: a step that waited for its nod, or had it, waits again; one whose date was still to
    /// come keeps its date. What follows has no date yet. Null when the step was not skipped, when something after it has
    /// happened or is waiting already, or when an event has ended the run.
    /// </summary>
    /// <param name="run">The run.</param>
    /// <param name="stepKey">The step that was skipped.</param>
    public RunState? TakeSkipBack(RunState run, string stepKey)
    {
        var later = run.Steps.SkipWhile(step => step.Key != stepKey).ToList();
        if (
            later is not [{ Status: StepStatus.Skipped } skipped, .. var after]
            || run.Status == RunStatus.Stopped
            || after.Any(step => step.Status is not (StepStatus.Later or StepStatus.Planned))
        )
            return null;
        var waited = content.Step(stepKey).NeedsNod && (skipped.By is not null || skipped.Due <= skipped.Settled);
        var restored = waited
            ? new StepState(stepKey, StepStatus.Waiting, skipped.Due < skipped.Settled ? skipped.Due : skipped.Settled)
            : new StepState(stepKey, StepStatus.Planned, skipped.Due);
        return run with
        {
            Status = RunStatus.Active,
            Ended = null,
            Steps =
            [
                .. run.Steps.Select(step =>
                    step == skipped ? restored
                    : after.Contains(step) ? new StepState(step.Key, StepStatus.Later)
                    : step
                ),
            ],
        };
    }

    /// <summary>Ends the run: everything pending is cancelled. An ended run stays as it is.</summary>
    /// <param name="run">The run.</param>
    /// <param name="why">What ended it.</param>
    /// <param name="now">The instant it ended.</param>
    public static RunState Stop(RunState run, RunEnd why, Instant now) =>
        run.Status != RunStatus.Active
            ? run
            : run with
            {
                Steps = [.. run.Steps.Select(step => step.IsPending ? step with { Status = StepStatus.Cancelled } : step)],
                Status = RunStatus.Stopped,
                Ended = now,
                StoppedBy = why,
            };

    private RunState Advance(RunState run, Instant now, List<RunEffect> effects)
    {
        while (run.Current is { } step && NextMoment(run) is { } moment && moment <= now)
        {
            if (step.Status == StepStatus.Waiting)
            {
                run = Settle(run, step, StepStatus.Lapsed, moment, effects, RunEffectKind.NoteLapse);
            }
            else if (step.Status == StepStatus.Planned && content.Step(step.Key).NeedsNod)
            {
                run = With(run, step with { Status = StepStatus.Waiting });
                effects.Add(new RunEffect(RunEffectKind.AskForNod, step.Key, moment));
            }
            else
            {
                var held = Held(step, now);
                run =
                    held == now
                        ? Settle(run, step, StepStatus.Done, now, effects, RunEffectKind.TakeEffect)
                        : With(run, step with { Due = held });
            }
        }

        return run;
    }

    /// <summary>When the step may take effect at the earliest.</summary>
    private Instant? Held(StepState step, Instant now) => content.Step(step.Key).Schedule.AtOnce ? now : calendar.HoldTo(window, now);

    private bool HasLapsed(RunState run, Instant now) =>
        run.Current is { Status: StepStatus.Waiting, Due: { } since } && LapseAt(since) <= now;

    private RunState Settle(RunState run, StepState step, StepStatus status, Instant at, List<RunEffect> effects, RunEffectKind? kind)
    {
        if (kind is { } effect)
            effects.Add(new RunEffect(effect, step.Key, at));
        run = PlanNext(With(run, step with { Status = status, Settled = at }), at);
        if (run.Status == RunStatus.Finished)
            effects.Add(new RunEffect(RunEffectKind.NoteEnd, null, at));
        return run;
    }

    private RunState PlanNext(RunState run, Instant settled)
    {
        if (run.Current is not { } next)
            return run with { Status = RunStatus.Finished, Ended = settled };
        var when = content.Step(next.Key).Schedule;
        var anchor = when.Anchor.At(run.Started, settled);
        return With(run, next with { Status = StepStatus.Planned, Due = when.Due(anchor, calendar, window) });
    }

    private Instant LapseAt(Instant since) => calendar.ToInstant(calendar.ToLocal(since).PlusDays(content.LapseAfterDays));

    private static RunState With(RunState run, StepState step) =>
        run with
        {
            Steps = [.. run.Steps.Select(old => old.Key == step.Key ? step : old)],
        };
}
