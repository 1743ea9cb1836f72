using PorchLight.Core.Common;
using PorchLight.Core.Meetings;
using PorchLight.Core.Records;

namespace PorchLight.Core.FollowThrough;

/// <summary>A meeting was moved, by either side.</summary>
[Kind("meetingMoved")]
public sealed record MeetingMovedOccasion : Occasion
{
    /// <inheritdoc/>
    public override bool IsMetBy(DomainEvent happened) => happened is MeetingMoved;

    /// <inheritdoc/>
    public override RunEnd End() => RunEnd.MeetingMoved;

    /// <inheritdoc/>
    public override string Say(FollowThroughNames names) => "the meeting is moved";
}
