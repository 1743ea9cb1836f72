using PorchLight.Core.Common;

namespace PorchLight.Core.FollowThrough;

/// <summary>Makes a task of the project.</summary>
/// <param name="Title">What is to do; may hold known values.</param>
/// <param name="DueAfterWorkingDays">By when it is to be done, in working days from then; 0 for the same day.</param>
/// <param name="For">The user who does it; null for whoever looks after the project.</param>
[Kind("makeTask")]
public sealed record MakeTask(string Title, int DueAfterWorkingDays, Guid? For) : OutsideAction
{
    private const int LongestTime = 250;

    /// <inheritdoc/>
    public override string Say(Step step, FollowThroughNames names)
    {
        var when = DueAfterWorkingDays == 0 ? "that day" : $"within {FollowThroughWords.Span(DueAfterWorkingDays, TimeUnit.WorkingDays)}";
        return $"a task: “{Title}”, to be done {when}{(For is { } user ? $" by {names.User(user)}" : "")}";
    }

    /// <inheritdoc/>
    public override string? Check(Step step, IReadOnlyCollection<string> later, FollowThroughSurroundings around) =>
        string.IsNullOrWhiteSpace(Title) ? "Say what is to do."
        : DueAfterWorkingDays is < 0 or > LongestTime ? $"A task is due within {LongestTime} working days."
        : For is { } user && !around.Users.Contains(user) ? "The person it was assigned to no longer works here. Choose someone else."
        : null;

    /// <inheritdoc/>
    public override bool NeedsClient() => true;

    /// <inheritdoc/>
    public override IEnumerable<string> Words() => [Title];
}
