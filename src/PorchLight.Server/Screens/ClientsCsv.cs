using System.Globalization;
using System.Text;
using CsvHelper;
using NodaTime.Text;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Core.Records;
using PorchLight.Server.Hosting;
using PorchLight.Server.Inquiries;

namespace PorchLight.Server.Screens;

/// <summary>
/// The clients a list finds as CSV (RFC 4180), in UTF-8: a line each, with every field of theirs and of the piece of work that began
/// last. Cells that a spreadsheet would run are defused.
/// </summary>
internal static class ClientsCsv
{
    private static readonly string[] AboutThem = ["Standing", "With us since", "Tags"];

    public static void MapClientsCsv(this IEndpointRouteBuilder api) =>
        api.MapGet("/clients.csv", WriteAsync).WithTags("Clients").For(Access.Member).ExcludeFromDescription();

    private static async Task<IResult> WriteAsync(string? query, ClientsToSave saved, CancellationToken cancellationToken)
    {
        var (found, refusal) = await saved.FindAsync(query, cancellationToken);
        if (found is null)
            return refusal!;
        var columns = found.Fields.Offered.ToList();
        await using var text = new StringWriter(CultureInfo.InvariantCulture);
        await using (var csv = new CsvWriter(text, AnswersCsv.Rfc4180))
        {
            foreach (var heading in AboutThem.Concat(columns.Select(Heading)))
                csv.WriteCell(heading);
            await csv.NextRecordAsync();
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
        }

        return TypedResults.File(
            [.. Encoding.UTF8.Preamble, .. Encoding.UTF8.GetBytes(text.ToString())],
            "text/csv; charset=utf-8",
            "clients.csv"
        );
    }

    // Two fields may be called the same, one of clients and one of projects.
    private static string Heading(Field field) => field.Scope == RecordScope.Client ? field.Label : $"Project: {field.Label}";
}
