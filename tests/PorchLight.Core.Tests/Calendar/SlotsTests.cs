using NodaTime;
using PorchLight.Core.Calendar;

namespace PorchLight.Core.Tests.Calendar;

public sealed class SlotsTests
{
    private static readonly DateTimeZone Dublin = DateTimeZoneProviders.Tzdb["Europe/Dublin"];
    private static readonly Guid Maren = Guid.Parse("a0000000-0000-7000-8000-000000000001");
    private static readonly Guid Sunil = Guid.Parse("b0000000-0000-7000-8000-000000000002");
    private static readonly OpenSpan NineToFive = new(new LocalTime(9, 0), new LocalTime(17, 0));

    // Common practice, no source: 30 minutes, 15 before and after, 12 hours' notice, 21 days.
    [Fact]
    public void The_usual_rules_are_those_of_practice()
    {
        var rules = new SlotRules(30);
        rules.Needs(At(1, 10)).ShouldBe(new Span(At(1, 9, 45), At(1, 10, 45)));
        rules.Check().ShouldBeEmpty();
        var starts = Starts(rules, At(1, 8), Host(Maren));
        starts[0].ShouldBe(At(2, 9), "12 hours from 08:00 are 20:00, when it is closed");
        starts[^1].ShouldBe(At(22, 16, 30), "on the 21st day from today");
        starts.Count.ShouldBe(15 * 16, "three weeks of working days, every half hour that ends by 17:00");
    }

    [Fact]
    public void Twelve_hours_of_notice_at_22_00_still_allow_tomorrow_10_00()
    {
        Starts(new SlotRules(30), At(1, 22), Host(Maren))[0].ShouldBe(At(2, 10));
        SlotNotice.Usual.Earliest(At(1, 22), Dublin).ShouldBe(At(2, 10));
    }

    [Theory]
    [InlineData(0, 1, 12)]
    [InlineData(1, 2, 9)]
    [InlineData(2, 3, 9)]
    public void Notice_in_days_is_of_whole_days(int days, int day, int hour) =>
        Starts(new SlotRules(60) { Grid = 60, Notice = new SlotNotice(days, InDays: true) }, At(1, 11, 30), Host(Maren))[0]
            .ShouldBe(At(day, hour));

    [Fact]
    public void What_touches_is_free_and_what_overlaps_by_a_minute_is_not()
    {
        var busy = new Span(At(2, 10), At(2, 12));
        var starts = Starts(new SlotRules(30) { Grid = 15 }, At(1, 8), Host(Maren, busy));
        starts.ShouldContain(At(2, 9, 15), "with its buffer it ends at 10:00");
        starts.ShouldNotContain(At(2, 9, 30));
        starts.ShouldContain(At(2, 12, 15), "its buffer begins at 12:00");
        starts.ShouldNotContain(At(2, 12));
        Starts(new SlotRules(30) { Grid = 15 }, At(1, 8), Host(Maren, busy with { To = At(2, 12, 1) })).ShouldNotContain(At(2, 12, 15));
    }

    [Fact]
    public void Buffers_may_lie_outside_of_the_hours_and_a_meeting_may_not()
    {
        var starts = Starts(new SlotRules(60) { BufferBefore = 60, BufferAfter = 60 }, At(1, 8), Host(Maren));
        (starts[0], starts.Last(start => start < At(3))).ShouldBe((At(2, 9), At(2, 16)));
    }

