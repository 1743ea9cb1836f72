using PorchLight.Core.Common;

namespace PorchLight.Core.FollowThrough;

/// <summary>Posts a line to the team chat.</summary>
/// <param name="Text">May hold known values.</param>
[Kind("postToChat")]
public sealed record PostToChat(string Text) : OutsideAction
{
    /// <inheritdoc/>
    public override string Say(Step step, FollowThroughNames names) => $"a line in the team chat: “{Text}”";

    /// <inheritdoc/>
    public override string? Check(Step step, IReadOnlyCollection<string> later, FollowThroughSurroundings around) =>
        string.IsNullOrWhiteSpace(Text) ? "Say what is posted." : null;

    /// <inheritdoc/>
    public override bool NeedsClient() => false;

    /// <inheritdoc/>
    public override IEnumerable<string> Words() => [Text];
}
