using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Server.Fields;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.AcrossAreas;

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

/// <summary>Reads the clients that a file is made of.</summary>
internal sealed class ClientsToSave(PorchDb db, FieldCatalogues catalogues)
{
    /// <param name="ids">The clients, in the order of the list.</param>
    public async Task<SavedClients> ReadAsync(IReadOnlyList<Id<Client>> ids, CancellationToken cancellationToken)
    {
        var clients = await db
            .Clients.AsNoTracking()
            .Where(client => ids.Contains(client.Id))
            .ToDictionaryAsync(client => client.Id, cancellationToken);
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
        return new SavedClients(
            // Who was erased since the list was made is in it no more.
            [.. ids.Where(clients.ContainsKey).Select(id => clients[id])],
            await catalogues.ReadAsync(db),
            (await db.BusinessAsync()).DateTimeZone,
            client => values[client].ToDictionary(value => value.Field, value => value.Value!),
            tags
        );
    }
}
