using NodaTime;
using PorchLight.Core.Brand;
using PorchLight.Core.Meetings;

namespace PorchLight.Core.Tests.Meetings;

public sealed class CalendarNoteTests
{
    private static readonly LocalDateTime Now = new(2026, 12, 1, 11, 0);

    [Theory]
    [InlineData("", "No meetings.")]
    [InlineData("1 15", "One meeting, today at 15:00.")]
    [InlineData("30 9|1 15|3 10", "Three meetings, one of them today at 15:00.")]
    [InlineData("1 9|3 10", "Two meetings.")]
    [InlineData("1 15|1 16", "Two meetings, today at 15:00 and 16:00.")]
    public void A_week_is_said_in_a_sentence(string meetings, string said) =>
        CalendarNote
            .Say(
                [
                    .. meetings
                        .Split('|', StringSplitOptions.RemoveEmptyEntries)
                        .Select(one => one.Split(' ').Select(int.Parse).ToArray())
                        .Select(one => new LocalDateTime(2026, one[0] == 30 ? 11 : 12, one[0], one[1], 0)),
                ],
                Now
            )
            .ShouldBe(said);

    [Theory]
    [InlineData("2026-11-30", "This week", "30 November to 6 December 2026")]
    [InlineData("2026-12-07", "Next week", "7 December to 13 December 2026")]
    [InlineData("2026-11-23", "Last week", "23 November to 29 November 2026")]
    [InlineData("2026-12-28", "Week of 28 December", "28 December to 3 January 2027")]
    public void A_week_is_named_from_this_one(string first, string title, string range)
    {
        var day = NodaTime.Text.LocalDatePattern.Iso.Parse(first).Value;
        CalendarNote.Title(day, new LocalDate(2026, 11, 30)).ShouldBe(title);
        CalendarNote.Range(day).ShouldBe(range);
    }

    // Unicode CLDR, supplemental weekData/firstDay, from memory.
    [Theory]
    [InlineData("IE", IsoDayOfWeek.Monday)]
    [InlineData("DE", IsoDayOfWeek.Monday)]
    [InlineData("US", IsoDayOfWeek.Sunday)]
    [InlineData("EG", IsoDayOfWeek.Saturday)]
    [InlineData("", IsoDayOfWeek.Monday)]
    [InlineData("not a country", IsoDayOfWeek.Monday)]
    public void A_week_begins_as_people_of_the_country_have_it(string region, IsoDayOfWeek day) =>
        Locales.WeekBeginsOn(region).ShouldBe(day);

    [Fact]
    public void Those_who_hold_a_meeting_are_told_what_became_of_it()
    {
        var facts = new MeetingNewsFacts(
            "Pilar Ingleby",
            "Thursday 3 December, 15:00 to 15:30",
            "by phone +353 1 555 0142",
            [("What is it about?", "The long wall")],
            "",
            "https://forms.example/calendar/1"
        );
        MeetingNews
            .Subject(MeetingChangeKind.Booked, "A first talk with Pilar Ingleby")
            .ShouldBe("Booked: A first talk with Pilar Ingleby");
        MeetingNews
            .Text(MeetingChangeKind.Booked, facts)
            .ShouldBe(
                "Pilar Ingleby, by phone +353 1 555 0142\n\nBooked: Thursday 3 December, 15:00 to 15:30.\n\nWhat is it about?\nThe long wall\n\nhttps://forms.example/calendar/1"
            );
        MeetingNews
            .Text(MeetingChangeKind.Moved, facts with { Reason = "The plumber comes." })
            .ShouldBe(
                "Pilar Ingleby, by phone +353 1 555 0142\n\nMoved: Thursday 3 December, 15:00 to 15:30.\n\nWhy: The plumber comes.\n\nhttps://forms.example/calendar/1"
            );
    }
}
