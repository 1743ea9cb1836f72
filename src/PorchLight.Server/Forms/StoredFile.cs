using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Core.Forms;
using PorchLight.Server.Inquiries;

namespace PorchLight.Server.Forms;

/// <summary>A file that was taken in: a lead's upload, or one of the business's own that forms show.</summary>
internal sealed class StoredFile
{
    public required Id<StoredFile> Id { get; init; }

    /// <summary>What it is called in the folder: random, and nothing of what anybody typed.</summary>
    public required string StoredAs { get; init; }

    /// <summary>What it was called, for people.</summary>
    public required string Name { get; init; }
    public required long Bytes { get; init; }
    public required FileGroup Group { get; init; }
    public required string ContentType { get; init; }

    /// <summary>In real time.</summary>
    public required Instant At { get; init; }

    /// <summary>The form a lead uploaded it to; null for the business's own files.</summary>
    public Id<Form>? FormId { get; init; }
    public string? Question { get; init; }

    /// <summary>The filling-in it belongs to (its send key); null for the business's own files.</summary>
    public Guid? Filling { get; init; }

    /// <summary>The submission it was sent with; null before.</summary>
    public Id<Submission>? SubmissionId { get; set; }

    public FileRef Ref => new(Id.Value, Name, Bytes, Group);
}
