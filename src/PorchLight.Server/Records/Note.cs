using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Server.Inquiries;

namespace PorchLight.Server.Records;

/// <summary>Words in the notes of a client or project.</summary>
internal sealed class Note
{
    public required Id<Note> Id { get; init; }
    public required Id<Client> ClientId { get; init; }
    public required Id<Project>? ProjectId { get; init; }

    /// <summary>What was asked; empty for what the business wrote itself.</summary>
    public required string Heading { get; init; }
    public required string Text { get; set; }

    /// <summary>The inquiry it came by; null for what the business wrote itself.</summary>
    public Id<Inquiry>? InquiryId { get; init; }
    public required string By { get; init; }
    public required Instant At { get; init; }

    /// <summary>The import it came by; null for every other note.</summary>
    public Id<ClientImport>? ImportId { get; init; }

    /// <summary>Whether it stands above the others.</summary>
    public bool IsPinned { get; set; }
}

/// <summary>What a note said before somebody changed it.</summary>
internal sealed class NoteRevision
{
    public required Id<NoteRevision> Id { get; init; }
    public required Id<Note> NoteId { get; init; }

    /// <summary>What it said until then.</summary>
    public required string Text { get; init; }

    /// <summary>Who changed it.</summary>
    public required string By { get; init; }
    public required Instant At { get; init; }
}
