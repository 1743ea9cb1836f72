using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Forms;
using PorchLight.Server.Calendar;
using PorchLight.Server.Hosting;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Forms;

/// <summary>Files: the business's own, which forms show, and what leads sent.</summary>
internal static class FileEndpoints
{
    private const int LongestName = 120;
    private const string Gone = "There is no file at this address.";

    private static readonly FilesKind OwnFiles = new(1, 100L * 1024 * 1024);

    internal sealed record FileView(Id<StoredFile> Id, string Name, long Bytes, FileGroup Group);

    /// <param name="UsedIn">Where it is used: titles of forms, "your welcome", messages.</param>
    internal sealed record OwnFileView(Id<StoredFile> Id, string Name, long Bytes, FileGroup Group, IReadOnlyList<string> UsedIn);

    /// <param name="Name">What a file or a list is called from now on.</param>
    internal sealed record NewName(string Name);

    /// <param name="By">The file that takes its place.</param>
    internal sealed record Replacement(Id<StoredFile> By);

    public static void MapFiles(this IEndpointRouteBuilder api)
    {
        api.MapPost("/files", TakeOwnAsync).Once().Accepts<IFormFile>("*/*").For(Access.Member).WithTags("Files");
        var files = api.MapGroup("/files").For(Access.Member).WithTags("Files");
        files.MapGet("", ListAsync);
        files.MapPut("/{id}/name", RenameAsync);
        files.MapPut("/{id}/replacement", ReplaceAsync);
        files.MapDelete("/{id}", DeleteAsync);
        api.MapGet("/files/{id}", SendAsync).For(Access.Member).WithTags("Files").ExcludeFromDescription();
    }

    /// <summary>The business's own files, for the pages that show them. What leads sent is never among them.</summary>
    public static void MapShownFiles(this IEndpointRouteBuilder app) =>
        app.MapGet(
                "/public/files/{id}",
                async Task<IResult> (
                    Id<StoredFile> id,
                    PorchDb db,
                    FileStore store,
                    HttpResponse response,
                    CancellationToken cancellationToken
                ) =>
                {
                    if (await db.StoredFiles.FindAsync([id], cancellationToken) is not { SendKey: null } file)
                        return Problems.NotFound(Gone);
                    Sandbox(response);
                    response.Headers.CacheControl = "public, max-age=31536000, immutable";
                    return TypedResults.PhysicalFile(
                        store.PathOf(file),
                        file.ContentType,
                        file.Group is FileGroup.Picture or FileGroup.Film ? null : file.Name,
                        enableRangeProcessing: true
                    );
                }
            )
            .For(Access.Public)
            .RequireRateLimiting(RateLimits.PublicForms)
            .ExcludeFromDescription();

    private static async Task<Results<Ok<FileView>, ProblemHttpResult>> TakeOwnAsync(
        string name,
        HttpRequest request,
        PorchDb db,
        FileStore store,
        TimeProvider time,
        CancellationToken cancellationToken
    )
    {
        request.HttpContext.AllowBody(OwnFiles.MaxBytes);
        var (taken, refusal) = await store.TakeAsync(request.Body, name, OwnFiles, cancellationToken);
        if (taken is null)
            return Problems.Unprocessable(refusal!);
        var file = await db.KeepAsync(store, taken, StoredFile.Own(taken, time.Now()), cancellationToken);
        return TypedResults.Ok(new FileView(file.Id, file.Name, file.Bytes, file.Group));
    }

