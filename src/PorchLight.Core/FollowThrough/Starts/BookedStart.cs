using PorchLight.Core.Common;
using PorchLight.Core.Meetings;
using PorchLight.Core.Records;

namespace PorchLight.Core.FollowThrough;

/// <summary>Starts when the person books a meeting.</summary>
[Kind("booked")]
public sealed record BookedStart : StartOn
{
    /// <inheritdoc/>
    public override bool IsStartedBy(DomainEvent happened, IRunFacts facts) => happened is MeetingBooked;

    /// <inheritdoc/>
    public override bool IsTheirDoing() => true;

    /// <inheritdoc/>
    public override string Say(FollowThroughNames names) => "they book a meeting";
}