    [Fact]
    public void Of_several_hosts_whoever_has_fewest_meetings_that_week_holds_it_and_then_who_stands_first()
    {
        var (maren, sunil) = (Host(Maren), Host(Sunil));
        Holder(maren, sunil).ShouldBe([Maren]);
        Holder(maren with { Meetings = [At(4, 9)] }, sunil).ShouldBe([Sunil]);
        Holder(maren with { Meetings = [At(7, 9)] }, sunil).ShouldBe([Maren], "that is next week's");
        Holder(maren, sunil with { Busy = [new Span(At(2, 9), At(2, 17))] }).ShouldBe([Maren]);
        Find(HostChoice.AllTogether, maren, sunil).ShouldBe([Maren, Sunil]);
        Find(HostChoice.AllTogether, maren, sunil with { Busy = [new Span(At(2, 9), At(2, 17))] }).ShouldBeNull();
        Find(HostChoice.AnyOfThem).ShouldBeNull("nobody holds it");

        static IReadOnlyList<Guid>? Holder(params SlotHost[] hosts) => Find(HostChoice.AnyOfThem, hosts);

        static IReadOnlyList<Guid>? Find(HostChoice hosting, params SlotHost[] hosts) =>
            Slots(new SlotRules(30) { HostChoice = hosting }, At(1, 8), hosts).Find(At(2, 10))?.Hosts;
    }

    [Fact]
    public void A_full_day_and_a_full_week_offer_nothing()
    {
        Instant[] taken = [At(2, 9), At(2, 11), At(4, 9)];
        var rules = new SlotRules(30) { MostADay = 2, MostAWeek = 4 };
        Starts(rules, At(1, 8), Host(Maren), taken: taken).ShouldNotContain(start => start >= At(2) && start < At(3));
        Starts(rules, At(1, 8), Host(Maren), taken: taken)[0].ShouldBe(At(3, 9));
        Starts(rules with { MostAWeek = 3 }, At(1, 8), Host(Maren), taken: taken)[0]
            .ShouldBe(At(7, 9), "the week from Monday to Sunday is full");
    }

    [Fact]
    public void Nothing_is_offered_before_a_waiting_period_is_over()
    {
        var slots = new Slots(new SlotRules(30), [Host(Maren)], [], Dublin, IsoDayOfWeek.Monday, At(1, 8), waitUntil: At(3, 13, 20));
        slots.Free().First().Start.ShouldBe(At(3, 13, 30));
        slots.Find(At(3, 13)).ShouldBeNull();
    }

    // Clocks in Dublin went forward at 01:00 on 29 March 2026 and went back at 02:00 on 25 October (IANA tz database).
    [Fact]
    public void A_time_of_day_that_is_skipped_is_not_offered_and_a_doubled_one_once()
    {
        var spring = Nights(new LocalDate(2026, 3, 28));
        spring.ShouldNotContain(new LocalDateTime(2026, 3, 29, 1, 0));
        spring.ShouldContain(new LocalDateTime(2026, 3, 29, 2, 0));
        var autumn = Nights(new LocalDate(2026, 10, 24));
        autumn.Count(local => local == new LocalDateTime(2026, 10, 25, 1, 30)).ShouldBe(1);
        autumn.Distinct().Count().ShouldBe(autumn.Count);
        var later = Dublin.MapLocal(new LocalDateTime(2026, 10, 25, 1, 30)).Last().ToInstant();
        Night(new LocalDate(2026, 10, 24)).Find(later).ShouldBeNull();

        static List<LocalDateTime> Nights(LocalDate day) => [.. Night(day).Free().Select(slot => slot.Start.InZone(Dublin).LocalDateTime)];

        static Slots Night(LocalDate day) =>
            Slots(
                new SlotRules(30) { HorizonDays = 2 },
                day.At(new LocalTime(9, 0)).InZoneStrictly(Dublin).ToInstant(),
                Host(Maren, new OpenSpan(LocalTime.Midnight, new LocalTime(5, 0)))
            );
    }

