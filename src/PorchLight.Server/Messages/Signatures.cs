using Microsoft.EntityFrameworkCore;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Messages;

/// <summary>What stands below messages.</summary>
/// <param name="Shared">Below those of the business.</param>
/// <param name="Own">Below those of people who have one of their own, by user.</param>
internal sealed record Signatures(string Shared, IReadOnlyDictionary<Guid, string> Own)
{
    /// <summary>Below a message in somebody's name; null for the business's.</summary>
    public string Of(Guid? sender) => sender is { } user ? Own.GetValueOrDefault(user, Shared) : Shared;
}

internal static class SignaturesOnFile
{
    /// <summary>The signatures; where the business has none, the owner's name and its own.</summary>
    public static async Task<Signatures> SignaturesAsync(this PorchDb db)
    {
        var business = await db.BusinessAsync();
        return new Signatures(
            business.Signature is { Length: > 0 } shared ? shared : $"{business.OwnerName}\n{business.Name}",
            await db.Users.Where(user => user.Signature != "").ToDictionaryAsync(user => user.Id, user => user.Signature)
        );
    }
}
