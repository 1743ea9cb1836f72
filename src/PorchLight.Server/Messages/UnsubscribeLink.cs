using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Common;
using PorchLight.Server.Hosting;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Messages;

/// <summary>The address by which a client stops news with one press.</summary>
internal sealed class UnsubscribeLink
{
    public required Id<Client> ClientId { get; init; }
    public required string Hash { get; init; }
    public required string Sealed { get; init; }
}

internal static class UnsubscribeLinks
{
    /// <summary>Where the pages stand.</summary>
    public const string Path = "/unsubscribe/";

    /// <summary>The address of a client, made with the first message that needs it, as part of the caller's transaction.</summary>
    public static async Task<string> UnsubscribeAddressAsync(this PorchDb db, Id<Client> client, Tokens tokens, PublicAddress address)
    {
        if (await db.UnsubscribeLinks.FindAsync(client) is { } there)
            return $"{address.Site}{Path}{tokens.Open(there.Sealed)}";
        var made = tokens.Create();
        db.UnsubscribeLinks.Add(
            new UnsubscribeLink
            {
                ClientId = client,
                Hash = made.Hash,
                Sealed = made.Sealed,
            }
        );
        return $"{address.Site}{Path}{made.Token}";
    }

    /// <summary>Whose address it is; null for nobody's any more.</summary>
    public static async Task<Client?> ClientUnsubscribingAsync(this PorchDb db, string token)
    {
        var hash = Tokens.Hash(token);
        return
            await db.UnsubscribeLinks.Where(link => link.Hash == hash).Select(link => (Id<Client>?)link.ClientId).SingleOrDefaultAsync()
                is { } id
            && await db.ClientOrMergedAsync(id) is { } client
            ? await db.WhereMergedAsync(client)
            : null;
    }
}
