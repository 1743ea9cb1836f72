using System.Text.Json.Serialization;
using PorchLight.Core.Conditions;
using PorchLight.Core.Inquiries;
using PorchLight.Core.Records;

namespace PorchLight.Core.FollowThrough;

/// <summary>A dated sequence of steps that starts on an event and stops on another: what one version keeps.</summary>
/// <param name="Name">What the owner calls it.</param>
/// <param name="Starts">What starts it.</param>
/// <param name="Steps">In order; each is planned when the one before is settled. At least one.</param>
/// <param name="Stops">What ends a run, beside what ends every run: another journey, a closed piece of work, a person.</param>
/// <param name="LapseAfterDays">After so many days an unanswered nod lapses; at least 1.</param>
public sealed record FollowThroughContent(
    string Name,
    StartOn Starts,
    IReadOnlyList<Step> Steps,
    IReadOnlyList<StopOn> Stops,
    int LapseAfterDays = 14
)
{
    /// <summary>
    /// Whether a run keeps its rhythm from the start: then a step that counts from the one before counts from when that one was to
    /// come, however late it was settled. Waiting for an event is settled when it is settled.
    /// </summary>
    public bool KeepsRhythm { get; init; }

    /// <summary>Whether it may run beside another that is marked so, too; otherwise the one that starts ends the other.</summary>
    public bool SideBySide { get; init; }

    /// <summary>The steps, and behind them those that run when a run is stopped.</summary>
    [JsonIgnore]
    public IEnumerable<Step> AllSteps => Steps.Concat(Stops.Select(stop => stop.Last).OfType<Step>());

    /// <summary>Whether anything in it hangs on a condition, so that answers have to be looked at.</summary>
    [JsonIgnore]
    public bool Judges => Starts.Asks() is not null || AllSteps.Any(step => step.Condition is not null || step.Action.Asks() is not null);

    /// <summary>Whether any step counts from a meeting.</summary>
    [JsonIgnore]
    public bool CountsFromMeeting => AllSteps.Any(step => step.Schedule.Anchor is MeetingAnchor);

    /// <summary>The step with the key, also one that runs when a run is stopped.</summary>
    /// <param name="key">The key, case counts.</param>
    /// <exception cref="InvalidOperationException">There is no such step.</exception>
    public Step Step(string key) => AllSteps.First(step => step.Key == key);

    /// <summary>
    /// Whether a step is the word at once to what somebody just did: it goes whatever was sent on that day, and counts for nothing.
    /// </summary>
    /// <param name="step">A step of it.</param>
    public bool IsAnswer(Step step) =>
        Starts.IsTheirDoing()
        && Steps.Count > 0
        && Steps[0].Key == step.Key
        && step is { NeedsNod: false, Schedule: { AtOnce: true, Amount: 0 } schedule }
        && step.Action.IsMessage()
        && !schedule.Anchor.CanMove();

    /// <summary>The stop that an event is, and how it ends a run; null where the run goes on.</summary>
    /// <param name="happened">What happened to the person or the piece of work of the run.</param>
    public (RunEnd End, StopOn? Stop)? EndedBy(DomainEvent happened) =>
        happened switch
        {
            InquiryClosed or ProjectClosed => (RunEnd.Closed, null),
            InquirySetAside => (RunEnd.SetAside, null),
            _ => Stops.FirstOrDefault(stop => stop.On.IsMetBy(happened)) is { } stop ? (stop.On.End(), stop) : null,
        };
}

/// <summary>One step.</summary>
/// <param name="Key">Names it within the follow-through, also across versions.</param>
/// <param name="Name">What the owner calls it.</param>
/// <param name="Action">What it does.</param>
/// <param name="Schedule">When it is due; of a step that waits for something, how long it waits at most.</param>
/// <param name="NeedsNod">Whether a person looks before it takes effect; otherwise it is automatic.</param>
public sealed record Step(string Key, string Name, StepAction Action, Schedule Schedule, bool NeedsNod)
{
    /// <summary>
    /// On what it is done at all, judged when it falls due; what is not certain is not done. Null for always.
    /// </summary>
    public Condition? Condition { get; init; }
}

/// <summary>An event that ends the runs of a follow-through.</summary>
/// <param name="On">The event.</param>
/// <param name="Last">A step that is still done when a run ends so; everything else is cancelled. Null for none.</param>
public sealed record StopOn(Occasion On, Step? Last = null)
{
    /// <summary>The person replied.</summary>
    public static StopOn Replied { get; } = new(new RepliedOccasion());

    /// <summary>The person booked a meeting.</summary>
    public static StopOn Booked { get; } = new(new BookedOccasion());
}
