using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Calendar;
using PorchLight.Core.Meetings;
using PorchLight.Core.Messages;
using PorchLight.Server.Brand;
using PorchLight.Server.Hosting;
using PorchLight.Server.Messages;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Meetings;

/// <summary>Tells those who meet what became of a meeting, with an entry for their calendars, as part of the caller's write.</summary>
internal sealed class MeetingMail(PorchDb db, MailQueue mail, ProgramMail messages, Tokens tokens, PublicAddress address)
{
    /// <summary>Tells whoever booked and those who hold it; whoever did it is not told of it.</summary>
    /// <param name="kind">What became of it.</param>
    /// <param name="meeting">The meeting, as it stands now.</param>
    /// <param name="type">Its type.</param>
    /// <param name="hosts">Those who hold it.</param>
    /// <param name="by">The user who did it; null where the client did.</param>
    public async Task TellAsync(
        MeetingChangeKind kind,
        Meeting meeting,
        MeetingType type,
        IReadOnlyList<Guid> hosts,
        Guid? by,
        CancellationToken cancellationToken
    )
    {
        var business = await db.BusinessAsync();
        var entry = EntryOf(meeting, meeting.Title, address, tokens);
        if (await messages.WriteAsync(MessageOf(kind), Values(meeting, type, business)) is { } content)
            mail.Queue(
                $"meeting {meeting.Id} {meeting.Sequence}",
                business,
                meeting.Email,
                meeting.ClientId,
                content with
                {
                    Invitation = CalendarFile.Invite(
                        entry with
                        {
                            Title = $"{type.Name}, {business.Name}",
                        },
                        new CalendarPerson(business.Name, business.MailAddress),
                        new CalendarPerson(meeting.Name, meeting.Email)
                    ),
                },
                automatic: true,
                meeting.Changed
            );
        await TellHostsAsync(kind, entry, meeting, hosts, by, cancellationToken);
    }

    /// <summary>Tells those who held a meeting that somebody else does now, and takes it out of their calendars.</summary>
    /// <param name="meeting">The meeting, as it stands now.</param>
    /// <param name="hosts">Those who held it.</param>
    /// <param name="by">The user who did it, who is not told; null where the client did.</param>
    public Task TellTakenOverAsync(Meeting meeting, IReadOnlyList<Guid> hosts, Guid? by, CancellationToken cancellationToken) =>
        TellHostsAsync(
            MeetingChangeKind.TakenOver,
            EntryOf(meeting, meeting.Title, address, tokens) with
            {
                IsCancelled = true,
            },
            meeting,
            hosts,
            by,
            cancellationToken
        );

    private async Task TellHostsAsync(
        MeetingChangeKind kind,
        CalendarEntry entry,
        Meeting meeting,
        IReadOnlyList<Guid> hosts,
        Guid? by,
        CancellationToken cancellationToken
    )
    {
        var business = await db.BusinessAsync();
        foreach (var user in await db.Users.Where(user => hosts.Contains(user.Id) && user.Id != by).ToListAsync(cancellationToken))
            mail.Queue(
                $"meeting {meeting.Id} {meeting.Sequence} {user.Id}",
                business,
                user.Email!,
                null,
                new MailContent(MeetingNews.Subject(kind, meeting.Title), MeetingNews.Text(kind, OfMeeting(meeting, business)))
                {
                    Invitation = CalendarFile.Invite(
                        entry,
                        new CalendarPerson(business.Name, business.MailAddress),
                        new CalendarPerson(user.DisplayName, user.Email!)
                    ),
                },
                automatic: true,
                meeting.Changed
            );
    }

    /// <summary>The meeting as an entry of a calendar.</summary>
    /// <param name="title">What it is called there.</param>
    public static CalendarEntry EntryOf(Meeting meeting, string title, PublicAddress address, Tokens tokens) =>
        new(meeting.Uid, meeting.Sequence, meeting.Changed, meeting.When, title)
        {
            Where = MeetingPlaceWords.ForThem(meeting.Place, meeting.PlaceWords),
            Words = $"Move or cancel: {LinkOf(meeting, address, tokens)}",
            IsCancelled = meeting.State == MeetingState.Cancelled,
        };

    /// <summary>Where whoever booked looks at a meeting.</summary>
    public static string LinkOf(Meeting meeting, PublicAddress address, Tokens tokens) =>
        $"{address.Site}{MeetingPage.Path}{tokens.Open(meeting.LinkSealed)}";

    private MeetingNewsFacts OfMeeting(Meeting meeting, Business business) =>
        new(
            meeting.Name,
            MeetingTimeWords.Say(meeting.When, business.DateTimeZone, business.DateTimeZone),
            MeetingPlaceWords.ForUs(meeting.Place, meeting.PlaceWords),
            [.. meeting.Answers.ByQuestion.Select(answer => (answer.Question, answer.Answer))],
            meeting.Reason,
            $"{address.Site}/calendar/{meeting.Id}"
        );

    private static BuiltInMessage MessageOf(MeetingChangeKind kind) =>
        kind switch
        {
            MeetingChangeKind.Booked => BuiltInMessage.MeetingBooked,
            MeetingChangeKind.Moved => BuiltInMessage.MeetingMoved,
            MeetingChangeKind.Cancelled => BuiltInMessage.MeetingCancelled,
            _ => throw new ArgumentOutOfRangeException(nameof(kind), "Whoever booked hears nothing of who holds it."),
        };

    private (string Name, string Value)[] Values(Meeting meeting, MeetingType type, Business business)
    {
        var zone = DateTimeZoneProviders.Tzdb[meeting.Zone];
        return
        [
            ("meeting", type.Name),
            ("firstName", meeting.Name.Split(' ')[0]),
            ("when", MeetingTimeWords.Say(meeting.When, zone, business.DateTimeZone)),
            ("where", MeetingPlaceWords.ForThem(meeting.Place, meeting.PlaceWords)),
            ("link", LinkOf(meeting, address, tokens)),
            ("until", TimeWords.At(MeetingChange.Last(meeting.Start, type.ChangeHours), meeting.Changed, zone)),
            ("reason", meeting.Reason),
        ];
    }
}
