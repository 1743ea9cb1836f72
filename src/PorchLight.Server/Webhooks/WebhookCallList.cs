using System.Linq.Expressions;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;
using PorchLight.Core.Webhooks;
using PorchLight.Server.Calendar;
using PorchLight.Server.Lists;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Webhooks;

internal sealed record TryView(string At, int? Status, string Sentence);

/// <param name="Client">Whom it tells of; null for a test.</param>
/// <param name="Payload">The body as it is sent, set out to be read.</param>
/// <param name="Next">When it is tried again, in words; null for not by itself.</param>
internal sealed record CallView(
    Id<WebhookCall> Id,
    string Webhook,
    string? Client,
    string Written,
    string Exactly,
    WebhookState State,
    string Payload,
    IReadOnlyList<TryView> Tries,
    string? Next
);

/// <summary>The log of what webhooks were called with, as a list.</summary>
internal sealed class WebhookCallList(PorchDb db, BusinessClock clock) : ListOf<WebhookCall, Id<WebhookCall>, WebhookCallQuery, CallView>
{
    public override string Name => "calls";

    protected override Expression<Func<WebhookCall, Id<WebhookCall>>> Identifier => call => call.Id;

    public override IReadOnlyList<ListFilter<WebhookCall, WebhookCallQuery>> Filters =>
        [
            Several("states", "Any outcome", query => query.States, call => call.State, Fixed<WebhookState>(state => state.Say())),
            Several(
                "webhooks",
                "All webhooks",
                query => [.. query.Webhooks.Select(webhook => new Id<Webhook>(webhook))],
                call => call.WebhookId,
                async cancellationToken =>
                    [
                        .. (await db.Webhooks.AsNoTracking().ToListAsync(cancellationToken))
                            .Select(webhook => new FilterChoice(webhook.Id.ToString(), webhook.Name))
                            .OrderBy(webhook => webhook.Words, NaturalOrder.Instance),
                    ]
            ),
        ];

    public override IReadOnlyList<ListOrder<WebhookCall>> Orders => [InOrder("written", "Sort by time", true, By(call => call.Written))];

    protected override IReadOnlyList<ListColumn<CallView>> Columns =>
        [
            new("Webhook", call => call.Webhook),
            new("About", call => call.Client),
            new("Called", call => call.Written),
            new("Outcome", call => call.State.Say()),
            new("Tries", call => string.Join("\n", call.Tries.Select(one => $"{one.At}: {one.Sentence}"))),
            new("Body", call => call.Payload),
        ];

    protected override string OrderOf(WebhookCallQuery query) => "written";

    protected override Task<IQueryable<WebhookCall>> AllAsync(WebhookCallQuery query, CancellationToken cancellationToken)
    {
        var all = db.WebhookCalls.AsNoTracking();
        if (query.Words.Trim() is { Length: > 0 } typed)
        {
            var words = LikePattern.Within(typed);
            all = all.Where(call =>
                db.Webhooks.Any(webhook => webhook.Id == call.WebhookId && EF.Functions.Like(webhook.Name, words, LikePattern.Escape))
                || db.Clients.Any(client => client.Id == call.ClientId && EF.Functions.Like(client.Name, words, LikePattern.Escape))
            );
        }

        return Task.FromResult(all);
    }

    protected override async Task<IReadOnlyList<CallView>> RowsAsync(
        IReadOnlyList<Id<WebhookCall>> ids,
        WebhookCallQuery query,
        CancellationToken cancellationToken
    )
    {
        var rows = await (
            from call in db.WebhookCalls.AsNoTracking()
            where ids.Contains(call.Id)
            join webhook in db.Webhooks.AsNoTracking() on call.WebhookId equals webhook.Id
            join client in db.Clients.IgnoreQueryFilters().AsNoTracking() on call.ClientId equals client.Id into clients
            from client in clients.DefaultIfEmpty()
            select new
            {
                Call = call,
                webhook.Name,
                Client = client == null ? null : client.Name,
            }
        ).ToDictionaryAsync(row => row.Call.Id, cancellationToken);
        var (now, zone) = (clock.GetCurrentInstant(), (await db.BusinessAsync()).DateTimeZone);
        return
        [
            .. ids.Where(rows.ContainsKey)
                .Select(id => rows[id])
                .Select(row => new CallView(
                    row.Call.Id,
                    row.Name,
                    row.Client,
                    TimeWords.InList(row.Call.Written, now, zone),
                    TimeWords.Exactly(row.Call.Written, zone),
                    row.Call.State,
                    SetOut(row.Call.Body),
                    [
                        .. row.Call.Tries.Select(one => new TryView(
                            TimeWords.At(one.At + clock.Ahead, now, zone),
                            one.Status,
                            one.Why ?? $"Taken ({one.Status})."
                        )),
                    ],
                    row.Call.NextTry is { } next && row.Call.Tries.Count > 0 ? TimeWords.At(next + clock.Ahead, now, zone) : null
                )),
        ];
    }

    private static readonly JsonSerializerOptions Readable = new(Json.Options) { WriteIndented = true };

    private static string SetOut(string body)
    {
        using var document = JsonDocument.Parse(body);
        return JsonSerializer.Serialize(document.RootElement, Readable);
    }
}
