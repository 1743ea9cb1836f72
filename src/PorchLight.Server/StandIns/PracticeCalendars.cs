using Ical.Net.CalendarComponents;
using Ical.Net.DataTypes;
using Ical.Net.Serialization;
using Microsoft.EntityFrameworkCore;
using PorchLight.Server.Meetings;
using PorchLight.Server.Storage;
using OutsideFile = Ical.Net.Calendar;

namespace PorchLight.Server.StandIns;

/// <summary>
/// The practice calendars outside: each mail address has one. What somebody wrote into it stands in it, and every invitation that came to
/// the practice mail of that address, as a calendar program would take it up.
/// </summary>
internal sealed class PracticeCalendars(PorchDb db) : IPracticeCalendars
{
    private const string Host = "calendar.example";
    private const string Ending = ".ics";

    /// <summary>Where the calendar of a mail address is read.</summary>
    public static string AddressOf(string email) => $"https://{Host}/{Uri.EscapeDataString(email.ToLowerInvariant())}{Ending}";

    public async Task<string?> ReadAsync(Uri address, CancellationToken cancellationToken)
    {
        if (address.Host != Host || !address.AbsolutePath.EndsWith(Ending, StringComparison.OrdinalIgnoreCase))
            return null;
        var email = Uri.UnescapeDataString(address.AbsolutePath[1..^Ending.Length]);
        var file = new OutsideFile { ProductId = "-//example//practice calendar//EN" };
        var entries = file.Events;
        entries.AddRange(await KeptAsync(email, cancellationToken));
        entries.AddRange(await InvitedAsync(email, cancellationToken));
        return new CalendarSerializer().SerializeToString(file);
    }

    private async Task<List<CalendarEvent>> KeptAsync(string email, CancellationToken cancellationToken)
    {
        var zone = (await db.BusinessAsync()).DateTimeZone;
        var kept = await db.PracticeCalendarEntries.Where(entry => entry.Email == email).ToListAsync(cancellationToken);
        return
        [
            .. kept.OrderBy(entry => entry.Start)
                .Select(entry =>
                {
                    var local = entry.Start.InZone(zone).ToDateTimeUnspecified();
                    var written = new CalendarEvent
                    {
                        Uid = $"{entry.Id}@{Host}",
                        Summary = entry.Title,
                        DtStart = new CalDateTime(local, zone.Id),
                        DtEnd = new CalDateTime(local.AddMinutes(entry.Minutes), zone.Id),
                    };
                    if (entry.IsWeekly)
                        written.RecurrenceRule = new RecurrenceRule(Ical.Net.FrequencyType.Weekly);
                    return written;
                }),
        ];
    }

    /// <summary>What the invitations came to: of each meeting the newest.</summary>
    private async Task<List<CalendarEvent>> InvitedAsync(string email, CancellationToken cancellationToken)
    {
        var invitations = await db
            .PracticeMail.Where(mail => EF.Functions.Collate(mail.To, "NOCASE") == email && mail.Invitation != null)
            .Select(mail => mail.Invitation!)
            .ToListAsync(cancellationToken);
        return
        [
            .. invitations
                .SelectMany(invitation => OutsideFile.Load(invitation)!.Events)
                .GroupBy(entry => entry.Uid)
                .Select(entries => entries.MaxBy(entry => entry.Sequence)!)
                .Where(entry => entry.Status != Ical.Net.EventStatus.Cancelled),
        ];
    }
}
