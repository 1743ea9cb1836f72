using CsCheck;
using NodaTime;
using PorchLight.Core.Calendar;
using static PorchLight.Core.Tests.Sample;

namespace PorchLight.Core.Tests.Calendar;

public sealed class DeadlineWordsTests
{
    private static readonly BusinessCalendar Clock = Dublin();
    private static readonly Instant Now = Clock.At(2026, 11, 23, 10);

    [Theory]
    [InlineData(2026, 11, 23, 15, 0, "by 15:00 today")]
    [InlineData(2026, 11, 24, 11, 20, "by tomorrow 11:20")]
    [InlineData(2026, 11, 26, 9, 5, "by Thursday 09:05")]
    [InlineData(2026, 12, 3, 9, 5, "by Thursday 3 December, 09:05")]
    [InlineData(2027, 1, 4, 9, 5, "by 4 January 2027, 09:05")]
    [InlineData(2026, 11, 26, 17, 0, "by Thursday 17:00")]
    public void Inside_opening_hours_a_deadline_is_said_by_the_clock(int year, int month, int day, int hour, int minute, string words)
    {
        DeadlineWords.ToLead(Clock.At(year, month, day, hour, minute), Now, Clock).ShouldBe(words);
        DeadlineWords.ToOwner(Clock.At(year, month, day, hour, minute), Now, Clock).ShouldBe(words);
    }

    [Theory]
    [InlineData(2026, 11, 24, "by the end of today")]
    [InlineData(2026, 11, 25, "by the end of tomorrow")]
    [InlineData(2026, 11, 27, "by the end of Thursday")]
    [InlineData(2026, 12, 5, "by the end of Friday 4 December")]
    public void At_a_days_end_it_is_the_end_of_that_day(int year, int month, int day, string words)
    {
        DeadlineWords.ToLead(Clock.At(year, month, day), Now, Clock).ShouldBe(words);
        DeadlineWords.ToOwner(Clock.At(year, month, day), Now, Clock).ShouldBe(words);
    }

    [Theory]
    [InlineData(29, 13, "by Friday 17:00")]
    [InlineData(24, 3, "by 17:00 today")]
    [InlineData(24, 11, "by tomorrow 11:00")]
    [InlineData(20, 11, "was due last Friday 11:00")]
    [InlineData(23, 0, "was due yesterday")]
    [InlineData(21, 0, "was due last Friday")]
    public void In_a_list_one_moment_has_to_do(int day, int hour, string words) =>
        DeadlineWords.InList(Clock.At(2026, 11, day, hour), Clock.At(2026, 11, 23, 10), Clock).ShouldBe(words);

    // The worked example of the rules: promised until Monday early, to be answered on Friday before the door closes.
    [Theory]
    [InlineData(2026, 11, 30, 3, 28, "by Monday 30 November morning", "")]
    [InlineData(2026, 11, 29, 13, 0, "by Sunday afternoon", "answer by Friday 17:00, promised until Sunday afternoon")]
    [InlineData(2026, 11, 27, 19, 0, "by Friday evening", "answer by Friday 17:00, promised until Friday evening")]
    [InlineData(2026, 11, 24, 3, 28, "by tomorrow morning", "answer by 17:00 today, promised until tomorrow morning")]
    [InlineData(2026, 11, 23, 20, 0, "by this evening", "answer by 17:00 today, promised until this evening")]
    [InlineData(
        2026,
        12,
        5,
        8,
        0,
        "by the morning of Saturday 5 December",
        "answer by Friday 4 December, 17:00, promised until the morning of Saturday 5 December"
    )]
    public void Outside_of_them_a_lead_hears_the_part_of_the_day_and_the_owner_the_last_closing_before(
        int year,
        int month,
        int day,
        int hour,
        int minute,
        string toLead,
        string toOwner
    )
    {
        var deadline = Clock.At(year, month, day, hour, minute);
        if (toOwner.Length == 0)
        {
            // A week on, so that Monday is Monday.
            var saturday = Clock.At(2026, 11, 27, 12);
            DeadlineWords.ToLead(deadline, saturday, Clock).ShouldBe("by Monday morning");
            DeadlineWords.ToOwner(deadline, saturday, Clock).ShouldBe("answer by 17:00 today, promised until Monday morning");
            DeadlineWords.ToOwner(deadline, Clock.At(2026, 11, 28, 12), Clock).ShouldBe("by Monday morning", "Friday's closing has passed");
            return;
        }

        DeadlineWords.ToLead(deadline, Now, Clock).ShouldBe(toLead);
        DeadlineWords.ToOwner(deadline, Now, Clock).ShouldBe(toOwner);
    }

    [Theory]
    [InlineData(20, 9, 15, "was due last Friday 09:15")]
    [InlineData(23, 0, 0, "was due at the end of yesterday")]
    [InlineData(20, 20, 0, "was due last Friday evening")]
    [InlineData(23, 4, 0, "was due this morning")]
    [InlineData(23, 9, 30, "was due 09:30 today")]
    public void What_has_passed_is_said_likewise(int day, int hour, int minute, string words) =>
        DeadlineWords.ToOwner(Clock.At(2026, 11, day, hour, minute), Now, Clock).ShouldBe(words);

    // Egypt's clocks go forward on the last Friday of April at 00:00 (tz database, rule Egypt from 2023 on): that day begins at 01:00.
    [Fact]
    public void Where_the_clock_jumps_at_midnight_a_day_ends_all_the_same()
    {
        var cairo = new BusinessCalendar(DateTimeZoneProviders.Tzdb["Africa/Cairo"], [], []);
        var asked = Instant.FromUtc(2026, 4, 23, 9, 0);
        DeadlineWords.ToLead(Instant.FromUtc(2026, 4, 23, 22, 0), asked, cairo).ShouldBe("by the end of today");
        DeadlineWords.ToLead(Instant.FromUtc(2026, 4, 24, 21, 0), asked, cairo).ShouldBe("by the end of tomorrow");
    }

    [Fact]
    public void Nobody_ever_reads_a_time_of_night() =>
        Gen.Int[0, 30 * 24 * 60]
            .Sample(minutes =>
            {
                var deadline = Now + Duration.FromMinutes(minutes);
                foreach (
                    var words in new[]
                    {
                        DeadlineWords.ToLead(deadline, Now, Clock),
                        DeadlineWords.ToOwner(deadline, Now, Clock),
                        DeadlineWords.ToOwner(Now - Duration.FromMinutes(minutes + 1), Now, Clock),
                    }
                )
                {
                    foreach (var time in System.Text.RegularExpressions.Regex.Matches(words, @"\d\d:\d\d").Select(match => match.Value))
                        string.CompareOrdinal(time, "09:00").ShouldBeGreaterThanOrEqualTo(0, words);
                    foreach (var time in System.Text.RegularExpressions.Regex.Matches(words, @"\d\d:\d\d").Select(match => match.Value))
                        string.CompareOrdinal(time, "17:00").ShouldBeLessThanOrEqualTo(0, words);
                }
            });
}
