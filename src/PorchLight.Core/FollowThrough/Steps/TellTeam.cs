using PorchLight.Core.Common;

namespace PorchLight.Core.FollowThrough;

/// <summary>Tells people of the business, or a helper outside who has no account, by mail.</summary>
/// <param name="Users">The users; empty for none of them.</param>
/// <param name="Outside">An address outside; null for none.</param>
/// <param name="Subject">May hold known values.</param>
/// <param name="Text">May hold known values.</param>
[Kind("tellTeam")]
public sealed record TellTeam(IReadOnlyList<Guid> Users, string? Outside, string Subject, string Text) : OutsideAction
{
    /// <inheritdoc/>
    public override string Say(Step step, FollowThroughNames names)
    {
        IReadOnlyList<string> who = [.. Users.Select(names.User), .. Outside is { } outside ? [outside] : Array.Empty<string>()];
        return who.Count == 0 ? "someone is told" : $"{WordLists.All(who)} {(who.Count == 1 ? "is" : "are")} told: “{Subject}”";
    }

    /// <inheritdoc/>
    public override string? Check(Step step, IReadOnlyCollection<string> later, FollowThroughSurroundings around) =>
        Users.Count == 0 && Outside is null ? "Say who is told."
        : Users.Any(user => !around.Users.Contains(user)) ? "Someone who was to be told no longer works here."
        : Outside is not null && EmailAddress.Check(Outside) is not null ? "The address outside the team is not an e-mail address."
        : string.IsNullOrWhiteSpace(Subject) ? "The message needs a subject."
        : null;

    /// <inheritdoc/>
    public override bool NeedsClient() => false;

    /// <inheritdoc/>
    public override IEnumerable<string> Words() => [Subject, Text];
}
