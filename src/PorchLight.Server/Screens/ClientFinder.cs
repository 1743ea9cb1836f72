using System.Linq.Expressions;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Core.Records;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Screens;

/// <summary>Makes a query of the database of what a list asks for. Everything is filtered and put in order there.</summary>
internal sealed class ClientFinder(PorchDb db, ClientSearch search)
{
    /// <summary>The clients a query asks for, in no order.</summary>
    /// <param name="query">The query, checked.</param>
    /// <param name="fields">The fields of the business.</param>
    /// <param name="context">What typed values are read by.</param>
    /// <param name="currency">The business's currency.</param>
    /// <returns>The clients, or findings where what a filter compares with cannot be read.</returns>
    public (IQueryable<Client> Clients, IReadOnlyList<Finding> Findings) Find(
        ClientQuery query,
        FieldCatalogue fields,
        NormaliseContext context,
        string currency
    )
    {
        var found = db.CountingClients.AsNoTracking();
        var findings = new List<Finding>();
        if (query.Standings.Count > 0)
        {
            var standings = query.Standings;
            found = found.Where(client => standings.Contains(client.Standing));
        }
        else
        {
            found = found.Where(client => client.Standing != Standing.Archived);
        }

        foreach (var tag in query.Tags)
            found = found.Where(client => db.ClientTags.Any(one => one.ClientId == client.Id && one.Tag == tag));
        if (!string.IsNullOrWhiteSpace(query.Words))
        {
            var ids = search.Find(query.Words);
            found = found.Where(client => ids.Contains(client.Id));
        }

        foreach (var filter in query.Filters)
        {
            var (test, finding) = Test(fields.Find(filter.Field)!, filter, context, currency);
            if (finding is not null)
                findings.Add(new Finding("filters", finding));
            else
                found = found.Where(test!);
        }

        return (found, findings);
    }

    /// <summary>
    /// A page of clients in the order the query asks for; of two that are alike there the one who came first. Who has nothing in the
    /// field they are put in order by comes last.
    /// </summary>
    /// <param name="clients">The clients found.</param>
    /// <param name="skip">How many of them stand before the page.</param>
    /// <param name="take">How many there may be on it.</param>
    /// <returns>The page, and how many clients there are on all pages.</returns>
    public async Task<(List<Client> Page, int Total)> PageAsync(
        IQueryable<Client> clients,
        ClientQuery query,
        FieldCatalogue fields,
        int skip,
        int take,
        CancellationToken cancellationToken
    )
    {
        if (query.Sort is not (ClientQuery.BySince or ClientQuery.ByName))
            return (
                await PageByFieldAsync(clients, query, fields, skip, take, cancellationToken),
                await clients.CountAsync(cancellationToken)
            );
        var inOrder = InOrder(clients, query);
        if (query is { Words: "", Tags.Count: 0, Filters.Count: 0 })
            return (await inOrder.Skip(skip).Take(take).ToListAsync(cancellationToken), await clients.CountAsync(cancellationToken));
        // Whom a filter finds is looked for once, and counted and put in order by it.
        var ids = await inOrder.Select(client => client.Id).ToListAsync(cancellationToken);
        var onPage = ids.Skip(skip).Take(take).ToList();
        var found = await db.Clients.Where(client => onPage.Contains(client.Id)).ToDictionaryAsync(client => client.Id, cancellationToken);
        return ([.. onPage.Select(id => found[id])], ids.Count);
    }

