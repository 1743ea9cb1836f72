using System.Text.Json.Serialization;
using PorchLight.Core.Common;
using PorchLight.Core.Conditions;
using PorchLight.Core.Records;

namespace PorchLight.Core.FollowThrough;

/// <summary>
/// What starts a follow-through. A new way to start is one more record in a file of its own with a <see cref="KindAttribute"/>; the planner
/// does not know them apart.
/// </summary>
[KindFamily]
public abstract record StartOn
{
    /// <summary>Whether an event starts it.</summary>
    /// <param name="happened">What happened.</param>
    /// <param name="facts">What is known of the piece of work it happened to.</param>
    public abstract bool IsStartedBy(DomainEvent happened, IRunFacts facts);

    /// <summary>What starts it, as a part of a sentence: "“A wall to paint” comes in as Come in or Talk first".</summary>
    /// <param name="names">What those are called whom it names.</param>
    public abstract string Say(FollowThroughNames names);

    /// <summary>What has to be put right in it before it can be put into force, as a sentence; null for nothing.</summary>
    /// <param name="around">What it may name.</param>
    public virtual string? Check(FollowThroughSurroundings around) => null;

    /// <summary>Whether it is something the person does just then, so that a message at once answers it.</summary>
    public abstract bool IsTheirDoing();

    /// <summary>
    /// What ends it beside a person where it starts for somebody who is no client yet, as a part of a sentence; null where it starts for
    /// clients. Who is none was told of one mail at most, and nothing can follow that needs one.
    /// </summary>
    public virtual string? EndsBeforeClient() => null;

    /// <summary>The condition that has to hold for it to start; null for none.</summary>
    public virtual Condition? Asks() => null;

    /// <summary>The identifier of the one form whose answers are there when it starts; null where that may be any, or none.</summary>
    [JsonIgnore]
    public virtual Guid? FormAsked => null;

    /// <summary>How much it asks for: of several that an event could start, the one that asks for most is meant.</summary>
    [JsonIgnore]
    public virtual int Precision => 0;
}
