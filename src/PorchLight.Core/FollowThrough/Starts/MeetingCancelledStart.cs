using PorchLight.Core.Common;
using PorchLight.Core.Meetings;
using PorchLight.Core.Records;

namespace PorchLight.Core.FollowThrough;

/// <summary>Starts when a meeting is cancelled, by either side.</summary>
[Kind("meetingCancelled")]
public sealed record MeetingCancelledStart : StartOn
{
    /// <inheritdoc/>
    public override bool IsStartedBy(DomainEvent happened, IRunFacts facts) => happened is MeetingCancelled;

    /// <inheritdoc/>
    public override bool IsTheirDoing() => false;

    /// <inheritdoc/>
    public override string Say(FollowThroughNames names) => "a meeting is cancelled";
}
