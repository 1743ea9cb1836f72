using System.Collections.Concurrent;
using System.Security.Cryptography;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Core.Webhooks;
using PorchLight.Server.Calendar;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Webhooks;

/// <summary>
/// Queues calls to webhooks and delivers them. A call whose end nobody saw, because the line broke or the program went down, is tried again
/// under the same name: the other side tells by it that it has it already.
/// </summary>
internal sealed class WebhookQueue(PorchDb db, WebhookCarrier carrier, CallsOnTheLine onTheLine, Tokens tokens, TimeProvider time)
{
    /// <summary>Queues a call as part of the caller's transaction; one effect is queued once.</summary>
    public WebhookCall Queue(string effectKey, Id<Webhook> webhook, Id<Client>? client, string body, Instant at) =>
        db
            .WebhookCalls.Add(
                new WebhookCall
                {
                    Id = new Id<WebhookCall>(Guid.CreateVersion7()),
                    WebhookId = webhook,
                    EffectKey = effectKey,
                    ClientId = client,
                    Body = body,
                    Written = at,
                    NextTry = Instant.FromUnixTimeTicks(0),
                }
            )
            .Entity;

    /// <summary>A call whose time to be tried has come.</summary>
    internal sealed record DueCall(Id<WebhookCall> Id, Id<Webhook> Webhook);

    /// <summary>The calls whose time to be tried has come, oldest first.</summary>
    public async Task<IReadOnlyList<DueCall>> DueAsync(CancellationToken cancellationToken)
    {
        var now = time.Now();
        return await db
            .WebhookCalls.Where(call => call.NextTry <= now)
            .OrderBy(call => call.NextTry)
            .Select(call => new DueCall(call.Id, call.WebhookId))
            .Take(50)
            .ToListAsync(cancellationToken);
    }

    /// <summary>When the next call has to be tried, or null.</summary>
    public Task<Instant?> NextTryAsync(CancellationToken cancellationToken) =>
        db.WebhookCalls.MinAsync(call => call.NextTry, cancellationToken);

    /// <summary>Tries to deliver one call. The line is not held open within a transaction.</summary>
    /// <returns>
    /// Whether somebody answered, whatever they said; also where there is nothing to deliver any more, or another pass is delivering it.
    /// </returns>
    public async Task<bool> DeliverAsync(Id<WebhookCall> id, CancellationToken cancellationToken)
    {
        if (!onTheLine.Take(id))
            return true;
        try
        {
            return await DeliverAloneAsync(id, cancellationToken);
        }
        finally
        {
            onTheLine.Release(id);
        }
    }

    private async Task<bool> DeliverAloneAsync(Id<WebhookCall> id, CancellationToken cancellationToken)
    {
        var due = await (
            from call in db.WebhookCalls.AsNoTracking()
            where call.Id == id && call.NextTry != null
            join webhook in db.Webhooks.AsNoTracking() on call.WebhookId equals webhook.Id
            select new
            {
                call.Body,
                webhook.Address,
                webhook.SecretSealed,
            }
        ).SingleOrDefaultAsync(cancellationToken);
        if (due is null)
            return true;
        var ended = await CarryAsync(due.Address, due.SecretSealed, id.Value, due.Body, cancellationToken);

        // How it ended is written even when the program is about to close.
        await using var write = await db.WriteAsync(CancellationToken.None);
        if (await db.WebhookCalls.FindAsync([id], CancellationToken.None) is not { } tried)
            return true;
        tried.Counted++;
        tried.Tries = [.. tried.Tries, ended];
        (tried.State, tried.NextTry) = WebhookDelivery.After(ended, tried.Counted);
        await write.SaveAsync(CancellationToken.None);
        return ended.Status is not null;
    }

    private async Task<WebhookTry> CarryAsync(
        string address,
        string secretSealed,
        Guid delivery,
        string body,
        CancellationToken cancellationToken
    )
    {
        try
        {
            return await carrier.CarryAsync(address, tokens.Open(secretSealed), delivery, body, cancellationToken);
        }
        catch (CryptographicException)
        {
            return new WebhookTry(time.Now(), null, "Its secret cannot be opened any more. Make a new one in Settings.");
        }
    }
}

/// <summary>
/// The calls that are being delivered now, so that two passes side by side do not both carry one. Nothing of it outlives the program: what
/// was on the line when it went down is carried again, under its name.
/// </summary>
internal sealed class CallsOnTheLine
{
    private readonly ConcurrentDictionary<Id<WebhookCall>, bool> _calls = [];

    /// <summary>Whether nobody else delivers it; from now on the caller does, until it is released.</summary>
    public bool Take(Id<WebhookCall> id) => _calls.TryAdd(id, true);

    public void Release(Id<WebhookCall> id) => _calls.TryRemove(id, out _);
}
