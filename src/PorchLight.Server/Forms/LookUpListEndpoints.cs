using System.Data.Common;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Storage;
using PorchLight.Core.Common;
using PorchLight.Core.Forms;
using PorchLight.Server.Hosting;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Forms;

/// <summary>The lists the business keeps, and looking something up in them.</summary>
internal static class LookUpListEndpoints
{
    private const long LargestCsv = 30L * 1024 * 1024;
    private const int MostFound = 20;
    private const string NameNeeded = "Please give the list a name of at most 80 characters.";
    private const string Gone = "This list is not here any more.";

    /// <param name="UsedIn">The titles of the forms that look something up in it.</param>
    internal sealed record LookUpListView(
        Id<LookUpList> Id,
        string Name,
        IReadOnlyList<string> Columns,
        int Lines,
        IReadOnlyList<string> UsedIn
    );

    /// <param name="Key">Names the line.</param>
    /// <param name="Columns">The shown columns, in order.</param>
    internal sealed record FoundLine(string Key, IReadOnlyList<string> Columns);

    public static void MapLookUpLists(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/lists").For(Access.Member).WithTags("Lists");
        group.MapGet("", ListAsync);
        group.MapPut("/{id}", SaveAsync).Accepts<IFormFile>("text/csv");
        group.MapPut("/{id}/name", RenameAsync);
        group.MapDelete("/{id}", DeleteAsync);
    }

    private static async Task<Ok<List<LookUpListView>>> ListAsync(PorchDb db, CancellationToken cancellationToken)
    {
        var used = await UsedInForms.TitlesAsync(db, cancellationToken);
        var lists = await db.LookUpLists.AsNoTracking().OrderBy(list => list.Name).ToListAsync(cancellationToken);
        return TypedResults.Ok(lists.ConvertAll(list => View(list, used)));
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> RenameAsync(
        Id<LookUpList> id,
        FileEndpoints.NewName name,
        PorchDb db,
        CancellationToken cancellationToken
    )
    {
        if (Called(name.Name) is not { } called)
            return Problems.Unprocessable(NameNeeded);
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.LookUpLists.FindAsync([id], cancellationToken) is not { } list)
            return Problems.NotFound(Gone);
        list.Name = called;
        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> DeleteAsync(
        Id<LookUpList> id,
        PorchDb db,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.LookUpLists.FindAsync([id], cancellationToken) is not { } list)
            return Problems.NotFound(Gone);
        if ((await UsedInForms.TitlesAsync(db, cancellationToken))[id.Value].FirstOrDefault() is { } title)
            return Problems.Unprocessable($"“{title}” looks something up in it, so it stays.");
        db.LookUpLists.Remove(list);
        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
    }

    private static string? Called(string name) => name.Trim() is { Length: > 0 and <= 80 } called ? called : null;

    /// <summary>Makes a list from a CSV file, or takes a new one in the place of what it held.</summary>
    private static async Task<Results<Ok<LookUpListView>, ProblemHttpResult>> SaveAsync(
        Id<LookUpList> id,
        string name,
        HttpRequest request,
        PorchDb db,
        CancellationToken cancellationToken
    )
    {
        if (Called(name) is not { } called)
            return Problems.Unprocessable(NameNeeded);
        request.HttpContext.AllowBody(LargestCsv);
        var (columns, lines, refusal) = await ListCsv.ReadAsync(request.Body, id, cancellationToken);
        if (refusal is not null)
            return Problems.Unprocessable(refusal);
        await using var write = await db.WriteAsync(cancellationToken);
        var list =
            await db.LookUpLists.FindAsync([id], cancellationToken)
            ?? db.LookUpLists.Add(
                new LookUpList
                {
                    Id = id,
                    Name = called,
                    Columns = columns,
                    Lines = lines.Count,
                }
            ).Entity;
        (list.Name, list.Columns, list.Lines) = (called, columns, lines.Count);
        await db.LookUpLines.Where(line => line.ListId == id).ExecuteDeleteAsync(cancellationToken);
        await db.SaveChangesAsync(cancellationToken);
        await InsertAsync(db, lines, cancellationToken);
        await write.SaveAsync(cancellationToken);
        return TypedResults.Ok(View(list, await UsedInForms.TitlesAsync(db, cancellationToken)));
    }

