using NodaTime;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;
using PorchLight.Core.Records;

namespace PorchLight.Core.FollowThrough;

/// <summary>
/// Plans and moves runs. The same functions serve the worker, which asks at the real time, and a rehearsal, which asks
/// at assumed times.
/// </summary>
/// <param name="content">The version the run follows.</param>
/// <param name="calendar">When the business works.</param>
/// <param name="window">When messages may go.</param>
/// <param name="facts">What is known of the person and the piece of work; null for nothing.</param>
public sealed class RunPlanner(FollowThroughContent content, BusinessCalendar calendar, SendingWindow window, IRunFacts? facts = null)
{
    private readonly IRunFacts _facts = facts ?? NoFacts.Instance;

    /// <summary>A new run whose first step is planned.</summary>
    /// <param name="now">The instant it starts, which its first anchor is.</param>
    public RunState Start(Instant now) =>
        PlanNext(new RunState(now, [.. content.Steps.Select(step => new StepState(step.Key, StepStatus.Later))]), now);

    /// <summary>When the run next has to be looked at; null when nothing comes by itself.</summary>
    /// <param name="run">The run; an ended or paused one needs no looking at.</param>
    public Instant? NextMoment(RunState run) =>
        run.Current switch
        {
            { Status: StepStatus.Planned or StepStatus.Approved } step => step.Due,
            { Status: StepStatus.Waiting, Due: { } since } => LapseAt(since),
            _ => null,
        };

    /// <summary>
    /// What has fallen due by now, as far as the first thing that is to be carried out: each is carried out on its own, and what comes
    /// behind it is asked for again. A step settles at the instant it takes effect, so that what follows counts
    /// from then. A nod is asked for at the instant of asking, when somebody can first see it, and lapses at the end of its days from
    /// then. However late this is called, nothing takes effect
    /// outside the sending window unless its step goes at once: it is held to the window again.
    /// </summary>
    /// <param name="run">The run; an ended or paused one stays as it is.</param>
    /// <param name="now">The instant of asking; before the next moment nothing happens.</param>
    public Transition Advance(RunState run, Instant now)
    {
        var effects = new List<RunEffect>();
        while (
            run.Current is { } step
            && NextMoment(run) is { } moment
            && moment <= now
            && !effects.Exists(effect => effect.Kind == RunEffectKind.TakeEffect)
        )
            run = Act(run, step, moment, now, effects);
        return new Transition(run, effects);
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
    /// <param name="grace">
    /// For how long what would take effect at once can still be taken back (<see cref="TakeNodBack"/>); it then does so at any hour. Not
    /// negative; zero for not at all.
    /// </param>
    public Transition? Nod(RunState run, string stepKey, Instant now, Guid by, bool sendNow = false, Duration grace = default)
    {
        if (run.Current is not { Status: StepStatus.Waiting or StepStatus.Approved } step || step.Key != stepKey || HasLapsed(run, now))
            return null;
        var due = sendNow ? now : Held(content.Step(stepKey), now);
        if (due != now)
            return step.Status == StepStatus.Approved
                ? null
                : new Transition(With(run, step with { Status = StepStatus.Approved, Due = due, By = by }), []);
        if (grace == Duration.Zero)
            return TakeEffectNow(run, step, now, by);
        return step is { Status: StepStatus.Approved, IsReleased: true }
            ? null
            : new Transition(With(run, step with { Status = StepStatus.Approved, Due = now + grace, By = by, IsReleased = true }), []);
    }

    /// <summary>
    /// A person takes their nod back before the step has taken effect: it waits again, from then on. Null when it has no nod, or has taken
    /// effect.
    /// </summary>
    /// <param name="run">The run.</param>
    /// <param name="stepKey">The step that is meant.</param>
    /// <param name="now">The instant it is taken back.</param>
    public static RunState? TakeNodBack(RunState run, string stepKey, Instant now) =>
        run.Current is { Status: StepStatus.Approved } step && step.Key == stepKey
            ? With(run, step with { Status = StepStatus.Waiting, Due = now, By = null, IsReleased = false })
            : null;

    /// <summary>
    /// A person has a step done now that is still to come by itself, at any hour and whatever its condition. Null when it is not the
    /// next one of an active run, waits for a nod (then <see cref="Nod"/> is meant), or does nothing outside the run.
    /// </summary>
    /// <param name="run">The run.</param>
    /// <param name="stepKey">The step that is meant.</param>
    /// <param name="now">The instant it is done, from which what follows counts.</param>
    /// <param name="by">The user who has it done.</param>
    public Transition? DoNow(RunState run, string stepKey, Instant now, Guid by) =>
        run.Current is { Status: StepStatus.Planned } step && step.Key == stepKey && content.Step(stepKey).Action is OutsideAction
            ? TakeEffectNow(run, step, now, by)
            : null;

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
        if (step is { Status: StepStatus.Planned, Due: { } due } && due <= now && AsksForNod(content.Step(stepKey)))
        {
            effects.Add(new RunEffect(RunEffectKind.AskForNod, stepKey, now));
            step = step with { Due = now };
        }

        return new Transition(Settle(run, step, StepStatus.Skipped, now, effects, null), effects);
    }

