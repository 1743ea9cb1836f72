using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Common;
using PorchLight.Core.Forms;
using PorchLight.Server.Calendar;
using PorchLight.Server.Data;
using PorchLight.Server.Forms;

namespace PorchLight.Server.Inquiries;

/// <summary>What strangers may do beside filling in: send a file along, take it back, look something up.</summary>
internal static class UploadEndpoints
{
    public static void MapUploads(this IEndpointRouteBuilder app)
    {
        var group = app.MapGroup("/public/forms/{token}/{version:int}").RequireRateLimiting(Knocks.AtForms).WithTags("Public");
        group.MapPost("/files", TakeAsync).Accepts<IFormFile>("*/*").RequireRateLimiting(Knocks.AtUploads);
        group.MapDelete("/files/{id}", TakeBackAsync);
        group.MapGet("/look-up", LookUpAsync);
    }

    /// <summary>Takes a file in for one question of one filling-in. It is kept for good when the form is sent.</summary>
    private static async Task<Results<Ok<FileRef>, ProblemHttpResult>> TakeAsync(
        string token, int version, Guid filling, string question, string name, [FromHeader(Name = DoorDesk.PassHeader)] string? pass, HttpRequest request,
        PorchDb db, DoorDesk doors, FileRoom room, FillingDesk desk, StrangersBudget budget, TimeProvider time, CancellationToken stop)
    {
        var (found, refusal) = await FindAsync(desk, doors, token, version, pass);
        if (found is null)
            return refusal!;
        if (found.Content.FindQuestion(question)?.Kind is not FilesKind kind)
            return Problems.Unprocessable("This question takes no files. Please reload the page; your answers stay in this browser.");
        if (await desk.Unsent(found, filling).CountAsync(file => file.Question == question, stop) >= kind.AtMost)
            return Problems.Unprocessable(kind.AtMost == 1 ? "Only one file fits here. Take the other one away first." : $"At most {kind.AtMost} files fit here. Take one away first.");
        if (request.ContentLength > kind.MaxBytes)
            return Problems.Unprocessable($"“{FileTypes.SafeName(name)}” is larger than {AnswerLimits.SayBytes(kind.MaxBytes)}. Please send a smaller copy.");
        if (budget.Take(request.HttpContext, found.FormId.Value, request.ContentLength ?? kind.MaxBytes) is { } full)
            return Problems.Unprocessable(full);
        request.HttpContext.AllowBody(kind.MaxBytes);
        var (taken, why) = await room.TakeAsync(request.Body, name, kind, stop);
        if (taken is null)
            return Problems.Unprocessable(why!);
        var file = await db.KeepAsync(room, taken, StoredFile.Sent(taken, time.Now(), found.FormId, question, filling), stop);
        return TypedResults.Ok(file.Ref);
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> TakeBackAsync(
        string token, int version, Guid filling, Guid id, [FromHeader(Name = DoorDesk.PassHeader)] string? pass, PorchDb db, DoorDesk doors, FileRoom room, FillingDesk desk, CancellationToken stop)
    {
        var (found, refusal) = await FindAsync(desk, doors, token, version, pass);
        if (found is null)
            return refusal!;
        var file = new Id<StoredFile>(id);
        if (await desk.Unsent(found, filling).SingleOrDefaultAsync(one => one.Id == file, stop) is { } unsent)
        {
            db.StoredFiles.Remove(unsent);
            await db.SaveChangesAsync(stop);
            room.Delete(unsent.StoredAs);
        }

        return TypedResults.NoContent();
    }

    private static async Task<Results<Ok<List<ListEndpoints.FoundLine>>, ProblemHttpResult>> LookUpAsync(
        string token, int version, string question, string typed, [FromHeader(Name = DoorDesk.PassHeader)] string? pass, PorchDb db, DoorDesk doors, FillingDesk desk, CancellationToken stop)
    {
        var (found, refusal) = await FindAsync(desk, doors, token, version, pass);
        if (found is null)
            return refusal!;
        return found.Content.FindQuestion(question)?.Kind is LookUpKind kind
            ? TypedResults.Ok(await ListEndpoints.FindAsync(db, kind, typed.Length > 100 ? typed[..100] : typed, stop))
            : Problems.Unprocessable("This question has no list. Please reload the page; your answers stay in this browser.");
    }

    private static async Task<(FormVersion? Version, ProblemHttpResult? Refusal)> FindAsync(FillingDesk desk, DoorDesk doors, string token, int version, string? pass) =>
        await doors.EnterAsync(token, pass, lightToo: true) is var (door, refusal) && door is null ? (null, refusal)
        : await desk.VersionAsync(door, version) is { } found ? (found, null)
        : (null, Problems.Unprocessable(PublicEndpoints.FormChanged));
}