    // Fifty thousand lines are more than a change tracker is made for.
    private static async Task InsertAsync(PorchDb db, List<LookUpLine> lines, CancellationToken cancellationToken)
    {
        await using var insert = db.Database.GetDbConnection().CreateCommand();
        insert.Transaction = db.Database.CurrentTransaction!.GetDbTransaction();
        insert.CommandText =
            """INSERT INTO "LookUpLines" ("ListId", "Key", "Position", "Cells", "Folded") VALUES ($list, $key, $position, $cells, $folded)""";
        var (list, key, position, cells, folded) = (Add("$list"), Add("$key"), Add("$position"), Add("$cells"), Add("$folded"));
        foreach (var line in lines)
        {
            (list.Value, key.Value, position.Value, cells.Value, folded.Value) = (
                line.ListId.Value,
                line.Key,
                line.Position,
                StoredJson.Write(line.Cells),
                line.Folded
            );
            await insert.ExecuteNonQueryAsync(cancellationToken);
        }

        DbParameter Add(string name)
        {
            var value = insert.CreateParameter();
            value.ParameterName = name;
            insert.Parameters.Add(value);
            return value;
        }
    }

    /// <summary>The lines in which every typed word stands somewhere; those that begin with the first word come first.</summary>
    public static async Task<List<FoundLine>> FindAsync(PorchDb db, LookUpKind kind, string typed, CancellationToken cancellationToken)
    {
        if (await db.LookUpLists.FindAsync([new Id<LookUpList>(kind.List)], cancellationToken) is not { } list)
            return [];
        var words = LookUpLine.Fold(typed).Split(' ', StringSplitOptions.RemoveEmptyEntries).Take(8).ToList();
        if (words.Count == 0)
            return [];
        var first = words[0];
        var lines = words.Aggregate(
            db.LookUpLines.AsNoTracking().Where(line => line.ListId == list.Id),
            (found, word) => found.Where(line => line.Folded.Contains(word))
        );
        var found = await lines
            .OrderBy(line => line.Folded.StartsWith(first) ? 0 : 1)
            .ThenBy(line => line.Position)
            .Take(MostFound)
            .ToListAsync(cancellationToken);
        return [.. found.Select(line => new FoundLine(line.Key, Shown(kind, list.Columns, line.Cells)))];
    }

    /// <summary>The shown columns of the lines, by list and line.</summary>
    public static async Task<Dictionary<(Guid, string), IReadOnlyList<string>>> LinesAsync(
        PorchDb db,
        IEnumerable<(LookUpKind Kind, string Key)> wanted,
        CancellationToken cancellationToken
    )
    {
        var lines = new Dictionary<(Guid, string), IReadOnlyList<string>>();
        foreach (var (kind, key) in wanted)
        {
            var id = new Id<LookUpList>(kind.List);
            if (
                await db.LookUpLists.FindAsync([id], cancellationToken) is { } list
                && await db.LookUpLines.FindAsync([id, key], cancellationToken) is { } line
            )
                lines[(kind.List, key)] = Shown(kind, list.Columns, line.Cells);
        }

        return lines;
    }

    private static List<string> Shown(LookUpKind kind, Cells columns, Cells cells) =>
        [
            .. kind
                .Show.Select(name => columns.Texts.ToList().FindIndex(column => column == name))
                .Where(index => index >= 0)
                .Select(index => cells.Texts[index]),
        ];

    private static LookUpListView View(LookUpList list, ILookup<Guid, string> used) =>
        new(list.Id, list.Name, list.Columns.Texts, list.Lines, [.. used[list.Id.Value]]);
}
