using PorchLight.Core.Common;
using PorchLight.Core.Messages;
using PorchLight.Core.Records;

namespace PorchLight.Core.FollowThrough;

/// <summary>Starts when the person replies.</summary>
[Kind("replied")]
public sealed record RepliedStart : StartOn
{
    /// <inheritdoc/>
    public override bool IsStartedBy(DomainEvent happened, IRunFacts facts) => happened is ReplyReceived;

    /// <inheritdoc/>
    public override bool IsTheirDoing() => true;

    /// <inheritdoc/>
    public override string Say(FollowThroughNames names) => "they reply";
}
