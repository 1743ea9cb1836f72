using NodaTime;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;
using PorchLight.Core.Conditions;
using PorchLight.Core.Records;

namespace PorchLight.Core.FollowThrough;

/// <summary>Something that is assumed to happen while a follow-through is rehearsed.</summary>
/// <param name="At">When.</param>
/// <param name="What">What.</param>
public sealed record Assumption(Instant At, DomainEvent What);

/// <summary>How one step fares in a rehearsal.</summary>
/// <param name="Step">The step's key.</param>
/// <param name="Status">How it ended; planned or later for what never comes.</param>
/// <param name="At">When it was settled; of what is cancelled, when it would have been. Null for what never comes.</param>
/// <param name="Asked">When it asked for a nod; null for what asked for none.</param>
public sealed record RehearsedStep(string Step, StepStatus Status, Instant? At, Instant? Asked);

/// <summary>How a follow-through goes under some assumptions.</summary>
/// <param name="Run">The run at its end, or where nothing comes any more.</param>
/// <param name="Effects">All that was to be done, in the order of time.</param>
/// <param name="Steps">How each step fared, in order.</param>
public sealed record Rehearsed(RunState Run, IReadOnlyList<RunEffect> Effects, IReadOnlyList<RehearsedStep> Steps);

/// <summary>
/// Shows every date of a follow-through before it is live: the planner that serves the worker, asked at each moment at which
/// something comes, by an assumed clock.
/// </summary>
/// <param name="content">The follow-through.</param>
/// <param name="calendar">When the business works.</param>
/// <param name="window">When messages may go.</param>
/// <param name="facts">What is known of the person and the piece of work.</param>
public sealed class Rehearsal(FollowThroughContent content, BusinessCalendar calendar, SendingWindow window, IRunFacts facts)
{
    private static readonly Guid Somebody = Guid.Empty;

    /// <summary>How it goes.</summary>
    /// <param name="start">When the run starts.</param>
    /// <param name="assumed">What happens meanwhile; what comes before the start is left out.</param>
    /// <param name="nodsAfter">
    /// How long after it is asked for each nod is given, at any hour; what it is given for is then held to the sending window. Null for
    /// never: then nods lapse.
    /// </param>
    public Rehearsed Play(Instant start, IReadOnlyList<Assumption> assumed, Duration? nodsAfter)
    {
        var (run, effects) = Go(start, assumed, nodsAfter);
        var silent = run.Steps.Any(step => step.Status == StepStatus.Cancelled) ? Go(start, [], nodsAfter).Run : run;
        return new Rehearsed(
            run,
            effects,
            [
                .. run.Steps.Select(step => new RehearsedStep(
                    step.Key,
                    step.Status,
                    step.Status == StepStatus.Cancelled ? silent.Steps.FirstOrDefault(one => one.Key == step.Key)?.Settled : step.Settled,
                    effects.FirstOrDefault(effect => effect.Kind == RunEffectKind.AskForNod && effect.Step == step.Key)?.At
                )),
            ]
        );
    }

    private (RunState Run, List<RunEffect> Effects) Go(Instant start, IReadOnlyList<Assumption> assumed, Duration? nodsAfter)
    {
        var effects = new List<RunEffect>();
        var planner = new RunPlanner(content, calendar, window, new FactsSoFar(facts, effects, content));
        var run = Do(planner.Advance(planner.Start(start), start));
        var coming = new Queue<Assumption>(assumed.Where(one => one.At >= start).OrderBy(one => one.At));
        while (!run.IsOver)
        {
            var nod =
                run.Current is { Status: StepStatus.Waiting, Due: { } since } && nodsAfter is { } after ? since + after : (Instant?)null;
            var moments = new[] { planner.NextMoment(run), nod, coming.TryPeek(out var first) ? first.At : null };
            if (moments.Min() is not { } now)
                break;
            // What somebody does comes before what falls due at the same moment, as in the transaction of the event.
            if (coming.TryPeek(out var next) && next.At == now)
                run = Happen(run, coming.Dequeue().What, now);
            else if (planner.NextMoment(run) == now)
                run = Do(planner.Advance(run, now));
            else
                run = planner.Nod(run, run.Current!.Key, now, Somebody) is { } nodded ? Do(nodded) : run;
        }

        return (run, effects);

        RunState Do(Transition transition)
        {
            effects.AddRange(transition.Effects);
            return transition.State;
        }

        RunState Happen(RunState before, DomainEvent what, Instant at) =>
            content.EndedBy(what) is { } end ? planner.Stop(before, end.End, at, end.Stop?.Last)
            : planner.Happened(before, what, at) is { } happened ? Do(happened)
            : before;
    }

    /// <summary>The facts, with the messages that the rehearsal itself has sent by then.</summary>
    private sealed class FactsSoFar(IRunFacts real, List<RunEffect> effects, FollowThroughContent content) : IRunFacts
    {
        public string? Service => real.Service;

        public Instant? LastAutomaticMessage =>
            effects
                .FindLast(effect =>
                    effect is { Kind: RunEffectKind.TakeEffect, Step: { } key }
                    && content.Step(key) is { NeedsNod: false } step
                    && step.Action.IsMessage()
                    && !content.IsAnswer(step)
                )
                ?.At
            ?? real.LastAutomaticMessage;

        public LocalDate? DayOf(string field) => real.DayOf(field);

        public Instant? Meeting => real.Meeting;

        public Truth Judge(Condition condition) => real.Judge(condition);
    }
}
