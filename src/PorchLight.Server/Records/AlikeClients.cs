using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Core.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Records;

/// <summary>Looks who is perhaps the same person as somebody about whom something changed, as part of the caller's write.</summary>
internal sealed class AlikeClients(PorchDb db)
{
    // A school with three hundred people under one domain is compared; a list of strangers under one postal code of a city is not.
    private const int MostUnderOneKey = 500;

    private static readonly string[] Looked =
    [
        BuiltInFields.Name.Key,
        BuiltInFields.Email.Key,
        BuiltInFields.Phone.Key,
        BuiltInFields.Address.Key,
    ];

    /// <summary>Finds pairs anew for some clients. What a person has decided stays decided.</summary>
    public async Task LookAsync(IReadOnlyList<Id<Client>> changed, CancellationToken cancellationToken)
    {
        var traits = await TraitsAsync(changed, cancellationToken);
        db.ClientKeys.RemoveRange(await db.ClientKeys.Where(key => changed.Contains(key.ClientId)).ToListAsync(cancellationToken));
        await db.SaveChangesAsync(cancellationToken);
        db.ClientKeys.AddRange(traits.SelectMany(one => one.Value.Keys.Select(key => new ClientKey { ClientId = one.Key, Key = key })));
        await db.SaveChangesAsync(cancellationToken);

        var keys = traits.Values.SelectMany(one => one.Keys).Distinct().ToList();
        var under = (
            await db
                .ClientKeys.AsNoTracking()
                .Where(key => keys.Contains(key.Key) && db.Clients.Any(client => client.Id == key.ClientId))
                .ToListAsync(cancellationToken)
        )
            .GroupBy(key => key.Key, key => key.ClientId)
            .Where(group => group.Take(MostUnderOneKey + 1).Count() <= MostUnderOneKey)
            .ToDictionary(group => group.Key, group => group.ToList());
        var others = await TraitsAsync(
            [.. under.Values.SelectMany(ids => ids).Distinct().Where(id => !traits.ContainsKey(id))],
            cancellationToken
        );
        var alike = new Dictionary<(Id<Client>, Id<Client>), Likeness>();
        foreach (var (client, own) in traits)
        {
            foreach (var other in own.Keys.Where(under.ContainsKey).SelectMany(key => under[key]).Distinct().Where(id => id != client))
            {
                if (ClientLikeness.Between(own, traits.GetValueOrDefault(other) ?? others[other]) is { } likeness)
                    alike[InOrder(client, other)] = likeness;
            }
        }

        // A pair of which one went into another's records is left as it is, for when they are split again.
        var known = await db
            .ClientPairs.Where(pair => changed.Contains(pair.OneId) || changed.Contains(pair.OtherId))
            .Where(pair => db.Clients.Any(client => client.Id == pair.OneId) && db.Clients.Any(client => client.Id == pair.OtherId))
            .ToListAsync(cancellationToken);
        foreach (var pair in known)
        {
            if (alike.Remove((pair.OneId, pair.OtherId), out var likeness))
                pair.Likeness = likeness;
            else if (pair.AreTwo is null)
                db.ClientPairs.Remove(pair);
        }

        db.ClientPairs.AddRange(
            alike.Select(pair => new ClientPair
            {
                Id = new Id<ClientPair>(Guid.CreateVersion7()),
                OneId = pair.Key.Item1,
                OtherId = pair.Key.Item2,
                Likeness = pair.Value,
            })
        );
    }

    /// <summary>Two clients in the order a pair has them.</summary>
    public static (Id<Client> One, Id<Client> Other) InOrder(Id<Client> a, Id<Client> b) =>
        a.Value.CompareTo(b.Value) < 0 ? (a, b) : (b, a);

    /// <summary>What some clients are recognised by.</summary>
    public async Task<Dictionary<Id<Client>, ClientTraits>> TraitsAsync(
        IReadOnlyList<Id<Client>> clients,
        CancellationToken cancellationToken
    )
    {
        if (clients.Count == 0)
            return [];
        var values = (
            await db
                .FieldValues.AsNoTracking()
                .Where(value => clients.Contains(value.ClientId) && value.IsCurrent && Looked.Contains(value.Field))
                .ToListAsync(cancellationToken)
        ).ToLookup(value => value.ClientId);
        return clients.ToDictionary(id => id, id => ClientTraits.Of(values[id].ToDictionary(value => value.Field, value => value.Value!)));
    }
}
