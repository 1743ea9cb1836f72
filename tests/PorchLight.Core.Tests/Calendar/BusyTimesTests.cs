using NodaTime;
using NodaTime.Text;
using PorchLight.Core.Calendar;

namespace PorchLight.Core.Tests.Calendar;

public sealed class BusyTimesTests
{
    private static readonly DateTimeZone Dublin = DateTimeZoneProviders.Tzdb["Europe/Dublin"];
    private static readonly DateTimeZone NewYork = DateTimeZoneProviders.Tzdb["America/New_York"];
    private static readonly Span Always = new(Instant.FromUtc(1995, 1, 1, 0, 0), Instant.FromUtc(2040, 1, 1, 0, 0));
    private static readonly Span December = new(Instant.FromUtc(2026, 12, 1, 0, 0), Instant.FromUtc(2027, 1, 1, 0, 0));

    public static TheoryData<string> Examples => [.. RecurrenceExamples.All.Select(example => example.Name)];

    [Theory]
    [MemberData(nameof(Examples))]
    public void What_repeats_does_so_on_the_dates_that_were_published(string name)
    {
        var (_, begins, rule, dates, endsThere) = RecurrenceExamples.All.Single(example => example.Name == name);
        var busy = Read(
            $"DTSTART;TZID=America/New_York:{begins}\r\nDURATION:PT5M\r\nRRULE:{rule}",
            Dublin,
            Always with
            {
                To = Instant.FromUtc(2010, 1, 1, 0, 0),
            }
        );
        var expected = RecurrenceExamples.Read(dates);
        var starts = busy.Busy.Select(span => span.From.InZone(NewYork).LocalDateTime).ToList();
        (endsThere ? starts : starts.Take(expected.Count)).ShouldBe(expected);
        busy.Busy.ShouldAllBe(span => span.To - span.From == NodaTime.Duration.FromMinutes(5));
    }

    [Fact]
    public void Whole_days_are_blocked_in_the_zone_of_whoever_keeps_the_calendar()
    {
        Said("DTSTART;VALUE=DATE:20261207\r\nDTEND;VALUE=DATE:20261209", NewYork).ShouldBe(["2026-12-07T05:00 2026-12-09T05:00"]);
        Said("DTSTART;VALUE=DATE:20261207", Dublin).ShouldBe(["2026-12-07T00:00 2026-12-08T00:00"], "without an end it is one day");
    }

    [Theory]
    [InlineData("DTSTART:20261207T090000Z\r\nDTEND:20261207T100000Z", "2026-12-07T09:00 2026-12-07T10:00")]
    [InlineData("DTSTART:20261207T090000\r\nDTEND:20261207T100000", "2026-12-07T14:00 2026-12-07T15:00")]
    [InlineData(
        "DTSTART;TZID=W. Europe Standard Time;VALUE=DATE-TIME:20261207T090000\r\nDURATION:PT1H",
        "2026-12-07T08:00 2026-12-07T09:00"
    )]
    [InlineData("DTSTART;TZID=Asia/Kathmandu:20261207T090000\r\nDURATION:PT1H30M", "2026-12-07T03:15 2026-12-07T04:45")]
    [InlineData("DTSTART;TZID=W. Europe Standard Time:20261207T090000\r\nDURATION:PT1H", "2026-12-07T08:00 2026-12-07T09:00")]
    [InlineData("DTSTART;TZID=\"/example.org/2026/Europe/Paris\":20261207T090000\r\nDURATION:PT1H", "2026-12-07T08:00 2026-12-07T09:00")]
    [InlineData("DTSTART;TZID=Asia/Kath\r\n mandu:20261207T090000\r\nDURATION:PT1H", "2026-12-07T03:15 2026-12-07T04:15")]
    public void A_time_is_of_its_zone_and_without_one_of_the_calendars(string entry, string expected) =>
        Said(entry, NewYork).ShouldBe([expected]);

