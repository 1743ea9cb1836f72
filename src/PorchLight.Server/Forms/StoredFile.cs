using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;

namespace PorchLight.Server.Forms;

/// <summary>A file that was taken in: a lead's upload, or one of the business's own that forms show.</summary>
internal sealed class StoredFile
{
    public required Id<StoredFile> Id { get; init; }

    /// <summary>What it is called in the folder: random, and nothing of what anybody typed.</summary>
    public required string StoredAs { get; init; }

    /// <summary>What it was called, for people.</summary>
    public required string Name { get; set; }
    public required long Bytes { get; init; }
    public required FileGroup Group { get; init; }
    public required string ContentType { get; init; }

    /// <summary>In real time.</summary>
    public required Instant At { get; init; }

    /// <summary>The form a lead uploaded it to; null for the business's own files.</summary>
    public Id<Form>? FormId { get; init; }
    public string? Question { get; init; }

    /// <summary>The filling-in it belongs to (its send key); null for the business's own files.</summary>
    public Guid? SendKey { get; init; }

    /// <summary>The submission it was sent with; null before.</summary>
    public Id<Submission>? SubmissionId { get; set; }

    /// <summary>One of the business's own files.</summary>
    public static StoredFile Own(ReceivedFile taken, Instant at) => Of(taken, at, null, null, null);

    /// <summary>A lead's upload for one question of one filling-in.</summary>
    public static StoredFile Sent(ReceivedFile taken, Instant at, Id<Form> form, string question, Guid filling) =>
        Of(taken, at, form, question, filling);

    private static StoredFile Of(ReceivedFile taken, Instant at, Id<Form>? form, string? question, Guid? filling) =>
        new()
        {
            Id = new Id<StoredFile>(Guid.CreateVersion7()),
            StoredAs = taken.StoredAs,
            Name = taken.Name,
            Bytes = taken.Bytes,
            Group = taken.Type.Group,
            ContentType = taken.Type.ContentType,
            At = at,
            FormId = form,
            Question = question,
            SendKey = filling,
        };

    public FileRef Ref => new(Id.Value, Name, Bytes, Group);
}
