using CsCheck;
using NodaTime;
using PorchLight.Core.Calendar;
using static PorchLight.Core.Tests.Sample;

namespace PorchLight.Core.Tests.Calendar;

public sealed class BusinessCalendarTests
{
    private static readonly LocalDate[] Holidays2012 = [new(2012, 11, 22), new(2012, 12, 4), new(2013, 1, 21)];
    private static readonly LocalDate[] Holidays2008 = [new(2008, 11, 26), new(2008, 12, 4), new(2009, 1, 21)];

    // The worked examples in the published documentation of the spreadsheet functions NETWORKDAYS and WORKDAY.
    [Theory]
    [InlineData(0, 110)]
    [InlineData(1, 109)]
    [InlineData(3, 107)]
    public void Working_days_between_count_both_ends_as_published(int holidays, int expected) =>
        Dublin(Holidays2012[..holidays]).WorkingDaysBetween(new LocalDate(2012, 10, 1), new LocalDate(2013, 3, 1)).ShouldBe(expected);

    [Fact]
    public void Working_days_after_leave_out_the_start_day_as_published()
    {
        Dublin().WorkingDaysAfter(new LocalDate(2008, 10, 1), 151).ShouldBe(new LocalDate(2009, 4, 30));
        Dublin(Holidays2008).WorkingDaysAfter(new LocalDate(2008, 10, 1), 151).ShouldBe(new LocalDate(2009, 5, 5));
    }

    // The trade's reading of "48 business hours"; common practice, no source.
    [Theory]
    [InlineData(20, 15, 24, 15)]
    [InlineData(21, 10, 25, 0)]
    [InlineData(23, 9, 25, 9)]
    [InlineData(23, 0, 25, 0)]
    public void On_the_working_day_clock_48_hours_are_two_working_days(int day, int hour, int endDay, int endHour)
    {
        var dublin = Dublin();
        dublin.AddHours(dublin.At(2026, 11, day, hour), 48, PromiseClock.WorkingDays).ShouldBe(dublin.At(2026, 11, endDay, endHour));
    }

    [Fact]
    public void A_closed_day_counts_nothing()
    {
        var dublin = Dublin(new LocalDate(2026, 11, 23));
        dublin.AddHours(dublin.At(2026, 11, 20, 15), 48, PromiseClock.WorkingDays).ShouldBe(dublin.At(2026, 11, 25, 15));
    }

    [Fact]
    public void The_open_hours_clock_counts_only_opening_hours()
    {
        var dublin = Dublin();
        dublin.AddHours(dublin.At(2026, 11, 20, 15), 4, PromiseClock.OpenHours).ShouldBe(dublin.At(2026, 11, 23, 11));
        dublin.AddHours(dublin.At(2026, 11, 20, 15), 2, PromiseClock.OpenHours).ShouldBe(dublin.At(2026, 11, 20, 17));
        dublin.AddHours(dublin.At(2026, 11, 21, 3), 8, PromiseClock.OpenHours).ShouldBe(dublin.At(2026, 11, 23, 17));
    }

    [Fact]
    public void The_clock_change_does_not_stretch_or_shorten_a_day_of_wall_clock_time()
    {
        // Clocks in Dublin went back on Sunday 25 October 2026; every day here is a working day.
        var every = new BusinessCalendar(
            DateTimeZoneProviders.Tzdb["Europe/Dublin"],
            [
                .. Enumerable
                    .Range(1, 7)
                    .Select(day => new DayHours((IsoDayOfWeek)day, [new OpenSpan(new LocalTime(9, 0), new LocalTime(17, 0))])),
            ],
            []
        );
        var start = every.At(2026, 10, 24, 12);
        var end = every.AddHours(start, 24, PromiseClock.WorkingDays)!.Value;
        end.ShouldBe(every.At(2026, 10, 25, 12));
        (end - start).ShouldBe(Duration.FromHours(25));
    }

    [Fact]
    public void A_skipped_local_time_moves_forward_by_the_gap_and_a_doubled_one_is_the_earlier()
    {
        var dublin = Dublin();
        // Dublin 2026: 29 March 01:00 becomes 02:00; 25 October 02:00 becomes 01:00 (IANA tz database, via NodaTime).
        dublin.At(2026, 3, 29, 1, 30).ShouldBe(Instant.FromUtc(2026, 3, 29, 1, 30));
        dublin.ToLocal(dublin.At(2026, 3, 29, 1, 30)).ShouldBe(new LocalDateTime(2026, 3, 29, 2, 30));
        dublin.At(2026, 10, 25, 1, 30).ShouldBe(Instant.FromUtc(2026, 10, 25, 0, 30));
    }

