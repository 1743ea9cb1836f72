namespace PorchLight.Core.Projects;

/// <summary>What a stage means for the work.</summary>
public enum StageKind
{
    /// <summary>Nothing is agreed yet.</summary>
    Open,

    /// <summary>Nothing happens until a later time.</summary>
    Parked,

    /// <summary>The work is agreed, or under way.</summary>
    Won,

    /// <summary>It ended without the work.</summary>
    Lost,

    /// <summary>The work is finished.</summary>
    Done,
}

/// <summary>A place on the way of a project. The business keeps its own list.</summary>
/// <param name="Key">Names it for ever; small letters, digits and hyphens.</param>
/// <param name="Name">What people read.</param>
/// <param name="Kind">What it means for the work.</param>
public sealed record Stage(string Key, string Name, StageKind Kind)
{
    /// <summary>
    /// Of a stage that is lost: whether the business itself says no there. Such work could never be booked, and nothing about fit is
    /// learned from it.
    /// </summary>
    public bool IsOurNo { get; init; }

    /// <summary>The list a business begins with, in the order of the work.</summary>
    public static IReadOnlyList<Stage> Usual { get; } =
    [
        new("new", "New", StageKind.Open),
        new("talking", "In talks", StageKind.Open),
        new("offered", "Offer made", StageKind.Open),
        new("parked", "Parked", StageKind.Parked),
        new("booked", "Booked", StageKind.Won),
        new("under-way", "Under way", StageKind.Won),
        new("finished", "Finished", StageKind.Done),
        new("lost", "Lost", StageKind.Lost),
        new("declined", "Declined", StageKind.Lost) { IsOurNo = true },
    ];
}

/// <summary>Reads lists of stages.</summary>
public static class Stages
{
    /// <summary>Whether a project of such a stage is closed: the work is finished, or will not come.</summary>
    /// <param name="kind">The kind.</param>
    public static bool Closes(this StageKind kind) => kind is StageKind.Lost or StageKind.Done;

    /// <summary>The stage new projects begin in: the first that is open.</summary>
    /// <param name="stages">The list of a business; one that is open at least.</param>
    /// <exception cref="InvalidOperationException">None is open.</exception>
    public static Stage FirstOpen(this IReadOnlyList<Stage> stages) => stages.First(stage => stage.Kind == StageKind.Open);

    /// <summary>What a list lacks, as a sentence, or null: projects begin in an open stage, and end in one that is done or lost.</summary>
    /// <param name="stages">The list as somebody wants it.</param>
    public static string? Lacks(this IReadOnlyList<Stage> stages) =>
        !stages.Any(stage => stage.Kind == StageKind.Open)
            ? "New projects begin in a stage where nothing is agreed yet. Please keep one of that kind."
        : !stages.Any(stage => stage.Kind == StageKind.Done) ? "Please keep a stage for work that is finished."
        : !stages.Any(stage => stage.Kind == StageKind.Lost) ? "Please keep a stage for work that will not come."
        : null;
}
