using PorchLight.Core.Common;
using PorchLight.Core.Records;

namespace PorchLight.Core.FollowThrough;

/// <summary>
/// Something that happens to a person or a piece of work and that runs can stop on or wait for. A new one is one more record in a file of
/// its own with a <see cref="KindAttribute"/>; the planner does not know them apart.
/// </summary>
[KindFamily]
public abstract record Occasion
{
    /// <summary>Whether an event is it.</summary>
    /// <param name="happened">An event about the person of the run; what happens to one project is about the project of the run, too.</param>
    public abstract bool IsMetBy(DomainEvent happened);

    /// <summary>The end it brings about where a run stops on it.</summary>
    public abstract RunEnd End();

    /// <summary>The occasion as a part of a sentence: "they reply".</summary>
    /// <param name="names">What those are called whom it names.</param>
    public abstract string Say(FollowThroughNames names);

    /// <summary>What it names that is not there any more: "a stage that is gone"; null for nothing.</summary>
    /// <param name="around">What it may name.</param>
    public virtual string? Gone(FollowThroughSurroundings around) => null;
}
