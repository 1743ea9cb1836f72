using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Core.Meetings;
using PorchLight.Core.Projects;
using PorchLight.Core.Records;
using PorchLight.Server.Forms;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Meetings;

/// <summary>Whom a meeting is with.</summary>
/// <param name="Client">The client, where they are known for sure; null where they say themselves who they are.</param>
/// <param name="Inquiry">What it is about; null for nothing in particular.</param>
internal sealed record BookingFor(Client? Client, Inquiry? Inquiry)
{
    /// <summary>
    /// What they sent just now, where they came from its send-off: nothing is shown to them but what they said there. Null where a link of
    /// their own says who they are.
    /// </summary>
    public Submission? Said { get; init; }

    public static BookingFor Anybody { get; } = new(null, null);
}

/// <summary>What came of booking or moving a meeting.</summary>
/// <param name="Meeting">The meeting; null where its time is taken.</param>
/// <param name="Nearest">The free times nearest to one that is taken; none else.</param>
internal sealed record BookingResult(Meeting? Meeting, IReadOnlyList<Slot> Nearest);

/// <summary>Books, moves and cancels meetings, each as part of the caller's write. Whatever is free is looked for within it.</summary>
internal sealed class MeetingBooking(
    PorchDb db,
    MeetingSlots slots,
    InquiryRecords records,
    RecordWriter writer,
    EventLog events,
    MeetingMail mail,
    Tokens tokens
)
{
    /// <summary>Books a time, if it is still free.</summary>
    /// <param name="type">The type.</param>
    /// <param name="start">When it shall begin.</param>
    /// <param name="booking">What whoever books says.</param>
    /// <param name="whom">Whom it is with.</param>
    /// <param name="zone">The IANA name of the zone in which they look at it.</param>
    /// <param name="by">The user who books it for them; null where they do.</param>
    /// <param name="now">The business's now.</param>
    public async Task<BookingResult> BookAsync(
        StoredMeetingType type,
        Instant start,
        CheckedBooking booking,
        BookingFor whom,
        string zone,
        Guid? by,
        Instant now,
        CancellationToken cancellationToken
    )
    {
        var free = await slots.LoadAsync(type, moving: null, now, cancellationToken);
        if (free.Find(start) is not { } slot)
            return new BookingResult(null, free.NearestTo(start));
        var (business, link) = (await db.BusinessAsync(), tokens.Create());
        var client = whom.Client ?? await ClientAsync(booking, now);
        var project = await ProjectAsync(client, whom.Inquiry, type.Content.Name, now, cancellationToken);
        var (id, needs) = (new Id<Meeting>(Guid.CreateVersion7()), type.Content.Rules.Needs(start));
        var meeting = db
            .Meetings.Add(
                new Meeting
                {
                    Id = id,
                    TypeId = type.Id,
                    ClientId = client.Id,
                    ProjectId = project.Id,
                    InquiryId = whom.Inquiry?.Id,
                    SubmissionId = whom.Said?.Id,
                    Start = slot.Start,
                    End = slot.End,
                    BusyFrom = needs.From,
                    BusyTo = needs.To,
                    Title = MeetingTitle.Of(type.Content.Title, type.Content.Name, booking.Booker.Name.Full, booking.Answers),
                    Place = booking.Place,
                    PlaceWords = booking.PlaceWords,
                    Name = booking.Booker.Name.Full,
                    Email = booking.Booker.Email,
                    Answers = new MeetingAnswers([
                        .. type
                            .Content.Questions.Where(question => booking.Answers.ContainsKey(question.Key))
                            .Select(question => new MeetingAnswer(question.Key, question.Wording, booking.Answers[question.Key])),
                    ]),
                    Zone = zone,
                    Uid = $"{id}@{business.MailAddress.Split('@')[^1]}",
                    Booked = now,
                    Changed = now,
                    LinkHash = link.Hash,
                    LinkSealed = link.Sealed,
                }
            )
            .Entity;
        db.MeetingHosts.AddRange(slot.Hosts.Select(host => new MeetingHost { MeetingId = id, UserId = host }));
        await WriteDateAsync(meeting, type.Content, client, project);
        await events.AppendAsync(
            new MeetingBooked
            {
                Meeting = id.Value,
                For = LocalOf(meeting.Start, business.DateTimeZone),
                By = by,
            },
            now,
            AboutOf(meeting)
        );
        await mail.TellAsync(MeetingChangeKind.Booked, meeting, type.Content, slot.Hosts, by, cancellationToken);
        return new BookingResult(meeting, []);
    }

    /// <summary>Moves a meeting to another time, if that is free; its own time is no obstacle.</summary>
    public async Task<BookingResult> MoveAsync(
        Meeting meeting,
        Instant start,
        string reason,
        Guid? by,
        Instant now,
        CancellationToken cancellationToken
    )
    {
        if (start == meeting.Start)
            return new BookingResult(meeting, []);
        var type = (await db.MeetingTypes.FindAsync([meeting.TypeId], cancellationToken))!;
        var free = await slots.LoadAsync(type, meeting, now, cancellationToken);
        if (free.Find(start) is not { } slot)
            return new BookingResult(null, free.NearestTo(start));
        var (zone, needs) = ((await db.BusinessAsync()).DateTimeZone, type.Content.Rules.Needs(start));
        var before = LocalOf(meeting.Start, zone);
        var held = await db.MeetingHosts.Where(host => host.MeetingId == meeting.Id).ToListAsync(cancellationToken);
        (meeting.Start, meeting.End, meeting.BusyFrom, meeting.BusyTo) = (slot.Start, slot.End, needs.From, needs.To);
        (meeting.Reason, meeting.Sequence, meeting.Changed) = (reason, meeting.Sequence + 1, now);
        var replaced = held.Where(host => !slot.Hosts.Contains(host.UserId)).ToList();
        db.MeetingHosts.RemoveRange(replaced);
        db.MeetingHosts.AddRange(
            slot.Hosts.Where(host => held.TrueForAll(one => one.UserId != host))
                .Select(host => new MeetingHost { MeetingId = meeting.Id, UserId = host })
        );
        if (await db.Clients.FindAsync([meeting.ClientId], cancellationToken) is { } client)
            await WriteDateAsync(meeting, type.Content, client, await db.Projects.FindAsync([meeting.ProjectId], cancellationToken));
        await events.AppendAsync(
            new MeetingMoved(meeting.Id.Value, before, LocalOf(meeting.Start, zone)) { By = by },
            now,
            AboutOf(meeting)
        );
        await mail.TellAsync(MeetingChangeKind.Moved, meeting, type.Content, slot.Hosts, by, cancellationToken);
        await mail.TellTakenOverAsync(meeting, [.. replaced.Select(host => host.UserId)], by, cancellationToken);
        return new BookingResult(meeting, []);
    }

    /// <summary>Cancels a meeting; its time is free again.</summary>
    public async Task CancelAsync(Meeting meeting, string reason, Guid? by, Instant now, CancellationToken cancellationToken)
    {
        var zone = (await db.BusinessAsync()).DateTimeZone;
        var type = (await db.MeetingTypes.FindAsync([meeting.TypeId], cancellationToken))!;
        (meeting.State, meeting.Reason, meeting.Sequence, meeting.Changed) = (MeetingState.Cancelled, reason, meeting.Sequence + 1, now);
        var hosts = await db
            .MeetingHosts.Where(host => host.MeetingId == meeting.Id)
            .Select(host => host.UserId)
            .ToListAsync(cancellationToken);
        await events.AppendAsync(new MeetingCancelled(meeting.Id.Value, LocalOf(meeting.Start, zone)) { By = by }, now, AboutOf(meeting));
        await mail.TellAsync(MeetingChangeKind.Cancelled, meeting, type.Content, hosts, by, cancellationToken);
    }

    /// <summary>Notes that they did not come, or takes that back.</summary>
    public async Task NoteMissedAsync(Meeting meeting, bool missed, Guid by, Instant now)
    {
        if (missed == (meeting.State == MeetingState.Missed))
            return;
        var zone = (await db.BusinessAsync()).DateTimeZone;
        meeting.State = missed ? MeetingState.Missed : MeetingState.Booked;
        if (missed)
            await events.AppendAsync(new MeetingMissed(meeting.Id.Value, LocalOf(meeting.Start, zone), by), now, AboutOf(meeting));
    }

    private static LocalDateTime LocalOf(Instant start, DateTimeZone zone) => start.InZone(zone).LocalDateTime;

    private static EventContext AboutOf(Meeting meeting) => new(meeting.ClientId, meeting.ProjectId, meeting.InquiryId);

    /// <summary>Who says so themselves is recognised like the sender of an inquiry, and nothing is written about who is known.</summary>
    private async Task<Client> ClientAsync(CheckedBooking booking, Instant now)
    {
        var (client, knownBefore) = await records.ClientAsync(
            new Contact(booking.Booker.Name, booking.Booker.Email, booking.Phone),
            link: null,
            now
        );
        if (knownBefore)
            return client;
        var source = new ValueSource(ValueOrigin.Booked, booking.Booker.Name.Full, now);
        writer.Write(client, null, BuiltInFields.Name.Key, booking.Booker.Name, null, source);
        writer.Write(client, null, BuiltInFields.Email.Key, new TextAnswer(booking.Booker.Email), null, source);
        if (booking.Phone is { } phone)
            writer.Write(client, null, BuiltInFields.Phone.Key, phone, null, source);
        return client;
    }

    /// <summary>What it is about: the project of the inquiry, the open one that began last, or one that begins with it.</summary>
    private async Task<Project> ProjectAsync(
        Client client,
        Inquiry? inquiry,
        string title,
        Instant now,
        CancellationToken cancellationToken
    )
    {
        if (inquiry is not null && await db.Projects.FindAsync([inquiry.ProjectId], cancellationToken) is { } asked)
            return asked;
        if (
            await db
                .Projects.Where(project => project.ClientId == client.Id && project.Closed == null)
                .OrderByDescending(project => project.Opened)
                .FirstOrDefaultAsync(cancellationToken) is
            { } open
        )
            return open;
        await db.UnlistLatestProjectAsync(client.Id);
        return db
            .Projects.Add(
                new Project
                {
                    Id = new Id<Project>(Guid.CreateVersion7()),
                    ClientId = client.Id,
                    FormId = null,
                    Title = title,
                    Opened = now,
                    Stage = (await db.BusinessAsync()).Lists.Stages.FirstOpen().Key,
                    IsLatest = true,
                }
            )
            .Entity;
    }

    private async Task WriteDateAsync(Meeting meeting, MeetingType type, Client client, Project? project)
    {
        if (type.WritesDate is not { } field || project is null)
            return;
        var day = new DateAnswer(meeting.Start.InZone((await db.BusinessAsync()).DateTimeZone).Date);
        var current = (await writer.CurrentAsync(client.Id, project.Id)).GetValueOrDefault(field);
        if (!Equals(current?.Value, day))
            writer.Write(client, project, field, day, current, new ValueSource(ValueOrigin.Meeting, type.Name, meeting.Changed));
    }
}
