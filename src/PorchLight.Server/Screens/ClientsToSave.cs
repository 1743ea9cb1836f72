using System.Text.Json;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Core.Records;
using PorchLight.Server.Calendar;
using PorchLight.Server.Fields;
using PorchLight.Server.Hosting;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Screens;

/// <summary>The clients of a list, to be written into a file.</summary>
/// <param name="Clients">The clients in the order of the list.</param>
/// <param name="Values">What lists show of each, by field.</param>
internal sealed record SavedClients(
    IReadOnlyList<Client> Clients,
    FieldCatalogue Fields,
    DateTimeZone Zone,
    Func<Id<Client>, IReadOnlyDictionary<string, Answer>> Values,
    ILookup<Id<Client>, string> Tags
);

/// <summary>Finds the clients a file is asked of by the address of a list.</summary>
internal sealed class ClientsToSave(PorchDb db, ClientFinder finder, ClientSearch search, FieldCatalogues catalogues, BusinessClock clock)
{
    /// <param name="query">The list as JSON, as the address has it; null for everybody.</param>
    public async Task<(SavedClients? Found, ProblemHttpResult? Refusal)> FindAsync(string? query, CancellationToken cancellationToken)
    {
        ClientQuery wanted;
        try
        {
            wanted = query is null ? new ClientQuery() : JsonSerializer.Deserialize<ClientQuery>(query, Json.Options) ?? new ClientQuery();
        }
        catch (JsonException)
        {
            return (null, Problems.Unprocessable("This address is not complete. Go back to the list and save it from there."));
        }

        var (fields, business) = (await catalogues.ReadAsync(db), await db.BusinessAsync());
        var (clients, refusal) = await ClientListEndpoints.ReadAsync(
            wanted,
            db,
            finder,
            search,
            fields,
            business,
            clock,
            cancellationToken
        );
        if (clients is null)
            return (null, refusal);
        var ids = clients.Select(client => client.Id);
        var values = (
            await db
                .FieldValues.AsNoTracking()
                .Where(value => value.IsListed && ids.Contains(value.ClientId))
                .ToListAsync(cancellationToken)
        ).ToLookup(value => value.ClientId);
        var tags = (
            await db
                .ClientTags.AsNoTracking()
                .Where(tag => ids.Contains(tag.ClientId))
                .OrderBy(tag => tag.Tag)
                .ToListAsync(cancellationToken)
        ).ToLookup(tag => tag.ClientId, tag => tag.Tag);
        return (
            new SavedClients(
                (await finder.PageAsync(clients, wanted, fields, 0, int.MaxValue, cancellationToken)).Page,
                fields,
                business.DateTimeZone,
                client => values[client].ToDictionary(value => value.Field, value => value.Value!),
                tags
            ),
            null
        );
    }
}
