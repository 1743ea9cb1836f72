using PorchLight.Core.Common;

namespace PorchLight.Core.FollowThrough;

/// <summary>Gives the project to somebody who takes it over.</summary>
/// <param name="To">The user.</param>
/// <param name="KeepWatching">Whether whoever looked after it until then goes on being told what comes in.</param>
[Kind("handOver")]
public sealed record HandOverProject(Guid To, bool KeepWatching = false) : OutsideAction
{
    /// <inheritdoc/>
    public override string Say(Step step, FollowThroughNames names) =>
        $"{names.User(To)} takes it over{(KeepWatching ? "; the person before keeps watching" : "")}";

    /// <inheritdoc/>
    public override string? Check(Step step, IReadOnlyCollection<string> later, FollowThroughSurroundings around) =>
        around.Users.Contains(To) ? null : "Choose who takes it over.";

    /// <inheritdoc/>
    public override bool NeedsClient() => true;
}
