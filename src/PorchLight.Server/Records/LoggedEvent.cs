using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Core.Records;
using PorchLight.Server.FollowThrough;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Messages;

namespace PorchLight.Server.Records;

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
