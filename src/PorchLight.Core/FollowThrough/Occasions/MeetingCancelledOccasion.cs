using PorchLight.Core.Common;
using PorchLight.Core.Meetings;
using PorchLight.Core.Records;

namespace PorchLight.Core.FollowThrough;

/// <summary>A meeting was cancelled, by either side.</summary>
[Kind("meetingCancelled")]
public sealed record MeetingCancelledOccasion : Occasion
{
    /// <inheritdoc/>
    public override bool IsMetBy(DomainEvent happened) => happened is MeetingCancelled;

    /// <inheritdoc/>
    public override RunEnd End() => RunEnd.MeetingCancelled;

    /// <inheritdoc/>
    public override string Say(FollowThroughNames names) => "the meeting is cancelled";
}
