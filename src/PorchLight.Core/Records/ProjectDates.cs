using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Fields;

namespace PorchLight.Core.Records;

/// <summary>A day of a project.</summary>
/// <param name="Label">What happens on it: "Begun", "Closed", or the name of the field.</param>
/// <param name="Day">The day.</param>
/// <param name="IsPast">Whether it lies before today; today itself does not.</param>
public sealed record ProjectDate(string Label, LocalDate Day, bool IsPast);

/// <summary>The days of a project that the work, and later steps, hang on.</summary>
public static class ProjectDates
{
    /// <summary>
    /// The day it began, what stands in its fields of dates, and the day it was closed, in the order of time; of one day in the order
    /// given here. Fields that are put away are left out.
    /// </summary>
    /// <param name="begun">The day it began.</param>
    /// <param name="closed">The day it was closed; null while it is open.</param>
    /// <param name="values">What stands in its fields, in the order of the catalogue.</param>
    /// <param name="today">The business's today.</param>
    public static IReadOnlyList<ProjectDate> Of(
        LocalDate begun,
        LocalDate? closed,
        IEnumerable<(Field Field, Answer? Value)> values,
        LocalDate today
    ) =>
        [
            .. values
                .Where(one => !one.Field.Archived && one.Field.Kind == FieldKind.Date)
                .Select(one => (one.Field.Label, Day: (one.Value as DateAnswer)?.Date))
                .Prepend((Label: "Begun", Day: begun))
                .Append((Label: "Closed", Day: closed))
                .Where(one => one.Day is not null)
                .OrderBy(one => one.Day)
                .Select(one => new ProjectDate(one.Label, one.Day!.Value, one.Day < today)),
        ];
}
