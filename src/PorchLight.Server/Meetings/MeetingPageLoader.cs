using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Brand;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Core.Meetings;
using PorchLight.Core.Records;
using PorchLight.Server.Brand;
using PorchLight.Server.Calendar;
using PorchLight.Server.Forms;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Meetings;

/// <summary>What a link of a meeting leads to.</summary>
/// <param name="Type">The type to be booked, or that of the meeting.</param>
/// <param name="Whom">Whom it is with.</param>
/// <param name="Meeting">The meeting; null where one is to be booked.</param>
internal sealed record MeetingTarget(StoredMeetingType Type, BookingFor Whom, Meeting? Meeting);

/// <summary>The page as somebody sees it who came by a link.</summary>
/// <param name="Zone">The IANA name of the zone in which times are said.</param>
/// <param name="Booking">What can be booked; null for a meeting that is booked.</param>
/// <param name="Meeting">The meeting; null where one is to be booked.</param>
internal sealed record MeetingPageView(
    string Title,
    string Business,
    string BusinessMail,
    ShownLook Look,
    string? Logo,
    string Zone,
    BookingView? Booking,
    BookedView? Meeting
);

/// <param name="Closed">Why nothing can be booked here, as a sentence; null where something can.</param>
/// <param name="Hosts">Whom they meet, in words; null where that is open.</param>
/// <param name="Known">Who they are, where they are known; they are not asked again.</param>
/// <param name="About">What they told already, in a line; null for nothing.</param>
/// <param name="Where">Where it can be, in words.</param>
/// <param name="Change">Until when it can be moved, in words.</param>
internal sealed record BookingView(
    string? Closed,
    string Purpose,
    int Minutes,
    string? Hosts,
    string? Known,
    string? About,
    string Where,
    IReadOnlyList<PlaceChoice> Places,
    IReadOnlyList<MeetingQuestion> Questions,
    string Change,
    BookingTable Times
);

/// <param name="Label">What it is called as a choice: "phone".</param>
/// <param name="Ask">What is asked beside it, their number or address; null for nothing.</param>
/// <param name="Known">What is on file of it; else empty.</param>
internal sealed record PlaceChoice(MeetingPlaceKind Kind, string Label, string? Ask, string Known);

/// <param name="When">When it is, in words.</param>
/// <param name="Where">Where it is, in words.</param>
/// <param name="Locked">Why it cannot be moved or cancelled, as a sentence; null where it can.</param>
/// <param name="Until">Until when it can be, in words; null where it cannot.</param>
/// <param name="Address">Where this page stands.</param>
internal sealed record BookedView(
    Instant Start,
    string When,
    string Where,
    MeetingState State,
    string Reason,
    string? Locked,
    string? Until,
    string Address
);

/// <summary>Finds what a link of a meeting leads to, and puts together what its page shows.</summary>
internal sealed class MeetingPageLoader(PorchDb db, MeetingSlots slots, AnswerContextLoader answers, Tokens tokens, BusinessClock clock)
{
    /// <summary>What a link leads to; null for nothing, or for a client who is not here any more.</summary>
    public async Task<MeetingTarget?> FindAsync(string token, CancellationToken cancellationToken)
    {
        var hash = Tokens.Hash(token);
        if (await db.MeetingTypes.SingleOrDefaultAsync(type => type.LinkHash == hash, cancellationToken) is { } own)
            return new MeetingTarget(own, BookingFor.Anybody, null);
        if (await db.Meetings.SingleOrDefaultAsync(meeting => meeting.LinkHash == hash, cancellationToken) is { } meeting)
            return new MeetingTarget((await db.MeetingTypes.FindAsync([meeting.TypeId], cancellationToken))!, BookingFor.Anybody, meeting);
        if (await db.Submissions.SingleOrDefaultAsync(sent => sent.ReceiptHash == hash, cancellationToken) is { } sent)
            return await AtSendOffAsync(sent, cancellationToken);
        return
            await db.BookingLinks.SingleOrDefaultAsync(link => link.LinkHash == hash, cancellationToken) is { } link
            && await db.ClientOrMergedAsync(link.ClientId) is { } client
            ? new MeetingTarget(
                (await db.MeetingTypes.FindAsync([link.TypeId], cancellationToken))!,
                new BookingFor(
                    await db.WhereMergedAsync(client),
                    link.InquiryId is { } inquiry ? await db.Inquiries.FindAsync([inquiry], cancellationToken) : null
                ),
                null
            )
            : null;
    }

