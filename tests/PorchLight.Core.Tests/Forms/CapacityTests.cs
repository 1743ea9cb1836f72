using CsCheck;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Forms;

namespace PorchLight.Core.Tests.Forms;

public sealed class CapacityTests
{
    private static readonly YearMonth May = new(2027, 5);
    private static readonly Capacity Small = new(
        "wanted",
        [new MonthLimit(May, 2), new MonthLimit(May.PlusMonths(1), 0), new MonthLimit(May.PlusMonths(3), 1)]
    );

    [Theory]
    [InlineData(0, false)]
    [InlineData(1, false)]
    [InlineData(2, true)]
    [InlineData(3, true)]
    public void A_month_is_full_when_its_places_are_taken(int taken, bool waits) =>
        Small.Find(new DateAnswer(new LocalDate(2027, 5, 20)), Taken(taken)).ShouldBe(new WantedMonth(May, waits));

    [Fact]
    public void A_month_that_is_not_named_has_room_for_all() =>
        Small.Find(new DateAnswer(new LocalDate(2027, 7, 1)), Taken(50)).ShouldBe(new WantedMonth(May.PlusMonths(2), false));

    [Fact]
    public void A_range_takes_the_first_of_its_months_that_has_room_and_else_waits_for_the_first()
    {
        Small
            .Find(new DateRangeAnswer(new LocalDate(2027, 5, 20), new LocalDate(2027, 7, 2)), Taken(2))
            .ShouldBe(new WantedMonth(May.PlusMonths(2), false));
        Small
            .Find(new DateRangeAnswer(new LocalDate(2027, 5, 1), new LocalDate(2027, 6, 30)), Taken(2))
            .ShouldBe(new WantedMonth(May, true));
    }

    [Fact]
    public void Without_a_day_nothing_is_counted()
    {
        Small.Find(null, Taken(0)).ShouldBeNull();
        Small.Find(new TextAnswer("in May"), Taken(0)).ShouldBeNull();
        Small
            .Find(new DateRangeAnswer(new LocalDate(2027, 6, 1), new LocalDate(2027, 5, 1)), Taken(0))
            .ShouldBeNull("it ends before it starts");
    }

    [Fact]
    public void What_is_said_names_the_month_and_the_next_with_room()
    {
        Small.NextFree(May, Taken(2)).ShouldBe(May.PlusMonths(2), "June has no places at all");
        Capacities
            .Note(May, May.PlusMonths(2))
            .ShouldBe(
                "May 2027 is fully booked. There is room in July 2027; or send this as it is, and you are on the waiting list for May 2027."
            );
        Capacities.WaitingNote(May).ShouldBe("You are on the waiting list for May 2027. We write to you when a place comes free.");
    }

    [Fact]
    public void The_last_month_of_the_calendar_is_a_month_like_any_other()
    {
        var last = new YearMonth(9999, 12);
        var full = new Capacity("when", [new MonthLimit(last, 0)]);
        full.Find(new DateAnswer(new LocalDate(9999, 12, 31)), Taken(0)).ShouldBe(new WantedMonth(last, Waits: true));
        full.NextFree(last, Taken(0)).ShouldBeNull();
        Capacities
            .Note(last, null)
            .ShouldBe("December 9999 is fully booked. Send this as it is, and you are on the waiting list for December 9999.");
    }

    [Fact]
    public void However_long_a_range_is_an_answer_is_found() =>
        Gen.Select(Gen.Int[0, 4000], Gen.Int[0, 4000], Gen.Int[0, 4])
            .Sample(
                (start, length, taken) =>
                {
                    var from = new LocalDate(2027, 1, 1).PlusDays(start);
                    var found = Small.Find(new DateRangeAnswer(from, from.PlusDays(length)), Taken(taken)).ShouldNotBeNull();
                    found.Month.ShouldBeGreaterThanOrEqualTo(from.ToYearMonth());
                    found.Month.ShouldBeLessThanOrEqualTo(from.PlusDays(length).ToYearMonth());
                    if (found.Waits)
                        Small.Months.ShouldContain(limit => limit.Month == found.Month && limit.Most <= Math.Max(taken, 0));
                }
            );

    private static Dictionary<YearMonth, int> Taken(int inMay) => new() { [May] = inMay };
}
