using System.Globalization;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Core.Records;
using PorchLight.Server.Brand;
using PorchLight.Server.Calendar;
using PorchLight.Server.Fields;
using PorchLight.Server.Hosting;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Screens;

/// <summary>The clients as a list one works in.</summary>
internal static class ClientListEndpoints
{
    private const int MostNamed = 20;
    private const int MostAtOnce = 200;

    /// <param name="Query">Which clients, and how.</param>
    /// <param name="Skip">How many of them are shown already.</param>
    /// <param name="Take">How many more; at most 200.</param>
    internal sealed record ClientsAsked(ClientQuery Query, int Skip, int Take);

    /// <param name="Total">How many there are in all.</param>
    internal sealed record ClientsFound(int Total, IReadOnlyList<ClientRow> Rows);

    /// <param name="Cells">What stands in the fields that were asked for, in their order; empty for nothing.</param>
    /// <param name="Differences">How many answers wait to be settled.</param>
    internal sealed record ClientRow(
        Id<Client> Id,
        string Name,
        string? Email,
        Standing Standing,
        string Since,
        string? Project,
        IReadOnlyList<string> Tags,
        IReadOnlyList<string> Cells,
        int Differences
    );

    /// <summary>What a list can be made of.</summary>
    /// <param name="Tags">Every tag somebody has.</param>
    /// <param name="PerhapsSame">How many pairs of clients are perhaps one person, for somebody to decide.</param>
    internal sealed record ClientListParts(
        IReadOnlyList<FieldToFilter> Fields,
        IReadOnlyList<string> Tags,
        IReadOnlyList<SavedViewEntry> Views,
        int PerhapsSame
    );

    internal sealed record FieldToFilter(Field Field, RecordScope Scope, IReadOnlyList<FieldTest> Tests);

    internal sealed record SavedViewEntry(Id<SavedView> Id, string Name, ClientQuery Query);

    internal sealed record NamedClient(Id<Client> Id, string Name);

    internal sealed record NewView(string Name, ClientQuery Query);

    public static void MapClientList(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/clients").For(Access.Member).WithTags("Clients");
        group.MapGet(
            "",
            (
                PorchDb db,
                ClientFinder finder,
                ClientSearch search,
                FieldCatalogues catalogues,
                BusinessClock clock,
                CancellationToken cancellationToken
            ) => FindAsync(new ClientsAsked(new ClientQuery(), 0, MostAtOnce), db, finder, search, catalogues, clock, cancellationToken)
        );
        group.MapPost("/found", FindAsync);
        group.MapPost("/all-found", FindAllAsync);
        group.MapGet("/parts", ShowPartsAsync);
        group.MapGet("/names", NamesAsync);
        group.MapPut("/views", KeepViewAsync);
        group.MapDelete("/views/{id}", RemoveViewAsync);
    }

    private static async Task<Results<Ok<ClientsFound>, ProblemHttpResult>> FindAsync(
        ClientsAsked asked,
        PorchDb db,
        ClientFinder finder,
        ClientSearch search,
        FieldCatalogues catalogues,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        var (query, business, fields) = (asked.Query, await db.BusinessAsync(), await catalogues.ReadAsync(db));
        var now = clock.GetCurrentInstant();
        var (clients, refusal) = await ReadAsync(query, db, finder, search, fields, business, clock, cancellationToken);
        if (clients is null)
            return refusal!;
        var (shown, total) = await finder.PageAsync(
            clients,
            query,
            fields,
            Math.Max(0, asked.Skip),
            Math.Clamp(asked.Take, 1, MostAtOnce),
            cancellationToken
        );
        var ids = shown.Select(client => client.Id).ToList();
        var projects = await db
            .Projects.AsNoTracking()
            .Where(project => ids.Contains(project.ClientId) && project.IsLatest)
            .ToDictionaryAsync(project => project.ClientId, cancellationToken);
        var columns = query.Columns.ToList();
        var cells = (
            columns.Count == 0
                ? []
                : await db
                    .FieldValues.AsNoTracking()
                    .Where(value => ids.Contains(value.ClientId) && value.IsListed && columns.Contains(value.Field))
                    .ToListAsync(cancellationToken)
        ).ToLookup(value => (value.ClientId, value.Field));
        var tags = (
            await db.ClientTags.Where(tag => ids.Contains(tag.ClientId)).OrderBy(tag => tag.Tag).ToListAsync(cancellationToken)
        ).ToLookup(tag => tag.ClientId, tag => tag.Tag);
        var differences = await db
            .Differences.Where(difference => ids.Contains(difference.ClientId) && difference.SettledAt == null)
            .GroupBy(difference => difference.ClientId)
            .Select(group => new { group.Key, Count = group.Count() })
            .ToDictionaryAsync(group => group.Key, group => group.Count, cancellationToken);
        return TypedResults.Ok(
            new ClientsFound(
                total,
                [
                    .. shown.Select(client => new ClientRow(
                        client.Id,
                        client.Name,
                        client.Email,
                        client.Standing,
                        TimeWords.InList(client.Since, now, business.DateTimeZone),
                        projects.GetValueOrDefault(client.Id)?.Title,
                        [.. tags[client.Id]],
                        [
                            .. columns.Select(column =>
                                cells[(client.Id, column)].FirstOrDefault() is { Value: { } value } ? AnswerWords.Say(value) : ""
                            ),
                        ],
                        differences.GetValueOrDefault(client.Id)
                    )),
                ]
            )
        );
    }

