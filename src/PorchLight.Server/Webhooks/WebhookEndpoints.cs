using System.Security.Claims;
using System.Text.Json;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Core.Webhooks;
using PorchLight.Server.Calendar;
using PorchLight.Server.Hosting;
using PorchLight.Server.Identity;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Webhooks;

/// <summary>The webhooks of the business, and the log of what they were called with.</summary>
internal static class WebhookEndpoints
{
    private const string Gone = "This webhook is not here any more.";
    private const int LongestName = 80;
    private const int Most = 50;

    internal sealed record WebhookHead(string Name, string Address)
    {
        public IReadOnlyList<Finding> Check() =>
            [
                .. Name.Trim().Length is > 0 and <= LongestName
                    ? Array.Empty<Finding>()
                    : [new Finding("name", $"Give it a name of at most {LongestName} characters.")],
                .. WebhookAddress.Check(Address) is { } sentence ? [new Finding("address", sentence)] : Array.Empty<Finding>(),
            ];

        public WebhookHead Tidied() => new(Name.Trim(), Address.Trim());
    }

    /// <param name="IsPractice">Whether calls stay in this program, because the address leads nowhere.</param>
    /// <param name="Failed">How many calls were given up and wait for somebody to look.</param>
    internal sealed record WebhookView(Id<Webhook> Id, WebhookHead Head, bool IsPractice, int Failed);

    /// <param name="Secret">Shown this once.</param>
    internal sealed record NewSecret(Id<Webhook> Id, string Secret);

    public static void MapWebhooks(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/webhooks").For(Access.Owner).WithTags("Webhooks");
        group.MapGet("", ListAsync);
        group.MapPost("", MakeAsync).Once();
        group.MapPut("/{id}", ChangeAsync);
        group.MapDelete("/{id}", RemoveAsync);
        group.MapPost("/{id}/secret", RenewSecretAsync).Once();
        group.MapPost("/{id}/test", TestAsync).Once();
        group.MapPost("/calls/{id}/again", SendAgainAsync).Once();
    }

    private static async Task<List<WebhookView>> ListAsync(PorchDb db, CancellationToken cancellationToken)
    {
        var failed = await db
            .WebhookCalls.Where(call => call.State == WebhookState.Failed)
            .GroupBy(call => call.WebhookId)
            .ToDictionaryAsync(calls => calls.Key, calls => calls.Count(), cancellationToken);
        var all = await db.Webhooks.AsNoTracking().OrderBy(one => one.Name).ThenBy(one => one.Id).ToListAsync(cancellationToken);
        return [.. all.Select(one => ViewOf(one, failed.GetValueOrDefault(one.Id)))];
    }

    private static async Task<Results<Created<NewSecret>, ProblemHttpResult>> MakeAsync(
        WebhookHead wanted,
        PorchDb db,
        Tokens tokens,
        CancellationToken cancellationToken
    )
    {
        if (wanted.Check() is { Count: > 0 } findings)
            return Problems.Invalid(findings);
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.Webhooks.CountAsync(cancellationToken) >= Most)
            return Problems.Unprocessable($"There are {Most} webhooks already. Take one away that nobody needs.");
        var (head, secret) = (wanted.Tidied(), tokens.Create());
        var made = new Webhook
        {
            Id = new Id<Webhook>(Guid.CreateVersion7()),
            Name = head.Name,
            Address = head.Address,
            SecretSealed = secret.Sealed,
        };
        db.Webhooks.Add(made);
        await write.SaveAsync(cancellationToken);
        return TypedResults.Created($"/api/webhooks/{made.Id}", new NewSecret(made.Id, secret.Token));
    }

    private static async Task<Results<Ok<WebhookHead>, ProblemHttpResult>> ChangeAsync(
        Id<Webhook> id,
        Edit<WebhookHead> edit,
        PorchDb db,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.Webhooks.FindAsync([id], cancellationToken) is not { } stored)
            return Problems.NotFound(Gone);
        var (merged, refusal) = edit.Onto(new WebhookHead(stored.Name, stored.Address));
        if (refusal is not null)
            return refusal;
        if (merged.Check() is { Count: > 0 } findings)
            return Problems.Invalid(findings);
        var head = merged.Tidied();
        (stored.Name, stored.Address) = (head.Name, head.Address);
        await write.SaveAsync(cancellationToken);
        return TypedResults.Ok(head);
    }

    /// <summary>Takes a webhook away with its log. Steps that call it say so themselves.</summary>
    private static async Task<NoContent> RemoveAsync(Id<Webhook> id, PorchDb db, CancellationToken cancellationToken)
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.Webhooks.FindAsync([id], cancellationToken) is { } stored)
            db.Webhooks.Remove(stored);
        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
    }

    /// <summary>Gives it another secret; calls are signed with it from then on.</summary>
    private static async Task<Results<Ok<NewSecret>, ProblemHttpResult>> RenewSecretAsync(
        Id<Webhook> id,
        PorchDb db,
        Tokens tokens,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.Webhooks.FindAsync([id], cancellationToken) is not { } stored)
            return Problems.NotFound(Gone);
        var secret = tokens.Create();
        stored.SecretSealed = secret.Sealed;
        await write.SaveAsync(cancellationToken);
        return TypedResults.Ok(new NewSecret(id, secret.Token));
    }

    /// <summary>Queues a call that tells of nobody.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> TestAsync(
        Id<Webhook> id,
        PorchDb db,
        WebhookQueue queue,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.Webhooks.FindAsync([id], cancellationToken) is null)
            return Problems.NotFound(Gone);
        var now = clock.GetCurrentInstant();
        queue.Queue($"test {Guid.CreateVersion7()}", id, null, JsonSerializer.Serialize(new { test = true, at = now }, Json.Options), now);
        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
    }

    /// <summary>Has a call delivered once more, under its old name; what was given up is tried as often as in the beginning.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> SendAgainAsync(
        Id<WebhookCall> id,
        PorchDb db,
        TimeProvider time,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.WebhookCalls.FindAsync([id], cancellationToken) is not { } call)
            return Problems.NotFound("This call is not in the log any more.");
        call.Tries = [.. call.Tries, new WebhookTry(time.Now(), null, $"Sent again by {who.DisplayName()}.")];
        (call.State, call.Counted, call.NextTry) = (WebhookState.Waiting, 0, Instant.FromUnixTimeTicks(0));
        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
    }

    private static WebhookView ViewOf(Webhook webhook, int failed) =>
        new(webhook.Id, new WebhookHead(webhook.Name, webhook.Address), OutsideHttp.IsPractice(webhook.Address), failed);
}
