using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Core.Messages;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Messages;

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

    /// <summary>The words with their formatting; null where they have none.</summary>
    public string? Formatted { get; init; }

    /// <summary>What goes with it; null for nothing.</summary>
    public Enclosed? Enclosed { get; init; }

    /// <summary>The meeting it is about, as iCalendar; null for none.</summary>
    public string? Invitation { get; init; }
    public required Instant At { get; init; }
}

internal static class PracticeMail
{
    /// <summary>Takes a message over, as part of the caller's transaction.</summary>
    public static void LayIntoPracticeMailbox(this PorchDb db, OutgoingMail mail) =>
        db.PracticeMail.Add(
            new PracticeMessage
            {
                Id = new Id<PracticeMessage>(Guid.CreateVersion7()),
                MessageId = mail.MessageId,
                Incoming = false,
                ClientId = mail.ClientId,
                From = mail.From,
                To = mail.To,
                Subject = mail.Subject,
                Text = mail.Text,
                Formatted = mail.Formatted,
                Enclosed = mail.Enclosed,
                Invitation = mail.Invitation,
                At = mail.Written,
            }
        );
}
