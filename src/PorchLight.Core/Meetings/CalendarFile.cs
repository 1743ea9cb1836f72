using Ical.Net;
using Ical.Net.CalendarComponents;
using Ical.Net.DataTypes;
using Ical.Net.Serialization;
using NodaTime;
using PorchLight.Core.Calendar;
using OutsideCalendar = Ical.Net.Calendar;

namespace PorchLight.Core.Meetings;

/// <summary>A meeting as an entry of a calendar.</summary>
/// <param name="Uid">Its name for all time: the same through every move.</param>
/// <param name="Sequence">How often it was changed: rises with every move and with cancelling (RFC 5545, 3.8.7.4).</param>
/// <param name="Written">When it was changed last.</param>
/// <param name="When">When it is.</param>
/// <param name="Title">What it is called.</param>
public sealed record CalendarEntry(string Uid, int Sequence, Instant Written, Span When, string Title)
{
    /// <summary>Where it is; may be empty.</summary>
    public string Where { get; init; } = "";

    /// <summary>What is said about it; may be empty.</summary>
    public string Words { get; init; } = "";

    /// <summary>Whether it was called off.</summary>
    public bool IsCancelled { get; init; }
}

/// <summary>Somebody who takes part.</summary>
/// <param name="Name">Their name; may be empty.</param>
/// <param name="Email">Their mail address.</param>
public sealed record CalendarPerson(string Name, string Email);

/// <summary>Writes meetings as iCalendar (RFC 5545) and as invitations (iTIP, RFC 5546). Times are written in UTC.</summary>
public static class CalendarFile
{
    /// <summary>The type of what is written.</summary>
    public const string ContentType = "text/calendar";

    private const string Producer = "-//Porch Light//Calendar//EN";

    /// <summary>
    /// An invitation to one meeting, or its calling-off: method REQUEST, or CANCEL where the entry is cancelled. Whoever is invited has
    /// said yes already, for they booked it.
    /// </summary>
    /// <param name="entry">The meeting.</param>
    /// <param name="from">Who invites.</param>
    /// <param name="to">Who is invited.</param>
    public static string Invite(CalendarEntry entry, CalendarPerson from, CalendarPerson to)
    {
        var written = EventOf(entry);
        written.Organizer = new Organizer($"mailto:{from.Email}") { CommonName = from.Name };
        written.Attendees.Add(
            new Attendee($"mailto:{to.Email}")
            {
                CommonName = to.Name.Length == 0 ? to.Email : to.Name,
                Role = ParticipationRole.RequiredParticipant,
                ParticipationStatus = EventParticipationStatus.Accepted,
                Rsvp = false,
            }
        );
        return Write([written], entry.IsCancelled ? CalendarMethods.Cancel : CalendarMethods.Request, name: null);
    }

    /// <summary>The method of an invitation, as the mail that carries it has to say it (RFC 6047, 2.4): "REQUEST" or "CANCEL".</summary>
    /// <param name="invitation">What <see cref="Invite"/> wrote.</param>
    public static string MethodOf(string invitation) =>
        invitation.Contains($"\r\nMETHOD:{CalendarMethods.Cancel}\r\n", StringComparison.Ordinal)
            ? CalendarMethods.Cancel
            : CalendarMethods.Request;

    /// <summary>A calendar to subscribe to. What was cancelled stands in it as cancelled, so that readers who had it take it out.</summary>
    /// <param name="entries">The meetings, in any order.</param>
    /// <param name="name">What the calendar is called.</param>
    public static string Feed(IEnumerable<CalendarEntry> entries, string name) =>
        Write(
            [.. entries.OrderBy(entry => entry.When.From).ThenBy(entry => entry.Uid, StringComparer.Ordinal).Select(EventOf)],
            CalendarMethods.Publish,
            name
        );

    private static CalendarEvent EventOf(CalendarEntry entry) =>
        new()
        {
            Uid = entry.Uid,
            Sequence = entry.Sequence,
            DtStamp = Utc(entry.Written),
            DtStart = Utc(entry.When.From),
            DtEnd = Utc(entry.When.To),
            Summary = entry.Title,
            Location = entry.Where.Length == 0 ? null : entry.Where,
            Description = entry.Words.Length == 0 ? null : entry.Words,
            Status = entry.IsCancelled ? EventStatus.Cancelled : EventStatus.Confirmed,
        };

    private static string Write(IReadOnlyList<CalendarEvent> events, string method, string? name)
    {
        var calendar = new OutsideCalendar { ProductId = Producer, Method = method };
        if (name is not null)
            calendar.AddProperty("X-WR-CALNAME", name);
        calendar.Events.AddRange(events);
        return new CalendarSerializer().SerializeToString(calendar)!;
    }

    private static CalDateTime Utc(Instant instant) => new(instant.ToDateTimeUtc(), "UTC");
}
