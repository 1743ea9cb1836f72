using System.Security.Cryptography;
using System.Text;
using Microsoft.EntityFrameworkCore;
using MimeKit;
using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Core.Messages;
using PorchLight.Server.Messages;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Inquiries;

/// <summary>
/// Takes messages in, from the practice mailbox or a real one, as part of the caller's write. Only what people on file write, and what
/// is about a message to them, comes in; the rest is none of this program's business.
/// </summary>
internal sealed class MailIntake(PorchDb db, EventLog events)
{
    /// <summary>Whether a message would come in, from its head alone, so that the mail of others is not read.</summary>
    public async Task<bool> ConcernsAsync(HeaderList head)
    {
        var from = InternetAddressList.TryParse(head[HeaderId.From] ?? "", out var senders) ? senders.Mailboxes.FirstOrDefault() : null;
        if (from is not null && await ByAddressAsync(from) is not null)
            return true;
        var type = head[HeaderId.ContentType] ?? "";
        if (type.StartsWith("multipart/report", StringComparison.OrdinalIgnoreCase))
            return true;
        var named = new[] { head[HeaderId.InReplyTo], head[HeaderId.References] }
            .OfType<string>()
            .SelectMany(MimeKit.Utils.MimeUtils.EnumerateReferences)
            .ToList();
        return await AmongOursAsync(named) is not null;
    }

    /// <summary>
    /// Takes a message in. What a person wrote is a reply, with all that follows from one; what a program wrote is shown and changes
    /// nothing; what came back makes the message that did wait for a person.
    /// </summary>
    /// <returns>Null where it was taken before, or is from nobody on file.</returns>
    public async Task<IncomingMessage?> TakeAsync(MimeMessage message, Instant at)
    {
        var named = message.MessageId is { Length: > 0 } id ? $"<{id}>" : Nameless(message);
        if (await db.IncomingMail.AnyAsync(one => one.MessageId == named))
            return null;
        var (kind, ours) = (IncomingMail.Of(MailText.HeadOf(message)), await AnsweredAsync(message));
        var from = message.From.Mailboxes.FirstOrDefault();
        var client = kind == IncomingKind.CameBack ? await ClientOfAsync(ours) : await SenderAsync(from, ours);
        if (client is null)
            return null;
        var taken = new IncomingMessage
        {
            Id = new Id<IncomingMessage>(Guid.CreateVersion7()),
            MessageId = named,
            ClientId = client.Id,
            Kind = kind,
            From = from?.Address ?? "",
            Subject = Shortened(KnownValues.OneLine(message.Subject ?? "")),
            Text = MailText.Of(message),
            At = at,
            AnswersId = ours?.Id,
        };
        db.IncomingMail.Add(taken);
        await SayAsync(taken, message, ours, client);
        return taken;
    }

    private async Task SayAsync(IncomingMessage taken, MimeMessage message, OutgoingMail? ours, Client client)
    {
        var about = await AboutAsync(ours, client);
        switch (taken.Kind)
        {
            case IncomingKind.Reply:
                await events.AppendAsync(new ReplyReceived(taken.Subject, QuotedText.Split(taken.Text).Own), taken.At, about);
                break;
            case IncomingKind.Automatic:
                await events.AppendAsync(new AutomaticAnswerReceived(taken.Subject, QuotedText.Split(taken.Text).Own), taken.At, about);
                break;
            case IncomingKind.CameBack:
                var failed = MailText.StatusOf(message).First(group => IsFailed(group["Action"]));
                var why = IncomingMail.SayWhy(failed["Status"]);
                (ours!.State, ours.LastFailure) = (MailState.Failed, why);
                await events.AppendAsync(new DeliveryFailed(ours.Subject, why), taken.At, about with { MailId = ours.Id });
                break;
        }

        static bool IsFailed(string? action) => string.Equals(action?.Trim(), "failed", StringComparison.OrdinalIgnoreCase);
    }

    /// <summary>The message of ours that it names.</summary>
    private Task<OutgoingMail?> AnsweredAsync(MimeMessage message) => AmongOursAsync(MailText.Refers(message));

    private async Task<OutgoingMail?> AmongOursAsync(IEnumerable<string> names)
    {
        foreach (var id in names.Select(OutgoingMail.IdIn).OfType<Id<OutgoingMail>>())
        {
            if (await db.OutgoingMail.FindAsync(id) is { ClientId: not null } found)
                return found;
        }

        return null;
    }

    /// <summary>Who wrote it: whom the message went to that it answers, where the address is theirs; else by the address alone.</summary>
    private async Task<Client?> SenderAsync(MailboxAddress? from, OutgoingMail? ours)
    {
        if (from is null)
            return null;
        var answering = await ClientOfAsync(ours);
        return answering?.EmailKey == EmailAddress.Key(from.Address)
            ? answering
            // Nobody can guess how a message of ours is named: whoever answers it from another address had it before them.
            : await ByAddressAsync(from) ?? answering;
    }

    /// <summary>Whose address it is; where several share it, the one whose name the message bears, if any does.</summary>
    private async Task<Client?> ByAddressAsync(MailboxAddress from) =>
        await db.ClientWritingFromAsync(from.Address, string.IsNullOrWhiteSpace(from.Name) ? null : from.Name)
        ?? await db.ClientWritingFromAsync(from.Address, null);

    private async Task<Client?> ClientOfAsync(OutgoingMail? ours) =>
        ours?.ClientId is { } id && await db.ClientOrMergedAsync(id) is { } client ? await db.WhereMergedAsync(client) : null;

    /// <summary>What it is about: what the message was about that it answers, else their newest inquiry.</summary>
    private async Task<EventContext> AboutAsync(OutgoingMail? ours, Client client)
    {
        var sent = ours is null
            ? null
            : await db
                .Events.Where(logged => logged.MailId == ours.Id && logged.ClientId == client.Id && logged.ProjectId != null)
                .OrderBy(logged => logged.Seq)
                .FirstOrDefaultAsync();
        return sent is null ? await Promises.AboutAsync(db, client.Id) : new EventContext(client.Id, sent.ProjectId, sent.InquiryId);
    }

    private static string Nameless(MimeMessage message)
    {
        var said = $"{message.From} {message.Date:O} {message.Subject} {MailText.Of(message)}";
        return $"<{Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(said)))}>";
    }

    private static string Shortened(string subject) => UnicodeText.Start(subject, 300);
}
