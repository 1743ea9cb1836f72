using PorchLight.Core.Common;
using PorchLight.Core.Meetings;
using PorchLight.Core.Records;

namespace PorchLight.Core.FollowThrough;

/// <summary>Starts when somebody did not come to a meeting.</summary>
[Kind("meetingMissed")]
public sealed record MeetingMissedStart : StartOn
{
    /// <inheritdoc/>
    public override bool IsStartedBy(DomainEvent happened, IRunFacts facts) => happened is MeetingMissed;

    /// <inheritdoc/>
    public override bool IsTheirDoing() => false;

    /// <inheritdoc/>
    public override string Say(FollowThroughNames names) => "they do not come to a meeting";
}
