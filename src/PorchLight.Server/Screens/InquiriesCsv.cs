using System.Globalization;
using System.Text;
using CsvHelper;
using Microsoft.AspNetCore.Http.HttpResults;
using NodaTime;
using NodaTime.Text;
using PorchLight.Core.Common;
using PorchLight.Core.Inquiries;
using PorchLight.Core.Screening;
using PorchLight.Server.Inquiries;

namespace PorchLight.Server.Screens;

/// <summary>
/// The inquiries a list finds as CSV (RFC 4180), in UTF-8: a line each, with times of the business's zone. Cells that a spreadsheet would
/// run are defused.
/// </summary>
internal static class InquiriesCsv
{
    private static readonly LocalDateTimePattern Minutes = LocalDateTimePattern.CreateWithInvariantCulture("uuuu-MM-dd HH:mm");

    public static FileContentHttpResult Of(
        IReadOnlyList<Inquiry> inquiries,
        IReadOnlyList<InquiryRow> rows,
        IReadOnlyDictionary<Id<Inquiry>, Outcome> outcomes,
        DateTimeZone zone
    )
    {
        var columns = new (string Heading, Func<Inquiry, InquiryRow, string?> Cell)[]
        {
            ("Received", (inquiry, _) => At(inquiry.Received)),
            ("Name", (_, row) => row.Name),
            ("Fit", (_, row) => row.Fit?.Words),
            ("Points", (_, row) => row.Score.ToString(CultureInfo.InvariantCulture)),
            ("Flags", (_, row) => row.Flags.ToString(CultureInfo.InvariantCulture)),
            ("Needs", (_, row) => row.Need.Say()),
            ("Stage", (_, row) => row.StageName),
            ("Outcome", (inquiry, _) => outcomes[inquiry.Id].Say()),
            ("Lost because", (_, row) => row.LostReason),
            ("Service", (_, row) => row.Service),
            ("Budget", (_, row) => row.Budget),
            ("Source", (_, row) => row.Source),
            ("Looked after by", (_, row) => row.LooksAfter),
            ("Reply promised by", (inquiry, _) => inquiry.PromisedBy is { } due ? At(due) : null),
            ("Promise ended", (inquiry, _) => inquiry.PromiseStopped is { } stopped ? At(stopped) : null),
            ("Came from", (inquiry, _) => inquiry.CameFrom),
            ("About", (_, row) => row.About),
        };
        using var text = new StringWriter(CultureInfo.InvariantCulture);
        using (var csv = new CsvWriter(text, AnswersCsv.Rfc4180))
        {
            foreach (var (heading, _) in columns)
                csv.WriteCell(heading);
            csv.NextRecord();
            foreach (var (inquiry, row) in inquiries.Zip(rows))
            {
                foreach (var (_, cell) in columns)
                    csv.WriteCell(cell(inquiry, row) ?? "");
                csv.NextRecord();
            }
        }

        return TypedResults.File(
            [.. Encoding.UTF8.Preamble, .. Encoding.UTF8.GetBytes(text.ToString())],
            "text/csv; charset=utf-8",
            "inquiries.csv"
        );

        string At(Instant moment) => Minutes.Format(moment.InZone(zone).LocalDateTime);
    }
}
