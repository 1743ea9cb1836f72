using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Brand;
using PorchLight.Core.Calendar;
using PorchLight.Core.Meetings;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Meetings;

/// <summary>Gathers what the free times of a meeting type are found from.</summary>
internal sealed class MeetingSlots(PorchDb db)
{
    // The week of today may have begun six days ago, that of the last day may go on for six.
    private const int DaysAround = 8;

    /// <summary>The free times as things are.</summary>
    /// <param name="type">The type.</param>
    /// <param name="moving">The meeting that is to be moved, which is no obstacle to that; null for a new one.</param>
    /// <param name="now">The business's now.</param>
    public async Task<Slots> LoadAsync(StoredMeetingType type, Meeting? moving, Instant now, CancellationToken cancellationToken)
    {
        var (business, rules) = (await db.BusinessAsync(), type.Content.Rules);
        var (earliest, latest) = (now - Duration.FromDays(DaysAround), now + Duration.FromDays(rules.HorizonDays + DaysAround));
        var meetings = await (
            from meeting in db.Meetings
            where meeting.Start >= earliest && meeting.Start < latest && meeting.State != MeetingState.Cancelled
            select new
            {
                meeting.Id,
                meeting.TypeId,
                meeting.Start,
                Busy = new Span(meeting.BusyFrom, meeting.BusyTo),
            }
        ).ToListAsync(cancellationToken);
        if (moving is not null)
            meetings.RemoveAll(meeting => meeting.Id == moving.Id);
        var held = (
            await (
                from host in db.MeetingHosts
                join meeting in db.Meetings on host.MeetingId equals meeting.Id
                where meeting.Start >= earliest && meeting.Start < latest
                select new { host.UserId, host.MeetingId }
            ).ToListAsync(cancellationToken)
        ).ToLookup(host => host.UserId, host => host.MeetingId);
        var users = await db
            .Users.Where(user => type.Content.Hosts.Contains(user.Id))
            .Select(user => user.Id)
            .ToListAsync(cancellationToken);
        var hours = await db
            .UserHours.Where(one => users.Contains(one.UserId))
            .ToDictionaryAsync(one => one.UserId, one => one.Hours, cancellationToken);
        var outside = (
            await (
                from entry in db.OutsideEntries
                join calendar in db.OutsideCalendars on entry.CalendarId equals calendar.Id
                where users.Contains(calendar.UserId) && entry.From < latest && entry.To > earliest
                select new { calendar.UserId, When = new Span(entry.From, entry.To) }
            ).ToListAsync(cancellationToken)
        ).ToLookup(entry => entry.UserId, entry => entry.When);
        return new Slots(
            rules,
            [.. type.Content.Hosts.Where(users.Contains).Select(HostOf)],
            meetings.Where(meeting => meeting.TypeId == type.Id).Select(meeting => meeting.Start),
            business.DateTimeZone,
            Locales.WeekBeginsOn(business.Region),
            now
        );

        SlotHost HostOf(Guid user)
        {
            var (own, theirs) = (hours.GetValueOrDefault(user) ?? PersonHours.AsBusiness, held[user].ToHashSet());
            var ofThem = meetings.Where(meeting => theirs.Contains(meeting.Id)).ToList();
            return new SlotHost(
                user,
                own.WeeklyWithin(business.Hours),
                own.AllDaysOff(business.Hours),
                [.. ofThem.Select(meeting => meeting.Busy), .. outside[user]],
                [.. ofThem.Select(meeting => meeting.Start)]
            );
        }
    }
}
