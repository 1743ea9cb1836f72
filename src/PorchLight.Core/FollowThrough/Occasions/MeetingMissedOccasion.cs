using PorchLight.Core.Common;
using PorchLight.Core.Meetings;
using PorchLight.Core.Records;

namespace PorchLight.Core.FollowThrough;

/// <summary>The person did not come to a meeting.</summary>
[Kind("meetingMissed")]
public sealed record MeetingMissedOccasion : Occasion
{
    /// <inheritdoc/>
    public override bool IsMetBy(DomainEvent happened) => happened is MeetingMissed;

    /// <inheritdoc/>
    public override RunEnd End() => RunEnd.MeetingMissed;

    /// <inheritdoc/>
    public override string Say(FollowThroughNames names) => "they do not come to the meeting";
}
