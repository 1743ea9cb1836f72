using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Records;
using PorchLight.Server.Forms;
using PorchLight.Server.Inquiries;

namespace PorchLight.Server.Records;

/// <summary>How a value came into a field.</summary>
internal enum ValueOrigin
{
    /// <summary>It is an answer of an inquiry.</summary>
    Inquiry,

    /// <summary>A person of the business wrote it.</summary>
    Hand,

    /// <summary>A person of the business settled a difference.</summary>
    Settled,

    /// <summary>It came from another record of the same person, or went back there.</summary>
    Merged,

    /// <summary>It came out of a file, or was there before that was taken back.</summary>
    Imported,

    /// <summary>A step of a follow-through wrote it.</summary>
    FollowThrough,

    /// <summary>The client said so, by the link in a message.</summary>
    Unsubscribed,

    /// <summary>The client said so when they booked a meeting.</summary>
    Booked,

    /// <summary>It is the day of a meeting.</summary>
    Meeting,
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

    /// <summary>Null for a field that was emptied.</summary>
    public required Answer? Value { get; init; }

    /// <summary>What stood there before, or null when the field was empty.</summary>
    public Answer? Before { get; init; }

    /// <summary>Whether it is what stands there now.</summary>
    public bool IsCurrent { get; set; }

    /// <summary>Whether lists show it: it stands there now, and of fields of projects in the piece of work that began last.</summary>
    public bool IsListed { get; set; }

    /// <summary>What lists compare and put in order, of words and of numbers; see <see cref="ValueOrder"/>.</summary>
    public string? OrderText { get; set; }
    public double? OrderNumber { get; set; }
    public ValueOrigin Origin { get; init; }

    /// <summary>The inquiry it came by; null for what the business wrote itself.</summary>
    public Id<Inquiry>? InquiryId { get; init; }
    public Id<Form>? FormId { get; init; }
    public int? FormVersion { get; init; }
    public string? Question { get; init; }

    /// <summary>The import it came by; null for every other value.</summary>
    public Id<ClientImport>? ImportId { get; init; }

    /// <summary>Who gave it.</summary>
    public required string By { get; init; }
    public required Instant At { get; init; }
}
