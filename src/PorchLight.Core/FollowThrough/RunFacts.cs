using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Core.Conditions;

namespace PorchLight.Core.FollowThrough;

/// <summary>What the planner may ask about the person and the piece of work of a run; it is asked at the moment it matters.</summary>
public interface IRunFacts
{
    /// <summary>The key of the service the project is about; null where nobody said.</summary>
    string? Service { get; }

    /// <summary>When the person was last sent a message that nobody nodded to; null for never, or where there is no address.</summary>
    Instant? LastAutomaticMessage { get; }

    /// <summary>The day that stands in a field of the project; null where none does.</summary>
    /// <param name="field">The field's key.</param>
    LocalDate? DayOf(string field);

    /// <summary>
    /// When the meeting begins that times are counted from: the one that started the run, else the next that is booked about the same work;
    /// null where there is none, or it was cancelled.
    /// </summary>
    Instant? Meeting { get; }

    /// <summary>What a condition comes to; unknown where it asks for what nobody knows.</summary>
    /// <param name="condition">The condition.</param>
    Truth Judge(Condition condition);
}

/// <summary>Facts for those who have none.</summary>
public sealed record NoFacts : IRunFacts
{
    /// <summary>Knows nothing: every condition is unknown and every day missing.</summary>
    public static IRunFacts Instance { get; } = new NoFacts();

    /// <inheritdoc/>
    public string? Service => null;

    /// <inheritdoc/>
    public Instant? LastAutomaticMessage => null;

    /// <inheritdoc/>
    public LocalDate? DayOf(string field) => null;

    /// <inheritdoc/>
    public Instant? Meeting => null;

    /// <inheritdoc/>
    public Truth Judge(Condition condition) => Truth.Unknown;
}
