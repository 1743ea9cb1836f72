using System.Text.Json.Serialization;
using PorchLight.Core.Inquiries;
using PorchLight.Core.Messages;
using PorchLight.Core.Records;

namespace PorchLight.Core.FollowThrough;

/// <summary>
/// Something that happens to a person or a piece of work and that runs can stop on or wait for. A new one is one more kind here; the
/// planner does not know them apart.
/// </summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(RepliedOccasion), "replied")]
[JsonDerivedType(typeof(BookedOccasion), "booked")]
[JsonDerivedType(typeof(StageOccasion), "stage")]
public abstract record Occasion
{
    /// <summary>Whether an event is it.</summary>
    /// <param name="happened">An event about the person of the run, and where <see cref="OfProject"/> about its project.</param>
    public abstract bool IsMetBy(DomainEvent happened);

    /// <summary>The end it brings about where a run stops on it.</summary>
    [JsonIgnore]
    public abstract RunEnd End { get; }

    /// <summary>Whether it concerns only runs on the same project; else all of the person.</summary>
    [JsonIgnore]
    public virtual bool OfProject => false;
}

/// <summary>The person replied, by a message or in another way that somebody noted.</summary>
public sealed record RepliedOccasion : Occasion
{
    /// <inheritdoc/>
    public override bool IsMetBy(DomainEvent happened) => happened is ReplyReceived;

    /// <inheritdoc/>
    [JsonIgnore]
    public override RunEnd End => RunEnd.Replied;
}

/// <summary>The person booked a meeting.</summary>
public sealed record BookedOccasion : Occasion
{
    /// <inheritdoc/>
    public override bool IsMetBy(DomainEvent happened) => happened is MeetingBooked;

    /// <inheritdoc/>
    [JsonIgnore]
    public override RunEnd End => RunEnd.Booked;
}

/// <summary>The project came to one of some stages.</summary>
/// <param name="Stages">The keys of the stages; empty for whichever.</param>
public sealed record StageOccasion(IReadOnlyList<string> Stages) : Occasion
{
    /// <inheritdoc/>
    public override bool IsMetBy(DomainEvent happened) =>
        happened.StageReached() is { } stage && (Stages.Count == 0 || Stages.Contains(stage));

    /// <inheritdoc/>
    [JsonIgnore]
    public override RunEnd End => RunEnd.StageMoved;

    /// <inheritdoc/>
    [JsonIgnore]
    public override bool OfProject => true;
}
