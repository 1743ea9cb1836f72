using PorchLight.Core.Common;
using PorchLight.Core.Fields;

namespace PorchLight.Core.Records;

/// <summary>What a list asks of a field.</summary>
public enum FieldTest
{
    /// <summary>Its words hold these.</summary>
    Contains,

    /// <summary>It is this.</summary>
    Is,

    /// <summary>It is this or more; of days, this day or later.</summary>
    AtLeast,

    /// <summary>It is this or less; of days, this day or earlier.</summary>
    AtMost,

    /// <summary>Something stands in it.</summary>
    IsFilled,

    /// <summary>Nothing stands in it.</summary>
    IsEmpty,
}

/// <summary>A test of a field, as somebody made it.</summary>
/// <param name="Field">The field's key.</param>
/// <param name="Test">What is asked.</param>
/// <param name="Value">
/// What it is compared with, as it was typed; not looked at by <see cref="FieldTest.IsFilled"/> and <see cref="FieldTest.IsEmpty"/>.
/// </param>
public sealed record FieldFilter(string Field, FieldTest Test, string Value = "");

/// <summary>Which clients a list shows, and how.</summary>
public sealed record ClientQuery : ListQuery
{
    /// <summary>The order by the day they came, the newest first.</summary>
    public const string BySince = "since";

    /// <summary>The order by their names.</summary>
    public const string ByName = "name";

    /// <summary>Their standing; empty for everybody who is not put away.</summary>
    public IReadOnlyList<Standing> Standings { get; init; } = [];

    /// <summary>Tags, all of which they have.</summary>
    public IReadOnlyList<string> Tags { get; init; } = [];

    /// <summary>What must hold of their fields; of a field of projects, in the piece of work that began last.</summary>
    public IReadOnlyList<FieldFilter> Filters { get; init; } = [];

    /// <summary>Fields whose values are shown, by their keys.</summary>
    public IReadOnlyList<string> Columns { get; init; } = [];

    /// <summary>
    /// What they are put in order by: <see cref="BySince"/>, <see cref="ByName"/>, or a field's key. Who has nothing there comes last.
    /// </summary>
    public string Order { get; init; } = BySince;

    private const int MostFilters = 12;
    private const int MostColumns = 12;

    /// <summary>What can be asked of a field of a kind, what one mostly wants first.</summary>
    /// <param name="kind">The kind.</param>
    public static IReadOnlyList<FieldTest> TestsOf(FieldKind kind) =>
        kind switch
        {
            FieldKind.Number or FieldKind.Money or FieldKind.Date =>
            [
                FieldTest.AtLeast,
                FieldTest.AtMost,
                FieldTest.Is,
                FieldTest.IsFilled,
                FieldTest.IsEmpty,
            ],
            FieldKind.YesNo => [FieldTest.Is, FieldTest.IsFilled, FieldTest.IsEmpty],
            FieldKind.Files or FieldKind.Rows => [FieldTest.IsFilled, FieldTest.IsEmpty],
            _ => [FieldTest.Contains, FieldTest.Is, FieldTest.IsFilled, FieldTest.IsEmpty],
        };

    /// <summary>What is wrong with it, as sentences with the part they are about; none when a list can be made of it.</summary>
    /// <param name="fields">The fields of the business.</param>
    public IReadOnlyList<Finding> Check(FieldCatalogue fields)
    {
        List<Finding> found = [.. Check()];
        if (Filters.Count > MostFilters)
            found.Add(new Finding("filters", $"Please use at most {MostFilters} filters at once."));
        if (Columns.Count > MostColumns)
            found.Add(new Finding("columns", $"Please show at most {MostColumns} columns."));
        foreach (var filter in Filters)
        {
            if (fields.Find(filter.Field) is not { } field)
                found.Add(new Finding("filters", "The field of one filter is gone. Take this filter away."));
            else if (!TestsOf(field.Kind).Contains(filter.Test))
                found.Add(new Finding("filters", $"“{field.Label}” cannot be filtered like that. Choose another way."));
        }

        if (Columns.Any(column => fields.Find(column) is null))
            found.Add(new Finding("columns", "A field among the columns is gone. Take this column away."));
        if (Order is not (BySince or ByName) && fields.Find(Order) is null)
            found.Add(new Finding("order", "The field the list was in order of is gone. Choose another order."));
        return found;
    }
}
