using System.Text;
using CsvHelper;
using NodaTime.Text;
using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Core.Records;
using PorchLight.Server.Hosting;
using PorchLight.Server.Records;

namespace PorchLight.Server.AcrossAreas;

/// <summary>
/// The clients a list finds as CSV (RFC 4180), in UTF-8: a line each, with every field of theirs and of the piece of work that began
/// last. Cells that a spreadsheet would run are defused.
/// </summary>
internal sealed class ClientsCsv(ClientsToSave saved)
{
    private static readonly string[] AboutThem = ["Standing", "With us since", "Tags"];

    private const int AtOnce = 500;

    /// <summary>Writes the file as it is sent, some hundred lines at a time.</summary>
    /// <param name="ids">The clients, in the order they are written.</param>
    public async Task WriteAsync(Stream stream, IReadOnlyList<Id<Client>> ids, CancellationToken cancellationToken)
    {
        // The mark at the start tells spreadsheets that it is UTF-8.
        await using var text = new StreamWriter(stream, new UTF8Encoding(encoderShouldEmitUTF8Identifier: true), leaveOpen: true);
        await using var csv = new CsvWriter(text, CsvFiles.Rfc4180);
        var columns = (await saved.ReadAsync([], cancellationToken)).Fields.Offered.ToList();
        foreach (var heading in AboutThem.Concat(columns.Select(Heading)))
            csv.WriteCell(heading);
        await csv.NextRecordAsync();
        foreach (var batch in ids.Chunk(AtOnce))
        {
            var found = await saved.ReadAsync(batch, cancellationToken);
            foreach (var client in found.Clients)
            {
                var own = found.Values(client.Id);
                csv.WriteCell(client.Standing.Say());
                csv.WriteCell(LocalDatePattern.Iso.Format(client.Since.InZone(found.Zone).Date));
                csv.WriteCell(string.Join(", ", found.Tags[client.Id]));
                foreach (var field in columns)
                    csv.WriteCell(own.TryGetValue(field.Key, out var value) ? AnswerWords.Say(value) : "");
                await csv.NextRecordAsync();
            }

            await csv.FlushAsync();
        }
    }

    // Two fields may be called the same, one of clients and one of projects.
    private static string Heading(Field field) => field.Scope == RecordScope.Client ? field.Label : $"Project: {field.Label}";
}
