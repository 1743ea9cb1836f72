using PorchLight.Core.Common;
using PorchLight.Core.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Records;

/// <summary>Finds clients by what they are recognised by.</summary>
internal static class ClientDirectory
{
    /// <summary>
    /// The client who writes from an address, under a name; null when nobody is known by both. Records that went into another's lead to
    /// that one.
    /// </summary>
    /// <param name="email">The address.</param>
    /// <param name="name">The name they give; null when they give none.</param>
    public static async Task<Client?> ClientWritingFromAsync(this PorchDb db, string email, string? name)
    {
        var known = new List<Client>();
        await foreach (var client in CompiledQueries.ClientsByEmail(db, EmailAddress.Key(email)))
            known.Add(client);
        var found = ClientRecognition.Among(
            name,
            known.Select(client => new SameAddress(client.Id.Value, client.Name == client.Email ? null : client.Name, client.Since))
        );
        return found is null ? null : await db.WhereMergedAsync(known.Single(client => client.Id.Value == found.Id));
    }

    /// <summary>The client in whose records somebody's are now: themselves, unless they went into another's.</summary>
    public static async Task<Client> WhereMergedAsync(this PorchDb db, Client client)
    {
        while (client.MergedIntoId is { } into)
            client = (await db.ClientOrMergedAsync(into))!;
        return client;
    }

    /// <summary>A client, also one whose records went into another's.</summary>
    public static Task<Client?> ClientOrMergedAsync(this PorchDb db, Id<Client> id) => CompiledQueries.ClientOrMerged(db, id);
}
