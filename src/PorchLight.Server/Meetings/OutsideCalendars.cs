using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Meetings;

/// <summary>Keeps calendars from elsewhere: what they hold, for as far ahead as times are ever offered.</summary>
internal sealed class OutsideCalendars(PorchDb db)
{
    /// <summary>How often a calendar at an address is read.</summary>
    public static readonly Duration Between = Duration.FromHours(1);

    /// <summary>How often the repetitions of a calendar that stays the same are followed further.</summary>
    private static readonly Duration BetweenExpanding = Duration.FromDays(7);

    private static readonly Duration Behind = Duration.FromDays(31);
    private static readonly Duration Ahead = Duration.FromDays(SlotRules.FarthestHorizon + 31);

    /// <summary>Reads a calendar; null where the text is none.</summary>
    /// <param name="now">The business's now.</param>
    public async Task<BusyTimes?> ReadAsync(string text, Instant now, CancellationToken cancellationToken)
    {
        var own = (await db.Meetings.Select(meeting => meeting.Uid).ToListAsync(cancellationToken)).ToHashSet();
        return BusyTimes.Read(text, (await db.BusinessAsync()).DateTimeZone, new Span(now - Behind, now + Ahead), own.Contains);
    }

    /// <summary>Adds a calendar that was read, as part of the caller's write.</summary>
    /// <param name="addressSealed">Where it is read again; null for a file.</param>
    public OutsideCalendar Add(Guid user, string name, string? addressSealed, string text, BusyTimes times, Instant now)
    {
        var calendar = db
            .OutsideCalendars.Add(
                new OutsideCalendar
                {
                    Id = new Id<OutsideCalendar>(Guid.CreateVersion7()),
                    UserId = user,
                    Name = name,
                    AddressSealed = addressSealed,
                    Text = text,
                    Read = now,
                    Faults = new CalendarFaults(times.Faults),
                    Expanded = now,
                    Next = now + (addressSealed is null ? BetweenExpanding : Between),
                }
            )
            .Entity;
        AddEntries(calendar, times);
        return calendar;
    }

    /// <summary>
    /// Keeps what was read of a calendar, or why it was not, as part of the caller's write. What is broken leaves the last good one.
    /// </summary>
    /// <param name="fetched">What was found at its address; null for a file, which is the same again.</param>
    public async Task KeepAsync(OutsideCalendar calendar, FetchedCalendar? fetched, Instant now, CancellationToken cancellationToken)
    {
        calendar.Next = now + (calendar.AddressSealed is null ? BetweenExpanding : Between);
        var text = fetched is null ? calendar.Text : fetched.Text;
        if (text is null)
        {
            calendar.Fault = fetched!.Fault;
            return;
        }

        if (text != calendar.Text || now - calendar.Expanded >= BetweenExpanding || now < calendar.Expanded)
        {
            if (await ReadAsync(text, now, cancellationToken) is not { } times)
            {
                calendar.Fault = OutsideCalendarReader.NoCalendar;
                return;
            }

            await db.OutsideEntries.Where(entry => entry.CalendarId == calendar.Id).ExecuteDeleteAsync(cancellationToken);
            AddEntries(calendar, times);
            (calendar.Text, calendar.Faults, calendar.Expanded) = (text, new CalendarFaults(times.Faults), now);
        }

        calendar.Fault = null;
        if (fetched is not null)
            calendar.Read = now;
    }

    private void AddEntries(OutsideCalendar calendar, BusyTimes times) =>
        db.OutsideEntries.AddRange(
            times.Entries.Select(entry => new OutsideEntry
            {
                CalendarId = calendar.Id,
                From = entry.When.From,
                To = entry.When.To,
                Title = entry.Title,
            })
        );
}
