using System.Security.Cryptography;
using Microsoft.EntityFrameworkCore;
using MimeKit;
using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Core.Messages;
using PorchLight.Server.Brand;
using PorchLight.Server.Calendar;
using PorchLight.Server.Forms;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Messages;

/// <summary>Queues messages and hands them over: to the practice mailbox, or to a mail server once the owner has named one.</summary>
internal sealed class MailQueue(
    PorchDb db,
    SmtpCarrier smtp,
    Tokens tokens,
    TimeProvider time,
    BusinessClock clock,
    EventLog events,
    ProjectStages stages,
    TakeBackTime takeBack,
    FileStore store,
    ILogger<MailQueue> logger
)
{
    /// <summary>
    /// Queues a message as part of the caller's transaction; one effect is queued once, whatever happens. Null when the
    /// client left no address.
    /// </summary>
    /// <param name="automatic">Whether nobody wrote or approved it.</param>
    public Id<OutgoingMail>? Queue(string effectKey, Business business, Client client, MailContent content, bool automatic, Instant at)
    {
        return client.Email is { } address ? Queue(effectKey, business, address, client.Id, content, automatic, at) : null;
    }

    /// <summary>Queues a message to somebody who need not be a client; else as above.</summary>
    /// <param name="canBeTakenBack">Whether it rests for <see cref="TakeBackTime"/> before it goes.</param>
    /// <param name="held">What follows once it has gone; null for nothing.</param>
    public Id<OutgoingMail> Queue(
        string effectKey,
        Business business,
        string to,
        Id<Client>? client,
        MailContent content,
        bool automatic,
        Instant at,
        bool canBeTakenBack = false,
        HeldMail? held = null
    )
    {
        var id = new Id<OutgoingMail>(Guid.CreateVersion7());
        var written = content.IsFormatted ? FormattedText.Read(content.Text) : null;
        db.OutgoingMail.Add(
            new OutgoingMail
            {
                Id = id,
                EffectKey = effectKey,
                ClientId = client,
                MessageId = OutgoingMail.NameOf(id, business.MailAddress),
                InReplyTo = content.InReplyTo,
                Unsubscribe = content.Unsubscribe,
                From = business.MailAddress,
                To = to,
                Subject = KnownValues.OneLine(content.Subject),
                Text =
                    written is null || written.IsPlain && !content.Text.Contains('\\', StringComparison.Ordinal)
                        ? content.Text
                        : written.ToPlain(),
                Formatted = written is { IsPlain: false } ? content.Text : null,
                Enclosed = content.Enclosed.IsNothing ? null : content.Enclosed,
                Invitation = content.Invitation,
                Automatic = automatic,
                Written = at,
                NextTry = canBeTakenBack ? time.Now() + takeBack.Length : Instant.FromUnixTimeTicks(0),
                Held = held,
            }
        );
        return id;
    }

    /// <summary>
    /// Takes back a message that somebody sent, as part of the caller's write, as if it had never been written. False when it has gone, or
    /// is under way.
    /// </summary>
    public bool TakeBack(OutgoingMail mail)
    {
        if (mail is not { State: MailState.Queued, Tries: 0, Automatic: false } || mail.NextTry <= time.Now())
            return false;
        db.OutgoingMail.Remove(mail);
        return true;
    }

    /// <summary>The same for the message that an effect has queued; false also when there is none.</summary>
    public async Task<bool> TakeBackAsync(string effectKey, CancellationToken cancellationToken) =>
        await db.OutgoingMail.SingleOrDefaultAsync(mail => mail.EffectKey == effectKey, cancellationToken) is { } sent && TakeBack(sent);

    /// <summary>Lets follow what a message brings about, as part of the caller's write: the word is said, and the project moves.</summary>
    public async Task ApplyHeldAsync(OutgoingMail mail)
    {
        if (mail is not { Held: { } held, ClientId: { } client })
            return;
        mail.Held = null;
        var now = clock.GetCurrentInstant();
        await events.AppendAsync(
            new MessageSent(mail.Subject, null, held.By),
            now,
            new EventContext(client, held.Project, held.Inquiry, MailId: mail.Id)
        );
        var list = (await db.BusinessAsync()).Lists.Stages;
        if (list.FirstOrDefault(stage => stage.Key == held.Stage) is { } next && await db.Projects.FindAsync(held.Project) is { } project)
            await stages.MoveAsync(project, next, held.By, now, held.Until);
    }

    /// <summary>The messages whose time to be tried has come, oldest first.</summary>
    public async Task<IReadOnlyList<Id<OutgoingMail>>> DueAsync(CancellationToken cancellationToken)
    {
        var now = time.Now();
        return await db
            .OutgoingMail.Where(mail => mail.State == MailState.Queued && mail.NextTry <= now)
            .OrderBy(mail => mail.Written)
            .Select(mail => mail.Id)
            .Take(100)
            .ToListAsync(cancellationToken);
    }

    /// <summary>When the next message has to be tried again, or null.</summary>
    public async Task<Instant?> NextTryAsync(CancellationToken cancellationToken) =>
        await db.OutgoingMail.Where(mail => mail.State == MailState.Queued).MinAsync(mail => (Instant?)mail.NextTry, cancellationToken);

    /// <summary>
    /// Messages that were on the line when the program went down: nobody knows whether they arrived, so a person looks. To be
    /// called before any work begins.
    /// </summary>
    public async Task LookAfterCrashAsync(CancellationToken cancellationToken)
    {
        await using var write = await db.WriteAsync(cancellationToken);
        foreach (var mail in await db.OutgoingMail.Where(mail => mail.State == MailState.HandingOver).ToListAsync(cancellationToken))
            await SettleAsync(mail, new HandOver.Unsure());
        await write.SaveAsync(cancellationToken);
    }

    /// <summary>
    /// Hands one message over. A refusal is tried again after growing pauses: one minute, two, four and so on. False when
    /// the line is down, so that others need not be tried now.
    /// </summary>
    public async Task<bool> HandOverAsync(Id<OutgoingMail> id, CancellationToken cancellationToken)
    {
        if (await ClaimAsync(id, cancellationToken) is not ({ } mail, { Smtp: { } settings } business))
            return true;
        var ended = await CarryAsync(mail, business, settings, cancellationToken);

        // How it ended is written even when the program is about to close.
        await using var write = await db.WriteAsync(CancellationToken.None);
        if (await db.OutgoingMail.FindAsync([id], CancellationToken.None) is { } carried)
            await SettleAsync(carried, ended);
        await write.SaveAsync(CancellationToken.None);
        return ended is not HandOver.Refused { LineIsDown: true };
    }

    private async Task<HandOver> CarryAsync(
        OutgoingMail mail,
        Business business,
        SmtpSettings settings,
        CancellationToken cancellationToken
    )
    {
        MimeMessage message;
        string? password;
        try
        {
            message = await ComposeAsync(mail, business, cancellationToken);
            password = settings.PasswordSealed is { } kept ? tokens.Open(kept) : null;
        }
        catch (Exception failure) when (failure is ParseException or CryptographicException or FileNotFoundException)
        {
            return new HandOver.Refused($"The message could not be made ready: {failure.Message}", ForGood: true);
        }

        return await smtp.CarryAsync(settings, password, message, cancellationToken);
    }

    private async Task<MimeMessage> ComposeAsync(OutgoingMail mail, Business business, CancellationToken cancellationToken)
    {
        var files = new List<EnclosedFile>();
        foreach (var id in mail.FilesNeeded())
        {
            if (await db.StoredFiles.FindAsync([new Id<StoredFile>(id)], cancellationToken) is not { } file)
            {
                // A picture that is gone is stood for by its words; an attachment that was promised is missed.
                if (mail.Enclosed?.Files.Contains(id) == true)
                    throw new FileNotFoundException("a file that should go with it is not there any more.");
            }
            else
                files.Add(
                    new EnclosedFile(id, file.Name, file.ContentType, await File.ReadAllBytesAsync(store.PathOf(file), cancellationToken))
                );
        }

        var sender = mail.Enclosed?.Sender is { } user ? await db.Users.FindAsync([user], cancellationToken) : null;
        return SmtpCarrier.Compose(mail, sender is null ? business.Name : $"{sender.DisplayName}, {business.Name}", files);
    }

    /// <summary>
    /// Marks a message as on the line, or lays it into the practice mailbox at once, in one transaction with the mark, so
    /// that the two cannot disagree. Gives what has still to be carried.
    /// </summary>
    private async Task<(OutgoingMail? Mail, Business? By)> ClaimAsync(Id<OutgoingMail> id, CancellationToken cancellationToken)
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.OutgoingMail.FindAsync([id], cancellationToken) is not { State: MailState.Queued } mail)
            return (null, null);
        var business = await db.BusinessAsync();
        await ApplyHeldAsync(mail);
        mail.Tries++;
        if (business.Smtp is null)
        {
            db.LayIntoPracticeMailbox(mail);
            await SettleAsync(mail, new HandOver.Taken());
        }
        else
        {
            mail.State = MailState.HandingOver;
        }

        await write.SaveAsync(cancellationToken);
        return (mail, business);
    }

    private async Task SettleAsync(OutgoingMail mail, HandOver ended)
    {
        var step = MailDelivery.After(ended, mail.Tries, mail.Subject, time.Now());
        (mail.State, mail.LastFailure, mail.NextTry) = (step.State, step.Failure, step.NextTry ?? mail.NextTry);
        if (step.Says is { } says)
            await events.AppendAsync(says, clock.GetCurrentInstant(), new EventContext(mail.ClientId, MailId: mail.Id));
        if (ended is not HandOver.Taken)
            logger.LogWarning("Mail {MailId} at try {Try} ended as {State}", mail.Id, mail.Tries, mail.State);
    }
}
