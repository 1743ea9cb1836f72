using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Core.Fields;

namespace PorchLight.Core.FollowThrough;

/// <summary>Counts from a day of the project, from the time of day at which messages may first go.</summary>
/// <param name="Field">The key of the field the day stands in.</param>
[Kind("projectDate")]
public sealed record ProjectDateAnchor(string Field) : Anchor
{
    /// <inheritdoc/>
    public override Instant? At(AnchorMoments moments) => moments.DayOf(Field);

    /// <inheritdoc/>
    public override bool CanMove() => true;

    /// <inheritdoc/>
    public override string Say(bool isFirst, FollowThroughNames names) => $"the day of “{names.Field(Field)}”";

    /// <inheritdoc/>
    public override string SayNoLater(bool isFirst, bool atOnce, FollowThroughNames names) => $"on {Say(isFirst, names)}";

    /// <inheritdoc/>
    public override string? Check(FollowThroughSurroundings around) =>
        around.HasDate(Field, RecordScope.Project)
            ? null
            : "It counts from a day that no project has. Choose a field of projects that holds a date.";

    /// <inheritdoc/>
    public override string? CheckBeforeClient() => "There is no project yet to count from.";
}
