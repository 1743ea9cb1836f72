using System.Net.Sockets;
using MailKit;
using MailKit.Net.Smtp;
using MailKit.Security;
using MimeKit;
using MimeKit.Text;
using PorchLight.Core.Meetings;
using PorchLight.Core.Messages;
using PorchLight.Server.Brand;
using TextPart = MimeKit.TextPart;

namespace PorchLight.Server.Messages;

/// <summary>A file that goes with a message.</summary>
internal sealed record EnclosedFile(Guid Id, string Name, string ContentType, byte[] Bytes);

/// <summary>Hands messages to a mail server by SMTP (RFC 5321), one line for each.</summary>
internal sealed class SmtpCarrier(IConfiguration configuration)
{
    private readonly TimeSpan _patience = TimeSpan.FromSeconds(configuration.GetValue("PorchLight:SmtpTimeoutSeconds", 30.0));

    public async Task<HandOver> CarryAsync(
        SmtpSettings settings,
        string? password,
        MimeMessage message,
        CancellationToken cancellationToken
    )
    {
        using var patience = CancellationTokenSource.CreateLinkedTokenSource(cancellationToken);
        patience.CancelAfter(_patience);
        var end = new EndOfMessage();
        using var client = new SmtpClient(end);
        try
        {
            await client.ConnectAsync(settings.Host, settings.Port, settings.Security.ToOptions(), patience.Token);
            // In chunks a message has no end mark to watch for.
            client.Capabilities &= ~SmtpCapabilities.Chunking;
            if (settings.User is { } user)
                await client.AuthenticateAsync(user, password ?? "", patience.Token);
            await client.SendAsync(message, patience.Token);
        }
        catch (SmtpCommandException refusal)
        {
            return new HandOver.Refused($"The mail server says: {refusal.Message.TrimEnd('.')}.", ForGood: (int)refusal.StatusCode >= 500);
        }
        catch (AuthenticationException)
        {
            return new HandOver.Refused("The mail server does not accept the user name and password.", LineIsDown: true);
        }
        catch (Exception failure)
        {
            // Whatever it was: all that counts is whether the server may have the message.
            return end.Reached ? new HandOver.Unsure() : new HandOver.Refused(Say(failure), LineIsDown: true);
        }

        await SayGoodbyeAsync(client, patience.Token);
        return new HandOver.Taken();
    }

    /// <summary>The message as it goes out.</summary>
    /// <param name="senderName">In whose name it comes.</param>
    /// <param name="files">The files it needs; one that is not there any more stays away.</param>
    public static MimeMessage Compose(OutgoingMail mail, string senderName, IReadOnlyList<EnclosedFile> files)
    {
        var message = Compose(senderName, mail.From, mail.To, mail.Subject, mail.Text);
        if (mail.Formatted is not null || mail.Enclosed is { Files.Count: > 0 })
            message.Body = BodyOf(mail, files);
        if (mail.Invitation is { } invitation)
            message.Body = WithInvitation(message.Body!, invitation);
        foreach (var copy in mail.Enclosed?.Cc ?? [])
            message.Cc.Add(new MailboxAddress(null, copy));
        message.MessageId = mail.MessageId.Trim('<', '>');
        message.Date = mail.Written.ToDateTimeOffset();
        if (mail.InReplyTo is { } answered)
        {
            message.InReplyTo = answered;
            message.References.Add(answered);
        }

        if (mail.Unsubscribe is { } address)
        {
            message.Headers.Add(HeaderId.ListUnsubscribe, $"<{address}>");
            message.Headers.Add("List-Unsubscribe-Post", "List-Unsubscribe=One-Click");
        }

        if (mail.Automatic)
            message.Headers.Add(HeaderId.AutoSubmitted, "auto-replied");
        return message;
    }

