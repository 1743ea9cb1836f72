using NodaTime;
using PorchLight.Core.Calendar;
using PorchLight.Core.Meetings;

namespace PorchLight.Core.Tests.Meetings;

public sealed class MeetingTimeWordsTests
{
    [Theory]
    [InlineData("Europe/Dublin", "Thursday 3 December, 15:00 to 15:30")]
    [InlineData("Europe/Lisbon", "Thursday 3 December, 15:00 to 15:30 in Lisbon, the same in Dublin")]
    [InlineData("Europe/Berlin", "Thursday 3 December, 16:00 to 16:30 in Berlin, 15:00 in Dublin")]
    [InlineData("America/New_York", "Thursday 3 December, 10:00 to 10:30 in New York, 15:00 in Dublin")]
    [InlineData("Pacific/Auckland", "Friday 4 December, 04:00 to 04:30 in Auckland, Thursday 15:00 in Dublin")]
    public void A_meeting_is_said_by_the_clock_of_whoever_looks_with_ours_beside_it(string zone, string said)
    {
        var start = Instant.FromUtc(2026, 12, 3, 15, 0);
        MeetingTimeWords
            .Say(
                new Span(start, start + Duration.FromMinutes(30)),
                DateTimeZoneProviders.Tzdb[zone],
                DateTimeZoneProviders.Tzdb["Europe/Dublin"]
            )
            .ShouldBe(said);
    }

    [Fact]
    public void One_over_midnight_says_the_day_on_which_it_ends()
    {
        var (start, zone) = (Instant.FromUtc(2026, 12, 3, 23, 0), DateTimeZoneProviders.Tzdb["Europe/Dublin"]);
        MeetingTimeWords
            .Say(new Span(start, start + Duration.FromHours(2)), zone, zone)
            .ShouldBe("Thursday 3 December, 23:00 to Friday 01:00");
    }
}