    /// <summary>The business's own files, the newest first.</summary>
    private static async Task<Ok<List<OwnFileView>>> ListAsync(PorchDb db, IEnumerable<IFileUse> uses, CancellationToken cancellationToken)
    {
        var used = await UsedAsync(db, uses, cancellationToken);
        var files = await db.StoredFiles.AsNoTracking().Where(file => file.SendKey == null).ToListAsync(cancellationToken);
        return TypedResults.Ok(
            files
                .OrderByDescending(file => file.At)
                .Select(file => new OwnFileView(file.Id, file.Name, file.Bytes, file.Group, [.. used[file.Id.Value]]))
                .ToList()
        );
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> RenameAsync(
        Id<StoredFile> id,
        NewName name,
        PorchDb db,
        CancellationToken cancellationToken
    )
    {
        if (KnownValues.OneLine(name.Name) is not { Length: > 0 and <= LongestName } called)
            return Problems.Unprocessable($"Please give the file a name of at most {LongestName} characters.");
        await using var write = await db.WriteAsync(cancellationToken);
        if (await FindOwnAsync(db, id, cancellationToken) is not { } file)
            return Problems.NotFound(Gone);
        file.Name = called;
        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
    }

    /// <summary>
    /// Puts another file in the place of one in every working copy. What is published keeps what it showed, until it is published again.
    /// </summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> ReplaceAsync(
        Id<StoredFile> id,
        Replacement replacement,
        PorchDb db,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (
            await FindOwnAsync(db, id, cancellationToken) is not { } file
            || await FindOwnAsync(db, replacement.By, cancellationToken) is not { } by
        )
            return Problems.NotFound(Gone);
        if (file.Group != by.Group)
            return Problems.Unprocessable("Only a file of the same sort can take its place: a picture for a picture.");
        foreach (var form in await db.Forms.ToListAsync(cancellationToken))
        {
            var replaced = UsedInForms.Replaced(form.Draft, id.Value, by.Id.Value);
            if (ReferenceEquals(replaced, form.Draft))
                continue;
            (form.Draft, form.DraftSaved) = (replaced, clock.GetCurrentInstant());
            form.DraftRevision++;
        }

        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> DeleteAsync(
        Id<StoredFile> id,
        PorchDb db,
        FileStore store,
        IEnumerable<IFileUse> uses,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await FindOwnAsync(db, id, cancellationToken) is not { } file)
            return Problems.NotFound(Gone);
        if ((await UsedAsync(db, uses, cancellationToken))[id.Value].FirstOrDefault() is { } place)
            return Problems.Unprocessable($"It is used in {place}, so it stays.");
        db.StoredFiles.Remove(file);
        await write.SaveAsync(cancellationToken);
        store.Delete(file.StoredAs);
        return TypedResults.NoContent();
    }

    private static async Task<StoredFile?> FindOwnAsync(PorchDb db, Id<StoredFile> id, CancellationToken cancellationToken) =>
        await db.StoredFiles.FindAsync([id], cancellationToken) is { SendKey: null } file ? file : null;

    internal static async Task<ILookup<Guid, string>> UsedAsync(PorchDb db, IEnumerable<IFileUse> uses, CancellationToken cancellationToken)
    {
        var elsewhere = new List<(Guid File, string Where)>();
        foreach (var use in uses)
            elsewhere.AddRange(await use.UsesAsync(cancellationToken));
        var forms = await UsedInForms.TitlesAsync(db, cancellationToken);
        var photo = (await db.BusinessAsync()).OwnerPhoto;
        return forms
            .SelectMany(titles => titles.Select(title => (titles.Key, Title: $"“{title}”")))
            .Concat(photo is { } id ? [(id, "your welcome")] : [])
            .Concat(elsewhere)
            .ToLookup(one => one.Item1, one => one.Item2);
    }

    /// <summary>Always as something to save, never as something to look at: a stranger made it.</summary>
    private static async Task<IResult> SendAsync(
        Id<StoredFile> id,
        PorchDb db,
        FileStore store,
        HttpResponse response,
        CancellationToken cancellationToken
    )
    {
        if (await db.StoredFiles.FindAsync([id], cancellationToken) is not { } file)
            return Problems.NotFound(Gone);
        Sandbox(response);
        return TypedResults.PhysicalFile(store.PathOf(file), file.ContentType, file.Name);
    }

    private static void Sandbox(HttpResponse response) => response.Headers.ContentSecurityPolicy = "default-src 'none'; sandbox";
}
