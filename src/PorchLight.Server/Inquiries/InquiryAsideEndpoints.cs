using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Common;
using PorchLight.Core.Inquiries;
using PorchLight.Core.Records;
using PorchLight.Server.Calendar;
using PorchLight.Server.Hosting;
using PorchLight.Server.Identity;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Inquiries;

/// <summary>Keeps spam and tests apart from the inquiries that count, and brings them back.</summary>
internal static class InquiryAsideEndpoints
{
    private const int MostAtOnce = 1_000;

    /// <param name="Inquiries">Which.</param>
    /// <param name="Reason">Why they are kept apart; null brings them back.</param>
    internal sealed record SettingAside(IReadOnlyList<Id<Inquiry>> Inquiries, AsideReason? Reason);

    public static void MapInquiriesAside(this IEndpointRouteBuilder api) =>
        api.MapPut("/inquiries/aside", SetAsync).For(Access.Member).WithTags("Inquiries");

    /// <summary>
    /// Sets inquiries aside or brings them back, all or none. Their answers, records and promises stay as they are; what was to be sent
    /// to them is stopped and stays so.
    /// </summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> SetAsync(
        SettingAside wanted,
        PorchDb db,
        EventLog events,
        BusinessClock clock,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        if (wanted.Inquiries.Count > MostAtOnce)
            return Problems.Unprocessable($"Please set at most {MostAtOnce:N0} aside at once.");
        await using var write = await db.WriteAsync(cancellationToken);
        var found = await db.Inquiries.Where(inquiry => wanted.Inquiries.Contains(inquiry.Id)).ToListAsync(cancellationToken);
        if (found.Count < wanted.Inquiries.Distinct().Count())
            return Problems.NotFound(InquiryActionEndpoints.Gone);
        var now = clock.GetCurrentInstant();
        foreach (var inquiry in found.Where(inquiry => inquiry.Aside != wanted.Reason))
        {
            inquiry.Aside = wanted.Reason;
            await events.AppendAsync(
                wanted.Reason is { } why ? new InquirySetAside(why, who.UserId()) : new InquiryPutBack(who.UserId()),
                now,
                new EventContext(inquiry.ClientId, inquiry.ProjectId, inquiry.Id)
            );
        }

        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
    }
}