    [Fact]
    public void An_unknown_zone_is_said_and_its_times_are_those_of_the_calendar()
    {
        var busy = Read("DTSTART;TZID=Nowhere/Land:20261207T090000\r\nDURATION:PT1H", NewYork, December);
        Said(busy).ShouldBe(["2026-12-07T14:00 2026-12-07T15:00"]);
        busy.Faults.ShouldBe(["The time zone “Nowhere/Land” is not known here. Its times are read as times in America/New_York."]);
    }

    [Theory]
    [InlineData("STATUS:CANCELLED")]
    [InlineData("TRANSP:TRANSPARENT")]
    [InlineData("status:cancelled")]
    public void What_is_cancelled_or_takes_up_no_time_blocks_nothing(string line) =>
        Said($"DTSTART:20261207T090000Z\r\nDURATION:PT1H\r\n{line}", Dublin).ShouldBeEmpty();

    [Fact]
    public void Single_times_of_what_repeats_are_left_out_moved_and_cancelled()
    {
        var text = Wrapped(
            "DTSTART:20261207T090000Z\r\nDURATION:PT1H\r\nRRULE:FREQ=DAILY;COUNT=5\r\nEXDATE:20261208T090000Z",
            "DTSTART:20261209T150000Z\r\nDURATION:PT2H\r\nRECURRENCE-ID:20261209T090000Z",
            "DTSTART:20261210T090000Z\r\nDURATION:PT1H\r\nRECURRENCE-ID:20261210T090000Z\r\nSTATUS:CANCELLED"
        );
        Said(BusyTimes.Read(text, Dublin, December)!)
            .ShouldBe(["2026-12-07T09:00 2026-12-07T10:00", "2026-12-09T15:00 2026-12-09T17:00", "2026-12-11T09:00 2026-12-11T10:00"]);
    }

    [Fact]
    public void What_began_before_counts_with_the_part_that_reaches_in_and_what_overlaps_is_one()
    {
        Said("DTSTART:20261030T090000Z\r\nDTEND:20261202T100000Z", Dublin).ShouldBe(["2026-12-01T00:00 2026-12-02T10:00"]);
        Said("DTSTART:20261207T090000Z\r\nDURATION:PT1H\r\nRRULE:FREQ=HOURLY;COUNT=3", Dublin)
            .ShouldBe(["2026-12-07T09:00 2026-12-07T12:00"]);
        Said("DTSTART:20261130T090000Z\r\nDURATION:PT1H", Dublin).ShouldBeEmpty();
    }

    // Clocks in Dublin went back on 25 October 2026 (IANA tz database): 09:00 there is 08:00 UTC before and 09:00 UTC after.
    [Fact]
    public void What_repeats_keeps_its_time_of_day_across_a_clock_change()
    {
        var october = new Span(Instant.FromUtc(2026, 10, 24, 0, 0), Instant.FromUtc(2026, 10, 27, 0, 0));
        Said(Read("DTSTART;TZID=Europe/Dublin:20261001T090000\r\nDURATION:PT1H\r\nRRULE:FREQ=DAILY", Dublin, october))
            .ShouldBe(["2026-10-24T08:00 2026-10-24T09:00", "2026-10-25T09:00 2026-10-25T10:00", "2026-10-26T09:00 2026-10-26T10:00"]);
    }

    [Fact]
    public void What_repeats_without_end_is_read_as_far_as_is_looked_and_no_further_than_the_limit()
    {
        Read("DTSTART:20200101T090000Z\r\nDURATION:PT1H\r\nRRULE:FREQ=DAILY", Dublin, December).Busy.Count.ShouldBe(31);
        var endless = Read("SUMMARY:Tick\r\nDTSTART:20261201T000000Z\r\nDURATION:PT10S\r\nRRULE:FREQ=MINUTELY", Dublin, December);
        endless.Busy.Count.ShouldBe(BusyTimes.MostTimes);
        endless.Faults.ShouldBe(["“Tick” repeats more than 5,000 times. Only the first of them count."]);
    }

