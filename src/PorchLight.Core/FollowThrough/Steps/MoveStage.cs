using PorchLight.Core.Common;
using PorchLight.Core.Projects;

namespace PorchLight.Core.FollowThrough;

/// <summary>Moves the project to a stage.</summary>
/// <param name="Stage">The stage's key.</param>
/// <param name="ParkedDays">Of a stage where nothing happens: after how many days it comes back; null for not by itself.</param>
[Kind("moveStage")]
public sealed record MoveStage(string Stage, int? ParkedDays = null) : OutsideAction
{
    /// <inheritdoc/>
    public override string Say(Step step, FollowThroughNames names) =>
        $"the stage moves to {names.Stage(Stage)}{(ParkedDays is { } days ? $" for {FollowThroughWords.Span(days, TimeUnit.Days)}" : "")}";

    /// <inheritdoc/>
    public override string? Check(Step step, IReadOnlyCollection<string> later, FollowThroughSurroundings around) =>
        around.Stages.FirstOrDefault(one => one.Key == Stage) is not { } stage ? "Choose the stage it moves to."
        : ParkedDays is <= 0 or > Schedule.LongestDays ? "A project is parked for one day up to ten years."
        : ParkedDays is not null && stage.Kind != StageKind.Parked ? "Only a parked stage ends automatically."
        : null;

    /// <inheritdoc/>
    public override bool NeedsClient() => true;

    /// <inheritdoc/>
    public override bool Starts(OtherFollowThrough other) =>
        other is { IsOn: true, Content.Starts: StageStart start } && start.Stages.Contains(Stage);
}
