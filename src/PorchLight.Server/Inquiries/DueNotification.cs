using NodaTime;
using PorchLight.Core.Common;

namespace PorchLight.Server.Inquiries;

/// <summary>Somebody of the business is still to get a mail about an inquiry. It goes when they have it.</summary>
internal sealed class DueNotification
{
    public required Guid UserId { get; init; }
    public required Id<Inquiry> InquiryId { get; init; }

    /// <summary>When the mail goes.</summary>
    public required Instant Due { get; set; }
}
