using System.Globalization;
using System.Text;
using CsvHelper;
using CsvHelper.Configuration;
using Microsoft.AspNetCore.Http.HttpResults;
using PorchLight.Core.Common;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Records;
using PorchLight.Server.Calendar;
using PorchLight.Server.Hosting;
using PorchLight.Server.Storage;

namespace PorchLight.Server.FollowThrough;

/// <summary>A follow-through as a table: changed in place, saved as a file, and read back.</summary>
internal static class PlanTableEndpoints
{
    /// <param name="Lines">A line a step, in order.</param>
    /// <param name="StillToWrite">How many steps are still to be written.</param>
    internal sealed record PlanTableView(IReadOnlyList<PlanLine> Lines, int StillToWrite);

    /// <param name="Was">The lines as they were read.</param>
    /// <param name="Now">The lines as they should be.</param>
    internal sealed record PlanTableEdit(IReadOnlyList<PlanLine> Was, IReadOnlyList<PlanLine> Now);

    /// <param name="Text">A table of separated values.</param>
    internal sealed record PlanTableFile(string Text);

    public static void MapPlanTables(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/follow-throughs/{id}/plan-table").For(Access.Member).WithTags("FollowThrough");
        group.MapGet("", ShowAsync);
        group.MapPut("", SaveAsync);
        group.MapGet("/table.csv", ExportAsync).ExcludeFromDescription();
        group.MapPut("/table.csv", ImportAsync);
    }

    private static async Task<Results<Ok<PlanTableView>, ProblemHttpResult>> ShowAsync(
        Id<StoredFollowThrough> id,
        PorchDb db,
        FollowThroughPartsLoader parts,
        CancellationToken cancellationToken
    ) =>
        await db.FollowThroughs.FindAsync([id], cancellationToken) is { } stored
            ? TypedResults.Ok(await ViewAsync(stored, db, parts, cancellationToken))
            : Problems.NotFound(FollowThroughEndpoints.Gone);