    /// <summary>
    /// A person takes a skip back: a step that waited for its nod, or had it, waits again; one whose date was still to
    /// come keeps its date. What follows counts from where it counted before. Null when the step was not skipped, when something after it has
    /// happened or is waiting already, or when an event has ended the run.
    /// </summary>
    /// <param name="run">The run.</param>
    /// <param name="stepKey">The step that was skipped.</param>
    public RunState? TakeSkipBack(RunState run, string stepKey)
    {
        var later = run.Steps.SkipWhile(step => step.Key != stepKey).ToList();
        if (
            later is not [{ Status: StepStatus.Skipped } skipped, .. var after]
            || run.Status is RunStatus.Stopped or RunStatus.Paused
            || after.Any(step => step.Status is not (StepStatus.Later or StepStatus.Planned))
        )
            return null;
        var waited = AsksForNod(content.Step(stepKey)) && (skipped.By is not null || skipped.Due <= skipped.Settled);
        var restored = waited
            ? new StepState(stepKey, StepStatus.Waiting, skipped.Due < skipped.Settled ? skipped.Due : skipped.Settled)
            : new StepState(stepKey, StepStatus.Planned, skipped.Due);
        return run with
        {
            Status = RunStatus.Active,
            Ended = null,
            CountsFrom = CountedBefore(run, stepKey),
            Steps =
            [
                .. run.Steps.Select(step =>
                    step == skipped ? restored with { Counted = skipped.Counted }
                    : after.Contains(step) ? new StepState(step.Key, StepStatus.Later)
                    : step
                ),
            ],
        };
    }

    /// <summary>
    /// Something happened that a step may wait for: it is settled by it, and the run goes on. An event that comes before the worker has
    /// seen that the time is over still counts. Null when the run waits for no such thing.
    /// </summary>
    /// <param name="run">The run; a paused one does not wait.</param>
    /// <param name="happened">What happened to its person or its project.</param>
    /// <param name="now">The instant it happened.</param>
    public Transition? Happened(RunState run, DomainEvent happened, Instant now)
    {
        if (run.Current is not { Status: StepStatus.Planned } step || content.Step(step.Key).Action.WaitsFor()?.IsMetBy(happened) != true)
            return null;
        var effects = new List<RunEffect>();
        return new Transition(Settle(run, step with { Counted = null }, StepStatus.Done, now, effects, null), effects);
    }

    /// <summary>
    /// Ends the run: everything pending is cancelled. An ended run stays as it is, and so does what else comes of it. Where the stop has
    /// a last step, only that is still to come; a second stop cancels it, too.
    /// </summary>
    /// <param name="run">The run.</param>
    /// <param name="why">What ended it.</param>
    /// <param name="now">The instant it ended.</param>
    /// <param name="last">The step that is still to be done, of the stop that ends it; null for none.</param>
    public RunState Stop(RunState run, RunEnd why, Instant now, Step? last = null)
    {
        if (run.IsOver)
            return run;
        var isEnding = run.StoppedBy is not null;
        run = run with
        {
            Steps = [.. run.Steps.Select(step => step.IsPending ? step with { Status = StepStatus.Cancelled } : step)],
            Status = RunStatus.Stopped,
            Ended = now,
            StoppedBy = run.StoppedBy ?? why,
        };
        return last is null || isEnding
            ? run
            : PlanNext(
                run with
                {
                    Steps = [.. run.Steps, new StepState(last.Key, StepStatus.Later)],
                    Status = RunStatus.Active,
                    Ended = null,
                    CountsFrom = now,
                },
                now
            );
    }

    /// <summary>A person holds the run back. Null when it is not active.</summary>
    /// <param name="run">The run.</param>
    public static RunState? Pause(RunState run) => run.Status == RunStatus.Active ? run with { Status = RunStatus.Paused } : null;

    /// <summary>
    /// A person lets the run go on: what had fallen due meanwhile is due now; a nod that was waited for has all its days again. Null when
    /// it was not paused.
    /// </summary>
    /// <param name="run">The run.</param>
    /// <param name="now">The instant it goes on.</param>
    public static RunState? Resume(RunState run, Instant now)
    {
        if (run.Status != RunStatus.Paused)
            return null;
        run = run with { Status = RunStatus.Active };
        return run.Current is { Status: StepStatus.Waiting } step ? With(run, step with { Due = now }) : run;
    }

