using NodaTime;
using PorchLight.Core.Records;

namespace PorchLight.Core.Meetings;

/// <summary>A meeting was booked.</summary>
[EventKind("meetingBooked", EventBy.ClientOrUser, rings: true, movesRuns: true, isPersonalWord: true, outlivesErasing: true)]
public sealed record MeetingBooked : DomainEvent, IPerhapsByAUser, IAboutMeeting
{
    /// <inheritdoc/>
    public Guid? Meeting { get; init; }

    /// <summary>When it begins, on the business's clock of that day; null of an event from before meetings had times.</summary>
    public LocalDateTime? For { get; init; }

    /// <summary>The user who booked it for them; null where they did.</summary>
    public Guid? By { get; init; }

    /// <inheritdoc/>
    public override string Say(EventNames names) =>
        By is { } by
            ? $"{names.User(by)} booked a meeting with {names.Client}{MeetingTimeWords.ForTime(For)}."
            : $"{names.Client} booked a meeting{MeetingTimeWords.ForTime(For)}.";
}

/// <summary>A meeting was moved to another time.</summary>
/// <param name="Meeting">Its identifier.</param>
/// <param name="From">When it was to begin, on the business's clock.</param>
/// <param name="To">When it begins now.</param>
[EventKind("meetingMoved", EventBy.ClientOrUser, rings: true, movesRuns: true, isPersonalWord: false, outlivesErasing: true)]
public sealed record MeetingMoved(Guid? Meeting, LocalDateTime From, LocalDateTime To) : DomainEvent, IPerhapsByAUser, IAboutMeeting
{
    /// <summary>The user who moved it; null where the client did.</summary>
    public Guid? By { get; init; }

    /// <inheritdoc/>
    public override string Say(EventNames names) =>
        By is { } by
            ? $"{names.User(by)} moved the meeting with {names.Client} from {MeetingTimeWords.Say(From)} to {MeetingTimeWords.Say(To)}."
            : $"{names.Client} moved the meeting from {MeetingTimeWords.Say(From)} to {MeetingTimeWords.Say(To)}.";
}

/// <summary>A meeting was cancelled.</summary>
/// <param name="Meeting">Its identifier.</param>
/// <param name="For">When it was to begin, on the business's clock.</param>
[EventKind("meetingCancelled", EventBy.ClientOrUser, rings: true, movesRuns: true, isPersonalWord: false, outlivesErasing: true)]
public sealed record MeetingCancelled(Guid? Meeting, LocalDateTime For) : DomainEvent, IPerhapsByAUser, IAboutMeeting
{
    /// <summary>The user who cancelled it; null where the client did.</summary>
    public Guid? By { get; init; }

    /// <inheritdoc/>
    public override string Say(EventNames names) =>
        By is { } by
            ? $"{names.User(by)} cancelled the meeting with {names.Client} on {MeetingTimeWords.Say(For)}."
            : $"{names.Client} cancelled the meeting on {MeetingTimeWords.Say(For)}.";
}

/// <summary>Somebody did not come to a meeting.</summary>
/// <param name="Meeting">Its identifier.</param>
/// <param name="For">When it began, on the business's clock.</param>
/// <param name="By">The user who says so.</param>
[EventKind("meetingMissed", EventBy.User, rings: false, movesRuns: true, isPersonalWord: false, outlivesErasing: true)]
public sealed record MeetingMissed(Guid? Meeting, LocalDateTime For, Guid By) : DomainEvent, IAboutMeeting
{
    /// <inheritdoc/>
    public override string Say(EventNames names) =>
        $"{names.User(By)} noted that {names.Client} did not come to the meeting on {MeetingTimeWords.Say(For)}.";
}

/// <summary>An event about one meeting.</summary>
public interface IAboutMeeting
{
    /// <summary>The identifier of the meeting; null of an event from before meetings were kept.</summary>
    Guid? Meeting { get; }
}