    /// <summary>Changes what is worked on as somebody changed its table.</summary>
    private static async Task<Results<Ok<FollowThroughView>, ProblemHttpResult>> SaveAsync(
        Id<StoredFollowThrough> id,
        PlanTableEdit edit,
        PorchDb db,
        FollowThroughPartsLoader parts,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.FollowThroughs.FindAsync([id], cancellationToken) is not { } stored)
            return Problems.NotFound(FollowThroughEndpoints.Gone);
        if (Edits.UnlessSeen(edit.Was, (await ViewAsync(stored, db, parts, cancellationToken)).Lines) is { } changedMeanwhile)
            return changedMeanwhile;
        return await ReadAsync(stored, edit.Now, db, write, parts, clock, cancellationToken);
    }

    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> ExportAsync(
        Id<StoredFollowThrough> id,
        PorchDb db,
        FollowThroughPartsLoader parts,
        CancellationToken cancellationToken
    )
    {
        if (await db.FollowThroughs.FindAsync([id], cancellationToken) is not { } stored)
            return Problems.NotFound(FollowThroughEndpoints.Gone);
        using var text = new StringWriter(CultureInfo.InvariantCulture);
        await using (var csv = new CsvWriter(text, CsvFiles.Rfc4180))
        {
            foreach (var heading in PlanTable.Headings)
                csv.WriteCell(heading);
            foreach (var line in (await ViewAsync(stored, db, parts, cancellationToken)).Lines)
            {
                await csv.NextRecordAsync();
                foreach (var cell in new[] { line.Day, line.Step, line.Who, line.Sees, line.StillToWrite, line.EndsIf, line.Key })
                    csv.WriteCell(cell);
            }

            await csv.NextRecordAsync();
        }

        return TypedResults.File(
            [.. Encoding.UTF8.Preamble, .. Encoding.UTF8.GetBytes(text.ToString())],
            "text/csv; charset=utf-8",
            "plan-table.csv"
        );
    }

    /// <summary>Changes what is worked on to what a table of separated values says.</summary>
    private static async Task<Results<Ok<FollowThroughView>, ProblemHttpResult>> ImportAsync(
        Id<StoredFollowThrough> id,
        PlanTableFile file,
        PorchDb db,
        FollowThroughPartsLoader parts,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        var (lines, fault) = Read(file.Text);
        if (lines is null)
            return Problems.Unprocessable(fault!);
        await using var write = await db.WriteAsync(cancellationToken);
        return await db.FollowThroughs.FindAsync([id], cancellationToken) is { } stored
            ? await ReadAsync(stored, lines, db, write, parts, clock, cancellationToken)
            : Problems.NotFound(FollowThroughEndpoints.Gone);
    }

    private static (IReadOnlyList<PlanLine>? Lines, string? Fault) Read(string text)
    {
        if (PeopleTable.OpenQuote(text, PeopleTable.SeparatorOf(text)) is { } open)
            return (null, $"The file is cut off, or a quotation mark is missing: a cell begins in line {open} and never ends.");
        using var csv = new CsvReader(
            new StringReader(text),
            new CsvConfiguration(CultureInfo.InvariantCulture)
            {
                Delimiter = PeopleTable.SeparatorOf(text).ToString(),
                BadDataFound = null,
                MissingFieldFound = null,
                IgnoreBlankLines = true,
                PrepareHeaderForMatch = heading => heading.Header.Trim().ToUpperInvariant(),
            }
        );
        if (!csv.Read() || !csv.ReadHeader())
            return (null, "This file is empty.");
        var lines = new List<PlanLine>();
        if (csv.GetFieldIndex("STEP", isTryGet: true) < 0)
            return (null, "This is not a plan table: it needs a column “Step”. Save the table first to see how it looks.");
        while (csv.Read())
            lines.Add(
                new PlanLine(
                    Cell("ID"),
                    Cell("DAY"),
                    Cell("STEP"),
                    Cell("WHO ACTS"),
                    Cell("WHAT THE CLIENT SEES"),
                    Cell("STILL TO WRITE"),
                    ""
                )
            );
        return lines.Count <= 2 * FollowThroughCheck.MostSteps
            ? (lines, null)
            : (null, $"A follow-through has at most {FollowThroughCheck.MostSteps} steps.");

        // What a spreadsheet would have run was defused when the table was saved.
        string Cell(string heading) =>
            csv.TryGetField<string>(heading, out var cell) && cell is not null ? SpreadsheetCells.Read(cell) : "";
    }

    private static async Task<Results<Ok<FollowThroughView>, ProblemHttpResult>> ReadAsync(
        StoredFollowThrough stored,
        IReadOnlyList<PlanLine> lines,
        PorchDb db,
        Write write,
        FollowThroughPartsLoader parts,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        var (content, findings) = PlanTable.Read(await FollowThroughDraftEndpoints.WorkedOnAsync(db, stored), lines);
        if (findings.Count > 0)
            return Problems.Unprocessable(
                findings.Count == 1
                    ? $"Line {findings[0].Place}: {findings[0].Sentence}"
                    : $"{findings.Count} lines have to be put right first.",
                findings
            );
        stored.Draft = content;
        await write.SaveAsync(cancellationToken);
        return TypedResults.Ok(await FollowThroughDraftEndpoints.ViewAsync(stored, db, parts, clock, cancellationToken));
    }

    private static async Task<PlanTableView> ViewAsync(
        StoredFollowThrough stored,
        PorchDb db,
        FollowThroughPartsLoader loader,
        CancellationToken cancellationToken
    )
    {
        var content = await FollowThroughDraftEndpoints.WorkedOnAsync(db, stored);
        var names = (await loader.LoadAsync(content, stored.Id, cancellationToken)).Names;
        return new PlanTableView(PlanTable.Of(content, names), PlanTable.Unfinished(content).Count);
    }
}
