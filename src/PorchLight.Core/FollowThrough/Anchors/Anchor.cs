using NodaTime;
using PorchLight.Core.Common;

namespace PorchLight.Core.FollowThrough;

/// <summary>
/// From what a step's time is counted. A new one is one more record in a file of its own with a <see cref="KindAttribute"/>; the planner
/// does not know them apart.
/// </summary>
[KindFamily]
public abstract record Anchor
{
    /// <summary>The instant the run started.</summary>
    public static Anchor RunStart { get; } = new RunStartAnchor();

    /// <summary>The instant the step before was settled: sent, done, skipped or lapsed.</summary>
    public static Anchor PreviousSettled { get; } = new PreviousSettledAnchor();

    /// <summary>The instant it stands for; null while nobody knows it.</summary>
    /// <param name="moments">What it may look at.</param>
    public abstract Instant? At(AnchorMoments moments);

    /// <summary>
    /// Whether it lies ahead and can move while a run is under way: then it can be counted back from, and what counts from it is planned
    /// anew when it moves.
    /// </summary>
    public abstract bool CanMove();

    /// <summary>Whether a step that is counted back from it is passed over where it comes too late, or the anchor has come by then.</summary>
    public virtual bool PassesOverWhatComesLate() => false;

    /// <summary>The anchor in a sentence: "3 days after <i>the one before</i>".</summary>
    /// <param name="isFirst">Whether no step stands before, so that the one before is the start.</param>
    /// <param name="names">What those are called whom it names.</param>
    public abstract string Say(bool isFirst, FollowThroughNames names);

    /// <summary>When a step comes that comes no later than it: "at the start".</summary>
    /// <param name="isFirst">Whether no step stands before.</param>
    /// <param name="atOnce">Whether the step goes at any hour.</param>
    /// <param name="names">What those are called whom it names.</param>
    public abstract string SayNoLater(bool isFirst, bool atOnce, FollowThroughNames names);

    /// <summary>What has to be put right in it, as a sentence; null for nothing.</summary>
    /// <param name="around">What it may name.</param>
    public virtual string? Check(FollowThroughSurroundings around) => null;

    /// <summary>Why it cannot be counted from after a form that was left half-finished, as a sentence; null where it can.</summary>
    public virtual string? CheckBeforeClient() => null;
}

/// <summary>What times of a run can be counted from.</summary>
/// <param name="Started">When the run started.</param>
/// <param name="Settled">When the step before was settled; for the first step when the run started.</param>
/// <param name="DayOf">The instant at which the sending window opens on the day that stands in a field of the project, or null.</param>
/// <param name="Meeting">When the meeting begins (<see cref="IRunFacts.Meeting"/>), or null.</param>
public sealed record AnchorMoments(Instant Started, Instant Settled, Func<string, Instant?> DayOf, Instant? Meeting);
