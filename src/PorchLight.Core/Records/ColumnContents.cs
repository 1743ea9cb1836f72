using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;

namespace PorchLight.Core.Records;

/// <summary>Tells what a column of a file keeps by what stands in it.</summary>
public static class ColumnContents
{
    private const int LongestHeading = 75;
    private const int MostChoices = 12;
    private const int LongestChoice = 60;
    private const int LongestLine = 200;

    // The most telling first: every day is also a text, and "1" is a number before it is a yes.
    private static readonly FieldKind[] Telling =
    [
        FieldKind.Email,
        FieldKind.Date,
        FieldKind.Number,
        FieldKind.Money,
        FieldKind.YesNo,
        FieldKind.WebAddress,
    ];

    /// <summary>
    /// The most telling kind that keeps every cell which is not blank: an e-mail address, a day, a number, an amount, yes or no, a web
    /// address; one of some words where few of them come again and again; else a line of text, or a text.
    /// </summary>
    /// <param name="cells">The cells of the column.</param>
    /// <param name="context">The day, and the region in which numbers and days are written.</param>
    /// <param name="currency">The business's currency.</param>
    public static FieldKind KindOf(IReadOnlyList<string> cells, NormaliseContext context, string currency)
    {
        var said = Said(cells);
        var telling = Telling
            .Where(kind => said.Count > 0 && said.All(cell => Keeps(kind, cell, context, currency)))
            .Select(kind => (FieldKind?)kind)
            .FirstOrDefault();
        return telling
            ?? (
                said.Any(cell => cell.Length > LongestLine || cell.Contains('\n', StringComparison.Ordinal)) ? FieldKind.LongText
                : Choices(said).Count > 0 ? FieldKind.OneOf
                : FieldKind.Text
            );
    }

    /// <summary>A new field of clients for a column: called as its heading, of the kind its cells tell.</summary>
    /// <param name="heading">The heading; blank for none.</param>
    /// <param name="cells">The cells of the column.</param>
    /// <param name="fields">The fields there are; the new one has a key and a name of its own.</param>
    /// <param name="context">As for <see cref="KindOf"/>.</param>
    /// <param name="currency">The business's currency.</param>
    public static Field FieldFor(
        string heading,
        IReadOnlyList<string> cells,
        FieldCatalogue fields,
        NormaliseContext context,
        string currency
    )
    {
        var taken = fields
            .All.Where(field => field.Scope == RecordScope.Client)
            .Select(field => field.Label)
            .ToHashSet(StringComparer.OrdinalIgnoreCase);
        var plain = KnownValues.OneLine(heading) is { Length: > 0 } words ? UnicodeText.Start(words, LongestHeading).TrimEnd() : "A field";
        var label = Enumerable
            .Range(1, taken.Count + 1)
            .Select(number => number == 1 ? plain : $"{plain} {number}")
            .First(one => !taken.Contains(one));
        var kind = KindOf(cells, context, currency);
        return new Field(fields.NewKey(RecordScope.Client, label), label, kind)
        {
            Options = kind == FieldKind.OneOf ? Choices(Said(cells)) : [],
        };
    }

    /// <summary>Whether every cell that is not blank is of a kind; false where all are blank.</summary>
    internal static bool AreAll(FieldKind kind, IReadOnlyList<string> cells, NormaliseContext context, string currency) =>
        Said(cells) is { Count: > 0 } said && said.All(cell => Keeps(kind, cell, context, currency));

    private static List<string> Said(IReadOnlyList<string> cells) => [.. cells.Select(TextParts.Clean).Where(cell => cell.Length > 0)];

    private static bool Keeps(FieldKind kind, string cell, NormaliseContext context, string currency) =>
        FieldEntry.Read(cell, new Field("client.column", "Column", kind), context, currency) is { Fault: null, Value: not null };

    /// <summary>The words that come again and again, in the order they come first; none where they are too many or mostly come once.</summary>
    private static List<string> Choices(List<string> said)
    {
        var words = said.Distinct(StringComparer.OrdinalIgnoreCase).Take(MostChoices + 1).ToList();
        return
            words.Count <= MostChoices
            && said.Count >= 3 * words.Count
            && words.Count > 1
            && words.All(word => word.Length <= LongestChoice)
            ? words
            : [];
    }
}
