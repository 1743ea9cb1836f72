namespace PorchLight.Core.Meetings;

/// <summary>A meeting, as those who hold it are told of it.</summary>
/// <param name="Name">Whom it is with.</param>
/// <param name="When">When it is, in words.</param>
/// <param name="Where">Where it is: <see cref="MeetingPlaceWords.ForUs"/>.</param>
/// <param name="Answers">What they answered, with the questions.</param>
/// <param name="Reason">Why it was moved or cancelled, in their words; may be empty.</param>
/// <param name="Link">Where it is seen.</param>
public sealed record MeetingNewsFacts(
    string Name,
    string When,
    string Where,
    IReadOnlyList<(string Question, string Answer)> Answers,
    string Reason,
    string Link
);

/// <summary>What became of a meeting.</summary>
public enum MeetingChangeKind
{
    /// <summary>It was booked.</summary>
    Booked,

    /// <summary>It was moved to another time.</summary>
    Moved,

    /// <summary>It was called off.</summary>
    Cancelled,

    /// <summary>Somebody else of the business holds it now.</summary>
    TakenOver,
}

/// <summary>What those of the business are told who hold a meeting.</summary>
public static class MeetingNews
{
    /// <summary>The subject of the mail.</summary>
    /// <param name="kind">What became of the meeting.</param>
    /// <param name="title">The title of the meeting.</param>
    public static string Subject(MeetingChangeKind kind, string title) => $"{Happened(kind)}: {title}";

    /// <summary>Its words.</summary>
    /// <param name="kind">What became of the meeting.</param>
    /// <param name="facts">The meeting as it stands now.</param>
    public static string Text(MeetingChangeKind kind, MeetingNewsFacts facts)
    {
        var answers = facts.Answers.Select(one => $"{one.Question}\n{one.Answer}");
        var said = facts.Reason.Length == 0 ? "" : $"Why: {facts.Reason}";
        return string.Join(
            "\n\n",
            new[] { $"{facts.Name}, {facts.Where}", $"{Happened(kind)}: {facts.When}.", said }
                .Concat(kind == MeetingChangeKind.Booked ? answers : [])
                .Append(facts.Link)
                .Where(paragraph => paragraph.Length > 0)
        );
    }

    private static string Happened(MeetingChangeKind kind) =>
        kind switch
        {
            MeetingChangeKind.Booked => "Booked",
            MeetingChangeKind.Moved => "Moved",
            MeetingChangeKind.Cancelled => "Cancelled",
            MeetingChangeKind.TakenOver => "Someone else holds it now",
            _ => throw new ArgumentOutOfRangeException(nameof(kind)),
        };
}
