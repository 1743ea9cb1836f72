using PorchLight.Core.Meetings;
using PorchLight.Core.Messages;
using PorchLight.Core.Records;

namespace PorchLight.Core.Inquiries;

/// <summary>Writes what those are told who watch a project that somebody else looks after.</summary>
public static class WatchingWords
{
    /// <summary>Whether watchers are told of it; of an inquiry only where it joins work that somebody can watch already.</summary>
    /// <param name="happening">What happened.</param>
    public static bool Tells(DomainEvent happening) =>
        happening is ReplyReceived or MeetingBooked or MeetingMoved or MeetingCancelled or InquiryReceived { Joined: true }
        || happening.StageReached() is not null;

    /// <summary>The mail about something that happened; null where they are not told (<see cref="Tells"/>).</summary>
    /// <param name="happening">What happened.</param>
    /// <param name="client">The client's name.</param>
    /// <param name="project">The title of the project.</param>
    /// <param name="stage">The name of a stage by its key.</param>
    /// <param name="link">Where the project is seen.</param>
    public static (string Subject, string Text)? Write(
        DomainEvent happening,
        string client,
        string project,
        Func<string, string> stage,
        string link
    )
    {
        var news = happening switch
        {
            ReplyReceived { Text: { } words } => ($"{client} wrote", $"{client} wrote about “{project}”:\n\n{words}"),
            ReplyReceived => ($"Word from {client}", $"There was word from {client} about “{project}”."),
            MeetingBooked => ($"{client} booked a meeting", $"{client} booked a meeting about “{project}”."),
            MeetingMoved moved => (
                $"The meeting with {client} was moved",
                $"The meeting with {client} about “{project}” is on {MeetingTimeWords.Say(moved.To)} now, and no longer on {MeetingTimeWords.Say(moved.From)}."
            ),
            MeetingCancelled cancelled => (
                $"The meeting with {client} was cancelled",
                $"The meeting with {client} about “{project}” on {MeetingTimeWords.Say(cancelled.For)} was cancelled."
            ),
            InquiryReceived { Joined: true } => ($"{client} sent a form", $"{client} sent a form that belongs to “{project}”."),
            { } moved when moved.StageReached() is { } key => (
                $"“{project}”: {stage(key)}",
                $"“{project}” of {client} came to {stage(key)}."
            ),
            _ => ((string, string)?)null,
        };
        return news is var (subject, text)
            ? (subject, $"{text}\n\n{link}\n\nYou are told because you watch this project. You can stop that on its page.")
            : null;
    }
}