    // Clocks in New York went back at 02:00 on 1 November 2026, a week after Dublin's (IANA tz database).
    [Fact]
    public void Who_looks_from_another_zone_sees_no_time_of_day_twice()
    {
        var newYork = DateTimeZoneProviders.Tzdb["America/New_York"];
        var slots = Slots(
            new SlotRules(30) { HorizonDays = 2 },
            new LocalDateTime(2026, 10, 31, 9, 0).InZoneStrictly(Dublin).ToInstant(),
            Host(Maren, new OpenSpan(new LocalTime(5, 0), new LocalTime(8, 0)))
        );
        string[] here = ["05:00", "05:30", "06:00", "06:30", "07:00", "07:30"];
        var sunday = slots.Free().Where(slot => slot.Start.InZone(Dublin).Date == new LocalDate(2026, 11, 1)).ToList();
        sunday.Select(slot => HoursWords.Say(slot.Start.InZone(Dublin).TimeOfDay)).ShouldBe(here);
        PorchLight
            .Core.Calendar.Slots.SeenFrom(sunday, newYork)
            .Select(slot => HoursWords.Say(slot.Start.InZone(newYork).TimeOfDay))
            .ShouldBe(["01:00", "01:30", "02:00", "02:30"]);
    }

    [Fact]
    public void In_place_of_a_time_that_is_gone_the_nearest_three_are_offered_in_order()
    {
        var slots = Slots(new SlotRules(30), At(1, 8), Host(Maren, new Span(At(2, 10), At(2, 10, 30))));
        slots.NearestTo(At(2, 10)).Select(slot => slot.Start).ShouldBe([At(2, 9), At(2, 11), At(2, 11, 30)]);
    }

    [Theory]
    [InlineData(4, 30, "minutes")]
    [InlineData(721, 30, "minutes")]
    [InlineData(30, 45, "grid")]
    [InlineData(30, 0, "grid")]
    public void Rules_that_make_no_sense_say_what_to_do(int minutes, int grid, string place) =>
        new SlotRules(minutes) { Grid = grid }
            .Check()
            .ShouldHaveSingleItem()
            .Place.ShouldBe(place);

    [Fact]
    public void Each_number_of_the_rules_has_its_bounds()
    {
        var rules = new SlotRules(30);
        rules.Check().ShouldBeEmpty();
        Places(rules with { BufferAfter = -1 }).ShouldBe(["buffers"]);
        Places(rules with { Notice = new SlotNotice(-1, InDays: true) }).ShouldBe(["notice"]);
        Places(rules with { Notice = new SlotNotice(366, InDays: true) }).ShouldBe(["notice"]);
        Places(rules with { HorizonDays = 366 }).ShouldBe(["horizonDays"]);
        Places(rules with { MostADay = 0 }).ShouldBe(["most"]);

        static IEnumerable<string> Places(SlotRules rules) => rules.Check().Select(finding => finding.Place);
    }

    private static List<Instant> Starts(SlotRules rules, Instant now, SlotHost host, IEnumerable<Instant>? taken = null) =>
        [.. new Slots(rules, [host], taken ?? [], Dublin, IsoDayOfWeek.Monday, now).Free().Select(slot => slot.Start)];

    private static Slots Slots(SlotRules rules, Instant now, params SlotHost[] hosts) =>
        new(rules, hosts, [], Dublin, IsoDayOfWeek.Monday, now);

    private static SlotHost Host(Guid id, params Span[] busy) => new(id, Weekdays(NineToFive), [], busy, []);

    private static SlotHost Host(Guid id, OpenSpan everyDay) =>
        new(id, [.. Enumerable.Range(1, 7).Select(day => new DayHours((IsoDayOfWeek)day, [everyDay]))], [], [], []);

    private static List<DayHours> Weekdays(OpenSpan span) =>
        [.. Enumerable.Range(1, 5).Select(day => new DayHours((IsoDayOfWeek)day, [span]))];

    /// <summary>A moment of December 2026, which begins on a Tuesday; winter time, without a clock change.</summary>
    private static Instant At(int day, int hour = 0, int minute = 0) =>
        new LocalDateTime(2026, 12, day, hour, minute).InZoneStrictly(Dublin).ToInstant();
}
