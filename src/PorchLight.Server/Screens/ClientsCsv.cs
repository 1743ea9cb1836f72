using System.Globalization;
using System.Text;
using System.Text.Json;
using CsvHelper;
using Microsoft.EntityFrameworkCore;
using NodaTime.Text;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Core.Records;
using PorchLight.Server.Calendar;
using PorchLight.Server.Fields;
using PorchLight.Server.Hosting;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Storage;

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

    private static async Task<IResult> WriteAsync(
        string? query,
        PorchDb db,
        ClientFinder finder,
        ClientSearch search,
        FieldCatalogues catalogues,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        if (QueryOf(query) is not { } wanted)
            return Problems.Unprocessable(CutOff);
        var (fields, business) = (await catalogues.ReadAsync(db), await db.BusinessAsync());
        var (clients, refusal) = await ClientListEndpoints.ReadAsync(
            wanted,
            db,
            finder,
            search,
            fields,
            business,
            clock,
            cancellationToken
        );
        if (clients is null)
            return refusal!;
        var found = await finder.PageAsync(clients, wanted, fields, 0, int.MaxValue, cancellationToken);
        var values = (
            await db
                .FieldValues.AsNoTracking()
                .Where(value => value.IsListed && clients.Select(client => client.Id).Contains(value.ClientId))
                .ToListAsync(cancellationToken)
        ).ToLookup(value => value.ClientId);
        var tags = (await db.ClientTags.AsNoTracking().OrderBy(tag => tag.Tag).ToListAsync(cancellationToken)).ToLookup(
            tag => tag.ClientId,
            tag => tag.Tag
        );
        var columns = fields.Offered.ToList();
        await using var text = new StringWriter(CultureInfo.InvariantCulture);
        await using (var csv = new CsvWriter(text, AnswersCsv.Rfc4180))
        {
            foreach (var heading in AboutThem.Concat(columns.Select(Heading)))
                csv.WriteField(heading);
            await csv.NextRecordAsync();
            foreach (var client in found)
            {
                var own = values[client.Id].ToDictionary(value => value.Field, value => value.Value!);
                csv.WriteField(client.Standing.Say());
                csv.WriteField(LocalDatePattern.Iso.Format(client.Since.InZone(business.DateTimeZone).Date));
                csv.WriteField(string.Join(", ", tags[client.Id]));
                foreach (var field in columns)
                    csv.WriteField(own.TryGetValue(field.Key, out var value) ? AnswerWords.Say(value) : "");
                await csv.NextRecordAsync();
            }
        }

        return TypedResults.File(
            [.. Encoding.UTF8.Preamble, .. Encoding.UTF8.GetBytes(text.ToString())],
            "text/csv; charset=utf-8",
            "clients.csv"
        );
    }

    internal const string CutOff = "This address is not complete. Go back to the list and save it from there.";

    /// <summary>The list an address asks for; null for an address that is not whole.</summary>
    internal static ClientQuery? QueryOf(string? query)
    {
        try
        {
            return query is null ? new ClientQuery() : JsonSerializer.Deserialize<ClientQuery>(query, Json.Options) ?? new ClientQuery();
        }
        catch (JsonException)
        {
            return null;
        }
    }

    // Two fields may be called the same, one of clients and one of projects.
    private static string Heading(Field field) => field.Scope == RecordScope.Client ? field.Label : $"Project: {field.Label}";
}
