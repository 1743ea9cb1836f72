using PorchLight.Core.Common;

namespace PorchLight.Core.FollowThrough;

/// <summary>Stands where something is still to be written; nothing with such a step can be put into force.</summary>
/// <param name="What">What the client is to see there, in the owner's words.</param>
[Kind("unwritten")]
public sealed record Unwritten(string What) : OutsideAction
{
    /// <inheritdoc/>
    public override string Say(Step step, FollowThroughNames names) => $"still to be written: {What}";

    /// <inheritdoc/>
    public override string? Check(Step step, IReadOnlyCollection<string> later, FollowThroughSurroundings around) =>
        "This is still to be written.";

    /// <inheritdoc/>
    public override bool NeedsClient() => false;

    /// <inheritdoc/>
    public override string? Seen() => What;

    /// <inheritdoc/>
    public override string StillToWrite() => What;

    /// <inheritdoc/>
    public override IEnumerable<string> Words() => [What];
}
