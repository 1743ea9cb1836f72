using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Answers;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;
using PorchLight.Core.Forms;
using PorchLight.Core.Records;
using PorchLight.Server.Brand;
using PorchLight.Server.Calendar;
using PorchLight.Server.Fields;
using PorchLight.Server.Forms;
using PorchLight.Server.Hosting;
using PorchLight.Server.Identity;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Clients;

/// <summary>Brings people in from a file of another program: look first, then bring in, and take back if need be.</summary>
internal static class ImportEndpoints
{
    private const string Gone = "This import is not here any more. Please choose the file again.";
    private const int SampleRows = 3;

    /// <param name="Encoding">What its bytes were taken for.</param>
    /// <param name="Columns">The columns of the file; empty once everybody is here.</param>
    /// <param name="Targets">Where a column can go.</param>
    /// <param name="WorkedThrough">How many of the lines were worked through.</param>
    internal sealed record ImportView(
        Id<ClientImport> Id,
        string FileName,
        string Encoding,
        ImportState State,
        string By,
        string At,
        int Lines,
        int WorkedThrough,
        int Made,
        int Filled,
        int LeftOut,
        int Stayed,
        bool Replace,
        IReadOnlyList<ImportColumn> Columns,
        IReadOnlyList<ImportTarget> Targets
    );

    /// <param name="Sample">What stands in its first lines.</param>
    /// <param name="Target">Where it goes; empty for nowhere.</param>
    internal sealed record ImportColumn(string Heading, IReadOnlyList<string> Sample, string Target);

    /// <summary>What would become of the lines of a file.</summary>
    /// <param name="New">How many would be clients.</param>
    /// <param name="Known">How many are here already.</param>
    /// <param name="PerhapsSame">Of the new ones, who is perhaps the same as somebody who is here.</param>
    /// <param name="LeftOut">How many lines nobody can be told from.</param>
    /// <param name="Faults">What could not be taken in, each reason once, the first of them.</param>
    /// <param name="FaultCount">How many cells and lines there are in all.</param>
    /// <param name="MoreFaults">How many reasons more there are than are shown.</param>
    internal sealed record ImportPreview(
        int New,
        int Known,
        IReadOnlyList<PerhapsInFile> PerhapsSame,
        int PerhapsSameCount,
        int LeftOut,
        IReadOnlyList<FaultInFile> Faults,
        int FaultCount,
        int MoreFaults
    );

    internal sealed record PerhapsInFile(int Line, string Name, Id<Client> Client, string ClientName, string Why);

    /// <summary>What cannot be taken in for one reason.</summary>
    /// <param name="Lines">The first lines it stands in.</param>
    /// <param name="Count">In how many lines it stands.</param>
    /// <param name="Column">The heading of the column; null for lines as a whole.</param>
    internal sealed record FaultInFile(IReadOnlyList<int> Lines, int Count, string? Column, string Sentence);

    public static void MapClientImports(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/clients/imports").For(Access.Member).WithTags("Clients");
        group.MapGet("", ListAsync);
        group.MapPut("/{id}", TakeAsync).Accepts<IFormFile>("*/*");
        group.MapGet("/{id}", ShowAsync);
        group.MapPut("/{id}/plan", PlanAsync);
        group.MapGet("/{id}/preview", PreviewAsync);
        api.MapPut("/clients/imports/{id}/columns/{column}/field", AddFieldAsync).For(Access.Owner).WithTags("Clients");
        group.MapPut("/{id}/running", RunAsync);
        group.MapPut("/{id}/taken-back", TakeBackAsync);
    }

    /// <summary>Those that were brought in, the newest first.</summary>
    private static async Task<Ok<List<ImportView>>> ListAsync(
        PorchDb db,
        FieldCatalogues catalogues,
        ImportTables tables,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        var views = new List<ImportView>();
        foreach (
            var import in await db
                .ClientImports.AsNoTracking()
                .Where(import => import.State != ImportState.Looked)
                .OrderByDescending(import => import.At)
                .Take(20)
                .ToListAsync(cancellationToken)
        )
            views.Add(await ViewAsync(import, withColumns: false, db, catalogues, tables, clock));
        return TypedResults.Ok(views);
    }

