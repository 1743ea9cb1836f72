using System.Linq.Expressions;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Core.Records;
using PorchLight.Server.Calendar;
using PorchLight.Server.Fields;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Lists;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.AcrossAreas;

/// <param name="Cells">What stands in the fields that were asked for, in their order; empty for nothing.</param>
/// <param name="Differences">How many answers wait to be settled.</param>
internal sealed record ClientRow(
    Id<Client> Id,
    string Name,
    string? Email,
    Standing Standing,
    string Since,
    string SinceExactly,
    string? Project,
    IReadOnlyList<string> Tags,
    IReadOnlyList<string> Cells,
    int Differences
);

/// <summary>The clients as a list one works in, filtered and put in order by their fields, too.</summary>
internal sealed class ClientList(
    PorchDb db,
    ClientFields clientFields,
    ClientSearch search,
    ClientsCsv file,
    FieldCatalogues catalogues,
    BusinessClock clock
) : ListOf<Client, Id<Client>, ClientQuery, ClientRow>
{
    public override string Name => "clients";

    protected override Expression<Func<Client, Id<Client>>> Identifier => client => client.Id;

    public override IReadOnlyList<ListFilter<Client, ClientQuery>> Filters =>
        [
            Several(
                "standings",
                "All but archived",
                query => query.Standings,
                client => client.Standing,
                Fixed<Standing>(standing => standing.Say())
            ),
            // Whoever is chosen has each of the tags.
            new(
                "tags",
                "Any tag",
                (clients, query) =>
                    query.Tags.Aggregate(
                        clients,
                        (left, tag) => left.Where(client => db.ClientTags.Any(one => one.ClientId == client.Id && one.Tag == tag))
                    )
            )
            {
                ChoicesAsync = async cancellationToken =>
                    Named(await db.ClientTags.Select(tag => tag.Tag).Distinct().ToListAsync(cancellationToken)),
            },
        ];

    public override IReadOnlyList<ListOrder<Client>> Orders =>
        [
            InOrder(ClientQuery.BySince, "Sort by when they came", true, By(client => client.Since)),
            InOrder(ClientQuery.ByName, "name", false, By(client => client.SortName)),
        ];

    protected override string OrderOf(ClientQuery query) => query.Order;

    public override async Task<IReadOnlyList<Finding>> CheckAsync(ClientQuery query)
    {
        var fields = await catalogues.ReadAsync(db);
        return query.Check(fields) is { Count: > 0 } findings ? findings : (await FiltersOfAsync(query)).Findings;
    }

    protected override async Task<IQueryable<Client>> AllAsync(ClientQuery query, CancellationToken cancellationToken)
    {
        var all = db.CountingClients.AsNoTracking();
        if (query.Standings.Count == 0)
            all = all.Where(client => client.Standing != Standing.Archived);
        if (!string.IsNullOrWhiteSpace(query.Words))
        {
            await search.CatchUpSoonAsync(cancellationToken);
            var ids = search.Find(query.Words);
            all = all.Where(client => ids.Contains(client.Id));
        }

        return (await FiltersOfAsync(query)).Tests.Aggregate(all, (left, test) => left.Where(test));
    }

    protected override async Task<IReadOnlyList<FieldToFilter>> FieldsAsync() =>
        [
            .. (await catalogues.ReadAsync(db)).Offered.Select(field => new FieldToFilter(
                field,
                field.Scope,
                ClientQuery.TestsOf(field.Kind)
            )),
        ];

    protected override async Task<List<object?[]>> KeysAsync(
        IQueryable<Client> found,
        ClientQuery query,
        object?[]? after,
        int take,
        CancellationToken cancellationToken
    ) =>
        await OrderFieldAsync(query) is { } field
            ? await clientFields.KeysAsync(field, found, query.Backwards, after, take, cancellationToken)
            : await base.KeysAsync(found, query, after, take, cancellationToken);

    protected override async Task<object?[]?> ReadAfterAsync(string after, ClientQuery query) =>
        await OrderFieldAsync(query) is { } field ? ClientFields.ReadAfter(field, after) : await base.ReadAfterAsync(after, query);

    protected override async Task<IReadOnlyList<ClientRow>> RowsAsync(
        IReadOnlyList<Id<Client>> ids,
        ClientQuery query,
        CancellationToken cancellationToken
    )
    {
        var (now, business) = (clock.GetCurrentInstant(), await db.BusinessAsync());
        var clients = await db
            .Clients.AsNoTracking()
            .Where(client => ids.Contains(client.Id))
            .Select(client => new
            {
                Client = client,
                Project = db
                    .Projects.Where(project => project.ClientId == client.Id && project.IsLatest)
                    .Select(project => project.Title)
                    .FirstOrDefault(),
            })
            .ToDictionaryAsync(one => one.Client.Id, cancellationToken);
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
        return [.. ids.Where(clients.ContainsKey).Select(id => RowOf(clients[id].Client, clients[id].Project))];

        ClientRow RowOf(Client client, string? project) =>
            new(
                client.Id,
                client.Name,
                client.Email,
                client.Standing,
                TimeWords.InList(client.Since, now, business.DateTimeZone),
                TimeWords.Exactly(client.Since, business.DateTimeZone),
                project,
                [.. tags[client.Id]],
                [
                    .. columns.Select(column =>
                        cells[(client.Id, column)].FirstOrDefault() is { Value: { } value } ? AnswerWords.Say(value) : ""
                    ),
                ],
                differences.GetValueOrDefault(client.Id)
            );
    }

    public override Task WriteAsync(Stream stream, IReadOnlyList<Id<Client>> ids, ClientQuery query, CancellationToken cancellationToken) =>
        file.WriteAsync(stream, ids, cancellationToken);

    private async Task<(IReadOnlyList<Expression<Func<Client, bool>>> Tests, IReadOnlyList<Finding> Findings)> FiltersOfAsync(
        ClientQuery query
    )
    {
        var (fields, business, now) = (await catalogues.ReadAsync(db), await db.BusinessAsync(), clock.GetCurrentInstant());
        var context = new NormaliseContext(business.Region, 0, now, business.Calendar.Today(now));
        var (tests, findings) = (new List<Expression<Func<Client, bool>>>(), new List<Finding>());
        foreach (var filter in query.Filters)
        {
            var (test, finding) = clientFields.Test(fields.Find(filter.Field)!, filter, context, business.Currency);
            if (finding is null)
                tests.Add(test!);
            else
                findings.Add(new Finding("filters", finding));
        }

        return (tests, findings);
    }

    private async Task<Field?> OrderFieldAsync(ClientQuery query) =>
        query.Order is ClientQuery.BySince or ClientQuery.ByName ? null : (await catalogues.ReadAsync(db)).Find(query.Order);
}
