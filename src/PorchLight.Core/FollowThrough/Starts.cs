using System.Text.Json.Serialization;
using PorchLight.Core.Common;
using PorchLight.Core.Conditions;
using PorchLight.Core.Records;

namespace PorchLight.Core.FollowThrough;

/// <summary>What starts a follow-through. A new way to start is one more kind here; the planner does not know them apart.</summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(InquiryStart), "inquiry")]
[JsonDerivedType(typeof(BookedStart), "booked")]
[JsonDerivedType(typeof(RepliedStart), "replied")]
[JsonDerivedType(typeof(StageStart), "stage")]
[JsonDerivedType(typeof(ByHandStart), "byHand")]
public abstract record StartOn
{
    /// <summary>Whether an event starts it.</summary>
    /// <param name="happened">What happened.</param>
    /// <param name="facts">What is known of the piece of work it happened to.</param>
    public abstract bool IsStartedBy(DomainEvent happened, IRunFacts facts);

    /// <summary>How much it asks for: of several that an event could start, the one that asks for most is meant.</summary>
    [JsonIgnore]
    public virtual int Precision => 0;
}

/// <summary>Starts on an inquiry that begins a piece of work of its own; one that joins a project that is open starts nothing.</summary>
/// <param name="Form">The identifier of the form, or null for any.</param>
/// <param name="Fits">The fits it starts with; empty for any, also for inquiries of a form that sorts nothing.</param>
public sealed record InquiryStart(Guid? Form, IReadOnlyList<Fit> Fits) : StartOn
{
    /// <summary>The key of the service the inquiry has to be about; null for any.</summary>
    public string? Service { get; init; }

    /// <summary>What has to be true for certain of its answers; null for nothing.</summary>
    public Condition? Condition { get; init; }

    /// <inheritdoc/>
    public override bool IsStartedBy(DomainEvent happened, IRunFacts facts) =>
        happened is InquiryReceived { Joined: false, StartsNothing: false } received
        && (Form is null || Form == received.Form)
        && (Fits.Count == 0 || (received.Fit is { } sorted && Fits.Contains(sorted)))
        && (Service is null || Service == facts.Service)
        && (Condition is null || facts.Judge(Condition) == Truth.True);

    /// <inheritdoc/>
    [JsonIgnore]
    public override int Precision =>
        (Form is null ? 0 : 8) + (Condition is null ? 0 : 4) + (Service is null ? 0 : 2) + (Fits.Count == 0 ? 0 : 1);
}

/// <summary>Starts when the person books a meeting.</summary>
public sealed record BookedStart : StartOn
{
    /// <inheritdoc/>
    public override bool IsStartedBy(DomainEvent happened, IRunFacts facts) => happened is MeetingBooked;
}

/// <summary>Starts when the person replies.</summary>
public sealed record RepliedStart : StartOn
{
    /// <inheritdoc/>
    public override bool IsStartedBy(DomainEvent happened, IRunFacts facts) => happened is ReplyReceived;
}

/// <summary>Starts when a project comes to one of some stages.</summary>
/// <param name="Stages">The keys of the stages; at least one.</param>
public sealed record StageStart(IReadOnlyList<string> Stages) : StartOn
{
    /// <inheritdoc/>
    public override bool IsStartedBy(DomainEvent happened, IRunFacts facts) =>
        happened.StageReached() is { } stage && Stages.Contains(stage);
}

/// <summary>Starts only when a person, or a step of another, starts it.</summary>
public sealed record ByHandStart : StartOn
{
    /// <inheritdoc/>
    public override bool IsStartedBy(DomainEvent happened, IRunFacts facts) => false;
}

/// <summary>What follow-throughs an event starts.</summary>
public static class FollowThroughs
{
    /// <summary>
    /// The follow-throughs an event starts: one journey a person, so of several it is the one that asks for most, and among those
    /// the oldest. Only where that one may run beside others, all that may do so start with it.
    /// </summary>
    /// <param name="live">The newest version of each that is switched on, oldest follow-through first.</param>
    /// <param name="happened">What happened.</param>
    /// <param name="facts">What is known of the piece of work it happened to.</param>
    /// <param name="contentOf">What a version holds.</param>
    /// <returns>In the order given; empty where nothing starts.</returns>
    public static IReadOnlyList<T> StartedBy<T>(
        IEnumerable<T> live,
        DomainEvent happened,
        IRunFacts facts,
        Func<T, FollowThroughContent> contentOf
    )
        where T : class
    {
        var started = live.Where(one => contentOf(one).Starts.IsStartedBy(happened, facts)).ToList();
        return started.MaxBy(one => contentOf(one).Starts.Precision) is not { } first ? []
            : contentOf(first).SideBySide ? [.. started.Where(one => contentOf(one).SideBySide)]
            : [first];
    }
}