    /// <summary>Takes a file in and looks at it. Nobody is brought in yet.</summary>
    private static async Task<Results<Ok<ImportView>, ProblemHttpResult>> TakeAsync(
        Id<ClientImport> id,
        string name,
        HttpRequest request,
        PorchDb db,
        FieldCatalogues catalogues,
        ImportTables tables,
        BusinessClock clock,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        request.HttpContext.AllowBody(PeopleFile.Largest);
        using var bytes = new MemoryStream();
        await request.Body.CopyToAsync(bytes, cancellationToken);
        var (table, encoding, fault) = PeopleFile.Read(bytes.GetBuffer().AsSpan(0, (int)bytes.Length));
        if (table is null)
            return Problems.Unprocessable(fault!);
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.ClientImports.FindAsync([id], cancellationToken) is { } there)
            return TypedResults.Ok(await ViewAsync(there, withColumns: true, db, catalogues, tables, clock));
        // Files somebody only looked at are no matter any more.
        await db
            .ClientImports.Where(other => other.State == ImportState.Looked && other.ByUser == who.UserId())
            .ExecuteDeleteAsync(cancellationToken);
        var business = await db.BusinessAsync();
        var import = new ClientImport
        {
            Id = id,
            FileName = FileTypes.SafeName(name),
            Encoding = encoding,
            Plan = new ImportPlan(
                ImportColumns.Propose(table, await catalogues.ReadAsync(db), Context(business, clock), business.Currency),
                Replace: false
            ),
            By = who.DisplayName(),
            ByUser = who.UserId(),
            At = clock.GetCurrentInstant(),
            Lines = table.Rows.Count,
        };
        db.ClientImports.Add(import);
        db.ClientImportFiles.Add(new ClientImportFile { ImportId = id, Table = PeopleFile.Pack(table) });
        await write.SaveAsync(cancellationToken);
        return TypedResults.Ok(await ViewAsync(import, withColumns: true, db, catalogues, tables, clock));
    }

    private static async Task<Results<Ok<ImportView>, ProblemHttpResult>> ShowAsync(
        Id<ClientImport> id,
        PorchDb db,
        FieldCatalogues catalogues,
        ImportTables tables,
        BusinessClock clock,
        CancellationToken cancellationToken
    ) =>
        await db.ClientImports.AsNoTracking().SingleOrDefaultAsync(one => one.Id == id, cancellationToken) is { } import
            ? TypedResults.Ok(await ViewAsync(import, import.State == ImportState.Looked, db, catalogues, tables, clock))
            : Problems.NotFound(Gone);

    /// <summary>Says where each column goes, and what becomes of who is here already.</summary>
    private static async Task<Results<Ok<ImportView>, ProblemHttpResult>> PlanAsync(
        Id<ClientImport> id,
        ImportPlan plan,
        PorchDb db,
        FieldCatalogues catalogues,
        ImportTables tables,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.ClientImports.FindAsync([id], cancellationToken) is not { State: ImportState.Looked } import)
            return Problems.NotFound(Gone);
        var places = ImportColumns.Targets(await catalogues.ReadAsync(db)).Select(place => place.Key).ToHashSet();
        if (plan.Targets.Count != import.Plan.Targets.Count || plan.Targets.Any(target => target.Length > 0 && !places.Contains(target)))
            return Problems.Unprocessable("One of these places is not there any more. Please choose again.");
        import.Plan = plan;
        await write.SaveAsync(cancellationToken);
        return TypedResults.Ok(await ViewAsync(import, withColumns: true, db, catalogues, tables, clock));
    }

    /// <summary>
    /// Makes a field of clients for a column that has no place yet, of the kind its cells tell, and lets the column go there. Pressed twice
    /// it goes there already.
    /// </summary>
    private static async Task<Results<Ok<ImportView>, ProblemHttpResult>> AddFieldAsync(
        Id<ClientImport> id,
        int column,
        PorchDb db,
        FieldCatalogues catalogues,
        ImportTables tables,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.ClientImports.FindAsync([id], cancellationToken) is not { State: ImportState.Looked } import)
            return Problems.NotFound(Gone);
        var (table, fields, business) = (await tables.ReadAsync(db, id), await catalogues.ReadAsync(db), await db.BusinessAsync());
        if (column < 0 || column >= table.Headings.Count)
            return Problems.NotFound("This file has no such column. Please choose the file again.");
        if (import.Plan.Targets[column].Length == 0)
        {
            var cells = table.Rows.Select(row => row[column]).ToList();
            var field = ColumnContents.FieldFor(table.Headings[column], cells, fields, Context(business, clock), business.Currency);
            if (fields.Check(field) is { Count: > 0 } findings)
                return Problems.Unprocessable(findings[0].Sentence, findings);
            import.Plan = import.Plan with { Targets = [.. import.Plan.Targets.Select((target, at) => at == column ? field.Key : target)] };
            await FieldEndpoints.StoreAsync(field, db, write, catalogues, cancellationToken);
        }

        return TypedResults.Ok(await ViewAsync(import, withColumns: true, db, catalogues, tables, clock));
    }

    private static NormaliseContext Context(Business business, BusinessClock clock)
    {
        var now = clock.GetCurrentInstant();
        return new NormaliseContext(business.Region, 0, now, business.Calendar.Today(now));
    }

    private static async Task<Results<Ok<ImportPreview>, ProblemHttpResult>> PreviewAsync(
        Id<ClientImport> id,
        PorchDb db,
        FieldCatalogues catalogues,
        ImportTables tables,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        if (
            await db.ClientImports.AsNoTracking().SingleOrDefaultAsync(one => one.Id == id, cancellationToken)
            is not { State: ImportState.Looked } import
        )
            return Problems.NotFound(Gone);
        var business = await db.BusinessAsync();
        var (table, fields) = (await tables.ReadAsync(db, id), await catalogues.ReadAsync(db));
        var context = Context(business, clock);
        var people = table
            .Rows.Select(cells => ImportedPerson.Read(cells, import.Plan.Targets, fields, context, business.Currency))
            .ToList();
        return TypedResults.Ok(await ImportPreviews.OfAsync(db, table, people, cancellationToken));
    }

    /// <summary>Begins to bring them in; pressed again it changes nothing.</summary>
    private static Task<Results<NoContent, ProblemHttpResult>> RunAsync(
        Id<ClientImport> id,
        PorchDb db,
        CancellationToken cancellationToken
    ) => GoOnAsync(id, ImportState.Looked, ImportState.Running, db, cancellationToken);

    /// <summary>Begins to take a whole import back.</summary>
    private static Task<Results<NoContent, ProblemHttpResult>> TakeBackAsync(
        Id<ClientImport> id,
        PorchDb db,
        CancellationToken cancellationToken
    ) => GoOnAsync(id, ImportState.Done, ImportState.TakingBack, db, cancellationToken);

    private static async Task<Results<NoContent, ProblemHttpResult>> GoOnAsync(
        Id<ClientImport> id,
        ImportState from,
        ImportState to,
        PorchDb db,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.ClientImports.FindAsync([id], cancellationToken) is not { } import)
            return Problems.NotFound(Gone);
        if (import.State == from)
            import.State = to;
        else if (import.State < to)
            return Problems.Conflict("It is still running. Wait until it has finished, then undo it.");
        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
    }

    private static async Task<ImportView> ViewAsync(
        ClientImport import,
        bool withColumns,
        PorchDb db,
        FieldCatalogues catalogues,
        ImportTables tables,
        BusinessClock clock
    )
    {
        var table = withColumns && import.State == ImportState.Looked ? await tables.ReadAsync(db, import.Id) : null;
        return new ImportView(
            import.Id,
            import.FileName,
            import.Encoding,
            import.State,
            import.By,
            TimeWords.At(import.At, clock.GetCurrentInstant(), (await db.BusinessAsync()).DateTimeZone),
            import.Lines,
            import.WorkedThrough,
            import.Made,
            import.Filled,
            import.LeftOut,
            import.Stayed,
            import.Plan.Replace,
            table is null
                ? []
                :
                [
                    .. table.Headings.Select(
                        (heading, column) =>
                            new ImportColumn(
                                heading,
                                [.. table.Rows.Select(row => row[column]).Where(cell => cell.Length > 0).Take(SampleRows)],
                                import.Plan.Targets[column]
                            )
                    ),
                ],
            table is null ? [] : ImportColumns.Targets(await catalogues.ReadAsync(db))
        );
    }
}
