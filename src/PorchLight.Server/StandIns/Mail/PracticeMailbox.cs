using MimeKit;
using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Core.Messages;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Messages;
using PorchLight.Server.Storage;
using MessagePart = MimeKit.MessagePart;
using TextPart = MimeKit.TextPart;

namespace PorchLight.Server.StandIns.Mail;

/// <summary>What comes back to a message of the business.</summary>
internal enum PracticeAnswer
{
    /// <summary>They write.</summary>
    Reply,

    /// <summary>They are away, and their program says so.</summary>
    Away,

    /// <summary>There is no such address.</summary>
    CameBack,
}

/// <summary>The simulated mail plays the people whom messages went to, and the mail servers on the way.</summary>
internal static class PracticeMailbox
{
    /// <summary>
    /// Lays an answer to a message into the mailbox and takes it in as any mail that comes in, as part of the caller's transaction.
    /// </summary>
    /// <param name="text">Their words; of what came back nothing is read.</param>
    public static async Task AnswerAsync(
        PorchDb db,
        MailIntake intake,
        PracticeMessage message,
        PracticeAnswer kind,
        string text,
        Instant at
    )
    {
        var answer = kind == PracticeAnswer.CameBack ? Returned(message) : Written(message, kind, text);
        answer.Date = at.ToDateTimeOffset();
        var taken = await intake.TakeAsync(answer, at);
        db.PracticeMail.Add(
            new PracticeMessage
            {
                Id = new Id<PracticeMessage>(Guid.CreateVersion7()),
                MessageId = $"<{answer.MessageId}>",
                InReplyTo = message.MessageId,
                Incoming = true,
                ClientId = taken?.ClientId,
                From = answer.From.Mailboxes.First().Address,
                To = message.From,
                Subject = KnownValues.OneLine(answer.Subject ?? ""),
                Text = MailText.Of(answer),
                At = at,
            }
        );
    }

    private static MimeMessage Written(PracticeMessage message, PracticeAnswer kind, string text)
    {
        var answer = SmtpCarrier.Compose(
            "",
            message.To,
            message.From,
            kind == PracticeAnswer.Away ? $"Away: {message.Subject}" : MailSubject.Answering(message.Subject),
            text.Trim()
        );
        answer.MessageId = $"{Guid.CreateVersion7():N}@{message.To.Split('@')[^1]}";
        answer.InReplyTo = message.MessageId;
        if (kind == PracticeAnswer.Away)
            answer.Headers.Add(HeaderId.AutoSubmitted, "auto-replied");
        return answer;
    }

    /// <summary>A delivery status as a mail server writes it (RFC 3464): there is no such mailbox.</summary>
    private static MimeMessage Returned(PracticeMessage message)
    {
        var server = message.To.Split('@')[^1];
        var status = new MessageDeliveryStatus();
        status.StatusGroups.Add([new Header("Reporting-MTA", $"dns; mail.{server}")]);
        status.StatusGroups.Add([
            new Header("Final-Recipient", $"rfc822; {message.To}"),
            new Header("Action", "failed"),
            new Header("Status", "5.1.1"),
        ]);
        var sent = SmtpCarrier.Compose("", message.From, message.To, message.Subject, message.Text);
        sent.MessageId = message.MessageId.Trim('<', '>');
        var returned = new MimeMessage
        {
            Subject = "Undelivered mail returned to sender",
            Body = new MultipartReport("delivery-status")
            {
                new TextPart("plain") { Text = $"Your message could not be delivered to {message.To}: there is no such mailbox." },
                status,
                new MessagePart { Message = sent },
            },
            MessageId = $"{Guid.CreateVersion7():N}@{server}",
        };
        returned.From.Add(new MailboxAddress("Mail system", $"mailer-daemon@{server}"));
        returned.To.Add(new MailboxAddress(null, message.From));
        returned.Headers.Add(HeaderId.ReturnPath, "<>");
        return returned;
    }
}
