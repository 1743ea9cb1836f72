using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;
using PorchLight.Core.Meetings;
using PorchLight.Server.Calendar;
using PorchLight.Server.Hosting;
using PorchLight.Server.Identity;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Meetings;

/// <summary>What the people of the business do with meetings: book one for somebody, move it, cancel it, note what came of it.</summary>
internal static class MeetingEndpoints
{
    internal const string Gone = "This meeting is not here any more.";
    private const int LongestNotes = 20_000;

    /// <param name="When">When it is, in words.</param>
    /// <param name="TheirTime">When that is for them, where their clock differs; null where it does not.</param>
    /// <param name="Hosts">Who holds it, in words; null for nobody any more.</param>
    /// <param name="Locked">Why it cannot be moved or cancelled, as a sentence; null where it can.</param>
    /// <param name="CanBeMissed">Whether it can be noted that they did not come.</param>
    /// <param name="Link">Where whoever booked looks at it.</param>
    internal sealed record MeetingView(
        Id<Meeting> Id,
        string Title,
        string Type,
        Id<StoredMeetingType> TypeId,
        Instant Start,
        string When,
        string? TheirTime,
        string Where,
        string? Hosts,
        MeetingState State,
        string Reason,
        string Name,
        string Email,
        Id<Client> ClientId,
        Id<Inquiry>? InquiryId,
        string? About,
        IReadOnlyList<MeetingAnswer> Answers,
        MeetingNotes Notes,
        string Booked,
        string? Locked,
        bool CanBeMissed,
        string Link
    );

    /// <param name="Text">What was said; may be empty.</param>
    internal sealed record MeetingNotes(string Text);

    internal sealed record NewTime(Instant Start, string Reason);

    internal sealed record Cancelling(string Reason);

    internal sealed record Missing(bool Missed);

    /// <param name="Inquiry">What it is about; null for nothing in particular.</param>
    internal sealed record NewMeeting(
        Id<StoredMeetingType> Type,
        Id<Client> Client,
        Id<Inquiry>? Inquiry,
        Instant Start,
        MeetingPlaceKind Place,
        string PlaceWords
    );

    internal sealed record Made(Id<Meeting> Id);

    /// <param name="When">When it is or was, in words.</param>
    /// <param name="Detail">What it is and where.</param>
    /// <param name="IsToCome">Whether it is booked and still to come.</param>
    internal sealed record MeetingRow(
        Id<Meeting> Id,
        string When,
        string Exactly,
        string Detail,
        MeetingState State,
        bool IsToCome,
        Id<Inquiry>? InquiryId
    );

    /// <param name="Inquiry">What it is about; null for nothing in particular.</param>
    internal sealed record LinkRequest(Id<StoredMeetingType> Type, Id<Client> Client, Id<Inquiry>? Inquiry);

    internal sealed record LinkMade(string Link);

    public static void MapMeetings(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/meetings").For(Access.Member).WithTags("Calendar");
        group.MapGet("/times", TimesAsync);
        group.MapPost("", BookAsync).Once();
        group.MapGet("/of-client/{client}", OfClientAsync);
        group.MapPost("/links", MakeLinkAsync).Once();
        group.MapGet("/{id}", ShowAsync);
        group.MapPost("/{id}/move", MoveAsync).Once();
        group.MapPost("/{id}/cancel", CancelAsync).Once();
        group.MapPost("/{id}/missed", NoteMissedAsync);
        group.MapPut("/{id}/notes", ChangeNotesAsync);
    }

    /// <summary>The free times of a type, on the business's clock.</summary>
    /// <param name="type">The type.</param>
    /// <param name="moving">The meeting that is to be moved; left out for a new one.</param>
    private static async Task<Results<Ok<BookingTable>, ProblemHttpResult>> TimesAsync(
        Id<StoredMeetingType> type,
        Id<Meeting>? moving,
        PorchDb db,
        MeetingPageLoader pages,
        CancellationToken cancellationToken
    )
    {
        if (await db.MeetingTypes.FindAsync([type], cancellationToken) is not { } stored)
            return Problems.NotFound(MeetingTypeEndpoints.Gone);
        var meeting = moving is { } id ? await db.Meetings.FindAsync([id], cancellationToken) : null;
        return TypedResults.Ok(
            await pages.TimesAsync(
                new MeetingTarget(stored, BookingFor.Anybody, meeting),
                (await db.BusinessAsync()).DateTimeZone,
                cancellationToken
            )
        );
    }

