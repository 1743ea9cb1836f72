using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Core.Records;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Messages;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.StandIns.Mail;

/// <summary>The simulated mail plays the people whom messages went to.</summary>
internal static class PracticeMailbox
{
    /// <summary>Lays their answer to a message into the mailbox and says that it came, as part of the caller's transaction.</summary>
    public static async Task AnswerAsync(
        PorchDb db,
        EventLog events,
        PracticeMessage message,
        string text,
        Instant at,
        CancellationToken cancellationToken
    )
    {
        var subject = KnownValues.OneLine(
            message.Subject.StartsWith("Re: ", StringComparison.OrdinalIgnoreCase) ? message.Subject : "Re: " + message.Subject
        );
        // The sender is recognised by the address, as for any mail that comes in.
        var client = await db.ClientWritingFromAsync(message.To, null);
        db.PracticeMail.Add(
            new PracticeMessage
            {
                Id = new Id<PracticeMessage>(Guid.CreateVersion7()),
                MessageId = $"<{Guid.CreateVersion7():N}@{message.To.Split('@')[^1]}>",
                InReplyTo = message.MessageId,
                Incoming = true,
                ClientId = client?.Id,
                From = message.To,
                To = message.From,
                Subject = subject,
                Text = text.Trim(),
                At = at,
            }
        );
        if (client is not null)
            await events.AppendAsync(new ReplyReceived(subject, text.Trim()), at, await Promises.AboutAsync(db, client.Id));
    }
}
