using System.Text.RegularExpressions;

namespace PorchLight.Core.Common;

/// <summary>Makes cells of tables harmless that a spreadsheet would run as a formula.</summary>
public static partial class SpreadsheetCells
{
    /// <summary>
    /// The text with an apostrophe before everything a spreadsheet could take for the beginning of a formula: at its start, also behind
    /// blanks and signs nobody sees and as the wide form of East Asian keyboards; and behind a semicolon, tab or line end, where
    /// spreadsheets of other countries begin a cell. Common practice, no source.
    /// </summary>
    /// <param name="text">What stands in the cell. A plain number with a sign stays one.</param>
    public static string Defused(string text) => PlainNumber().IsMatch(text) ? text : Formula().Replace(text, "${before}'${sign}");

    /// <summary>The text as it was before <see cref="Defused"/>.</summary>
    /// <param name="cell">What stands in the cell of a file that comes back.</param>
    public static string Read(string cell) => Harmless().Replace(cell, "${before}${sign}");

    [GeneratedRegex(
        @"(?<before>(?:^|[;\t\r\n])[\s\u200B-\u200F\u2060\uFEFF\u00AD]*)'(?<sign>[=+\-@\uFF1D\uFF0B\uFF0D\uFF20])",
        RegexOptions.CultureInvariant
    )]
    private static partial Regex Harmless();

    [GeneratedRegex(
        @"(?<before>(?:^|[;\t\r\n])[\s\u200B-\u200F\u2060\uFEFF\u00AD]*)(?<sign>[=+\-@\uFF1D\uFF0B\uFF0D\uFF20])",
        RegexOptions.CultureInvariant
    )]
    private static partial Regex Formula();

    [GeneratedRegex(@"^[+-]?\d+(?:[.,]\d+)*$", RegexOptions.CultureInvariant)]
    private static partial Regex PlainNumber();
}
