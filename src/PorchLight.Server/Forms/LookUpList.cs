using System.Globalization;
using System.Text;
using CsvHelper;
using CsvHelper.Configuration;
using PorchLight.Core.Common;

namespace PorchLight.Server.Forms;

/// <summary>A list the business keeps, for questions that look something up.</summary>
internal sealed class LookUpList
{
    public required Id<LookUpList> Id { get; init; }
    public required string Name { get; set; }
    public required Cells Columns { get; set; }
    public required int Lines { get; set; }
}

/// <summary>One line of a list.</summary>
internal sealed class LookUpLine
{
    public required Id<LookUpList> ListId { get; init; }

    /// <summary>Names the line within its list: its first cell, with a number behind it where that is not enough.</summary>
    public required string Key { get; init; }
    public required int Position { get; init; }
    public required Cells Cells { get; init; }

    /// <summary>All cells as one text without case and accents, to look in.</summary>
    public required string Folded { get; init; }

    /// <summary>Text as it is compared when people type: small letters, no accents.</summary>
    public static string Fold(string text) =>
        string.Concat(
                UnicodeText
                    .Normal(text, NormalizationForm.FormD)
                    .Where(c => CharUnicodeInfo.GetUnicodeCategory(c) != UnicodeCategory.NonSpacingMark)
            )
            .ToLowerInvariant();
}

/// <summary>Cells in the order of the columns.</summary>
internal sealed record Cells(IReadOnlyList<string> Texts);

/// <summary>Reads a list from CSV (RFC 4180).</summary>
internal static class ListCsv
{
    public const int MostLines = 50_000;
    public const int MostColumns = 30;
    public const int LongestCell = 500;

    /// <summary>The columns and lines, or a sentence that says what to change. It stops reading at the first line too many.</summary>
    public static async Task<(Cells Columns, List<LookUpLine> Lines, string? Refusal)> ReadAsync(
        Stream body,
        Id<LookUpList> list,
        CancellationToken cancellationToken
    )
    {
        using var text = new StreamReader(body, new UTF8Encoding(false, throwOnInvalidBytes: true));
        using var csv = new CsvReader(
            text,
            new CsvConfiguration(CultureInfo.InvariantCulture)
            {
                BadDataFound = null,
                MissingFieldFound = null,
                MaxFieldSize = 10_000,
                CacheFields = false,
            }
        );
        var lines = new List<LookUpLine>();
        try
        {
            if (!await csv.ReadAsync() || !csv.ReadHeader() || csv.HeaderRecord is not { Length: > 0 } header)
                return Refuse("The file is empty. Its first line names the columns.");
            if (header.Length > MostColumns)
                return Refuse(
                    $"A list can have up to {MostColumns} columns; this one has {header.Length:N0}. Please take out what nobody looks up."
                );
            if (header.Any(string.IsNullOrWhiteSpace) || header.Distinct(StringComparer.OrdinalIgnoreCase).Count() != header.Length)
                return Refuse("Every column needs a name of its own in the first line.");
            var keys = new HashSet<string>(StringComparer.Ordinal);
            // How often a first cell came before, so that a list with fifty thousand equal ones is read as fast as any.
            var before = new Dictionary<string, int>(StringComparer.Ordinal);
            while (await csv.ReadAsync())
            {
                cancellationToken.ThrowIfCancellationRequested();
                if (lines.Count == MostLines)
                    return Refuse($"A list can have up to {MostLines:N0} lines, and this one has more. Please split it.");
                if (csv.Parser.Count > header.Length)
                    return Refuse(
                        $"Line {csv.Parser.RawRow:N0} has more cells than there are columns. Please put quotes around cells with commas in them."
                    );
                var cells = Enumerable
                    .Range(0, header.Length)
                    .Select(index => (csv.TryGetField<string>(index, out var cell) ? cell : null)?.Trim() ?? "")
                    .ToArray();
                if (cells.Any(cell => cell.Length > LongestCell))
                    return Refuse($"Line {csv.Parser.RawRow:N0} has a cell of more than {LongestCell} characters.");
                if (cells.All(cell => cell.Length == 0))
                    continue;
                var key = cells[0];
                while (!keys.Add(key))
                    key = $"{cells[0]} ({before[cells[0]] = before.GetValueOrDefault(cells[0], 1) + 1})";
                lines.Add(
                    new LookUpLine
                    {
                        ListId = list,
                        Key = key,
                        Position = lines.Count,
                        Cells = new Cells(cells),
                        Folded = LookUpLine.Fold(string.Join(' ', cells)),
                    }
                );
            }

            return lines.Count == 0
                ? Refuse("There are no lines under the names of the columns.")
                : (new Cells([.. header.Select(name => name.Trim())]), lines, null);
        }
        catch (Exception failure) when (failure is CsvHelperException or DecoderFallbackException)
        {
            return Refuse("This is not a CSV file in UTF-8. Please save it as “CSV UTF-8” and try again.");
        }
    }

    private static (Cells, List<LookUpLine>, string?) Refuse(string sentence) => (new Cells([]), [], sentence);
}
