using System.Globalization;
using System.Text;
using CsvHelper;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using NodaTime.Text;
using PorchLight.Core.Common;
using PorchLight.Core.Inquiries;
using PorchLight.Core.Screening;
using PorchLight.Server.Hosting;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Storage;

namespace PorchLight.Server.AcrossAreas;

/// <summary>
/// The inquiries a list finds as CSV (RFC 4180), in UTF-8: a line each, with times of the business's zone. Cells that a spreadsheet would
/// run are defused.
/// </summary>
internal static class InquiriesCsv
{
    private static readonly LocalDateTimePattern Minutes = LocalDateTimePattern.CreateWithInvariantCulture("uuuu-MM-dd HH:mm");

    private const int AtOnce = 500;

    /// <summary>Writes the file as it is sent: some hundred lines at a time, however many there are.</summary>
    /// <param name="ids">The inquiries, in the order they are written.</param>
    public static async Task WriteAsync(
        Stream stream,
        IReadOnlyList<Id<Inquiry>> ids,
        PorchDb db,
        Instant now,
        CancellationToken cancellationToken
    )
    {
        var zone = (await db.BusinessAsync()).DateTimeZone;
        var columns = new (string Heading, Func<Inquiry, InquiryRow, Outcome, string?> Cell)[]
        {
            ("Received", (inquiry, _, _) => At(inquiry.Received)),
            ("Name", (_, row, _) => row.Name),
            ("Fit", (_, row, _) => row.Fit?.Words),
            ("Points", (_, row, _) => row.Score.ToString(CultureInfo.InvariantCulture)),
            ("Flags", (_, row, _) => row.Flags.ToString(CultureInfo.InvariantCulture)),
            ("Needs", (_, row, _) => row.Need.Say()),
            ("Stage", (_, row, _) => row.StageName),
            ("Outcome", (_, _, outcome) => outcome.Say()),
            ("Lost because", (_, row, _) => row.LostReason),
            ("Service", (_, row, _) => row.Service),
            ("Budget", (_, row, _) => row.Budget),
            ("Source", (_, row, _) => row.Source),
            ("Looked after by", (_, row, _) => row.LooksAfter),
            ("Reply promised by", (inquiry, _, _) => inquiry.PromisedBy is { } due ? At(due) : null),
            ("Promise ended", (inquiry, _, _) => inquiry.PromiseStopped is { } stopped ? At(stopped) : null),
            ("Came from", (inquiry, _, _) => inquiry.CameFrom),
            ("About", (_, row, _) => row.About),
        };
        // The mark at the start tells spreadsheets that it is UTF-8.
        await using var text = new StreamWriter(stream, new UTF8Encoding(encoderShouldEmitUTF8Identifier: true), leaveOpen: true);
        await using var csv = new CsvWriter(text, CsvFiles.Rfc4180);
        foreach (var (heading, _) in columns)
            csv.WriteCell(heading);
        await csv.NextRecordAsync();
        foreach (var batch in ids.Chunk(AtOnce))
        {
            var found = await db
                .Inquiries.AsNoTracking()
                .Where(inquiry => batch.Contains(inquiry.Id))
                .ToDictionaryAsync(inquiry => inquiry.Id, cancellationToken);
            // Who was erased since the list was made is in it no more.
            var inquiries = batch.Where(found.ContainsKey).Select(id => found[id]).ToList();
            var outcomes = await InquiryOutcomes.OfAsync(db, db.Inquiries.Where(inquiry => batch.Contains(inquiry.Id)), cancellationToken);
            foreach (var (inquiry, row) in inquiries.Zip(await InquiryRows.OfAsync(db, inquiries, now, cancellationToken)))
            {
                foreach (var (_, cell) in columns)
                    csv.WriteCell(cell(inquiry, row, outcomes[inquiry.Id]) ?? "");
                await csv.NextRecordAsync();
            }

            await csv.FlushAsync();
        }

        string At(Instant moment) => Minutes.Format(moment.InZone(zone).LocalDateTime);
    }
}
