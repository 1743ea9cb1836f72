using System.Text;
using Microsoft.AspNetCore.Http.HttpResults;
using NodaTime;
using PorchLight.Core.Brand;
using PorchLight.Core.Common;
using PorchLight.Core.Meetings;
using PorchLight.Server.Calendar;
using PorchLight.Server.Hosting;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Meetings;

/// <summary>What whoever has a link may do: see free times, book one, move and cancel what they booked. No cookies, no sign-in.</summary>
internal static class BookingEndpoints
{
    internal const string NoSuchLink = "This link is not good any more. Please write to us; we will find a time.";
    private const int BookingsADay = 5;

    /// <param name="Start">When it shall begin.</param>
    /// <param name="Zone">The IANA name of the zone in which they look.</param>
    internal sealed record BookingRequest(Instant Start, string Zone, BookingDetails Details);

    /// <param name="Reason">Why, in their words; may be empty.</param>
    internal sealed record MoveRequest(Instant Start, string Zone, string Reason);

    /// <param name="Reason">Why, in their words; may be empty.</param>
    internal sealed record CancelRequest(string Zone, string Reason);

    public static void MapBooking(this IEndpointRouteBuilder app)
    {
        app.MapGet("/public/zones", Zones).For(Access.Public).RequireRateLimiting(RateLimits.PublicForms).WithTags("Public");
        var group = app.MapGroup("/public/meetings/{token}")
            .For(Access.Public)
            .RequireRateLimiting(RateLimits.PublicForms)
            .WithTags("Public");
        group.MapGet("", ShowAsync);
        group.MapGet("/times", TimesAsync);
        group.MapGet("/entry.ics", EntryAsync).ExcludeFromDescription();
        group.MapPost("/book", BookAsync).Once().RequireRateLimiting(RateLimits.Mail);
        group.MapPost("/move", MoveAsync).Once();
        group.MapPost("/cancel", CancelAsync).Once();
    }

    /// <summary>The places by whose clock times can be shown.</summary>
    private static Ok<IReadOnlyList<NamedCode>> Zones() => TypedResults.Ok(Locales.Zones);

    /// <param name="zone">The IANA name of the zone in which they look; left out for the business's.</param>
    private static async Task<Results<Ok<MeetingPageView>, ProblemHttpResult>> ShowAsync(
        string token,
        string? zone,
        MeetingPageLoader pages,
        CancellationToken cancellationToken
    ) => await pages.LoadAsync(token, zone, cancellationToken) is { } view ? TypedResults.Ok(view) : Problems.NotFound(NoSuchLink);

    /// <summary>The times that are free, to book one or to move there.</summary>
    private static async Task<Results<Ok<BookingTable>, ProblemHttpResult>> TimesAsync(
        string token,
        string? zone,
        PorchDb db,
        MeetingPageLoader pages,
        CancellationToken cancellationToken
    )
    {
        if (await pages.FindAsync(token, cancellationToken) is not { } target || target.Meeting is null && Refuse(target) is not null)
            return Problems.NotFound(NoSuchLink);
        return TypedResults.Ok(
            await pages.TimesAsync(
                target,
                MeetingPageLoader.ZoneOf(zone, target.Meeting?.Zone, await db.BusinessAsync()),
                cancellationToken
            )
        );
    }

    /// <summary>The meeting as a file for their calendar.</summary>
    private static async Task<IResult> EntryAsync(
        string token,
        PorchDb db,
        MeetingPageLoader pages,
        Tokens tokens,
        PublicAddress address,
        CancellationToken cancellationToken
    )
    {
        if (await pages.FindAsync(token, cancellationToken) is not { Meeting: { } meeting, Type.Content.Name: var name })
            return Problems.NotFound(NoSuchLink);
        var business = await db.BusinessAsync();
        var entry = MeetingMail.EntryOf(meeting, $"{name}, {business.Name}", address, tokens);
        return Results.File(
            Encoding.UTF8.GetBytes(CalendarFile.Feed([entry], business.Name)),
            $"{CalendarFile.ContentType}; charset=utf-8",
            "meeting.ics"
        );
    }

    private static async Task<Results<Ok<MeetingPageView>, ProblemHttpResult>> BookAsync(
        string token,
        BookingRequest wanted,
        PorchDb db,
        MeetingPageLoader pages,
        MeetingBooking booking,
        Quotas quotas,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await pages.FindAsync(token, cancellationToken) is not { Meeting: null } target)
            return Problems.NotFound(NoSuchLink);
        if (Refuse(target) is { } closed)
            return Problems.Conflict(closed);
        var business = await db.BusinessAsync();
        var (details, findings) = wanted.Details.Check(
            target.Type.Content,
            await pages.KnownAsync(target.Whom, cancellationToken),
            business.Region
        );
        if (details is null)
            return Problems.Invalid(findings);
        var zone = MeetingPageLoader.ZoneOf(wanted.Zone, null, business);
        var booked = await booking.BookAsync(
            target.Type,
            wanted.Start,
            details,
            target.Whom,
            zone.Id,
            by: null,
            clock.GetCurrentInstant(),
            cancellationToken
        );
        if (booked.Meeting is not { } meeting)
            return MeetingChanges.TakenMeanwhile(booked, zone, business.DateTimeZone);
        if (!quotas.Use("book", EmailAddress.Key(details.Booker.Email), BookingsADay, Duration.FromDays(1)))
            return Problems.Conflict("You have booked enough for one day. Please write to us if you need another time.");
        await write.SaveAsync(cancellationToken);
        return TypedResults.Ok(await pages.ViewAsync(target with { Meeting = meeting }, zone.Id, cancellationToken));
    }

    private static Task<Results<Ok<MeetingPageView>, ProblemHttpResult>> MoveAsync(
        string token,
        MoveRequest wanted,
        PorchDb db,
        MeetingPageLoader pages,
        MeetingChanges changes,
        CancellationToken cancellationToken
    ) =>
        ChangeAsync(
            token,
            wanted.Zone,
            db,
            pages,
            (meeting, by) => changes.MoveAsync(meeting, wanted.Start, wanted.Reason, by, cancellationToken),
            cancellationToken
        );

    private static Task<Results<Ok<MeetingPageView>, ProblemHttpResult>> CancelAsync(
        string token,
        CancelRequest wanted,
        PorchDb db,
        MeetingPageLoader pages,
        MeetingChanges changes,
        CancellationToken cancellationToken
    ) =>
        ChangeAsync(
            token,
            wanted.Zone,
            db,
            pages,
            (meeting, by) => changes.CancelAsync(meeting, wanted.Reason, by, cancellationToken),
            cancellationToken
        );

    private static async Task<Results<Ok<MeetingPageView>, ProblemHttpResult>> ChangeAsync(
        string token,
        string zone,
        PorchDb db,
        MeetingPageLoader pages,
        Func<Meeting, MeetingChanger, Task<ProblemHttpResult?>> change,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await pages.FindAsync(token, cancellationToken) is not { Meeting: { } meeting } target)
            return Problems.NotFound(NoSuchLink);
        var by = new MeetingChanger(null, MeetingPageLoader.ZoneOf(zone, meeting.Zone, await db.BusinessAsync()));
        if (await change(meeting, by) is { } refusal)
            return refusal;
        await write.SaveAsync(cancellationToken);
        return TypedResults.Ok(await pages.ViewAsync(target, by.Zone.Id, cancellationToken));
    }

    private static string? Refuse(MeetingTarget target) =>
        BookingAccess.Refuse(target.Type.IsOpen, target.Type.Content.WhoMayBook, target.Whom.Client is not null);
}
