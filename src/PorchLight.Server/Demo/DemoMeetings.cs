using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;
using PorchLight.Core.Meetings;
using PorchLight.Server.Identity;
using PorchLight.Server.Meetings;
using PorchLight.Server.Records;
using PorchLight.Server.StandIns;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Demo;

/// <summary>The meetings of the demo: two weeks of them, one moved, one cancelled, one nobody came to.</summary>
internal sealed class DemoMeetings(IServiceScopeFactory scopes)
{
    private const string FirstTalk = "A first talk";
    private const string Look = "A look at your wall";
    private const string Colours = "Colours together";

    private enum Then
    {
        Stays,
        IsMoved,
        IsCancelled,
        IsMissed,
    }

    /// <summary>By working days from today and the time of day: which type it is, where, and what became of it.</summary>
    private static readonly (int Day, int Hour, int Minute, string Type, MeetingPlaceKind Place, string Words, Then Then)[] Played =
    [
        (-4, 10, 0, FirstTalk, MeetingPlaceKind.Phone, "+353 1 555 0118", Then.Stays),
        (-3, 15, 0, FirstTalk, MeetingPlaceKind.Video, "", Then.IsMissed),
        (-2, 11, 0, Look, MeetingPlaceKind.Theirs, "14 Tanner Row", Then.Stays),
        (-1, 14, 30, FirstTalk, MeetingPlaceKind.Phone, "+353 1 555 0126", Then.Stays),
        (1, 10, 0, FirstTalk, MeetingPlaceKind.Video, "", Then.Stays),
        (1, 15, 0, FirstTalk, MeetingPlaceKind.Phone, "+353 1 555 0142", Then.IsMoved),
        (2, 11, 0, Look, MeetingPlaceKind.Theirs, "3 Mill Lane", Then.Stays),
        (3, 14, 0, FirstTalk, MeetingPlaceKind.Phone, "+353 1 555 0191", Then.IsCancelled),
        (4, 10, 0, Colours, MeetingPlaceKind.Ours, "", Then.Stays),
        (6, 15, 30, FirstTalk, MeetingPlaceKind.Video, "", Then.Stays),
        (8, 11, 0, Look, MeetingPlaceKind.Theirs, "The old ropeworks, Quay Street", Then.Stays),
    ];

    /// <summary>What stands in the owner's calendar outside, by working days from today.</summary>
    private static readonly (int Day, int Hour, int Minute, int Minutes, string Title, bool IsWeekly)[] Outside =
    [
        (-3, 13, 0, 45, "Dentist", false),
        (-2, 8, 30, 60, "School run, then market", true),
        (1, 12, 0, 60, "Lunch with Ida", false),
        (3, 9, 0, 480, "Paper mill, all day", false),
        (5, 16, 30, 90, "Choir", true),
    ];

    /// <summary>Adds the types, as part of the caller's write.</summary>
    /// <param name="owner">Who holds most of them.</param>
    /// <param name="member">Who holds first talks, too.</param>
    /// <param name="firstTalk">The identifier of the first talk.</param>
    public static void AddTypes(PorchDb db, Tokens tokens, Guid owner, Guid member, Guid firstTalk)
    {
        db.AddMeetingType(
            tokens,
            new MeetingType(
                FirstTalk,
                new SlotRules(30),
                [new MeetingPlace(MeetingPlaceKind.Phone), new MeetingPlace(MeetingPlaceKind.Video)],
                [owner, member]
            )
            {
                Purpose = "Half an hour about what you have in mind: what it could look like, what it costs and when we could paint it.",
                Questions = [new MeetingQuestion("pictures", "Is there anything we should look at before?", IsRequired: false)],
            },
            new Id<StoredMeetingType>(firstTalk)
        );
        db.AddMeetingType(
            tokens,
            new MeetingType(
                Look,
                new SlotRules(60)
                {
                    BufferBefore = 30,
                    BufferAfter = 30,
                    Grid = 60,
                    Notice = new SlotNotice(1, InDays: true),
                    MostADay = 2,
                },
                [new MeetingPlace(MeetingPlaceKind.Theirs)],
                [owner]
            )
            {
                Purpose = "We come by, measure and look at the plaster. Somebody should be there who can let us in.",
                WhoMayBook = WhoMayBook.PersonalLink,
                ChangeHours = 24,
            }
        );
        db.AddMeetingType(
            tokens,
            new MeetingType(
                Colours,
                new SlotRules(45) { HostChoice = HostChoice.AllTogether },
                [new MeetingPlace(MeetingPlaceKind.Ours, "The studio, 7 Wren Yard, Dublin 8")],
                [owner, member]
            )
            {
                Purpose = "We lay out the samples, and you choose.",
                WhoMayBook = WhoMayBook.PersonalLink,
            }
        );
    }

