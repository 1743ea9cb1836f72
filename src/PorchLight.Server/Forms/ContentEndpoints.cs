using Microsoft.AspNetCore.Http.HttpResults;
using PorchLight.Core.Common;
using PorchLight.Core.Forms;
using PorchLight.Server.Calendar;
using PorchLight.Server.Data;

namespace PorchLight.Server.Forms;

/// <summary>A form as a whole: everything it says and asks.</summary>
internal static class ContentEndpoints
{
    private const string Gone = "This form is not here any more.";

    /// <param name="Revision">The revision of the working copy this is, or starts from.</param>
    /// <param name="Content">Everything the form says and asks.</param>
    internal sealed record WholeForm(int Revision, FormContent Content);

    /// <param name="Revision">The revision as it is now.</param>
    /// <param name="Findings">What still keeps it from being published.</param>
    internal sealed record SavedForm(int Revision, IReadOnlyList<Finding> Findings);

    public static void MapFormContent(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/forms/{id}/content").WithTags("Forms");
        group.MapGet("", async Task<Results<Ok<WholeForm>, ProblemHttpResult>> (Id<Form> id, PorchDb db, CancellationToken stop) =>
            await db.Forms.FindAsync([id], stop) is { } form ? TypedResults.Ok(new WholeForm(form.DraftRevision, form.Draft)) : Problems.NotFound(Gone));
        group.MapPut("", SaveAsync);
        // A form is an open format with a schema of its own; the contract of the screens does not repeat it.
        group.ExcludeFromDescription();
    }

    /// <summary>
    /// Replaces the working copy. It may be unfinished, but nothing that was saved meanwhile is overwritten; leads see it
    /// when it is published.
    /// </summary>
    private static async Task<Results<Ok<SavedForm>, ProblemHttpResult>> SaveAsync(
        Id<Form> id, WholeForm whole, PorchDb db, BusinessClock clock, CancellationToken stop)
    {
        await using var transaction = await db.BeginWriteAsync(stop);
        if (await db.Forms.FindAsync([id], stop) is not { } form)
            return Problems.NotFound(Gone);
        if (form.DraftRevision != whole.Revision)
            return Problems.Conflict("Somebody saved this form meanwhile. Load it again and put your changes into what is there now.");
        form.Draft = whole.Content;
        form.DraftRevision++;
        form.DraftSaved = clock.GetCurrentInstant();
        await db.SaveChangesAsync(stop);
        await transaction.CommitAsync(stop);
        return TypedResults.Ok(new SavedForm(form.DraftRevision, FormStructure.Check(form.Draft)));
    }
}