    /// <summary>
    /// What the send-off of something that was sent offers: the meeting that was booked there and is still to come, else its times; null
    /// where it offers none.
    /// </summary>
    private async Task<MeetingTarget?> AtSendOffAsync(Submission sent, CancellationToken cancellationToken)
    {
        var content = (await db.FormVersionAsync(sent.FormId, sent.FormVersion))!.Content;
        if (
            content.FindSendOff(sent.SendOff)?.Meeting is not { } offered
            || await db.MeetingTypes.FindAsync([new Id<StoredMeetingType>(offered)], cancellationToken) is not { } type
            || await db.Inquiries.SingleOrDefaultAsync(one => one.SubmissionId == sent.Id, cancellationToken) is not { } inquiry
            || await db.Clients.FindAsync([inquiry.ClientId], cancellationToken) is not { } client
        )
            return null;
        var now = clock.GetCurrentInstant();
        var booked = await db
            .Meetings.Where(meeting => meeting.SubmissionId == sent.Id && meeting.State == MeetingState.Booked && meeting.End > now)
            .OrderBy(meeting => meeting.Start)
            .FirstOrDefaultAsync(cancellationToken);
        return new MeetingTarget(type, new BookingFor(client, inquiry) { Said = sent }, booked);
    }

    /// <summary>What the page shows behind a link; null for a link that leads nowhere.</summary>
    /// <param name="zone">The IANA name of the zone in which somebody looks; null, or one nobody knows, for the business's.</param>
    public async Task<MeetingPageView?> LoadAsync(string token, string? zone, CancellationToken cancellationToken) =>
        await db.Businesses.AnyAsync(cancellationToken) && await FindAsync(token, cancellationToken) is { } target
            ? await ViewAsync(target, zone, cancellationToken)
            : null;

    /// <summary>The same of what was found.</summary>
    public async Task<MeetingPageView> ViewAsync(MeetingTarget target, string? zone, CancellationToken cancellationToken)
    {
        var (business, now) = (await db.BusinessAsync(), clock.GetCurrentInstant());
        var viewer = ZoneOf(zone, target.Meeting?.Zone, business);
        return new MeetingPageView(
            target.Type.Content.Name,
            business.Name,
            business.MailAddress,
            FormLook.Over(null, business.Look),
            business.LogoAddress(),
            viewer.Id,
            target.Meeting is null ? await BookingAsync(target, viewer, cancellationToken) : null,
            target.Meeting is { } meeting ? BookedOf(meeting, target.Type.Content, viewer, business, now) : null
        );
    }

    /// <summary>The free times, as somebody in a zone sees them.</summary>
    public async Task<BookingTable> TimesAsync(MeetingTarget target, DateTimeZone viewer, CancellationToken cancellationToken) =>
        BookingTable.Of(
            (await slots.LoadAsync(target.Type, target.Meeting, clock.GetCurrentInstant(), cancellationToken)).Free(),
            viewer,
            (await db.BusinessAsync()).DateTimeZone,
            clock.GetCurrentInstant()
        );

    /// <summary>The zone in which somebody looks: the one they say, else the one in which they booked, else the business's.</summary>
    public static DateTimeZone ZoneOf(string? said, string? booked, Business business) =>
        (said is null ? null : DateTimeZoneProviders.Tzdb.GetZoneOrNull(said))
        ?? (booked is null ? null : DateTimeZoneProviders.Tzdb.GetZoneOrNull(booked))
        ?? business.DateTimeZone;

