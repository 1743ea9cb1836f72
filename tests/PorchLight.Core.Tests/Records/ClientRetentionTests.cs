using CsCheck;
using NodaTime;
using PorchLight.Core.Records;

namespace PorchLight.Core.Tests.Records;

public sealed class ClientRetentionTests
{
    private static readonly LocalDate Last = new(2025, 3, 31);

    [Fact]
    public void Without_a_period_and_while_the_business_works_for_them_everybody_is_kept()
    {
        ClientRetention.Of(Last, null, Standing.Lead, null, Last.PlusYears(9)).ShouldBe(new RetentionState(null, false));
        ClientRetention.Of(Last, 12, Standing.Active, Last, Last.PlusYears(9)).ShouldBe(new RetentionState(null, false));
    }

    [Fact]
    public void A_week_before_it_is_announced_and_on_the_day_it_is_over()
    {
        var ends = new LocalDate(2026, 3, 31);
        ClientRetention.Of(Last, 12, Standing.Past, null, ends.PlusDays(-8)).ShouldBe(new RetentionState(null, false));
        ClientRetention.Of(Last, 12, Standing.Past, null, ends.PlusDays(-7)).ShouldBe(new RetentionState(ends, false));
        ClientRetention.Of(Last, 12, Standing.Past, ends, ends.PlusDays(-1)).ShouldBe(new RetentionState(ends, false));
        ClientRetention.Of(Last, 12, Standing.Past, ends, ends).ShouldBe(new RetentionState(ends, true));
    }

    [Fact]
    public void Months_are_calendar_months() =>
        ClientRetention.Of(Last, 11, Standing.Lead, null, new LocalDate(2026, 2, 28)).Announced.ShouldBe(new LocalDate(2026, 3, 7));

    [Fact]
    public void Something_that_happens_takes_the_announcement_back() =>
        ClientRetention
            .Of(new LocalDate(2026, 3, 30), 12, Standing.Lead, new LocalDate(2026, 3, 31), new LocalDate(2026, 3, 31))
            .ShouldBe(new RetentionState(null, false));

    /// <summary>Somebody who looks once a day, for years, with a calendar on the wall.</summary>
    [Fact]
    public void Nobody_is_erased_who_was_not_announced_for_a_week_or_before_the_period_is_over() =>
        Gen.Select(Gen.Int[1, 4], Gen.Int[0, 300], Gen.Int[-1, 200])
            .Sample(
                (months, chosenAfter, happensAfter) =>
                {
                    var (last, first, announced) = (Last, (LocalDate?)null, (LocalDate?)null);
                    for (var day = 0; day < 500; day++)
                    {
                        var today = Last.PlusDays(day);
                        if (day == happensAfter)
                            last = today;
                        var state = ClientRetention.Of(last, day >= chosenAfter ? months : null, Standing.Lead, announced, today);
                        if (state.Announced is null)
                            first = null;
                        else
                            first ??= today;
                        announced = state.Announced;
                        if (!state.IsOver)
                            continue;
                        Period.DaysBetween(first!.Value, today).ShouldBeGreaterThanOrEqualTo(7);
                        last.PlusMonths(months).ShouldBeLessThanOrEqualTo(today);
                        return;
                    }

                    Assert.Fail("in the end the period is over");
                }
            );
}