    /// <summary>
    /// The run after the program did not run for a while, which does not count: a nod that was asked for before has as many of its days
    /// left as it had then. Any other run stays as it is.
    /// </summary>
    /// <param name="run">The run, also a paused one, whose nod has all its days again when it goes on.</param>
    /// <param name="from">When the program ran last.</param>
    /// <param name="until">When it runs again; where that is not later, nothing was missed.</param>
    public static RunState StoodStill(RunState run, Instant from, Instant until) =>
        run.Current is { Status: StepStatus.Waiting, Due: { } since } step && Instant.Max(from, since) is var counted && counted < until
            ? With(run, step with { Due = since + (until - counted) })
            : run;

    /// <summary>
    /// The run after a day of the project was changed: a step that counts from it is planned anew. Any other run stays as it is.
    /// </summary>
    /// <param name="run">The run, also a paused one.</param>
    /// <param name="now">The instant of the change, before which nothing is planned.</param>
    public RunState PlanAnew(RunState run, Instant now) =>
        run.Next is { Status: StepStatus.Planned } step && content.Step(step.Key).Schedule.Anchor.CanMove()
            ? Plan(run, step, CountsFrom(run), now)
            : run;

    /// <summary>
    /// The run moved to this version from another. What is settled stays so, by the keys of the steps; what stands before it and is new
    /// is passed over: nobody goes back. The step that comes is planned by this version; one that waits, or has its nod, keeps that. A
    /// run that is over, or only has the last step of a stop to do, stays as it is.
    /// </summary>
    /// <param name="run">The run, also a paused one.</param>
    /// <param name="now">The instant it is moved, before which nothing is planned.</param>
    public RunState MoveHere(RunState run, Instant now)
    {
        if (run.IsOver || run.StoppedBy is not null)
            return run;
        var before = run.Steps.ToDictionary(step => step.Key);
        var settled = content.Steps.Select(step => before.GetValueOrDefault(step.Key) is { IsPending: false }).ToList();
        var behind = settled.LastIndexOf(true);
        var next = run.Next;
        run = run with
        {
            Steps =
            [
                .. content.Steps.Select(
                    (step, index) =>
                        settled[index] ? before[step.Key]
                        : index < behind ? new StepState(step.Key, StepStatus.PassedOver)
                        : step.Key == next?.Key && next.Status is StepStatus.Waiting or StepStatus.Approved && AsksForNod(step) ? next
                        : new StepState(step.Key, StepStatus.Later)
                ),
            ],
            CountsFrom = CountsFrom(run),
        };
        var comes = run.Next;
        return comes is { Status: StepStatus.Waiting or StepStatus.Approved } ? run : PlanNext(run, now);
    }

    private Transition TakeEffectNow(RunState run, StepState step, Instant now, Guid by)
    {
        var effects = new List<RunEffect>();
        return new Transition(
            Settle(run, step with { Due = now, By = by }, StepStatus.Done, now, effects, RunEffectKind.TakeEffect),
            effects
        );
    }

    /// <summary>What becomes of the step whose moment has come.</summary>
    private RunState Act(RunState run, StepState step, Instant moment, Instant now, List<RunEffect> effects)
    {
        var planned = content.Step(step.Key);
        if (step.Status == StepStatus.Waiting)
            return Settle(run, step, StepStatus.Lapsed, moment, effects, RunEffectKind.NoteLapse);
        if (step.Status == StepStatus.Planned && planned.Condition is { } condition && _facts.Judge(condition) != Truth.True)
            return Settle(run, step, StepStatus.PassedOver, moment, effects, null);
        if (step.Status is StepStatus.Planned or StepStatus.Approved && ComesTooLate(planned, step, run, now))
            return Settle(run, step, StepStatus.PassedOver, moment, effects, null);
        if (planned.Action is FlowAction flow)
        {
            var turn = flow.Turn(_facts);
            var on = turn.EndsRun ? PassOver(run, null, after: step.Key) : run;
            return Settle(on, step, turn.Status, moment, effects, turn.Note, turn.GoOnAt);
        }

        if (step.Status == StepStatus.Planned && AsksForNod(planned))
        {
            effects.Add(new RunEffect(RunEffectKind.AskForNod, step.Key, now));
            return With(run, step with { Status = StepStatus.Waiting, Due = now });
        }

        var held = step.IsReleased ? now : Held(planned, now);
        if (held == now && step.By is null && planned.Action.IsMessage() && !content.IsAnswer(planned) && WasSentToday(now))
        {
            effects.Add(new RunEffect(RunEffectKind.NoteMoved, step.Key, now));
            return With(run, step with { Due = calendar.HoldTo(window, calendar.Tomorrow(now)) });
        }

        return held == now
            ? Settle(run, step, StepStatus.Done, now, effects, RunEffectKind.TakeEffect)
            : With(run, step with { Due = held });
    }

