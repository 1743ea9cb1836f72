using PorchLight.Core.Common;

namespace PorchLight.Core.Records;

/// <summary>
/// Something that happened, kept for ever in the event log. The timeline, follow-throughs and the bell read it. Each kind stands in the
/// area in which it happens, and says of itself all that others ask of it: <see cref="EventKindAttribute"/>.
/// </summary>
[KindFamily]
public abstract record DomainEvent
{
    /// <summary>The event as a sentence for the timeline.</summary>
    /// <param name="names">What those are called whom it names.</param>
    public abstract string Say(EventNames names);
}

/// <summary>Who does what events of a kind tell of.</summary>
public enum EventBy
{
    /// <summary>The program, always by itself.</summary>
    Program,

    /// <summary>The client, or somebody who may become one.</summary>
    Client,

    /// <summary>A person of the business.</summary>
    User,

    /// <summary>A person of the business, or the program by itself where none is named.</summary>
    ProgramOrUser,

    /// <summary>The client, or a person of the business for them where one is named.</summary>
    ClientOrUser,
}

/// <summary>What others ask of a kind of event. Nothing is left out: who adds one decides each.</summary>
/// <param name="name">Its name in stored events and in the API, for ever: "inquiryReceived".</param>
/// <param name="by">Who does it.</param>
/// <param name="rings">Whether the bell rings for it: a person should know. It never rings for what a person of the business did.</param>
/// <param name="movesRuns">Whether follow-throughs may start, go on or end by it; by any other they are not asked.</param>
/// <param name="isPersonalWord">
/// Whether it is a word of a person of the business to the client, which keeps the reply promise and answers what they wrote. What went by
/// itself is nobody's word.
/// </param>
/// <param name="outlivesErasing">
/// Whether it stays when the person it is about is erased: what is counted later and says nothing in anybody's words.
/// </param>
public sealed class EventKindAttribute(string name, EventBy by, bool rings, bool movesRuns, bool isPersonalWord, bool outlivesErasing)
    : KindAttribute(name)
{
    /// <summary>Who does it.</summary>
    public EventBy By => by;

    /// <summary>Whether the bell rings for it.</summary>
    public bool Rings => rings;

    /// <summary>Whether follow-throughs are asked.</summary>
    public bool MovesRuns => movesRuns;

    /// <summary>Whether it is a word of a person of the business to the client.</summary>
    public bool IsPersonalWord => isPersonalWord;

    /// <summary>Whether it stays when the person it is about is erased.</summary>
    public bool OutlivesErasing => outlivesErasing;
}

/// <summary>An event that names the user who did it, where one did: <see cref="EventBy.ProgramOrUser"/> and the like.</summary>
public interface IPerhapsByAUser
{
    /// <summary>The user; null where it was nobody of the business.</summary>
    Guid? By { get; }
}

/// <summary>An event by which a project comes to a stage.</summary>
public interface IReachesStage
{
    /// <summary>The stage's key; null of an event from before projects had stages.</summary>
    string? Stage { get; }
}

/// <summary>An event that brings what somebody wrote.</summary>
public interface IInTheirWords
{
    /// <summary>Their words; null where nobody wrote them down.</summary>
    string? Words { get; }
}
