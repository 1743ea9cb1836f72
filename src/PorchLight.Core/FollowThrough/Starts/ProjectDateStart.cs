using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Core.Fields;

namespace PorchLight.Core.FollowThrough;

/// <summary>Starts on a day counted from one of a project.</summary>
/// <param name="Field">The key of a field of projects that holds a date.</param>
/// <param name="Days">How many days later; negative for earlier.</param>
[Kind("projectDate")]
public sealed record ProjectDateStart(string Field, int Days) : DatedStart(Field, Days)
{
    /// <summary>So many days after a start that was missed somebody is still told of it.</summary>
    public const int DaysTold = 30;

    /// <summary>
    /// The day on which it should have started, where that has gone by: told for <see cref="DaysTold"/> days, and until the date itself.
    /// </summary>
    /// <param name="date">What stands in the field.</param>
    /// <param name="last">The last day on which it was asked what starts; null where none was yet, and nothing is missed.</param>
    /// <returns>Null where the day is still to come, or too long ago to matter.</returns>
    public LocalDate? Missed(LocalDate date, LocalDate? last)
    {
        var day = date.PlusDays(Days);
        return day <= last && last <= LocalDate.Max(date, day.PlusDays(DaysTold)) ? day : null;
    }

    /// <inheritdoc/>
    public override bool Comes(LocalDate date, LocalDate day) => day.PlusDays(-Days) == date;

    /// <inheritdoc/>
    public override string? Check(FollowThroughSurroundings around) => Check(RecordScope.Project, "projects", around);
}
