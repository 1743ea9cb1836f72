using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;
using PorchLight.Core.Forms;
using PorchLight.Core.Workbench;
using PorchLight.Server.Calendar;
using PorchLight.Server.Hosting;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Forms;

/// <param name="Number">Its number.</param>
/// <param name="Published">When it was published and by whom, in words.</param>
/// <param name="Answers">How many people sent it.</param>
internal sealed record VersionView(int Number, string Published, int Answers);

/// <param name="Revision">The revision of the working copy that is to be replaced, as it was seen.</param>
internal sealed record SeenDraft(int Revision);

/// <summary>What was published of a form, what changed, and the way back.</summary>
internal static class VersionEndpoints
{
    public static void MapVersions(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/forms/{id}").For(Access.Member).WithTags("Forms");
        group.MapGet("/versions", ListVersionsAsync);
        group.MapGet("/versions/{number:int}", ShowVersionAsync);
        group.MapPost("/versions/{number:int}/bring-back", BringBackAsync);
        group.MapGet("/differences", CompareAsync);
    }

    /// <summary>All versions of a form, the newest first.</summary>
    private static async Task<Results<Ok<IReadOnlyList<VersionView>>, ProblemHttpResult>> ListVersionsAsync(
        Id<Form> id,
        PorchDb db,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        if (await db.Forms.FindAsync([id], cancellationToken) is null)
            return Problems.NotFound(ContentEndpoints.Gone);
        var (now, zone) = (clock.GetCurrentInstant(), (await db.BusinessAsync()).DateTimeZone);
        var answers = await db
            .CountingSubmissions.Where(sent => sent.FormId == id)
            .GroupBy(sent => sent.FormVersion)
            .ToDictionaryAsync(sent => sent.Key, sent => sent.Count(), cancellationToken);
        var versions = await db
            .FormVersions.Where(version => version.FormId == id)
            .OrderByDescending(version => version.Number)
            .Select(version => new
            {
                version.Number,
                version.Published,
                version.PublishedBy,
            })
            .ToListAsync(cancellationToken);
        return TypedResults.Ok<IReadOnlyList<VersionView>>([
            .. versions.Select(version => new VersionView(
                version.Number,
                $"{TimeWords.At(version.Published, now, zone)} by {version.PublishedBy}",
                answers.GetValueOrDefault(version.Number)
            )),
        ]);
    }

    /// <summary>A version as it was published.</summary>
    private static async Task<Results<Ok<FormContent>, ProblemHttpResult>> ShowVersionAsync(
        Id<Form> id,
        int number,
        PorchDb db,
        CancellationToken cancellationToken
    ) =>
        await ContentAsync(db, id, number == 0 ? -1 : number, cancellationToken) is { } content
            ? TypedResults.Ok(content)
            : Problems.NotFound(NoSuchVersion);

    /// <summary>Makes a version the working copy. What was in it and not published is gone; answers stay with their versions.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> BringBackAsync(
        Id<Form> id,
        int number,
        SeenDraft seen,
        PorchDb db,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.Forms.FindAsync([id], cancellationToken) is not { } form)
            return Problems.NotFound(ContentEndpoints.Gone);
        if (await db.FormVersionAsync(id, number) is not { Content: var published })
            return Problems.NotFound(NoSuchVersion);
        var content = (await db.BusinessAsync()).Lists.OutOf(published);
        // Pressed twice it is there already.
        if (FormDifferences.Between(form.Draft, content).Count == 0)
            return TypedResults.NoContent();
        if (form.DraftRevision != seen.Revision)
            return Problems.Conflict(
                "The working copy was changed in another window. Look at what changed, and bring the version back if you still want it."
            );
        form.Draft = content;
        form.DraftRevision++;
        form.DraftSaved = clock.GetCurrentInstant();
        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
    }

    /// <summary>What changed between two versions, in words.</summary>
    /// <param name="from">The number of the older one; 0 for the working copy.</param>
    /// <param name="to">The number of the newer one; 0 for the working copy.</param>
    private static async Task<Results<Ok<IReadOnlyList<FormDifference>>, ProblemHttpResult>> CompareAsync(
        Id<Form> id,
        int from,
        int to,
        PorchDb db,
        CancellationToken cancellationToken
    ) =>
        await ContentAsync(db, id, from, cancellationToken) is { } older && await ContentAsync(db, id, to, cancellationToken) is { } newer
            ? TypedResults.Ok(FormDifferences.Between(older, newer))
            : Problems.NotFound(NoSuchVersion);

    private const string NoSuchVersion = "There is no such version of this form.";

    // A working copy is looked at with the business's lists in it, as it would be published.
    private static async Task<FormContent?> ContentAsync(PorchDb db, Id<Form> id, int number, CancellationToken cancellationToken) =>
        number != 0 ? (await db.FormVersionAsync(id, number))?.Content
        : await db.Forms.FindAsync([id], cancellationToken) is { } form ? (await db.BusinessAsync()).Lists.Into(form.Draft.Tidy())
        : null;
}
