using Microsoft.AspNetCore.Http.HttpResults;
using PorchLight.Core.Common;
using PorchLight.Core.Screening;
using PorchLight.Server.Hosting;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Forms;

/// <param name="Number">Under which inquiries keep by what they were judged.</param>
/// <param name="Rules">Signals, thresholds and where points start.</param>
internal sealed record ScreeningView(int Number, ScreeningRules Rules);

/// <summary>How a form sorts.</summary>
internal static class ScreeningEndpoints
{
    public static void MapScreening(this IEndpointRouteBuilder api) =>
        api.MapGet("/forms/{id}/screening", ShowAsync).For(Access.Member).WithTags("Forms");

    /// <summary>The screening in force.</summary>
    private static async Task<Results<Ok<ScreeningView>, ProblemHttpResult>> ShowAsync(
        Id<Form> id,
        PorchDb db,
        CancellationToken cancellationToken
    ) =>
        await db.Forms.FindAsync([id], cancellationToken) is { } form
            ? TypedResults.Ok(new ScreeningView(form.ScreeningVersion, await db.ScreeningRulesAsync(form.Id, form.ScreeningVersion)))
            : Problems.NotFound(ContentEndpoints.Gone);
}
