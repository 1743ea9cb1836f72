using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Forms;
using PorchLight.Server.Calendar;
using PorchLight.Server.Forms;
using PorchLight.Server.Hosting;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Inquiries;

/// <summary>What strangers may do beside filling in: send a file along, take it back, look something up.</summary>
internal static class UploadEndpoints
{
    public static void MapUploads(this IEndpointRouteBuilder app)
    {
        var group = app.MapGroup("/public/forms/{token}/{version:int}")
            .For(Access.Public)
            .RequireRateLimiting(RateLimits.PublicForms)
            .WithTags("Public");
        group.MapPost("/files", TakeAsync).Accepts<IFormFile>("*/*").RequireRateLimiting(RateLimits.Uploads);
        group.MapDelete("/files/{id}", TakeBackAsync);
        group.MapGet("/look-up", LookUpAsync);
    }

    /// <summary>Takes a file in for one question of one filling-in. It is kept for good when the form is sent.</summary>
    private static async Task<Results<Ok<FileRef>, ProblemHttpResult>> TakeAsync(
        string token,
        int version,
        Guid filling,
        string question,
        string name,
        [FromHeader(Name = FormAccess.PassHeader)] string? pass,
        HttpRequest request,
        PorchDb db,
        FormAccess access,
        FileStore store,
        AnswerContextLoader loader,
        StorageQuota storageQuota,
        TimeProvider time,
        CancellationToken cancellationToken
    )
    {
        var (found, refusal) = await FindAsync(loader, access, token, version, pass);
        if (found is null)
            return refusal!;
        if (found.Content.FindQuestion(question)?.Kind is not FilesKind kind)
            return Problems.Unprocessable("This question takes no files. Please reload the page; your answers stay in this browser.");
        if (await loader.Unsent(found, filling).CountAsync(file => file.Question == question, cancellationToken) >= kind.AtMost)
            return Problems.Unprocessable(
                kind.AtMost == 1
                    ? "Only one file fits here. Take the other one away first."
                    : $"At most {kind.AtMost} files fit here. Take one away first."
            );
        if (request.ContentLength > kind.MaxBytes)
            return Problems.Unprocessable(
                $"“{FileTypes.SafeName(name)}” is larger than {FileSize.Say(kind.MaxBytes)}. Please send a smaller copy."
            );
        if (storageQuota.Take(request.HttpContext, found.FormId.Value, request.ContentLength ?? kind.MaxBytes) is { } full)
            return Problems.Unprocessable(full);
        request.HttpContext.AllowBody(kind.MaxBytes);
        var (taken, why) = await store.TakeAsync(request.Body, name, kind, cancellationToken);
        if (taken is null)
            return Problems.Unprocessable(why!);
        var file = await db.KeepAsync(store, taken, StoredFile.Sent(taken, time.Now(), found.FormId, question, filling), cancellationToken);
        return TypedResults.Ok(file.Ref);
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> TakeBackAsync(
        string token,
        int version,
        Guid filling,
        Guid id,
        [FromHeader(Name = FormAccess.PassHeader)] string? pass,
        PorchDb db,
        FormAccess access,
        FileStore store,
        AnswerContextLoader loader,
        CancellationToken cancellationToken
    )
    {
        var (found, refusal) = await FindAsync(loader, access, token, version, pass);
        if (found is null)
            return refusal!;
        var file = new Id<StoredFile>(id);
        await using var write = await db.WriteAsync(cancellationToken);
        if (await loader.Unsent(found, filling).SingleOrDefaultAsync(one => one.Id == file, cancellationToken) is { } unsent)
        {
            db.StoredFiles.Remove(unsent);
            await write.SaveAsync(cancellationToken);
            store.Delete(unsent.StoredAs);
        }

        return TypedResults.NoContent();
    }

    private static async Task<Results<Ok<List<LookUpListEndpoints.FoundLine>>, ProblemHttpResult>> LookUpAsync(
        string token,
        int version,
        string question,
        string typed,
        [FromHeader(Name = FormAccess.PassHeader)] string? pass,
        PorchDb db,
        FormAccess access,
        AnswerContextLoader loader,
        CancellationToken cancellationToken
    )
    {
        var (found, refusal) = await FindAsync(loader, access, token, version, pass);
        if (found is null)
            return refusal!;
        return found.Content.FindQuestion(question)?.Kind is LookUpKind kind
            ? TypedResults.Ok(await LookUpListEndpoints.FindAsync(db, kind, typed.Length > 100 ? typed[..100] : typed, cancellationToken))
            : Problems.Unprocessable("This question has no list. Please reload the page; your answers stay in this browser.");
    }

    private static async Task<(FormVersion? Version, ProblemHttpResult? Refusal)> FindAsync(
        AnswerContextLoader loader,
        FormAccess access,
        string token,
        int version,
        string? pass
    ) =>
        await access.EnterAsync(token, pass, lightToo: true) is var (target, refusal) && target is null ? (null, refusal)
        : await loader.VersionAsync(target, version) is { } found ? (found, null)
        : (null, Problems.Unprocessable(PublicEndpoints.FormChanged));
}
