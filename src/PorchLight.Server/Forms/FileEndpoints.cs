using Microsoft.AspNetCore.Http.HttpResults;
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
    private const string Gone = "There is no file at this address.";

    private static readonly FilesKind OwnFiles = new(1, 100L * 1024 * 1024);

    internal sealed record FileView(Id<StoredFile> Id, string Name, long Bytes, FileGroup Group);

    public static void MapFiles(this IEndpointRouteBuilder api)
    {
        api.MapPost("/files", TakeOwnAsync).Once().Accepts<IFormFile>("*/*").For(Access.Member).WithTags("Files");
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