    /// <summary>Books the first free time of a first talk two days after an instant, for somebody the demo knows.</summary>
    public async Task BookFirstTalkAsync(Id<Client> client, Instant at)
    {
        await using var scope = scopes.CreateAsyncScope();
        var services = scope.ServiceProvider;
        var db = services.GetRequiredService<PorchDb>();
        await using var write = await db.WriteAsync(CancellationToken.None);
        var type = (await db.MeetingTypes.ToListAsync()).Single(one => one.Content.Name == FirstTalk);
        var free = await services.GetRequiredService<MeetingSlots>().LoadAsync(type, null, at, CancellationToken.None);
        var slot = free.Free().First(one => one.Start >= at + Duration.FromDays(2));
        await BookAsync(services, db, type, client, slot.Start, MeetingPlaceKind.Video, "", at);
        await write.SaveAsync(CancellationToken.None);
    }

    /// <summary>Plays two weeks of meetings around now.</summary>
    /// <param name="owner">Who moves and notes.</param>
    public async Task PlayAsync(Guid owner, Instant now)
    {
        var clients = await ClientsAsync(Played.Length);
        foreach (var ((day, hour, minute, type, place, words, then), client) in Played.Zip(clients))
        {
            await using var scope = scopes.CreateAsyncScope();
            var services = scope.ServiceProvider;
            var (db, booking) = (services.GetRequiredService<PorchDb>(), services.GetRequiredService<MeetingBooking>());
            await using var write = await db.WriteAsync(CancellationToken.None);
            var calendar = (await db.BusinessAsync()).Calendar;
            var stored = (await db.MeetingTypes.ToListAsync()).Single(one => one.Content.Name == type);
            var date = calendar.WorkingDaysAfter(calendar.Today(now), day)!.Value;
            var wanted = calendar.ToInstant(date.At(new LocalTime(hour, minute)));
            var at = Instant.Min(now - Duration.FromHours(2), wanted - Duration.FromDays(5));
            var free = await services.GetRequiredService<MeetingSlots>().LoadAsync(stored, null, at, CancellationToken.None);
            if ((free.Find(wanted) ?? (free.NearestTo(wanted) is [var near, ..] ? near : null)) is not { } slot)
                continue;
            var meeting = await BookAsync(services, db, stored, client, slot.Start, place, words, at);
            await write.FlushAsync(CancellationToken.None);
            switch (then)
            {
                case Then.IsMoved:
                    free = await services.GetRequiredService<MeetingSlots>().LoadAsync(stored, meeting, at, CancellationToken.None);
                    await booking.MoveAsync(
                        meeting,
                        free.NearestTo(meeting.Start)[^1].Start,
                        "The plumber comes at three, sorry!",
                        by: null,
                        now - Duration.FromHours(1),
                        CancellationToken.None
                    );
                    break;
                case Then.IsCancelled:
                    await booking.CancelAsync(
                        meeting,
                        "We decided to wait until spring.",
                        by: null,
                        now - Duration.FromMinutes(40),
                        CancellationToken.None
                    );
                    break;
                case Then.IsMissed:
                    await booking.NoteMissedAsync(meeting, missed: true, owner, meeting.Start + Duration.FromMinutes(40));
                    break;
                case Then.Stays when day < 0:
                    meeting.Notes = "They know what they want. Send two sketches and a range.";
                    break;
            }

            await write.SaveAsync(CancellationToken.None);
        }
    }

