using NodaTime;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;
using PorchLight.Core.Meetings;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Records;

namespace PorchLight.Server.Meetings;

/// <summary>A kind of meeting that can be booked, with its link.</summary>
internal sealed class StoredMeetingType
{
    public required Id<StoredMeetingType> Id { get; init; }
    public required MeetingType Content { get; set; }

    /// <summary>Since when it is put away; null while it is among the others. Its meetings stay.</summary>
    public Instant? Archived { get; set; }
    public required string LinkHash { get; init; }
    public required string LinkSealed { get; init; }

    /// <summary>Whether anybody can be led to it at the moment.</summary>
    public bool IsOpen => Archived is null && !Content.IsPaused;
}

/// <summary>A link by which one client books meetings of a type.</summary>
internal sealed class BookingLink
{
    public required Id<BookingLink> Id { get; init; }
    public required Id<StoredMeetingType> TypeId { get; init; }
    public required Id<Client> ClientId { get; init; }

    /// <summary>What the meeting is about; null for nothing in particular.</summary>
    public required Id<Inquiry>? InquiryId { get; init; }
    public required string LinkHash { get; init; }
    public required string LinkSealed { get; init; }
    public required Instant Made { get; init; }
}

/// <summary>When one of the business's people can be met.</summary>
internal sealed class UserHours
{
    public required Guid UserId { get; init; }
    public required PersonHours Hours { get; set; }
}
