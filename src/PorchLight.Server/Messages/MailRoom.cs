using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Core.Messages;
using PorchLight.Server.Brand;
using PorchLight.Server.Data;
using PorchLight.Server.Records;
using PorchLight.Server.StandIns.Mail;

namespace PorchLight.Server.Messages;

/// <summary>Queues messages and hands them over.</summary>
internal sealed class MailRoom(PorchDb db, IMailCarrier carrier, TimeProvider time, ILogger<MailRoom> logger)
{
    private const int MostTries = 8;

    /// <summary>
    /// Queues a message as part of the caller's transaction; one effect is queued once, whatever happens. False when the
    /// client left no address.
    /// </summary>
    public bool Queue(string effectKey, Business business, Client client, string subject, string text, Instant at)
    {
        if (client.Email is null)
            return false;
        var id = Guid.CreateVersion7();
        db.OutgoingMail.Add(new OutgoingMail
        {
            Id = new Id<OutgoingMail>(id),
            EffectKey = effectKey,
            ClientId = client.Id,
            MessageId = $"<{id:N}@{business.MailAddress.Split('@')[^1]}>",
            From = business.MailAddress,
            To = client.Email,
            Subject = KnownValues.OneLine(subject),
            Text = text,
            Written = at,
            NextTry = Instant.FromUnixTimeTicks(0),
        });
        return true;
    }

    /// <summary>The messages whose time to be tried has come, oldest first.</summary>
    public async Task<IReadOnlyList<Id<OutgoingMail>>> DueAsync(CancellationToken stop)
    {
        var now = Now();
        return await db.OutgoingMail.Where(mail => mail.State == MailState.Queued && mail.NextTry <= now)
            .OrderBy(mail => mail.Written).Select(mail => mail.Id).Take(100).ToListAsync(stop);
    }

    /// <summary>When the next message has to be tried again, or null.</summary>
    public async Task<Instant?> NextTryAsync(CancellationToken stop) => await db.OutgoingMail
        .Where(mail => mail.State == MailState.Queued).MinAsync(mail => (Instant?)mail.NextTry, stop);

    /// <summary>Hands one message over. A refusal is tried again after growing pauses: one minute, two, four and so on.</summary>
    public async Task HandOverAsync(Id<OutgoingMail> id, CancellationToken stop)
    {
        await using var transaction = await db.Database.BeginTransactionAsync(stop);
        var mail = await db.OutgoingMail.FindAsync([id], stop);
        if (mail is not { State: MailState.Queued })
            return;
        mail.Tries++;
        if (await carrier.HandOverAsync(db, mail, stop) is { } refusal)
        {
            mail.LastFailure = refusal;
            mail.State = mail.Tries >= MostTries ? MailState.Failed : MailState.Queued;
            mail.NextTry = Now() + Duration.FromMinutes(1 << (mail.Tries - 1));
            logger.LogWarning("Mail {MailId} was refused at try {Try}", mail.Id, mail.Tries);
        }
        else
        {
            mail.State = MailState.HandedOver;
            mail.LastFailure = null;
        }

        await db.SaveChangesAsync(stop);
        await transaction.CommitAsync(stop);
    }

    private Instant Now() => Instant.FromDateTimeOffset(time.GetUtcNow());
}
