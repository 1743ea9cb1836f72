using System.ComponentModel.DataAnnotations.Schema;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Server.Inquiries;

namespace PorchLight.Server.Records;

/// <summary>How a difference was settled.</summary>
internal enum Settlement
{
    KeptOurs,
    TookTheirs,
    WroteAnother,
}

/// <summary>An answer unlike what is on file. It stays when somebody has settled it, so that both sides stay visible.</summary>
internal sealed class RecordDifference
{
    public required Id<RecordDifference> Id { get; init; }
    public required Id<Client> ClientId { get; init; }
    public required Id<Project> ProjectId { get; init; }
    public required Id<Inquiry> InquiryId { get; init; }
    public required string Field { get; init; }
    public required string Question { get; init; }
    public required Answer Theirs { get; init; }
    public required Answer? Ours { get; init; }
    public required Instant At { get; init; }

    /// <summary>What they meant, as a person of the business corrected it before settling; null while nobody has.</summary>
    public Answer? Corrected { get; set; }
    public string? CorrectedBy { get; set; }

    /// <summary>What counts as theirs: what they meant where that was corrected, else what they said.</summary>
    [NotMapped]
    public Answer Meant => Corrected ?? Theirs;

    /// <summary>Null while it is open.</summary>
    public Instant? SettledAt { get; set; }
    public string? SettledBy { get; set; }
    public Settlement? Settlement { get; set; }

    /// <summary>What settling wrote, for taking it back; null when it wrote nothing.</summary>
    public Id<FieldValue>? WrittenValueId { get; set; }
    public Id<Note>? WrittenNoteId { get; set; }
}
