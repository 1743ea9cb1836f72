using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Common;
using PorchLight.Server.Calendar;
using PorchLight.Server.Hosting;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Storage;

namespace PorchLight.Server.FollowThrough;

/// <summary>What the people of the business do with a run.</summary>
internal static class RunEndpoints
{
    public static void MapRuns(this IEndpointRouteBuilder api) =>
        api.MapPost("/inquiries/{id}/stop", StopAsync).For(Access.Member).WithTags("Inquiries");

    /// <summary>Stops what is still to come of the follow-through of an inquiry.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> StopAsync(
        Id<Inquiry> id,
        PorchDb db,
        RunEngine engine,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.Inquiries.FindAsync([id], cancellationToken) is null)
            return Problems.NotFound(InquiryActionEndpoints.Gone);
        await engine.StopByHandAsync(
            await db.Runs.Where(run => run.InquiryId == id && run.Active).ToListAsync(cancellationToken),
            clock.GetCurrentInstant()
        );
        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
    }
}
