using PorchLight.Core.Common;
using PorchLight.Core.Messages;

namespace PorchLight.Core.FollowThrough;

/// <summary>Sends the person a message.</summary>
/// <param name="Message">
/// The message; a step that needs no nod has none with gaps. By text or on their page its subject is not shown.
/// </param>
[Kind("sendMessage")]
public sealed record SendMessage(MessageTemplate Message) : OutsideAction
{
    /// <summary>How it reaches them.</summary>
    public Channel Channel { get; init; }

    /// <summary>Whether it advertises: then it goes only to those who permitted that, and says how to stop it.</summary>
    public bool IsAdvertising { get; init; }

    /// <inheritdoc/>
    public override string Say(Step step, FollowThroughNames names)
    {
        var what = Channel switch
        {
            Channel.Text => "a text message",
            Channel.PageNote => "a note on their page",
            _ => "a message",
        };
        return $"{what}: “{Message.Subject}”{(IsAdvertising ? ", to those who permitted news" : "")}";
    }

    /// <inheritdoc/>
    public override string? Check(Step step, IReadOnlyCollection<string> later, FollowThroughSurroundings around) =>
        Channel != Channel.Mail && !Message.Enclosed.IsNothing
            ? "Files, copies and a sender go with mail only. Take them away, or send it by mail."
        : MessageCheck.Check(Message) is { } sentence ? sentence
        : !step.NeedsNod && Message.Parts.Any(part => part is GapPart) ? "A message with a gap needs your nod: someone has to fill it."
        : null;

    /// <inheritdoc/>
    /// <remarks>Who left a form half-finished was told of one mail at most (<see cref="FollowThroughCheck"/>).</remarks>
    public override bool NeedsClient() => false;

    /// <inheritdoc/>
    public override bool IsMessage() => true;

    /// <inheritdoc/>
    public override string? Seen() => $"“{KnownValues.BeforeAnswers(Message.Subject)}”";

    /// <inheritdoc/>
    public override string StillToWrite() =>
        string.IsNullOrWhiteSpace(Message.Subject)
        || Message.Parts.All(part => part is TextPart { Text: var text } && string.IsNullOrWhiteSpace(text))
            ? "the message"
            : "";

    /// <inheritdoc/>
    public override IEnumerable<string> Words() =>
        [Message.Subject, .. Message.Parts.Select(part => part is GapPart gap ? gap.Prompt : ((TextPart)part).Text)];
}
