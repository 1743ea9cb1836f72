using CsCheck;
using Ical.Net;
using NodaTime;
using PorchLight.Core.Calendar;
using PorchLight.Core.Meetings;
using Entry = Ical.Net.CalendarComponents.CalendarEvent;
using OutsideCalendar = Ical.Net.Calendar;

namespace PorchLight.Core.Tests.Meetings;

/// <summary>What is written is read again by Ical.Net, and by the words of RFC 5545 and 5546.</summary>
public sealed class CalendarFileTests
{
    private static readonly CalendarPerson Studio = new("Ochre Wren", "hello@ochrewren.example");
    private static readonly CalendarPerson Pilar = new("Pilar Ingleby", "pilar@longwall.example");

    private static readonly CalendarEntry Talk = new(
        "0195@ochrewren.example",
        0,
        Instant.FromUtc(2026, 12, 1, 9, 30),
        new Span(Instant.FromUtc(2026, 12, 3, 15, 0), Instant.FromUtc(2026, 12, 3, 15, 30)),
        "A first talk, Ochre Wren"
    )
    {
        Where = "By phone: we ring +353 1 555 0142",
        Words = "Move or cancel: https://forms.example/m/abc",
    };

    // RFC 5546, 3.2.2: what a REQUEST has to hold.
    [Fact]
    public void An_invitation_is_a_request_with_what_RFC_5546_asks_for()
    {
        var text = CalendarFile.Invite(Talk, Studio, Pilar);
        CalendarFile.MethodOf(text).ShouldBe("REQUEST");
        var calendar = OutsideCalendar.Load(text)!;
        (calendar.Method, calendar.Version).ShouldBe(("REQUEST", "2.0"));
        var entry = calendar.Events.ShouldHaveSingleItem();
        (entry.Uid, entry.Sequence, entry.Summary, entry.Location, entry.Status).ShouldBe(
            (Talk.Uid, 0, Talk.Title, Talk.Where, EventStatus.Confirmed)
        );
        (Moment(entry.DtStart!), Moment(entry.DtEnd!), Moment(entry.DtStamp!)).ShouldBe((Talk.When.From, Talk.When.To, Talk.Written));
        entry.Organizer!.Value!.ToString().ShouldBe("mailto:hello@ochrewren.example");
        var attendee = entry.Attendees.ShouldHaveSingleItem();
        (attendee.Value!.ToString(), attendee.CommonName, attendee.ParticipationStatus).ShouldBe(
            ("mailto:pilar@longwall.example", "Pilar Ingleby", EventParticipationStatus.Accepted)
        );
        // RFC 5545, 3.1: lines end with CRLF and have at most 75 octets.
        text.Split("\r\n").ShouldAllBe(line => System.Text.Encoding.UTF8.GetByteCount(line) <= 75);
        text.Replace("\r\n", "", StringComparison.Ordinal).ShouldNotContain("\n");
    }

    [Fact]
    public void Calling_it_off_is_a_cancel_of_the_same_entry()
    {
        var text = CalendarFile.Invite(Talk with { Sequence = 2, IsCancelled = true }, Studio, Pilar);
        CalendarFile.MethodOf(text).ShouldBe("CANCEL");
        var entry = OutsideCalendar.Load(text)!.Events.ShouldHaveSingleItem();
        (entry.Uid, entry.Sequence, entry.Status).ShouldBe((Talk.Uid, 2, EventStatus.Cancelled));
    }

    [Theory]
    [InlineData("A wall; with, odd\\ signs: \"yes\"")]
    [InlineData("Zażółć gęślą jaźń 漢字 and a very long title that has to be folded more than once, since a line has 75 octets")]
    [InlineData("BEGIN:VEVENT\r\nMETHOD:CANCEL")]
    public void Words_come_out_as_they_went_in(string title)
    {
        var text = CalendarFile.Invite(Talk with { Title = title, Words = title }, Studio, Pilar);
        CalendarFile.MethodOf(text).ShouldBe("REQUEST");
        var entry = OutsideCalendar.Load(text)!.Events.ShouldHaveSingleItem();
        entry.Summary!.ReplaceLineEndings("\n").ShouldBe(title.ReplaceLineEndings("\n"));
        entry.Description!.ReplaceLineEndings("\n").ShouldBe(title.ReplaceLineEndings("\n"));
    }

    /// <summary>Whoever applies each invitation as it comes, the highest sequence last, has what the feed says.</summary>
    [Fact]
    public void Invitations_applied_one_after_another_give_the_calendar() =>
        Gen.Select(Gen.Int[0, 5], Gen.Int[0, 2], Gen.Int[0, 400])
            .Array[1, 40]
            .Sample(acts =>
            {
                var ours = new Dictionary<int, CalendarEntry>();
                var theirs = new Dictionary<string, Entry>();
                var clock = Talk.Written;
                foreach (var (meeting, act, halfHours) in acts)
                {
                    clock += Duration.FromMinutes(1);
                    if (ours.GetValueOrDefault(meeting) is { IsCancelled: true })
                        continue;
                    var start = Talk.When.From + Duration.FromMinutes(30 * halfHours);
                    ours[meeting] = ours.TryGetValue(meeting, out var there)
                        ? there with
                        {
                            Sequence = there.Sequence + 1,
                            Written = clock,
                            IsCancelled = act == 2,
                            When = act == 2 ? there.When : new Span(start, start + Duration.FromMinutes(30)),
                        }
                        : Talk with
                        {
                            Uid = $"{meeting}@ochrewren.example",
                            Written = clock,
                            When = new Span(start, start + Duration.FromMinutes(30)),
                        };
                    var told = OutsideCalendar.Load(CalendarFile.Invite(ours[meeting], Studio, Pilar))!;
                    var entry = told.Events.Single();
                    if (theirs.TryGetValue(entry.Uid!, out var known))
                        entry.Sequence.ShouldBeGreaterThan(known.Sequence);
                    theirs[entry.Uid!] = entry;
                }

                var feed = OutsideCalendar.Load(CalendarFile.Feed(ours.Values, "Ochre Wren"))!;
                feed.Method.ShouldBe("PUBLISH");
                feed.Events.Select(Facts).Order().ShouldBe(theirs.Values.Select(Facts).Order());
            });

    private static (string, int, Instant, string) Facts(Entry entry) => (entry.Uid!, entry.Sequence, Moment(entry.DtStart!), entry.Status!);

    private static Instant Moment(Ical.Net.DataTypes.CalDateTime time) => Instant.FromDateTimeUtc(time.AsUtc);
}
