using PorchLight.Core.Messages;

namespace PorchLight.Server.Messages;

/// <summary>What a message says, on its way to the outbox.</summary>
/// <param name="Subject">Its subject; line ends are taken out.</param>
/// <param name="Text">Its words.</param>
internal sealed record MailContent(string Subject, string Text)
{
    /// <summary>Whether its words may be formatted (<see cref="FormattedText"/>); what the program itself writes is not.</summary>
    public bool IsFormatted { get; init; }

    public Enclosed Enclosed { get; init; } = Enclosed.Nothing;

    /// <summary>The meeting it is about, as iCalendar; null for none.</summary>
    public string? Invitation { get; init; }

    /// <summary>Where such messages are stopped; null for what is no advertising.</summary>
    public string? Unsubscribe { get; init; }

    /// <summary>The message it answers, as its sender named it; null for none.</summary>
    public string? InReplyTo { get; init; }

    /// <summary>What somebody of the business wrote or approved.</summary>
    public static MailContent Of(MessageDraft draft, string finished) =>
        new(draft.Subject, finished) { IsFormatted = true, Enclosed = draft.Enclosed };
}