    /// <summary>Plain text beside HTML (RFC 2046, 5.1.4), the pictures of the HTML with it (RFC 2387), and what is attached.</summary>
    private static MimeEntity BodyOf(OutgoingMail mail, IReadOnlyList<EnclosedFile> files)
    {
        var body = new BodyBuilder { TextBody = mail.Text };
        if (mail.Formatted is { } words)
        {
            var formatted = FormattedText.Read(words);
            var shown = new Dictionary<Guid, string>();
            foreach (var file in files.Where(file => formatted.Pictures.Contains(file.Id)))
            {
                var picture = body.LinkedResources.Add(file.Name, file.Bytes, ContentType.Parse(file.ContentType));
                picture.ContentId = $"{file.Id:N}@{mail.From.Split('@')[^1]}";
                shown[file.Id] = $"cid:{picture.ContentId}";
            }

            body.HtmlBody = MailHtml.Clean(formatted.ToHtml(id => shown.GetValueOrDefault(id)));
        }

        foreach (var file in files.Where(file => mail.Enclosed?.Files.Contains(file.Id) == true))
            body.Attachments.Add(file.Name, file.Bytes, ContentType.Parse(file.ContentType));
        return body.ToMessageBody();
    }

    /// <summary>
    /// The words with the meeting beside them, as mail programs look for it (RFC 6047, 2.4), and once more as a file for those that do not.
    /// </summary>
    private static Multipart WithInvitation(MimeEntity words, string invitation)
    {
        var beside = new TextPart("calendar") { Text = invitation };
        beside.ContentType.Parameters["method"] = CalendarFile.MethodOf(invitation);
        var both = words as MultipartAlternative ?? new MultipartAlternative(words);
        both.Add(beside);
        var file = new TextPart("calendar")
        {
            Text = invitation,
            ContentDisposition = new ContentDisposition(ContentDisposition.Attachment) { FileName = "meeting.ics" },
        };
        return new Multipart("mixed", both, file);
    }

    public static MimeMessage Compose(string senderName, string from, string to, string subject, string text)
    {
        var message = new MimeMessage
        {
            Subject = subject,
            Body = new TextPart(TextFormat.Plain) { Text = text },
        };
        message.From.Add(new MailboxAddress(senderName, from));
        message.To.Add(new MailboxAddress(null, to));
        return message;
    }

    /// <summary>The server has the message already; how the line ends changes nothing.</summary>
    private static async Task SayGoodbyeAsync(SmtpClient client, CancellationToken cancellationToken)
    {
        try
        {
            await client.DisconnectAsync(quit: true, cancellationToken);
        }
        catch (Exception failure) when (failure is IOException or SocketException or ProtocolException or OperationCanceledException) { }
    }

    private static string Say(Exception failure) =>
        failure switch
        {
            OperationCanceledException => "The mail server does not answer.",
            SslHandshakeException => "The mail server cannot be trusted: its certificate does not fit.",
            NotSupportedException => "The mail server does not offer this encryption. Choose another one in the mail settings.",
            SocketException => "The mail server cannot be reached.",
            IOException or ProtocolException => "The line to the mail server broke.",
            _ => $"The message could not be handed over: {failure.Message}",
        };

    /// <summary>
    /// Watches what goes out for the end mark of a message. Up to it a server throws a broken message away (RFC 5321,
    /// 4.1.1.4); after it nobody can know (RFC 1047).
    /// </summary>
    private sealed class EndOfMessage : IProtocolLogger
    {
        private const string Mark = "\r\n.\r\n";
        private string _tail = "";

        public bool Reached { get; private set; }

        public IAuthenticationSecretDetector? AuthenticationSecretDetector { get; set; }

        public void LogClient(byte[] buffer, int offset, int count)
        {
            _tail += System.Text.Encoding.Latin1.GetString(buffer, offset, count);
            Reached |= _tail.Contains(Mark, StringComparison.Ordinal);
            _tail = _tail[^Math.Min(_tail.Length, Mark.Length - 1)..];
        }

        public void LogServer(byte[] buffer, int offset, int count) { }

        public void LogConnect(Uri uri) { }

        public void Dispose() { }
    }
}