    /// <summary>Fills the owner's practice calendar outside, and reads it as theirs.</summary>
    public async Task KeepOutsideCalendarAsync(User owner, Instant now)
    {
        await using var scope = scopes.CreateAsyncScope();
        var services = scope.ServiceProvider;
        var db = services.GetRequiredService<PorchDb>();
        await using var write = await db.WriteAsync(CancellationToken.None);
        var calendar = (await db.BusinessAsync()).Calendar;
        var email = owner.Email!.ToLowerInvariant();
        foreach (var (day, hour, minute, minutes, title, isWeekly) in Outside)
        {
            var date = calendar.WorkingDaysAfter(calendar.Today(now), day)!.Value;
            db.PracticeCalendarEntries.Add(
                new PracticeCalendarEntry
                {
                    Id = new Id<PracticeCalendarEntry>(Guid.CreateVersion7()),
                    Email = email,
                    Title = title,
                    Start = calendar.ToInstant(date.At(new LocalTime(hour, minute))),
                    Minutes = minutes,
                    IsWeekly = isWeekly,
                }
            );
        }

        await write.FlushAsync(CancellationToken.None);
        var address = PracticeCalendars.AddressOf(email);
        var text = (await services.GetRequiredService<PracticeCalendars>().ReadAsync(new Uri(address), CancellationToken.None))!;
        var outside = services.GetRequiredService<OutsideCalendars>();
        var times = (await outside.ReadAsync(text, now, CancellationToken.None))!;
        outside.Add(owner.Id, "Family", services.GetRequiredService<Tokens>().Seal(address), text, times, now);
        await write.SaveAsync(CancellationToken.None);
    }

    private static async Task<Meeting> BookAsync(
        IServiceProvider services,
        PorchDb db,
        StoredMeetingType type,
        Id<Client> id,
        Instant start,
        MeetingPlaceKind place,
        string words,
        Instant at
    )
    {
        var client = (await db.Clients.FindAsync(id))!;
        var inquiry = await db.Inquiries.Where(one => one.ClientId == id).OrderByDescending(one => one.Received).FirstOrDefaultAsync();
        var whom = new BookingFor(client, inquiry);
        var known = (await services.GetRequiredService<MeetingPageLoader>().KnownAsync(whom, CancellationToken.None))!;
        var offered = type.Content.Places.Single(one => one.Kind == place);
        var booked = await services
            .GetRequiredService<MeetingBooking>()
            .BookAsync(
                type,
                start,
                new CheckedBooking(known, place, words.Length > 0 ? words : offered.Address, Phone: null, new Dictionary<string, string>()),
                whom,
                (await db.BusinessAsync()).Zone,
                by: null,
                at,
                CancellationToken.None
            );
        return booked.Meeting!;
    }

    /// <summary>People with open work who are on no follow-through, so that a booking stops nothing that has been played.</summary>
    private async Task<List<Id<Client>>> ClientsAsync(int count)
    {
        await using var scope = scopes.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<PorchDb>();
        var newest = await (
            from inquiry in db.CountingInquiries
            where inquiry.Closed == null && !db.Runs.Any(run => run.ClientId == inquiry.ClientId && run.Active)
            join client in db.CountingClients on inquiry.ClientId equals client.Id
            join project in db.Projects on inquiry.ProjectId equals project.Id
            where client.Email != null && project.Closed == null
            orderby inquiry.Received descending, inquiry.Id
            select client.Id
        ).ToListAsync();
        return [.. newest.Distinct().Take(count)];
    }
}
