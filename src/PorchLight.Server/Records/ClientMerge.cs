using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Core.Records;

namespace PorchLight.Server.Records;

/// <summary>Two clients who are perhaps the same, until a person decides.</summary>
internal sealed class ClientPair
{
    public required Id<ClientPair> Id { get; init; }

    /// <summary>Of the two the one with the smaller identifier.</summary>
    public required Id<Client> OneId { get; init; }
    public required Id<Client> OtherId { get; init; }
    public required Likeness Likeness { get; set; }

    /// <summary>When somebody said that they are two; null while nobody has.</summary>
    public Instant? AreTwo { get; set; }
    public string? DecidedBy { get; set; }
}

/// <summary>Two records of one person that were made one, with what it takes to split them again.</summary>
internal sealed class ClientMerge
{
    public required Id<ClientMerge> Id { get; init; }
    public required Id<Client> KeptId { get; init; }
    public required Id<Client> OtherId { get; init; }
    public required MergeMemory Memory { get; init; }
    public required string By { get; init; }
    public required Instant At { get; init; }
    public Instant? Split { get; set; }
}

/// <summary>What was where before two records were made one.</summary>
/// <param name="Rows">By table, the keys of the rows that were the other's.</param>
/// <param name="Current">The other's values that stood in fields of the client.</param>
/// <param name="Written">The values merging wrote into the record that is kept.</param>
/// <param name="Tags">Tags the kept record got.</param>
/// <param name="Standing">How the business stood with the one that is kept.</param>
/// <param name="Since">Since when it knew the one that is kept.</param>
/// <param name="AlwaysComesIn">Whether who is kept always came in; null in what was made one before that was remembered.</param>
internal sealed record MergeMemory(
    IReadOnlyDictionary<string, IReadOnlyList<string>> Rows,
    IReadOnlyList<Guid> Current,
    IReadOnlyList<Guid> Written,
    IReadOnlyList<string> Tags,
    Standing Standing,
    Instant Since,
    bool? AlwaysComesIn = null
);
