using Microsoft.AspNetCore.Http.HttpResults;
using PorchLight.Core.Common;
using PorchLight.Server.Hosting;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.AcrossAreas;

/// <summary>What clients are called.</summary>
internal static class ClientNamesEndpoints
{
    private const int MostNamed = 20;

    internal sealed record NamedClient(Id<Client> Id, string Name);

    public static void MapClientNames(this IEndpointRouteBuilder api) =>
        api.MapGet("/clients/names", NamesAsync).For(Access.Member).WithTags("Clients");

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
}
