using System.Globalization;
using System.IO.Compression;
using System.Text.Json;
using CsvHelper;
using CsvHelper.Configuration;
using PorchLight.Core.Common;
using PorchLight.Core.Records;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Clients;

/// <summary>Reads files of people: vCards and tables of separated values.</summary>
internal static class PeopleFile
{
    public const long Largest = 40L * 1024 * 1024;
    private const int MostColumns = 100;
    private const int LongestCell = 25_000;

    /// <summary>The people in a file, or why it cannot be read.</summary>
    public static (PeopleTable? Table, string Encoding, string? Fault) Read(ReadOnlySpan<byte> bytes)
    {
        var (text, encoding) = TextDecoding.Read(IsOfCards(bytes) ? VCards.WholeCharacters(bytes) : bytes);
        if (string.IsNullOrWhiteSpace(text))
            return (null, encoding, "This file is empty.");
        if (text.Contains('\0'))
            return (null, encoding, "This is not a text file. Please save the people as CSV or vCard, and choose that file.");
        var (table, fault) = text.TrimStart().StartsWith("BEGIN:VCARD", StringComparison.OrdinalIgnoreCase)
            ? VCards.Read(text) is var cards
                ? (cards.People, cards.Fault)
                : default
            : ReadCsv(text);
        return table?.Rows.Count > PeopleTable.MostRows
            ? (null, encoding, $"At most {PeopleTable.MostRows:N0} people fit into one import. Please cut the file into parts.")
            : (table, encoding, fault);
    }

    private static bool IsOfCards(ReadOnlySpan<byte> bytes) =>
        bytes[..Math.Min(bytes.Length, 200)].IndexOf("BEGIN:VCARD"u8) is >= 0 and <= 3;

    private static (PeopleTable? Table, string? Fault) ReadCsv(string text)
    {
        var separator = PeopleTable.SeparatorOf(text);
        if (PeopleTable.OpenQuote(text, separator) is { } line)
            return (
                null,
                $"The file is cut off, or a quotation mark is missing: a cell begins in line {line} and never ends. Nobody was imported; please export it again."
            );
        using var csv = new CsvReader(
            new StringReader(text),
            new CsvConfiguration(CultureInfo.InvariantCulture)
            {
                Delimiter = separator.ToString(),
                BadDataFound = null,
                IgnoreBlankLines = true,
                TrimOptions = TrimOptions.Trim,
            }
        );
        if (!csv.Read())
            return (null, "This file is empty.");
        var headings = Cells(csv.Parser.Record!);
        if (headings.Count > MostColumns)
            return (null, $"This file has more than {MostColumns} columns. Please leave out those you do not need.");
        if (headings.All(heading => heading.Length == 0))
            return (null, "The first line names no column. Please put names above the columns, like “Name” and “E-mail”.");
        var rows = new List<IReadOnlyList<string>>();
        while (csv.Read())
        {
            var cells = Cells(csv.Parser.Record!);
            if (cells.All(cell => cell.Length == 0))
                continue;
            rows.Add([.. Enumerable.Range(0, headings.Count).Select(column => column < cells.Count ? cells[column] : "")]);
        }

        return rows.Count == 0
            ? (null, "There is nobody in this file: it has a line of names and nothing below.")
            : (new PeopleTable(headings, rows), null);

        static List<string> Cells(string[] cells) => [.. cells.Select(cell => SpreadsheetCells.Read(UnicodeText.Start(cell, LongestCell)))];
    }

    public static byte[] Pack(PeopleTable table)
    {
        using var bytes = new MemoryStream();
        using (var zip = new BrotliStream(bytes, CompressionLevel.Fastest))
            JsonSerializer.Serialize(zip, table, Json.Options);
        return bytes.ToArray();
    }

    public static PeopleTable Unpack(byte[] packed)
    {
        using var zip = new BrotliStream(new MemoryStream(packed), CompressionMode.Decompress);
        return JsonSerializer.Deserialize<PeopleTable>(zip, Json.Options)!;
    }
}

/// <summary>Holds the table of the import that was worked on last: it is read once, and not with every batch.</summary>
internal sealed class ImportTables
{
    private (Id<ClientImport> Import, PeopleTable Table)? _last;

    public async Task<PeopleTable> ReadAsync(PorchDb db, Id<ClientImport> import)
    {
        if (_last is { } last && last.Import == import)
            return last.Table;
        var table = PeopleFile.Unpack((await db.ClientImportFiles.FindAsync(import))!.Table);
        _last = (import, table);
        return table;
    }

    public void Forget() => _last = null;
}
