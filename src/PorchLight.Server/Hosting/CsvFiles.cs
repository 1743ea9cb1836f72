using System.Globalization;
using CsvHelper;
using CsvHelper.Configuration;
using PorchLight.Core.Common;

namespace PorchLight.Server.Hosting;

/// <summary>How tables are written as CSV.</summary>
internal static class CsvFiles
{
    /// <summary>RFC 4180.</summary>
    public static readonly CsvConfiguration Rfc4180 = new(CultureInfo.InvariantCulture)
    {
        NewLine = "\r\n",
        // Left to itself the writer quotes only what holds the whole line end; RFC 4180, 2.6 wants each half of it quoted.
        ShouldQuote = args => ConfigurationFunctions.ShouldQuote(args) || args.Field.AsSpan().ContainsAny('\r', '\n'),
    };

    /// <summary>Writes a cell that no spreadsheet runs.</summary>
    public static void WriteCell(this CsvWriter csv, string? cell) => csv.WriteField(cell is null ? null : SpreadsheetCells.Defused(cell));
}
