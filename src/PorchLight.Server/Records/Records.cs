using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Records;
using PorchLight.Server.FollowThrough;
using PorchLight.Server.Forms;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Messages;

namespace PorchLight.Server.Records;

/// <summary>How the business stands with a client.</summary>
internal enum Standing
{
    Lead,
    Active,
    Past,
    Archived,
}

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
    public required Instant Since { get; init; }
}

/// <summary>One piece of work for a client.</summary>
internal sealed class Project
{
    public required Id<Project> Id { get; init; }
    public required Id<Client> ClientId { get; init; }
    public required Id<Form> FormId { get; init; }
    public required string Title { get; set; }
    public required Instant Opened { get; init; }

    /// <summary>Null while the project is open.</summary>
    public Instant? Closed { get; set; }
}

/// <summary>A value written into a field, with where it came from. Rows are only added; the newest is the value.</summary>
internal sealed class FieldValue : IWrittenValue
{
    public required Id<FieldValue> Id { get; init; }
    Guid IWrittenValue.Key => Id.Value;
    public required Id<Client> ClientId { get; init; }

    /// <summary>Null for a field of the client.</summary>
    public required Id<Project>? ProjectId { get; init; }
    public required string Field { get; init; }
    public required Answer Value { get; init; }

    /// <summary>What stood there before, or null when the field was empty.</summary>
    public Answer? Before { get; init; }
    public required Id<Inquiry> InquiryId { get; init; }
    public required Id<Form> FormId { get; init; }
    public required int FormVersion { get; init; }
    public required string Question { get; init; }

    /// <summary>Who gave it.</summary>
    public required string By { get; init; }
    public required Instant At { get; init; }
}

/// <summary>Words in the notes of a client or project.</summary>
internal sealed class Note
{
    public required Id<Note> Id { get; init; }
    public required Id<Client> ClientId { get; init; }
    public required Id<Project>? ProjectId { get; init; }
    public required string Heading { get; init; }
    public required string Text { get; init; }
    public required Id<Inquiry> InquiryId { get; init; }
    public required string By { get; init; }
    public required Instant At { get; init; }
}

/// <summary>An answer unlike what is on file, until somebody settles it.</summary>
internal sealed class OpenDifference
{
    public required Id<OpenDifference> Id { get; init; }
    public required Id<Client> ClientId { get; init; }
    public required Id<Project> ProjectId { get; init; }
    public required Id<Inquiry> InquiryId { get; init; }
    public required string Field { get; init; }
    public required string Question { get; init; }
    public required Answer Theirs { get; init; }
    public required Answer? Ours { get; init; }
    public required Instant At { get; init; }
}

/// <summary>Something that happened, written in the transaction that caused it and never changed.</summary>
internal sealed class LoggedEvent
{
    /// <summary>The order in which things happened.</summary>
    public required long Seq { get; init; }
    public required Instant At { get; init; }

    /// <summary>The kind of what happened, so that it can be asked for.</summary>
    public required string Kind { get; init; }
    public required DomainEvent What { get; init; }
    public required bool Rings { get; init; }

    /// <summary>Null for what is about somebody who is no client, or not yet.</summary>
    public required Id<Client>? ClientId { get; init; }
    public required Id<Project>? ProjectId { get; init; }
    public required Id<Inquiry>? InquiryId { get; init; }
    public required Id<Run>? RunId { get; init; }
    public required Id<OutgoingMail>? MailId { get; init; }
}