    // Nobody gets two messages on one day that no person wrote or nodded to.
    private bool WasSentToday(Instant now) => _facts.LastAutomaticMessage is { } sent && calendar.Today(sent) == calendar.Today(now);

    /// <summary>When the step may take effect at the earliest.</summary>
    private Instant? Held(Step step, Instant now) => IsHeld(step) ? calendar.HoldTo(window, now) : now;

    // Waiting, branching and ending disturb nobody, so they need not wait for the sending window.
    private static bool IsHeld(Step step) => !step.Schedule.AtOnce && step.Action is OutsideAction;

    private static bool AsksForNod(Step step) => step.NeedsNod && step.Action is OutsideAction;

    private bool HasLapsed(RunState run, Instant now) =>
        run.Current is { Status: StepStatus.Waiting, Due: { } since } && LapseAt(since) <= now;

    private RunState Settle(
        RunState run,
        StepState step,
        StepStatus status,
        Instant at,
        List<RunEffect> effects,
        RunEffectKind? kind,
        string? goOnAt = null
    )
    {
        if (kind is { } effect)
            effects.Add(new RunEffect(effect, step.Key, at));
        run = With(run, step with { Status = status, Settled = at }) with
        {
            CountsFrom = content.KeepsRhythm && step.Counted is { } counted ? counted : at,
        };
        run = PlanNext(goOnAt is null ? run : PassOver(run, goOnAt, after: step.Key), at);
        if (run.Status == RunStatus.Finished)
            effects.Add(new RunEffect(RunEffectKind.NoteEnd, null, at));
        return run;
    }

    /// <summary>Passes over what is pending behind one step and before another; where that one is not behind it, nothing.</summary>
    private static RunState PassOver(RunState run, string? until, string after)
    {
        var (from, to) = (IndexOf(after), until is null ? run.Steps.Count : IndexOf(until));
        return run with
        {
            Steps =
            [
                .. run.Steps.Select(
                    (step, index) => index > from && index < to && step.IsPending ? step with { Status = StepStatus.PassedOver } : step
                ),
            ],
        };

        int IndexOf(string key) => run.Steps.Select(step => step.Key).ToList().IndexOf(key);
    }

    private RunState PlanNext(RunState run, Instant settled)
    {
        if (run.Next is not { } next)
            return run with { Status = run.StoppedBy is null ? RunStatus.Finished : RunStatus.Stopped, Ended = settled };
        return Plan(run, next, CountsFrom(run), settled);
    }

    /// <summary>Plans the step that comes, never before an instant.</summary>
    private RunState Plan(RunState run, StepState step, Instant countsFrom, Instant earliest)
    {
        var planned = content.Step(step.Key);
        var counted = AnchorOf(planned, run, countsFrom) is { } anchor ? planned.Schedule.Counted(anchor, calendar) : null;
        return With(
            run,
            step with
            {
                Status = StepStatus.Planned,
                Counted = counted,
                Due = counted is { } instant ? Held(planned, Instant.Max(instant, earliest)) : null,
            }
        );
    }

    private Instant? AnchorOf(Step planned, RunState run, Instant countsFrom) =>
        planned.Schedule.Anchor.At(new AnchorMoments(run.Started, countsFrom, DayOf, _facts.Meeting));

    /// <summary>Whether a step is counted back from something before which alone it makes sense, and that has come, or its own time had.</summary>
    private bool ComesTooLate(Step planned, StepState step, RunState run, Instant now) =>
        planned.Schedule is { Amount: < 0, Anchor: var anchor }
        && anchor.PassesOverWhatComesLate()
        && (
            AnchorOf(planned, run, CountsFrom(run)) <= now
            || step.Status == StepStatus.Planned && planned.Schedule.AtOnce && step.Due > step.Counted
        );

    private Instant? DayOf(string field) => _facts.DayOf(field) is { } day ? calendar.ToInstant(day + window.From) : null;

    private static Instant CountsFrom(RunState run) => run.CountsFrom ?? run.Steps.Max(step => step.Settled) ?? run.Started;

    /// <summary>From when a step counted before it was settled: from the last one before it that was.</summary>
    private Instant? CountedBefore(RunState run, string stepKey) =>
        run.Steps.TakeWhile(step => step.Key != stepKey).LastOrDefault(step => step.Settled is not null) is { } before
            ? content.KeepsRhythm && before.Counted is { } counted
                ? counted
                : before.Settled
            : null;

    private Instant LapseAt(Instant since) => calendar.ToInstant(calendar.ToLocal(since).PlusDays(content.LapseAfterDays));

    private static RunState With(RunState run, StepState step) =>
        run with
        {
            Steps = [.. run.Steps.Select(old => old.Key == step.Key ? step : old)],
        };
}