    /// <summary>Who books by a link of their own; null for anybody.</summary>
    public async Task<Booker?> KnownAsync(BookingFor whom, CancellationToken cancellationToken)
    {
        if (whom.Said is { } sent)
            return await SaidAsync(sent) is { Email: { } given } said
                ? new Booker(said.Name ?? new PersonNameAnswer(given, ""), given)
                : null;
        if (whom.Client is not { Email: { } email } client)
            return null;
        var name = await ValueAsync(client, BuiltInFields.Name.Key, cancellationToken) as PersonNameAnswer;
        return new Booker(name ?? new PersonNameAnswer(client.Name, ""), email);
    }

    /// <summary>How somebody who sent something said they can be reached.</summary>
    private async Task<Contact> SaidAsync(Submission sent)
    {
        var content = (await db.FormVersionAsync(sent.FormId, sent.FormVersion))!.Content;
        var known = await answers.ContextOfSubmissionAsync(sent, content, await db.BusinessAsync(), CancellationToken.None);
        return Contact.Of(content, known.Answers);
    }

    private async Task<BookingView> BookingAsync(MeetingTarget target, DateTimeZone viewer, CancellationToken cancellationToken)
    {
        var type = target.Type.Content;
        var known = await KnownAsync(target.Whom, cancellationToken);
        var phone = target.Whom switch
        {
            { Said: { } sent } => (await SaidAsync(sent)).Phone,
            { Client: { } client } => await ValueAsync(client, BuiltInFields.Phone.Key, cancellationToken) as PhoneAnswer,
            _ => null,
        };
        var closed = BookingAccess.Refuse(target.Type.IsOpen, type.WhoMayBook, target.Whom.Client is not null);
        var hosts = await db
            .Users.Where(user => type.Hosts.Contains(user.Id))
            .Select(user => user.DisplayName)
            .ToListAsync(cancellationToken);
        return new BookingView(
            closed,
            type.Purpose,
            type.Rules.Minutes,
            hosts.Count > 0 && (type.IsHeldByAll || hosts.Count == 1) ? WordLists.All(hosts) : null,
            known?.Name.Full,
            target.Whom.Inquiry?.About is { Length: > 0 } about ? about : null,
            MeetingPlaceWords.Offer([.. type.Places.Select(place => place.Kind)]),
            [
                .. type.Places.Select(place => new PlaceChoice(
                    place.Kind,
                    place.Kind.Say(),
                    MeetingPlaceWords.Ask(place.Kind),
                    place.Kind == MeetingPlaceKind.Phone ? phone?.Typed ?? "" : ""
                )),
            ],
            type.Questions,
            MeetingChangeWords.Until(type.ChangeHours),
            closed is null ? await TimesAsync(target, viewer, cancellationToken) : new BookingTable(Locales.CityOf(viewer.Id), [], [])
        );
    }

    private BookedView BookedOf(Meeting meeting, MeetingType type, DateTimeZone viewer, Business business, Instant now)
    {
        var locked = MeetingChange.RefuseTheirs(meeting.State, meeting.Start, type.ChangeHours, now, viewer);
        return new BookedView(
            meeting.Start,
            MeetingTimeWords.Say(meeting.When, viewer, business.DateTimeZone),
            MeetingPlaceWords.ForThem(meeting.Place, meeting.PlaceWords),
            meeting.State,
            meeting.Reason,
            locked,
            locked is null ? TimeWords.At(MeetingChange.Last(meeting.Start, type.ChangeHours), now, viewer) : null,
            $"{MeetingPage.Path}{tokens.Open(meeting.LinkSealed)}"
        );
    }

    private async Task<Answer?> ValueAsync(Client client, string field, CancellationToken cancellationToken) =>
        (
            await db.FieldValues.FirstOrDefaultAsync(
                value => value.ClientId == client.Id && value.Field == field && value.IsCurrent,
                cancellationToken
            )
        )?.Value;
}