    private async Task<List<Client>> PageByFieldAsync(
        IQueryable<Client> clients,
        ClientQuery query,
        FieldCatalogue fields,
        int skip,
        int take,
        CancellationToken cancellationToken
    )
    {
        // Those who have something there come from the index in their order; only when they run out are the others looked for.
        var field = fields.Find(query.Sort)!;
        var values = Values(field);
        var ordered = ValueOrder.IsByNumber(field.Kind)
            ? query.Descending
                ? values.OrderByDescending(value => value.OrderNumber).ThenByDescending(value => value.ClientId)
                : values.OrderBy(value => value.OrderNumber).ThenBy(value => value.ClientId)
            : query.Descending
                ? values.OrderByDescending(value => value.OrderText).ThenByDescending(value => value.ClientId)
                : values.OrderBy(value => value.OrderText).ThenBy(value => value.ClientId);
        var filled = ordered.Join(clients, value => value.ClientId, client => client.Id, (_, client) => client);
        var page = await filled.Skip(skip).Take(take).ToListAsync(cancellationToken);
        if (page.Count == take)
            return page;
        var before = page.Count > 0 ? skip + page.Count : await filled.CountAsync(cancellationToken);
        page.AddRange(
            await clients
                .Where(client => !values.Select(value => value.ClientId).Contains(client.Id))
                .OrderBy(client => client.Id)
                .Skip(Math.Max(0, skip - before))
                .Take(take - page.Count)
                .ToListAsync(cancellationToken)
        );
        return page;
    }

    private static IQueryable<Client> InOrder(IQueryable<Client> clients, ClientQuery query) =>
        (query.Sort, query.Descending) switch
        {
            (ClientQuery.ByName, true) => clients.OrderByDescending(client => client.SortName).ThenByDescending(client => client.Id),
            (ClientQuery.ByName, false) => clients.OrderBy(client => client.SortName).ThenBy(client => client.Id),
            (_, true) => clients.OrderByDescending(client => client.Since).ThenByDescending(client => client.Id),
            _ => clients.OrderBy(client => client.Since).ThenBy(client => client.Id),
        };

    /// <summary>What lists show of one field. It names the half of the index it wants, so that nothing else is looked at.</summary>
    private IQueryable<FieldValue> Values(Field field)
    {
        var values = db.FieldValues.Where(value => value.IsListed && value.Field == field.Key);
        return ValueOrder.IsByNumber(field.Kind)
            ? values.Where(value => value.OrderNumber != null)
            : values.Where(value => value.OrderText != null);
    }

    private (Expression<Func<Client, bool>>? Test, string? Finding) Test(
        Field field,
        FieldFilter filter,
        NormaliseContext context,
        string currency
    )
    {
        var values = Values(field);
        if (filter.Test is FieldTest.IsFilled)
            return (Any(values), null);
        if (filter.Test is FieldTest.IsEmpty)
        {
            var any = Any(values);
            return (Expression.Lambda<Func<Client, bool>>(Expression.Not(any.Body), any.Parameters), null);
        }

        if (string.IsNullOrWhiteSpace(filter.Value))
            return (null, $"Say what “{field.Label}” is compared with, or take this filter away.");
        if (filter.Test == FieldTest.Contains)
        {
            var part = ValueOrder.Fold(filter.Value);
            return (Any(values.Where(value => value.OrderText != null && value.OrderText.Contains(part))), null);
        }

        // Words are compared as they are sorted; only what has an order of its own has to be read.
        ValueOrder order;
        if (field.Kind is FieldKind.Number or FieldKind.Money or FieldKind.Date or FieldKind.YesNo or FieldKind.Phone)
        {
            if (FieldEntry.Read(filter.Value, field, context, currency) is not { Fault: null, Value: { } read })
                return (null, $"“{filter.Value}” cannot be compared with “{field.Label}”. Please write it in another way.");
            order = ValueOrder.Of(read);
        }
        else
        {
            order = new ValueOrder(ValueOrder.Fold(filter.Value), null);
        }

        return order switch
        {
            { Number: { } number } => (
                Any(
                    filter.Test switch
                    {
                        FieldTest.AtLeast => values.Where(value => value.OrderNumber >= number),
                        FieldTest.AtMost => values.Where(value => value.OrderNumber <= number),
                        _ => values.Where(value => value.OrderNumber == number),
                    }
                ),
                null
            ),
            { Text: var text } => (Any(values.Where(value => value.OrderText == text)), null),
        };
    }

    private static Expression<Func<Client, bool>> Any(IQueryable<FieldValue> values) =>
        client => values.Select(value => value.ClientId).Contains(client.Id);
}
