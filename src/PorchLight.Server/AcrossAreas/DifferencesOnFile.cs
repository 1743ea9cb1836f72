using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Core.Records;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.AcrossAreas;

/// <summary>An answer beside what is on file.</summary>
/// <param name="Field">The field; null for notes, and for a field that is gone.</param>
/// <param name="Label">What it is about: the field's name, or "Notes".</param>
/// <param name="Asked">What was asked.</param>
/// <param name="Ours">What is on file, in words; null for nothing.</param>
/// <param name="Theirs">What they say now, in words.</param>
/// <param name="Corrected">What they meant, as somebody corrected it, in words; null while nobody has.</param>
/// <param name="CorrectedBy">Who corrected it.</param>
/// <param name="Rows">How each row stands to those on file; empty but for rows.</param>
/// <param name="TheirValue">What counts as theirs: what they say now, or what they meant.</param>
/// <param name="From">The form they said it in, and when.</param>
/// <param name="Settlement">How it was settled; null while it is open.</param>
/// <param name="SettledBy">Who settled it, and when; null while it is open.</param>
internal sealed record DifferenceOnFile(
    Id<RecordDifference> Id,
    Field? Field,
    string Label,
    string Asked,
    string? Ours,
    string Theirs,
    string? Corrected,
    string? CorrectedBy,
    IReadOnlyList<RowDifference> Rows,
    Answer TheirValue,
    string From,
    Settlement? Settlement,
    string? SettledBy
);

/// <param name="Change">How they stand to each other.</param>
/// <param name="Ours">The row on file in words; null for one that was added.</param>
/// <param name="Theirs">The row that was sent; null for one that was not.</param>
internal sealed record RowDifference(RowChange Change, string? Ours, string? Theirs);

internal static class DifferencesOnFile
{
    /// <summary>Differences as a person settles them: open ones first, in the order they came.</summary>
    public static async Task<IReadOnlyList<DifferenceOnFile>> OfAsync(
        PorchDb db,
        IQueryable<RecordDifference> differences,
        FieldCatalogue fields,
        Instant now,
        DateTimeZone zone,
        CancellationToken cancellationToken
    )
    {
        var found = await differences
            .AsNoTracking()
            .Join(
                db.Inquiries,
                difference => difference.InquiryId,
                inquiry => inquiry.Id,
                (difference, inquiry) =>
                    new
                    {
                        Difference = difference,
                        inquiry.FormId,
                        inquiry.FormVersion,
                    }
            )
            .ToListAsync(cancellationToken);
        var current = (
            await db
                .FieldValues.AsNoTracking()
                .Where(value => value.IsCurrent && differences.Any(difference => difference.ClientId == value.ClientId))
                .ToListAsync(cancellationToken)
        ).ToLookup(value => (value.ClientId, value.Field));
        var forms = new Dictionary<(Guid, int), FormContent>();
        foreach (var (form, version) in found.Select(one => (one.FormId, one.FormVersion)).Distinct())
            forms[(form.Value, version)] = (await db.FormVersions.FindAsync([form, version], cancellationToken))!.Content;
        var said = new List<DifferenceOnFile>();
        // Within one inquiry as it was asked.
        foreach (
            var one in found
                .OrderBy(one => one.Difference.SettledAt is not null)
                .ThenBy(one => one.Difference.At)
                .ThenBy(one => one.Difference.InquiryId.Value)
                .ThenBy(one => OrderIn(forms[(one.FormId.Value, one.FormVersion)], one.Difference.Question))
        )
        {
            var (difference, form) = (one.Difference, forms[(one.FormId.Value, one.FormVersion)]);
            var field = fields.Find(difference.Field);
            // What stands there now counts, not what stood there when it came.
            var ours = difference.SettledAt is not null
                ? difference.Ours
                : current[(difference.ClientId, difference.Field)]
                    .FirstOrDefault(value => value.ProjectId is null || value.ProjectId == difference.ProjectId)
                    ?.Value;
            said.Add(
                new DifferenceOnFile(
                    difference.Id,
                    field,
                    field?.Label ?? "Notes",
                    KnownValues.BeforeAnswers(form.FindQuestion(difference.Question)?.Wording ?? ""),
                    ours is null ? null : AnswerWords.Say(ours),
                    AnswerWords.Say(difference.Theirs),
                    difference.Corrected is { } meant ? AnswerWords.Say(meant) : null,
                    difference.CorrectedBy,
                    field is not null && difference.Meant is RowsAnswer theirs
                        ? Rows((ours as RowsAnswer)?.Rows ?? [], theirs.Rows, field)
                        : [],
                    difference.Meant,
                    $"“{form.Title}”, {TimeWords.At(difference.At, now, zone)}",
                    difference.Settlement,
                    difference.SettledAt is { } at ? $"{difference.SettledBy}, {TimeWords.At(at, now, zone)}" : null
                )
            );
        }

        return said;
    }

    private static int OrderIn(FormContent form, string question) => form.Questions.Select(one => one.Key).ToList().IndexOf(question);

    private static List<RowDifference> Rows(IReadOnlyList<AnswerRow> ours, IReadOnlyList<AnswerRow> theirs, Field field) =>
        [
            .. RowMatching
                .Match(ours, theirs, field.Columns)
                .Where(match => match.Change != RowChange.Same)
                .Select(match => new RowDifference(match.Change, Say(match.Ours), Say(match.Theirs))),
        ];

    private static string? Say(AnswerRow? row) =>
        row is null ? null : string.Join(", ", row.Answers.Values.OfType<Answer>().Select(answer => AnswerWords.Say(answer)));
}
