using System.Globalization;
using CsvHelper;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Conditions;
using PorchLight.Core.Forms;
using PorchLight.Core.Records;
using PorchLight.Server.Forms;
using PorchLight.Server.Hosting;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Inquiries;

/// <summary>All answers of one form as CSV (RFC 4180), in UTF-8. Cells that a spreadsheet would run are defused.</summary>
internal static class AnswersCsv
{
    public static void MapAnswersCsv(this IEndpointRouteBuilder api) =>
        api.MapGet(
                "/forms/{id}/answers.csv",
                async Task<IResult> (Id<Form> id, PorchDb db, CancellationToken cancellationToken) =>
                    await db.Forms.FindAsync([id], cancellationToken) is { } form
                        ? TypedResults.Stream(
                            file => WriteAsync(file, db, form, cancellationToken),
                            "text/csv; charset=utf-8",
                            $"answers-{id}.csv"
                        )
                        : Problems.NotFound("This form is not here any more.")
            )
            .WithTags("Forms")
            .For(Access.Member)
            .ExcludeFromDescription();

    private static async Task WriteAsync(Stream file, PorchDb db, Form form, CancellationToken cancellationToken)
    {
        var zone = (await db.BusinessAsync()).DateTimeZone;
        var versions = await db
            .FormVersions.AsNoTracking()
            .Where(version => version.FormId == form.Id)
            .OrderBy(version => version.Number)
            .ToListAsync(cancellationToken);
        // A question keeps its column through all versions; the newest wording heads it.
        var columns = versions
            .SelectMany(version => version.Content.Questions)
            .GroupBy(question => question.Key)
            .Select(group => (Key: group.Key, group.Last().Wording))
            .ToList();
        var asked = versions.ToDictionary(version => version.Number, version => version.Content);
        var rows = db
            .Submissions.AsNoTracking()
            .Where(submission => submission.FormId == form.Id && !submission.IsErased)
            .OrderBy(submission => submission.At)
            .GroupJoin(
                db.Inquiries,
                submission => submission.Id,
                inquiry => inquiry.SubmissionId,
                (submission, inquiries) => new { submission, inquiries }
            )
            .SelectMany(row => row.inquiries.DefaultIfEmpty(), (row, inquiry) => new { row.submission, inquiry })
            .Where(row => row.inquiry == null || row.inquiry.Aside == null);

        // The mark at the start tells spreadsheets that it is UTF-8.
        await using (
            var text = new StreamWriter(file, new System.Text.UTF8Encoding(encoderShouldEmitUTF8Identifier: true), leaveOpen: true)
        )
        await using (var csv = new CsvWriter(text, CsvFiles.Rfc4180))
        {
            await WriteRowAsync(
                csv,
                [
                    "Received",
                    "Version",
                    "Fit",
                    "Points",
                    "Came from",
                    .. columns.Select(column => KnownValues.BeforeAnswers(column.Wording)),
                ]
            );
            await foreach (var row in rows.AsAsyncEnumerable().WithCancellation(cancellationToken))
            {
                var (submission, inquiry) = (row.submission, row.inquiry);
                var said = new AnswerContext(
                    asked[submission.FormVersion],
                    submission.Answers.ByQuestion.ToDictionary(answer => answer.Key, answer => AnswerState.Of(answer.Value)),
                    submission.At.InZone(zone).Date
                );
                await WriteRowAsync(
                    csv,
                    [
                        submission.At.InZone(zone).ToString("uuuu'-'MM'-'dd HH':'mm", CultureInfo.InvariantCulture),
                        submission.FormVersion.ToString(CultureInfo.InvariantCulture),
                        inquiry?.Fit?.Say(),
                        inquiry?.Fit is null ? null : inquiry.Verdict.Score.ToString(CultureInfo.InvariantCulture),
                        inquiry?.CameFrom,
                        .. columns.Select(column =>
                            submission.Answers.ByQuestion.TryGetValue(column.Key, out var answer)
                                ? AnswerWords.Say(answer, said.Behind(column.Key))
                                : null
                        ),
                    ]
                );
            }
        }
    }

    private static async Task WriteRowAsync(CsvWriter csv, IEnumerable<string?> cells)
    {
        foreach (var cell in cells)
            csv.WriteCell(cell);
        await csv.NextRecordAsync();
    }
}
