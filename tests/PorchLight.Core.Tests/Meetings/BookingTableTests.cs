using CsCheck;
using NodaTime;
using PorchLight.Core.Calendar;
using PorchLight.Core.Meetings;

namespace PorchLight.Core.Tests.Meetings;

public sealed class BookingTableTests
{
    private static readonly DateTimeZone Dublin = DateTimeZoneProviders.Tzdb["Europe/Dublin"];
    private static readonly DateTimeZone NewYork = DateTimeZoneProviders.Tzdb["America/New_York"];

    // Tuesday 1 December 2026, 11:00 in Dublin.
    private static readonly Instant Now = Instant.FromUtc(2026, 12, 1, 11, 0);

    [Fact]
    public void Days_stand_below_each_other_with_the_parts_of_the_day_in_which_any_time_lies()
    {
        var table = BookingTable.Of([At(2, 10), At(2, 13), At(3, 14), At(9, 17, 30)], Dublin, Dublin, Now);
        table.Parts.ShouldBe([PartOfDay.Morning, PartOfDay.Midday, PartOfDay.Afternoon]);
        table
            .Days.Select(day => (day.Name, day.Date))
            .ShouldBe([("Tomorrow", "Wednesday 2 December"), ("Thursday", "3 December"), ("Wednesday", "9 December")]);
        table
            .Days.Select(day => string.Join(" | ", day.Parts.Select(part => string.Join(" ", part.Select(time => time.Clock)))))
            .ShouldBe(["10:00 | 13:00 | ", " |  | 14:00", " |  | 17:30"]);
    }

    [Fact]
    public void Days_and_parts_are_those_of_whoever_looks()
    {
        var table = BookingTable.Of([At(2, 9), At(2, 17)], NewYork, Dublin, Now);
        table.Parts.ShouldBe([PartOfDay.Night, PartOfDay.Midday]);
        var day = table.Days.ShouldHaveSingleItem();
        day.Parts.SelectMany(part => part).Select(time => time.Clock).ShouldBe(["04:00", "12:00"]);
        day.Parts[1][0].Says.ShouldBe("Wednesday 2 December, 12:00 to 12:30 in New York, 17:00 in Dublin");
    }

    [Theory]
    [InlineData(0, 0, PartOfDay.Night)]
    [InlineData(5, 59, PartOfDay.Night)]
    [InlineData(6, 0, PartOfDay.Morning)]
    [InlineData(11, 59, PartOfDay.Morning)]
    [InlineData(12, 0, PartOfDay.Midday)]
    [InlineData(14, 0, PartOfDay.Afternoon)]
    [InlineData(18, 0, PartOfDay.Evening)]
    public void A_part_of_the_day_begins_at_its_hour(int hour, int minute, PartOfDay part) =>
        BookingTable.Of([At(2, hour, minute)], Dublin, Dublin, Now).Parts.ShouldBe([part]);

    [Fact]
    public void A_day_of_another_year_is_said_with_it() =>
        BookingTable
            .Of([new Slot(Instant.FromUtc(2027, 1, 4, 10, 0), Instant.FromUtc(2027, 1, 4, 11, 0), [])], Dublin, Dublin, Now)
            .Days.ShouldHaveSingleItem()
            .Date.ShouldBe("4 January 2027");

    /// <summary>Against a second way: every time stands once, at its own clock, on its own day, and nothing else does.</summary>
    [Fact]
    public void Every_free_time_stands_once_unless_another_has_its_clock_already()
    {
        var zones = new[] { "Europe/Dublin", "America/New_York", "Australia/Lord_Howe", "Asia/Kathmandu", "Pacific/Apia" };
        Gen.Select(Gen.Int[0, 366 * 48].Array[0, 40], Gen.Int[0, zones.Length - 1])
            .Sample(
                (halfHours, zone) =>
                {
                    var viewer = DateTimeZoneProviders.Tzdb[zones[zone]];
                    var starts = halfHours
                        .Distinct()
                        .Order()
                        .Select(step => Instant.FromUtc(2026, 3, 1, 0, 0) + Duration.FromMinutes(30 * step))
                        .ToList();
                    var table = BookingTable.Of(starts.Select(Slot), viewer, Dublin, starts.FirstOrDefault(Now));
                    var shown = table.Days.SelectMany(day => day.Parts.SelectMany(part => part).Select(time => (day.Day, time))).ToList();
                    var expected = starts
                        .Select(start => (start, Local: start.InZone(viewer).LocalDateTime))
                        .Where(one => viewer.MapLocal(one.Local).First().ToInstant() == one.start)
                        .ToList();
                    shown.Select(one => one.time.Start).ShouldBe(expected.Select(one => one.start));
                    shown
                        .Select(one => (one.Day, one.time.Clock))
                        .ShouldBe(
                            expected.Select(one =>
                                (one.Local.Date, one.Local.TimeOfDay.ToString("HH:mm", System.Globalization.CultureInfo.InvariantCulture))
                            )
                        );
                    table.Days.ShouldAllBe(day => day.Parts.Count == table.Parts.Count);
                    shown.Select(one => (one.Day, one.time.Clock)).ShouldBeUnique();
                }
            );
    }

    private static Slot At(int day, int hour, int minute = 0) =>
        Slot(new LocalDateTime(2026, 12, day, hour, minute).InZoneStrictly(Dublin).ToInstant());

    private static Slot Slot(Instant start) => new(start, start + Duration.FromMinutes(30), []);
}
