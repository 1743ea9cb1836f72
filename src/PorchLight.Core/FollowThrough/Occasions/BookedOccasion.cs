using PorchLight.Core.Common;
using PorchLight.Core.Meetings;
using PorchLight.Core.Records;

namespace PorchLight.Core.FollowThrough;

/// <summary>The person booked a meeting.</summary>
[Kind("booked")]
public sealed record BookedOccasion : Occasion
{
    /// <inheritdoc/>
    public override bool IsMetBy(DomainEvent happened) => happened is MeetingBooked;

    /// <inheritdoc/>
    public override RunEnd End() => RunEnd.Booked;

    /// <inheritdoc/>
    public override string Say(FollowThroughNames names) => "they book";
}