    [Fact]
    public void No_working_day_in_sight_is_an_answer_and_not_a_loop()
    {
        var never = new BusinessCalendar(DateTimeZone.Utc, [], []);
        never.AddHours(Instant.FromUtc(2026, 1, 1, 0, 0), 1, PromiseClock.WorkingDays).ShouldBeNull();
        never.WorkingDaysAfter(new LocalDate(2026, 1, 1), 1).ShouldBeNull();
        never.HoldTo(SendingWindow.Usual, Instant.FromUtc(2026, 1, 1, 0, 0)).ShouldBeNull();
        new ReplyPromise(48, PromiseClock.WorkingDays).Deadline(Instant.FromUtc(2026, 1, 1, 0, 0), never).ShouldBeNull();
    }

    [Theory]
    [InlineData(23, 8, 59, 23, 9, 0)]
    [InlineData(23, 9, 0, 23, 9, 0)]
    [InlineData(23, 16, 59, 23, 16, 59)]
    [InlineData(23, 17, 0, 24, 9, 0)]
    [InlineData(20, 17, 0, 23, 9, 0)]
    [InlineData(21, 12, 0, 23, 9, 0)]
    public void A_message_is_held_to_the_next_sending_window(int day, int hour, int minute, int toDay, int toHour, int toMinute)
    {
        var dublin = Dublin();
        dublin.HoldTo(SendingWindow.Usual, dublin.At(2026, 11, day, hour, minute)).ShouldBe(dublin.At(2026, 11, toDay, toHour, toMinute));
    }

    [Fact]
    public void A_day_that_closes_at_24_00_ends_with_the_day_and_not_a_tick_before()
    {
        var late = new BusinessCalendar(
            DateTimeZone.Utc,
            [
                new DayHours(IsoDayOfWeek.Monday, HoursWords.Read("18 to 24", "monday").Spans),
                new DayHours(IsoDayOfWeek.Wednesday, HoursWords.Read("9 to 17", "wednesday").Spans),
            ],
            []
        );
        late.AddHours(late.At(2026, 11, 23, 18), 6, PromiseClock.OpenHours).ShouldBe(late.At(2026, 11, 24), "the end of Monday");
        late.AddHours(late.At(2026, 11, 23, 18), 7, PromiseClock.OpenHours).ShouldBe(late.At(2026, 11, 25, 10));
    }

    [Fact]
    public void In_a_doubled_hour_a_message_is_never_held_to_a_moment_before_it()
    {
        var dublin = Week("Europe/Dublin", new OpenSpan(new LocalTime(0, 0), OpenSpan.EndOfDay));
        var sundays = new BusinessCalendar(
            dublin.Zone,
            [new DayHours(IsoDayOfWeek.Sunday, [new OpenSpan(new LocalTime(0, 0), OpenSpan.EndOfDay)])],
            []
        );
        var second = Instant.FromUtc(2026, 10, 25, 1, 13);
        sundays
            .HoldTo(new SendingWindow(new LocalTime(1, 45), new LocalTime(2, 15)), second)
            .ShouldBe(Instant.FromUtc(2026, 10, 25, 1, 45));
    }

    [Fact]
    public void Hours_of_one_weekday_in_two_parts_count_together_and_overlaps_once()
    {
        var twice = new BusinessCalendar(
            DateTimeZone.Utc,
            [
                new DayHours(IsoDayOfWeek.Monday, [new OpenSpan(new LocalTime(13, 0), new LocalTime(17, 0))]),
                new DayHours(IsoDayOfWeek.Monday, [new OpenSpan(new LocalTime(9, 0), new LocalTime(14, 0))]),
            ],
            []
        );
        twice.AddHours(twice.At(2026, 11, 23), 8, PromiseClock.OpenHours).ShouldBe(twice.At(2026, 11, 23, 17));
    }

    // The published documentation of WORKDAY: "A negative value yields a past date"; 5 May 2009 is its worked example the other way round.
    [Fact]
    public void A_negative_number_of_working_days_counts_back()
    {
        Dublin(Holidays2008).WorkingDaysAfter(new LocalDate(2009, 5, 5), -151).ShouldBe(new LocalDate(2008, 10, 1));
        Dublin().WorkingDaysBetween(new LocalDate(2013, 3, 1), new LocalDate(2012, 10, 1)).ShouldBe(-110);
    }

    [Fact]
    public void More_hours_never_end_earlier_and_the_two_parts_of_a_wait_add_up() =>
        Gen.Select(Gen.Int[0, 24 * 60 * 40], Gen.Int[1, 60], Gen.Int[1, 60], Gen.Enum<PromiseClock>())
            .Sample(
                (minutes, first, second, clock) =>
                {
                    var dublin = Dublin(new LocalDate(2026, 12, 25));
                    var start = dublin.At(2026, 11, 20) + Duration.FromMinutes(minutes);
                    var middle = dublin.AddHours(start, first, clock)!.Value;
                    middle.ShouldBeGreaterThan(start);
                    dublin.AddHours(middle, second, clock).ShouldBe(dublin.AddHours(start, first + second, clock));
                }
            );
}
