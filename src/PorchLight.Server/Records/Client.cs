using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Core.Records;

namespace PorchLight.Server.Records;

/// <summary>Who we work for.</summary>
internal sealed class Client
{
    public required Id<Client> Id { get; init; }

    /// <summary>The name as lists show it.</summary>
    public required string Name { get; set; }

    /// <summary>Null when they left only a phone number.</summary>
    public required string? Email { get; set; }

    /// <summary>The address as clients are recognised by it.</summary>
    public required string? EmailKey { get; set; }
    public required Standing Standing { get; set; }
    public required Instant Since { get; set; }

    /// <summary>
    /// The client in whose records these went, because they are one person; null for everybody who is shown. What is left of one is how
    /// they are recognised.
    /// </summary>
    public Id<Client>? MergedIntoId { get; set; }

    /// <summary>The day they are erased on because the keeping period ends, as it is said a week before; null for nobody else.</summary>
    public LocalDate? EraseOn { get; set; }

    /// <summary>The import that made them; null for everybody else.</summary>
    public Id<ClientImport>? ImportId { get; init; }

    /// <summary>Whether nothing a person does about their answers turns them away; deal-breakers do not count for them.</summary>
    public bool AlwaysComesIn { get; set; }

    /// <summary>Whether only spam or tests made the record, so that no list of clients shows it.</summary>
    public bool IsAside { get; set; }

    /// <summary>The name as lists are put in order by it.</summary>
    public string SortName { get; set; } = "";

    /// <summary>Whether something about them changed that cannot be found by its words yet.</summary>
    public bool IsUnindexed { get; set; } = true;
}

/// <summary>A word the business sorts clients by.</summary>
internal sealed class ClientTag
{
    public required Id<Client> ClientId { get; init; }
    public required string Tag { get; init; }

    /// <summary>The import that brought it; null for a tag somebody gave them.</summary>
    public Id<ClientImport>? ImportId { get; init; }
}

/// <summary>The row of the word index that holds a client's words.</summary>
internal sealed class ClientSearchRow
{
    public long Row { get; init; }
    public required Id<Client> ClientId { get; init; }
}

/// <summary>Something two clients who are alike share; see <see cref="ClientTraits.Keys"/>.</summary>
internal sealed class ClientKey
{
    public required Id<Client> ClientId { get; init; }
    public required string Key { get; init; }
}