    /// <summary>The identifiers of all clients a query finds, for what is done to all of them.</summary>
    private static async Task<Results<Ok<List<Id<Client>>>, ProblemHttpResult>> FindAllAsync(
        ClientQuery query,
        PorchDb db,
        ClientFinder finder,
        ClientSearch search,
        FieldCatalogues catalogues,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        var (clients, refusal) = await ReadAsync(
            query,
            db,
            finder,
            search,
            await catalogues.ReadAsync(db),
            await db.BusinessAsync(),
            clock,
            cancellationToken
        );
        return clients is null ? refusal! : TypedResults.Ok(await clients.Select(client => client.Id).ToListAsync(cancellationToken));
    }

    internal static async Task<(IQueryable<Client>? Clients, ProblemHttpResult? Refusal)> ReadAsync(
        ClientQuery query,
        PorchDb db,
        ClientFinder finder,
        ClientSearch search,
        FieldCatalogue fields,
        Business business,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        if (query.Check(fields) is { Count: > 0 } faults)
            return (null, Problems.Unfinished(faults));
        if (!string.IsNullOrWhiteSpace(query.Words))
            await search.CatchUpSoonAsync(cancellationToken);
        var now = clock.GetCurrentInstant();
        var context = new NormaliseContext(business.Region, 0, now, business.Calendar.Today(now));
        var (clients, findings) = finder.Find(query, fields, context, business.Currency);
        return findings.Count > 0 ? (null, Problems.Unfinished(findings)) : (clients, null);
    }

    /// <summary>
    /// What some clients are called, in the order asked for. Who is gone is left out; whose record went into another is that one.
    /// </summary>
    private static async Task<Ok<List<NamedClient>>> NamesAsync(Guid[] ids, PorchDb db)
    {
        var found = new List<NamedClient>();
        foreach (var id in ids.Take(MostNamed))
        {
            if (await db.ClientOrMergedAsync(new Id<Client>(id)) is { } client)
            {
                var now = await db.WhereMergedAsync(client);
                found.Add(new NamedClient(now.Id, now.Name));
            }
        }

        return TypedResults.Ok(found.DistinctBy(client => client.Id).ToList());
    }

    private static async Task<Ok<ClientListParts>> ShowPartsAsync(
        PorchDb db,
        FieldCatalogues catalogues,
        CancellationToken cancellationToken
    ) =>
        TypedResults.Ok(
            new ClientListParts(
                [
                    .. (await catalogues.ReadAsync(db)).Offered.Select(field => new FieldToFilter(
                        field,
                        field.Scope,
                        ClientQuery.TestsOf(field.Kind)
                    )),
                ],
                await db.ClientTags.Select(tag => tag.Tag).Distinct().OrderBy(tag => tag).ToListAsync(cancellationToken),
                [
                    .. (await db.SavedViews.AsNoTracking().ToListAsync(cancellationToken))
                        .OrderBy(view => view.Name, StringComparer.Create(CultureInfo.InvariantCulture, ignoreCase: true))
                        .Select(view => new SavedViewEntry(view.Id, view.Name, view.Query)),
                ],
                await db.ClientPairs.CountAsync(
                    pair =>
                        pair.AreTwo == null
                        && db.CountingClients.Any(client => client.Id == pair.OneId)
                        && db.CountingClients.Any(client => client.Id == pair.OtherId),
                    cancellationToken
                )
            )
        );

    /// <summary>Keeps a view under a name; one that has the name already takes the new query.</summary>
    private static async Task<Results<Ok<SavedViewEntry>, ProblemHttpResult>> KeepViewAsync(
        NewView wanted,
        PorchDb db,
        FieldCatalogues catalogues,
        CancellationToken cancellationToken
    )
    {
        var name = wanted.Name.Trim();
        if (name.Length is 0 or > 60)
            return Problems.Unfinished(new Finding("name", "A view needs a name of at most 60 characters."));
        if (wanted.Query.Check(await catalogues.ReadAsync(db)) is { Count: > 0 } findings)
            return Problems.Unfinished(findings);
        await using var write = await db.WriteAsync(cancellationToken);
        var view = await db.SavedViews.FirstOrDefaultAsync(one => one.Name == name, cancellationToken);
        if (view is null)
            db.SavedViews.Add(
                view = new SavedView
                {
                    Id = new Id<SavedView>(Guid.CreateVersion7()),
                    Name = name,
                    Query = wanted.Query,
                }
            );
        view.Query = wanted.Query;
        await write.SaveAsync(cancellationToken);
        return TypedResults.Ok(new SavedViewEntry(view.Id, view.Name, view.Query));
    }

    private static async Task<NoContent> RemoveViewAsync(Id<SavedView> id, PorchDb db, CancellationToken cancellationToken)
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.SavedViews.FindAsync([id], cancellationToken) is { } view)
            db.SavedViews.Remove(view);
        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
    }
}
