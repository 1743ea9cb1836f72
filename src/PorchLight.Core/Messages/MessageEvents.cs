using PorchLight.Core.Records;

namespace PorchLight.Core.Messages;

/// <summary>A message was handed to the mail.</summary>
/// <param name="Subject">Its subject.</param>
/// <param name="Step">The key of the step it belongs to, or null when a person wrote it.</param>
/// <param name="By">The user who sent or approved it; null when it went by itself.</param>
[EventKind("messageSent", EventBy.ProgramOrUser, rings: false, movesRuns: false, isPersonalWord: true, outlivesErasing: false)]
public sealed record MessageSent(string Subject, string? Step, Guid? By) : DomainEvent, IPerhapsByAUser
{
    /// <inheritdoc/>
    public override string Say(EventNames names) =>
        By is { } by ? $"{names.User(by)} sent “{Subject}”." : $"“{Subject}” was sent automatically.";
}

/// <summary>A message could not be sent, because nobody left an address to send it to.</summary>
/// <param name="Subject">Its subject.</param>
/// <param name="TooMany">Whether it was held back because too many automatic messages went to that address within a day.</param>
[EventKind("messageNotSent", EventBy.Program, rings: false, movesRuns: false, isPersonalWord: false, outlivesErasing: false)]
public sealed record MessageNotSent(string Subject, bool TooMany = false) : DomainEvent
{
    /// <summary>What they have not permitted, where that is why.</summary>
    public Forbidden? NotPermitted { get; init; }

    /// <inheritdoc/>
    public override string Say(EventNames names) =>
        this switch
        {
            { TooMany: true } => $"“{Subject}” was not sent: {names.Client} was sent enough automatic messages today.",
            { NotPermitted: Forbidden.News } => $"“{Subject}” was not sent: {names.Client} has not permitted news.",
            { NotPermitted: Forbidden.Texts } => $"“{Subject}” was not sent: {names.Client} has not permitted text messages.",
            _ => $"“{Subject}” was not sent: {names.Client} left no e-mail address.",
        };
}

/// <summary>What somebody has not permitted.</summary>
public enum Forbidden
{
    /// <summary>News.</summary>
    News,

    /// <summary>Text messages.</summary>
    Texts,
}

/// <summary>A message could not be delivered and is not tried again by itself.</summary>
/// <param name="Subject">Its subject.</param>
/// <param name="Why">The reason, as a sentence.</param>
[EventKind("deliveryFailed", EventBy.Program, rings: true, movesRuns: false, isPersonalWord: false, outlivesErasing: false)]
public sealed record DeliveryFailed(string Subject, string Why) : DomainEvent
{
    /// <inheritdoc/>
    public override string Say(EventNames names) => $"“{Subject}” could not be delivered to {names.Client}: {Why}";
}

/// <summary>The hand-over of a message broke off so late that it may have arrived; it is not sent a second time by itself.</summary>
[EventKind("perhapsDelivered", EventBy.Program, rings: true, movesRuns: false, isPersonalWord: false, outlivesErasing: false)]
public sealed record PerhapsDelivered(string Subject) : DomainEvent
{
    /// <inheritdoc/>
    public override string Say(EventNames names) => $"“{Subject}” to {names.Client} was perhaps sent; please look.";
}

/// <summary>A person decided about a message that failed or perhaps arrived.</summary>
/// <param name="Subject">Its subject.</param>
/// <param name="SentAgain">Whether it goes out once more; else it is left as it is.</param>
/// <param name="By">The user who decided.</param>
[EventKind("deliverySettled", EventBy.User, rings: false, movesRuns: false, isPersonalWord: false, outlivesErasing: false)]
public sealed record DeliverySettled(string Subject, bool SentAgain, Guid By) : DomainEvent
{
    /// <inheritdoc/>
    public override string Say(EventNames names) =>
        SentAgain ? $"{names.User(By)} sends “{Subject}” again." : $"{names.User(By)} looked, and leaves “{Subject}” as it is.";
}

/// <summary>A word came from the client: a message, or what they said elsewhere.</summary>
/// <param name="Subject">The subject of their message; null for what came by phone or in person.</param>
/// <param name="Text">Their words; null when nobody wrote them down.</param>
/// <param name="By">The user who wrote it down; null for a message that came by mail.</param>
[EventKind("replyReceived", EventBy.ClientOrUser, rings: true, movesRuns: true, isPersonalWord: false, outlivesErasing: false)]
public sealed record ReplyReceived(string? Subject, string? Text = null, Guid? By = null) : DomainEvent, IPerhapsByAUser, IInTheirWords
{
    /// <inheritdoc/>
    string? IInTheirWords.Words => Text;

    /// <inheritdoc/>
    public override string Say(EventNames names) =>
        this switch
        {
            { By: { } by } => $"{names.User(by)} noted that {names.Client} got in touch.",
            { Subject: null } => $"{names.Client} got in touch.",
            _ => $"{names.Client} wrote: “{Subject}”.",
        };
}

/// <summary>A text message, or a note on the client's page, was handed over.</summary>
/// <param name="Name">What its step is about: the subject it would have as a mail.</param>
/// <param name="Step">The step's key.</param>
/// <param name="IsText">Whether it was a text message; else a note.</param>
/// <param name="By">The user who approved it; null when it went by itself.</param>
[EventKind("noteSent", EventBy.ProgramOrUser, rings: false, movesRuns: false, isPersonalWord: true, outlivesErasing: false)]
public sealed record NoteSent(string Name, string Step, bool IsText, Guid? By) : DomainEvent, IPerhapsByAUser
{
    /// <inheritdoc/>
    public override string Say(EventNames names) =>
        By is { } by ? $"{names.User(by)} sent “{Name}” as {As}." : $"“{Name}” was sent automatically as {As}.";

    private string As => IsText ? "a text message" : "a note on their page";
}

/// <summary>The client said by the link in a message that they want no more news.</summary>
[EventKind("unsubscribed", EventBy.Client, rings: false, movesRuns: false, isPersonalWord: false, outlivesErasing: false)]
public sealed record Unsubscribed : DomainEvent
{
    /// <inheritdoc/>
    public override string Say(EventNames names) => $"{names.Client} wants no more news, by the link in a message.";
}

/// <summary>A program answered for the client: an absence note, say. It is no reply.</summary>
/// <param name="Subject">Its subject.</param>
/// <param name="Text">Its words.</param>
[EventKind("automaticAnswerReceived", EventBy.Program, rings: false, movesRuns: false, isPersonalWord: false, outlivesErasing: false)]
public sealed record AutomaticAnswerReceived(string Subject, string Text) : DomainEvent, IInTheirWords
{
    /// <inheritdoc/>
    string? IInTheirWords.Words => Text is { Length: > 0 } ? Text : null;

    /// <inheritdoc/>
    public override string Say(EventNames names) => $"An automatic answer came from {names.Client}: “{Subject}”. It counts as no reply.";
}
