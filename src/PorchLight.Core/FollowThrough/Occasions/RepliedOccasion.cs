using PorchLight.Core.Common;
using PorchLight.Core.Messages;
using PorchLight.Core.Records;

namespace PorchLight.Core.FollowThrough;

/// <summary>The person replied, by a message or in another way that somebody noted.</summary>
[Kind("replied")]
public sealed record RepliedOccasion : Occasion
{
    /// <inheritdoc/>
    public override bool IsMetBy(DomainEvent happened) => happened is ReplyReceived;

    /// <inheritdoc/>
    public override RunEnd End() => RunEnd.Replied;

    /// <inheritdoc/>
    public override string Say(FollowThroughNames names) => "they reply";
}