    [Theory]
    [InlineData("")]
    [InlineData("<html>Sign in</html>")]
    [InlineData("BEGIN:VCALENDAR\r\nBEGIN:VEVENT\r\nEND:VCALENDAR\r\nEND:VEVENT")]
    [InlineData("BEGIN:VEVENT\r\nDTSTART:20261207T090000Z\r\nEND:VEVENT")]
    [InlineData("BEGIN:VCALENDAR\r\nBEGIN:VEVENT")]
    public void What_is_no_calendar_is_none(string text) => BusyTimes.Read(text, Dublin, December).ShouldBeNull();

    [Fact]
    public void An_entry_that_cannot_be_read_is_said_and_the_others_count()
    {
        var text = Wrapped("DTSTART:20261207T090000Z\r\nDURATION:PT1H")
            .Replace(
                "END:VCALENDAR",
                "BEGIN:VEVENT\r\nUID:2@example\r\nSUMMARY:Some day\r\nDTSTART:tomorrow\r\nEND:VEVENT\r\nEND:VCALENDAR",
                StringComparison.Ordinal
            );
        var times = BusyTimes.Read(text, Dublin, December)!;
        times.Busy.Count.ShouldBe(1);
        times.Faults.ShouldBe(["“Some day” has no time that can be read, so it does not count."]);
    }

    [Fact]
    public void Entries_keep_their_names_in_one_line_and_those_at_one_time_stay_apart()
    {
        var text = Wrapped("SUMMARY:Dentist\\n  upstairs\r\nDTSTART:20261207T090000Z\r\nDURATION:PT1H")
            .Replace(
                "END:VCALENDAR",
                $"BEGIN:VEVENT\r\nUID:2@example\r\nSUMMARY:{new string('x', 200)}\r\nDTSTART:20261207T083000Z\r\nDURATION:PT1H\r\nEND:VEVENT\r\nEND:VCALENDAR",
                StringComparison.Ordinal
            );
        var times = BusyTimes.Read(text, Dublin, December)!;
        times.Entries.Select(entry => entry.Title).ShouldBe([new string('x', BusyTimes.LongestTitle - 1) + "…", "Dentist upstairs"]);
        Said(times).ShouldBe(["2026-12-07T08:30 2026-12-07T10:00"]);
    }

    [Fact]
    public void An_entry_that_is_one_of_our_own_meetings_does_not_count()
    {
        var text = Wrapped("DTSTART:20261207T090000Z\r\nDURATION:PT1H");
        BusyTimes.Read(text, Dublin, December, uid => uid == "1@example")!.Entries.ShouldBeEmpty();
        BusyTimes.Read(text, Dublin, December, uid => uid == "2@example")!.Entries.Count.ShouldBe(1);
    }

    [Theory]
    [InlineData(0, "Nothing to come")]
    [InlineData(1, "1 busy time to come")]
    [InlineData(1204, "1,204 busy times to come")]
    public void It_is_said_how_much_is_to_come(int count, string said) => BusyTimeWords.ToCome(count).ShouldBe(said);

    [Fact]
    public void A_calendar_without_entries_is_one() =>
        BusyTimes.Read("BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//x//y\r\nEND:VCALENDAR", Dublin, December)!.Busy.ShouldBeEmpty();

    private static BusyTimes Read(string entry, DateTimeZone zone, Span within) => BusyTimes.Read(Wrapped(entry), zone, within)!;

    private static IEnumerable<string> Said(string entry, DateTimeZone zone) => Said(Read(entry, zone, December));

    private static IEnumerable<string> Said(BusyTimes times)
    {
        var pattern = InstantPattern.CreateWithInvariantCulture("uuuu-MM-dd'T'HH:mm");
        return times.Busy.Select(span => $"{pattern.Format(span.From)} {pattern.Format(span.To)}");
    }

    private static string Wrapped(params string[] entries) =>
        "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//example//tests//EN\r\n"
        + string.Concat(entries.Select(entry => $"BEGIN:VEVENT\r\nUID:1@example\r\nDTSTAMP:20261101T000000Z\r\n{entry}\r\nEND:VEVENT\r\n"))
        + "END:VCALENDAR\r\n";
}
