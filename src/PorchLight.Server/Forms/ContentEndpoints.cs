using Microsoft.AspNetCore.Http.HttpResults;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;
using PorchLight.Core.Forms;
using PorchLight.Core.Workbench;
using PorchLight.Server.Calendar;
using PorchLight.Server.Fields;
using PorchLight.Server.Hosting;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Forms;

/// <summary>A form as a whole: everything it says and asks.</summary>
internal static class ContentEndpoints
{
    internal const string Gone = "This form is not here any more.";

    /// <param name="Revision">The revision of the working copy this is.</param>
    /// <param name="Saved">When it was saved last, in words.</param>
    /// <param name="Content">Everything the form says and asks.</param>
    /// <param name="Facts">What whoever builds it has to know beside that.</param>
    internal sealed record WorkingCopy(int Revision, string Saved, FormContent Content, FormFacts Facts);

    public static void MapFormContent(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/forms/{id}/content").For(Access.Member).WithTags("Forms");
        group.MapGet("", ShowAsync);
        group.MapPut("", SaveAsync);
    }

    private static async Task<Results<Ok<WorkingCopy>, ProblemHttpResult>> ShowAsync(
        Id<Form> id,
        PorchDb db,
        FieldCatalogues fields,
        BusinessClock clock,
        CancellationToken cancellationToken
    ) =>
        await db.Forms.FindAsync([id], cancellationToken) is { } form
            ? TypedResults.Ok(await ViewAsync(form, db, fields, clock))
            : Problems.NotFound(Gone);

    /// <summary>
    /// Changes the working copy, by the same protocol as every other edit: what others changed meanwhile stays, and what both
    /// changed is for a person to choose. It may be unfinished; leads see it when it is published.
    /// </summary>
    private static async Task<Results<Ok<WorkingCopy>, ProblemHttpResult>> SaveAsync(
        Id<Form> id,
        Edit<FormContent> edit,
        PorchDb db,
        FieldCatalogues fields,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.Forms.FindAsync([id], cancellationToken) is not { } form)
            return Problems.NotFound(Gone);
        var (merged, refusal) = edit.Onto(form.Draft, FormMerge.ThreeWay);
        if (refusal is not null)
            return refusal;
        form.Draft = merged;
        form.DraftRevision++;
        form.DraftSaved = clock.GetCurrentInstant();
        await write.SaveAsync(cancellationToken);
        return TypedResults.Ok(await ViewAsync(form, db, fields, clock));
    }

    private static async Task<WorkingCopy> ViewAsync(Form form, PorchDb db, FieldCatalogues fields, BusinessClock clock)
    {
        var business = await db.BusinessAsync();
        var rules = form.ScreeningVersion == 0 ? null : await db.ScreeningRulesAsync(form.Id, form.ScreeningVersion);
        return new WorkingCopy(
            form.DraftRevision,
            TimeWords.At(form.DraftSaved, clock.GetCurrentInstant(), business.DateTimeZone),
            form.Draft,
            FormFacts.Of(business.Lists.Into(form.Draft), rules, business.Look, await fields.ReadAsync(db))
        );
    }
}
