using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Core.Records;

namespace PorchLight.Server.Records;

/// <summary>Where an import stands.</summary>
internal enum ImportState
{
    /// <summary>The file is here; nobody has said yet that it shall be brought in.</summary>
    Looked,

    /// <summary>Its people are brought in, some hundred at a time.</summary>
    Running,

    /// <summary>All of them are here.</summary>
    Done,

    /// <summary>It is taken back, some hundred at a time.</summary>
    TakingBack,

    /// <summary>What it brought is gone again.</summary>
    TakenBack,
}

/// <summary>People brought in from a file of another program.</summary>
internal sealed class ClientImport
{
    public required Id<ClientImport> Id { get; init; }
    public required string FileName { get; set; }

    /// <summary>What its bytes were taken for.</summary>
    public required string Encoding { get; init; }
    public required ImportPlan Plan { get; set; }
    public ImportState State { get; set; }
    public required string By { get; init; }
    public required Guid ByUser { get; init; }
    public required Instant At { get; init; }

    /// <summary>How many lines the file has, and how many were worked through.</summary>
    public required int Lines { get; init; }
    public int WorkedThrough { get; set; }

    /// <summary>How many clients it made, how many were here already and got something, and how many lines were left out.</summary>
    public int Made { get; set; }
    public int Filled { get; set; }
    public int LeftOut { get; set; }

    /// <summary>How many of the clients it made stayed when it was taken back, because something had happened with them.</summary>
    public int Stayed { get; set; }
}

/// <summary>The file of an import, as a table; it goes when everybody in it is here.</summary>
internal sealed class ClientImportFile
{
    public required Id<ClientImport> ImportId { get; init; }

    /// <summary>A <see cref="PeopleTable"/> as JSON, compressed.</summary>
    public required byte[] Table { get; init; }
}

/// <summary>How a file is brought in.</summary>
/// <param name="Targets">Where each column goes; empty for nowhere.</param>
/// <param name="Replace">
/// Whether what stands in the records of who is here already is replaced; else only what is empty is filled.
/// </param>
internal sealed record ImportPlan(IReadOnlyList<string> Targets, bool Replace);
