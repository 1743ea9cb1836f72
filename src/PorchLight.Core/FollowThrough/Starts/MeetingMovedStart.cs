using PorchLight.Core.Common;
using PorchLight.Core.Meetings;
using PorchLight.Core.Records;

namespace PorchLight.Core.FollowThrough;

/// <summary>Starts when a meeting is moved, by either side.</summary>
[Kind("meetingMoved")]
public sealed record MeetingMovedStart : StartOn
{
    /// <inheritdoc/>
    public override bool IsStartedBy(DomainEvent happened, IRunFacts facts) => happened is MeetingMoved;

    /// <inheritdoc/>
    public override bool IsTheirDoing() => false;

    /// <inheritdoc/>
    public override string Say(FollowThroughNames names) => "a meeting is moved";
}
