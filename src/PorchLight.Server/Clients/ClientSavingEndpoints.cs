using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Server.Calendar;
using PorchLight.Server.Hosting;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Clients;

/// <summary>Hands out all that is kept of a client, for who asks what that is.</summary>
internal static class ClientSavingEndpoints
{
    private sealed record Everything(string Name, Instant At, IReadOnlyDictionary<string, IReadOnlyList<object>> Kept);

    private static readonly JsonSerializerOptions Indented = new(Json.Options) { WriteIndented = true };

    public static void MapClientSaving(this IEndpointRouteBuilder api) =>
        api.MapGet("/clients/{id}/everything.json", SaveAsync).WithTags("Clients").For(Access.Owner).ExcludeFromDescription();

    private static async Task<IResult> SaveAsync(
        Id<Client> id,
        PorchDb db,
        IEnumerable<IClientPart> parts,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        if (await db.Clients.SingleOrDefaultAsync(one => one.Id == id, cancellationToken) is not { } client)
            return Problems.NotFound("This client is not here any more.");
        var person = await db.WholePersonAsync(id, cancellationToken);
        var kept = new SortedDictionary<string, List<object>>(StringComparer.Ordinal);
        foreach (var rows in parts.SelectMany(part => part.RowsOf(person)))
        {
            if (await rows.SaveAsync(cancellationToken) is not { Count: > 0 } saved)
                continue;
            var table = JsonNamingPolicy.CamelCase.ConvertName(db.Model.FindEntityType(rows.Table)!.GetTableName()!);
            if (!kept.TryAdd(table, [.. saved]))
                kept[table].AddRange(saved);
        }

        return TypedResults.File(
            JsonSerializer.SerializeToUtf8Bytes(
                new Everything(
                    client.Name,
                    clock.GetCurrentInstant(),
                    kept.ToDictionary(table => table.Key, table => (IReadOnlyList<object>)table.Value)
                ),
                Indented
            ),
            "application/json",
            "everything.json"
        );
    }
}
