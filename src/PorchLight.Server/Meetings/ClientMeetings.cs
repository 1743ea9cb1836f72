using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Meetings;

/// <summary>The meetings with a client, and the links by which they book.</summary>
internal sealed class ClientMeetings(PorchDb db) : IClientPart
{
    public IEnumerable<ClientRows> RowsOf(WholePerson person)
    {
        var records = person.Records;
        yield return new ClientRows<MeetingHost>(
            db.MeetingHosts.Where(one => db.Meetings.Any(meeting => meeting.Id == one.MeetingId && records.Contains(meeting.ClientId)))
        )
        {
            WhenMerged = WhenMerged.Stays,
            Saved = null,
        };
        yield return new ClientRows<Meeting>(db.Meetings.Where(one => records.Contains(one.ClientId)))
        {
            WhenMerged = WhenMerged.GoesOver,
            Goes = ("One meeting", "{0} meetings"),
            Saved = one => new
            {
                one.Start,
                one.End,
                one.Title,
                one.State,
                one.Place,
                one.PlaceWords,
                one.Name,
                one.Email,
                Answers = one.Answers.ByQuestion,
                one.Notes,
                one.Reason,
            },
        };
        yield return new ClientRows<BookingLink>(db.BookingLinks.Where(one => records.Contains(one.ClientId)))
        {
            WhenMerged = WhenMerged.GoesOver,
            Saved = null,
        };
    }
}
