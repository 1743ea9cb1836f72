using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Core.Messages;
using PorchLight.Server.Records;

namespace PorchLight.Server.Messages;

/// <summary>A message that came in from somebody on file, or about a message to them.</summary>
internal sealed class IncomingMessage
{
    public required Id<IncomingMessage> Id { get; init; }

    /// <summary>What its sender named it; unique, so that a message that is fetched twice comes in once.</summary>
    public required string MessageId { get; init; }
    public required Id<Client> ClientId { get; init; }
    public required IncomingKind Kind { get; init; }
    public required string From { get; init; }
    public required string Subject { get; init; }

    /// <summary>In plain text.</summary>
    public required string Text { get; init; }
    public required Instant At { get; init; }

    /// <summary>Which of our messages it answers, or reports on; null where it does not say.</summary>
    public required Id<OutgoingMail>? AnswersId { get; init; }
}

/// <summary>How far a mailbox of the business has been read.</summary>
internal sealed class MailboxPosition
{
    /// <summary>Server, user and folder.</summary>
    public required string Mailbox { get; init; }

    /// <summary>Numbers of messages mean something only while it stays the same (RFC 9051, 2.3.1.1).</summary>
    public required long Validity { get; set; }

    /// <summary>The number of the last message that was looked at.</summary>
    public required long Last { get; set; }
}
