using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;
using PorchLight.Core.Forms;
using PorchLight.Core.Ready;
using PorchLight.Core.Screening;
using PorchLight.Core.Workbench;
using PorchLight.Server.Calendar;
using PorchLight.Server.Fields;
using PorchLight.Server.Hosting;
using PorchLight.Server.Identity;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Forms;

/// <param name="Number">
/// The number of the screening in force, under which inquiries keep by what they were judged; 0 before there is one.
/// </param>
/// <param name="InForce">Since when it is in force and who put it there, in words; null for the one the form began with.</param>
/// <param name="Rules">The screening that is worked on; the one in force while nobody works on another.</param>
/// <param name="Facts">What whoever edits it has to know beside what it says itself.</param>
/// <param name="Ready">Signals that are ready to be added.</param>
/// <param name="Changes">What would change by putting it into force, a sentence each; empty when nothing would.</param>
internal sealed record ScreeningView(
    int Number,
    string? InForce,
    ScreeningRules Rules,
    ScreeningFacts Facts,
    IReadOnlyList<ReadySignal> Ready,
    IReadOnlyList<string> Changes
);

/// <param name="Seen">The screening as the person saw it who puts it into force.</param>
internal sealed record SeenScreening(ScreeningRules Seen);

/// <summary>How a form sorts: worked on beside the screening in force, and put into force as a whole.</summary>
internal static class ScreeningEndpoints
{
    private const int LongestText = 2_000;

    public static void MapScreening(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/forms/{id}/screening").For(Access.Member).WithTags("Forms");
        group.MapGet("", ShowAsync);
        group.MapPut("", SaveAsync);
        group.MapDelete("", DiscardAsync);
        group.MapPost("/in-force", PutIntoForceAsync);
    }

    private static async Task<Results<Ok<ScreeningView>, ProblemHttpResult>> ShowAsync(
        Id<Form> id,
        PorchDb db,
        FieldCatalogues fields,
        BusinessClock clock,
        CancellationToken cancellationToken
    ) =>
        await db.Forms.FindAsync([id], cancellationToken) is { } form
            ? TypedResults.Ok(await ViewAsync(form, db, fields, clock))
            : Problems.NotFound(ContentEndpoints.Gone);

    /// <summary>
    /// Changes the screening that is worked on, by the same protocol as every other edit. It may be unfinished: it sorts nobody until
    /// it is put into force.
    /// </summary>
    private static async Task<Results<Ok<ScreeningView>, ProblemHttpResult>> SaveAsync(
        Id<Form> id,
        Edit<ScreeningRules> edit,
        PorchDb db,
        FieldCatalogues fields,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        if (
            edit.Now.Signals.Count > 2 * ScreeningRules.MostSignals
            || edit.Now.Signals.Any(signal => signal.Sentence.Length > LongestText || signal.Advice?.Length > LongestText)
        )
            return Problems.Unprocessable("This is more than a screening can hold. Take something away, and it is saved again.");
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.Forms.FindAsync([id], cancellationToken) is not { } form)
            return Problems.NotFound(ContentEndpoints.Gone);
        var (merged, refusal) = edit.Onto(await WorkedOnAsync(form, db));
        if (refusal is not null)
            return refusal;
        form.ScreeningDraft = merged;
        await write.SaveAsync(cancellationToken);
        return TypedResults.Ok(await ViewAsync(form, db, fields, clock));
    }

    /// <summary>Lets go of what is worked on: the screening in force is what is seen again.</summary>
    private static async Task<Results<Ok<ScreeningView>, ProblemHttpResult>> DiscardAsync(
        Id<Form> id,
        PorchDb db,
        FieldCatalogues fields,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.Forms.FindAsync([id], cancellationToken) is not { } form)
            return Problems.NotFound(ContentEndpoints.Gone);
        form.ScreeningDraft = null;
        await write.SaveAsync(cancellationToken);
        return TypedResults.Ok(await ViewAsync(form, db, fields, clock));
    }

    /// <summary>
    /// Puts what is worked on into force as the next screening. Whoever comes from now on is judged by it; past inquiries keep their
    /// verdict. Pressed twice it is in force already.
    /// </summary>
    private static async Task<Results<Ok<ScreeningView>, ProblemHttpResult>> PutIntoForceAsync(
        Id<Form> id,
        SeenScreening request,
        PorchDb db,
        FieldCatalogues fields,
        BusinessClock clock,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.Forms.FindAsync([id], cancellationToken) is not { } form)
            return Problems.NotFound(ContentEndpoints.Gone);
        if (Edits.UnlessSeen(request.Seen, await WorkedOnAsync(form, db)) is { } changedMeanwhile)
            return changedMeanwhile;
        var seen = await ViewAsync(form, db, fields, clock);
        if (seen.Facts.Findings is { Count: > 0 } findings)
            return Problems.Unprocessable(
                findings.Count == 1 ? findings[0].Sentence : $"{findings.Count} things have to be put right first.",
                findings
            );
        if (form.ScreeningDraft is { } draft && (seen.Changes.Count > 0 || form.ScreeningVersion == 0))
        {
            var user = (await db.Users.FindAsync([who.UserId()], cancellationToken))!;
            db.AddScreening(form, draft, (clock.GetCurrentInstant(), user.DisplayName));
        }

        form.ScreeningDraft = null;
        await write.SaveAsync(cancellationToken);
        return TypedResults.Ok(await ViewAsync(form, db, fields, clock));
    }

    /// <summary>The screening somebody works on; the one in force while nobody does.</summary>
    public static async Task<ScreeningRules> WorkedOnAsync(Form form, PorchDb db) => form.ScreeningDraft ?? await InForceAsync(form, db);

    internal static async Task<ScreeningRules> InForceAsync(Form form, PorchDb db) =>
        form.ScreeningVersion == 0 ? ReadyForms.NoScreening : await db.ScreeningRulesAsync(form.Id, form.ScreeningVersion);

    /// <summary>The service a form asks about; the only one a business has, where the form does not say.</summary>
    private static Service? ServiceOf(Form form, BusinessLists lists) =>
        lists.Services.FirstOrDefault(service => service.Key == form.Service) ?? (lists.Services is [var only] ? only : null);

    private static async Task<ScreeningView> ViewAsync(Form form, PorchDb db, FieldCatalogues fields, BusinessClock clock)
    {
        var business = await db.BusinessAsync();
        var (content, catalogue) = (business.Lists.Into(form.Draft), await fields.ReadAsync(db));
        var (rules, inForce) = (await WorkedOnAsync(form, db), await InForceAsync(form, db));
        var version = form.ScreeningVersion == 0 ? null : await db.ScreeningVersions.FindAsync(form.Id, form.ScreeningVersion);
        return new ScreeningView(
            form.ScreeningVersion,
            version is { Since: { } since, By: { } by }
                ? $"{TimeWords.At(since, clock.GetCurrentInstant(), business.DateTimeZone)} by {by}"
                : null,
            rules,
            ScreeningFacts.Of(rules, content, catalogue),
            ReadySignals.For(content, rules, ServiceOf(form, business.Lists)),
            ScreeningDifferences.Say(inForce, rules, content, catalogue)
        );
    }
}