    private static async Task<Results<Ok<MeetingView>, ProblemHttpResult>> ShowAsync(
        Id<Meeting> id,
        PorchDb db,
        Tokens tokens,
        PublicAddress address,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        if (await db.Meetings.FindAsync([id], cancellationToken) is not { } meeting)
            return Problems.NotFound(Gone);
        var (business, now) = (await db.BusinessAsync(), clock.GetCurrentInstant());
        var (zone, theirs) = (business.DateTimeZone, DateTimeZoneProviders.Tzdb.GetZoneOrNull(meeting.Zone));
        var type = (await db.MeetingTypes.FindAsync([meeting.TypeId], cancellationToken))!;
        var hosts = await (
            from host in db.MeetingHosts
            where host.MeetingId == id
            join user in db.Users on host.UserId equals user.Id
            orderby user.DisplayName
            select user.DisplayName
        ).ToListAsync(cancellationToken);
        var inquiry = meeting.InquiryId is { } asked ? await db.Inquiries.FindAsync([asked], cancellationToken) : null;
        return TypedResults.Ok(
            new MeetingView(
                id,
                meeting.Title,
                type.Content.Name,
                type.Id,
                meeting.Start,
                MeetingTimeWords.Say(meeting.When, zone, zone),
                theirs is null || theirs.Id == zone.Id ? null : MeetingTimeWords.Say(meeting.When, theirs, zone),
                MeetingPlaceWords.ForUs(meeting.Place, meeting.PlaceWords),
                hosts.Count == 0 ? null : WordLists.All(hosts),
                meeting.State,
                meeting.Reason,
                meeting.Name,
                meeting.Email,
                meeting.ClientId,
                meeting.InquiryId,
                inquiry?.About is { Length: > 0 } about ? about : null,
                meeting.Answers.ByQuestion,
                new MeetingNotes(meeting.Notes),
                TimeWords.At(meeting.Booked, now, zone),
                MeetingChange.RefuseOurs(meeting.State, meeting.Start, now),
                MeetingChange.RefuseMissed(meeting.State, meeting.Start, now) is null,
                MeetingMail.LinkOf(meeting, address, tokens)
            )
        );
    }

    /// <summary>The meetings with a client: those to come first, the next one at the top; then those that were, the last one first.</summary>
    private static async Task<Ok<IReadOnlyList<MeetingRow>>> OfClientAsync(
        Id<Client> client,
        PorchDb db,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        var (now, zone) = (clock.GetCurrentInstant(), (await db.BusinessAsync()).DateTimeZone);
        var rows = await (
            from meeting in db.Meetings
            where meeting.ClientId == client
            join type in db.MeetingTypes on meeting.TypeId equals type.Id
            select new { meeting, type.Content }
        ).ToListAsync(cancellationToken);
        return TypedResults.Ok<IReadOnlyList<MeetingRow>>([
            .. rows.Select(row => new
                {
                    row.meeting,
                    Row = new MeetingRow(
                        row.meeting.Id,
                        TimeWords.At(row.meeting.Start, now, zone),
                        TimeWords.Exactly(row.meeting.Start, zone),
                        $"{row.Content.Name}, {MeetingPlaceWords.ForUs(row.meeting.Place, row.meeting.PlaceWords)}",
                        row.meeting.State,
                        row.meeting.State == MeetingState.Booked && row.meeting.End > now,
                        row.meeting.InquiryId
                    ),
                })
                .OrderByDescending(row => row.Row.IsToCome)
                .ThenBy(row => row.Row.IsToCome ? row.meeting.Start - now : now - row.meeting.Start)
                .Select(row => row.Row),
        ]);
    }

