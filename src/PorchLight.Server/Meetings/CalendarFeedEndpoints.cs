using System.Security.Claims;
using System.Text;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Meetings;
using PorchLight.Server.Calendar;
using PorchLight.Server.Hosting;
using PorchLight.Server.Identity;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Meetings;

/// <summary>One's own meetings at a secret address, where calendars kept elsewhere read them.</summary>
internal static class CalendarFeedEndpoints
{
    private const string NoSuchFeed = "There is no calendar at this address any more. Its owner can make a new one.";
    private static readonly Duration Behind = Duration.FromDays(90);

    /// <param name="Link">The address; null while there is none.</param>
    /// <param name="HasNames">Whether it says with whom the meetings are.</param>
    internal sealed record FeedView(string? Link, bool HasNames);

    /// <param name="HasNames">Whether it says with whom the meetings are.</param>
    internal sealed record FeedWish(bool HasNames);

    public static void MapCalendarFeed(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/calendar-feed").For(Access.Member).WithTags("Calendar");
        group.MapGet("", ShowAsync);
        group.MapPut("", ChangeAsync);
        group.MapPost("/renew", RenewAsync).Once();
        group.MapDelete("", EndAsync);
    }

    public static void MapPublicCalendarFeed(this IEndpointRouteBuilder app) =>
        app.MapGet("/public/calendars/{token}.ics", ReadAsync)
            .For(Access.Public)
            .RequireRateLimiting(RateLimits.PublicForms)
            .ExcludeFromDescription();

    private static async Task<Ok<FeedView>> ShowAsync(
        PorchDb db,
        Tokens tokens,
        PublicAddress address,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    ) => TypedResults.Ok(ViewOf(await db.CalendarFeeds.FindAsync([who.UserId()], cancellationToken), tokens, address));

    /// <summary>Says what stands in it; the first time makes it.</summary>
    private static async Task<Ok<FeedView>> ChangeAsync(
        FeedWish wish,
        PorchDb db,
        Tokens tokens,
        PublicAddress address,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        var feed = await db.CalendarFeeds.FindAsync([who.UserId()], cancellationToken) ?? Add(db, tokens, who.UserId());
        feed.HasNames = wish.HasNames;
        await write.SaveAsync(cancellationToken);
        return TypedResults.Ok(ViewOf(feed, tokens, address));
    }

    /// <summary>Makes a new address; the old one ends.</summary>
    private static async Task<Ok<FeedView>> RenewAsync(
        PorchDb db,
        Tokens tokens,
        PublicAddress address,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.CalendarFeeds.FindAsync([who.UserId()], cancellationToken) is { } feed)
        {
            var link = tokens.Create();
            (feed.LinkHash, feed.LinkSealed) = (link.Hash, link.Sealed);
        }
        else
        {
            feed = Add(db, tokens, who.UserId());
        }

        await write.SaveAsync(cancellationToken);
        return TypedResults.Ok(ViewOf(feed, tokens, address));
    }

    private static async Task<NoContent> EndAsync(PorchDb db, ClaimsPrincipal who, CancellationToken cancellationToken)
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.CalendarFeeds.FindAsync([who.UserId()], cancellationToken) is { } feed)
            db.CalendarFeeds.Remove(feed);
        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
    }

    private static async Task<IResult> ReadAsync(
        string token,
        PorchDb db,
        Tokens tokens,
        PublicAddress address,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        var hash = Tokens.Hash(token);
        if (await db.CalendarFeeds.SingleOrDefaultAsync(one => one.LinkHash == hash, cancellationToken) is not { } feed)
            return Problems.NotFound(NoSuchFeed);
        var since = clock.GetCurrentInstant() - Behind;
        var meetings = await (
            from meeting in db.Meetings
            where meeting.End > since
            join host in db.MeetingHosts on meeting.Id equals host.MeetingId
            where host.UserId == feed.UserId
            join type in db.MeetingTypes on meeting.TypeId equals type.Id
            select new { meeting, type.Content }
        ).ToListAsync(cancellationToken);
        var business = await db.BusinessAsync();
        return Results.Text(
            CalendarFile.Feed(
                meetings.Select(one =>
                    feed.HasNames
                        ? MeetingMail.EntryOf(one.meeting, one.meeting.Title, address, tokens) with
                        {
                            Where = MeetingPlaceWords.ForUs(one.meeting.Place, one.meeting.PlaceWords),
                            Words = $"{address.Site}/calendar/{one.meeting.Id}",
                        }
                        : MeetingMail.EntryOf(one.meeting, one.Content.Name, address, tokens) with
                        {
                            Where = "",
                            Words = "",
                        }
                ),
                business.Name
            ),
            CalendarFile.ContentType,
            Encoding.UTF8
        );
    }

    private static CalendarFeed Add(PorchDb db, Tokens tokens, Guid user)
    {
        var link = tokens.Create();
        return db
            .CalendarFeeds.Add(
                new CalendarFeed
                {
                    UserId = user,
                    LinkHash = link.Hash,
                    LinkSealed = link.Sealed,
                    HasNames = true,
                }
            )
            .Entity;
    }

    private static FeedView ViewOf(CalendarFeed? feed, Tokens tokens, PublicAddress address) =>
        feed is null
            ? new FeedView(null, true)
            : new FeedView($"{address.Site}/public/calendars/{tokens.Open(feed.LinkSealed)}.ics", feed.HasNames);
}
