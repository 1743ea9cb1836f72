using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Server.Records;

namespace PorchLight.Server.StandIns.Mail;

/// <summary>A message in the practice mailbox, in either direction.</summary>
internal sealed class PracticeMessage
{
    public required Id<PracticeMessage> Id { get; init; }
    public required string MessageId { get; init; }
    public string? InReplyTo { get; init; }
    public required bool Incoming { get; init; }
    public required Id<Client>? ClientId { get; init; }
    public required string From { get; init; }
    public required string To { get; init; }
    public required string Subject { get; init; }
    public required string Text { get; init; }
    public required Instant At { get; init; }
}