    /// <summary>A link by which one client books a meeting without saying who they are; the same again for the same inquiry.</summary>
    private static async Task<Results<Ok<LinkMade>, ProblemHttpResult>> MakeLinkAsync(
        LinkRequest wanted,
        PorchDb db,
        BookingLinks links,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.MeetingTypes.FindAsync([wanted.Type], cancellationToken) is not { Archived: null } type)
            return Problems.NotFound(MeetingTypeEndpoints.Gone);
        if (await WhomAsync(db, wanted.Client, wanted.Inquiry, cancellationToken) is not { Client: { } client } whom)
            return Problems.NotFound(ClientEdits.Gone);
        var link = await links.AddressAsync(type, client.Id, whom.Inquiry?.Id, clock.GetCurrentInstant(), cancellationToken);
        await write.SaveAsync(cancellationToken);
        return TypedResults.Ok(new LinkMade(link));
    }

    /// <summary>Books a meeting for somebody who is a client.</summary>
    private static async Task<Results<Created<Made>, ProblemHttpResult>> BookAsync(
        NewMeeting wanted,
        PorchDb db,
        MeetingPageLoader pages,
        MeetingBooking booking,
        BusinessClock clock,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.MeetingTypes.FindAsync([wanted.Type], cancellationToken) is not { Archived: null } type)
            return Problems.NotFound(MeetingTypeEndpoints.Gone);
        if (await WhomAsync(db, wanted.Client, wanted.Inquiry, cancellationToken) is not { Client: { } client } whom)
            return Problems.NotFound(ClientEdits.Gone);
        var business = await db.BusinessAsync();
        if (await pages.KnownAsync(whom, cancellationToken) is not { } known)
            return Problems.Unprocessable($"{client.Name} left no e-mail address. Add one first, so that they get the time in writing.");
        // What is asked of whoever books is not asked of a person of the business who does it for them.
        var (details, findings) = new BookingDetails("", "", "", wanted.Place, wanted.PlaceWords, new Dictionary<string, string>()).Check(
            type.Content with
            {
                Questions = [],
            },
            known,
            business.Region
        );
        if (details is null)
            return Problems.Invalid(findings);
        var booked = await booking.BookAsync(
            type,
            wanted.Start,
            details,
            whom,
            business.Zone,
            who.UserId(),
            clock.GetCurrentInstant(),
            cancellationToken
        );
        if (booked.Meeting is not { } meeting)
            return MeetingChanges.TakenMeanwhile(booked, business.DateTimeZone, business.DateTimeZone);
        await write.SaveAsync(cancellationToken);
        return TypedResults.Created($"/api/meetings/{meeting.Id}", new Made(meeting.Id));
    }

    private static Task<Results<NoContent, ProblemHttpResult>> MoveAsync(
        Id<Meeting> id,
        NewTime wanted,
        PorchDb db,
        MeetingChanges changes,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    ) =>
        ChangeAsync(
            id,
            db,
            who,
            (meeting, by) => changes.MoveAsync(meeting, wanted.Start, wanted.Reason, by, cancellationToken),
            cancellationToken
        );

    private static Task<Results<NoContent, ProblemHttpResult>> CancelAsync(
        Id<Meeting> id,
        Cancelling wanted,
        PorchDb db,
        MeetingChanges changes,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    ) => ChangeAsync(id, db, who, (meeting, by) => changes.CancelAsync(meeting, wanted.Reason, by, cancellationToken), cancellationToken);

    private static async Task<Results<NoContent, ProblemHttpResult>> ChangeAsync(
        Id<Meeting> id,
        PorchDb db,
        ClaimsPrincipal who,
        Func<Meeting, MeetingChanger, Task<ProblemHttpResult?>> change,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.Meetings.FindAsync([id], cancellationToken) is not { } meeting)
            return Problems.NotFound(Gone);
        if (await change(meeting, new MeetingChanger(who.UserId(), (await db.BusinessAsync()).DateTimeZone)) is { } refusal)
            return refusal;
        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
    }

    /// <summary>Notes that they did not come, or takes that back.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> NoteMissedAsync(
        Id<Meeting> id,
        Missing wish,
        PorchDb db,
        MeetingBooking booking,
        BusinessClock clock,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.Meetings.FindAsync([id], cancellationToken) is not { } meeting)
            return Problems.NotFound(Gone);
        if (MeetingChange.RefuseMissed(meeting.State, meeting.Start, clock.GetCurrentInstant()) is { } refused)
            return Problems.Conflict(refused);
        await booking.NoteMissedAsync(meeting, wish.Missed, who.UserId(), clock.GetCurrentInstant());
        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
    }

    private static async Task<Results<Ok<MeetingNotes>, ProblemHttpResult>> ChangeNotesAsync(
        Id<Meeting> id,
        Edit<MeetingNotes> edit,
        PorchDb db,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.Meetings.FindAsync([id], cancellationToken) is not { } meeting)
            return Problems.NotFound(Gone);
        var (merged, refusal) = edit.Onto(new MeetingNotes(meeting.Notes));
        if (refusal is not null)
            return refusal;
        if (TextLength.TooLong(merged.Text, LongestNotes) is { } tooLong)
            return Problems.Invalid(new Finding("text", tooLong));
        meeting.Notes = merged.Text;
        await write.SaveAsync(cancellationToken);
        return TypedResults.Ok(merged);
    }

    /// <summary>A client, with an inquiry where it is one of theirs; null where there is no such client.</summary>
    private static async Task<BookingFor?> WhomAsync(
        PorchDb db,
        Id<Client> client,
        Id<Inquiry>? inquiry,
        CancellationToken cancellationToken
    ) =>
        await db.Clients.FindAsync([client], cancellationToken) is { } found
            ? new BookingFor(
                found,
                inquiry is { } id
                    ? await db.Inquiries.SingleOrDefaultAsync(one => one.Id == id && one.ClientId == client, cancellationToken)
                    : null
            )
            : null;
}
