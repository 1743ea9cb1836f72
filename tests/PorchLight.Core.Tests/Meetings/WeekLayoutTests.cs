using CsCheck;
using NodaTime;
using PorchLight.Core.Calendar;
using PorchLight.Core.Meetings;

namespace PorchLight.Core.Tests.Meetings;

public sealed class WeekLayoutTests
{
    private static readonly DateTimeZone Dublin = DateTimeZoneProviders.Tzdb["Europe/Dublin"];
    private static readonly LocalDate Monday = new(2026, 11, 30);

    [Fact]
    public void What_is_alone_takes_the_whole_width_and_what_is_together_shares_it()
    {
        Of((30, 9, 0, 60), (30, 10, 0, 60), (30, 10, 30, 60), (30, 12, 0, 30))
            .ShouldBe([
                new WeekBlock(0, 0, 540, 600, 0, 1),
                new WeekBlock(1, 0, 600, 660, 0, 2),
                new WeekBlock(2, 0, 630, 690, 1, 2),
                new WeekBlock(3, 0, 720, 750, 0, 1),
            ]);
    }

    [Fact]
    public void What_goes_over_midnight_stands_on_both_days_and_what_ends_at_midnight_on_one()
    {
        Of((30, 23, 0, 120)).ShouldBe([new WeekBlock(0, 0, 1380, 1440, 0, 1), new WeekBlock(0, 1, 0, 60, 0, 1)]);
        Of((30, 23, 0, 60)).ShouldBe([new WeekBlock(0, 0, 1380, 1440, 0, 1)]);
    }

    [Fact]
    public void What_is_short_is_high_enough_to_be_read()
    {
        Of((30, 9, 0, 5)).ShouldBe([new WeekBlock(0, 0, 540, 555, 0, 1)]);
        Of((30, 23, 58, 1)).ShouldBe([new WeekBlock(0, 0, 1425, 1440, 0, 1)]);
    }

    [Fact]
    public void Another_week_is_not_in_it() => Of((23, 9, 0, 60)).ShouldBeEmpty();

    /// <summary>
    /// Against a second way: every quarter of an hour of the clock is asked which meetings are then, over the weeks of both clock changes.
    /// </summary>
    [Fact]
    public void Every_meeting_stands_where_the_clock_says_and_none_upon_another()
    {
        var firsts = new[] { new LocalDate(2026, 3, 23), new LocalDate(2026, 10, 19), Monday };
        Gen.Select(Gen.Select(Gen.Int[-96, 8 * 96], Gen.Int[1, 40]).Array[0, 14], Gen.Int[0, 2])
            .Sample(
                (meetings, week) =>
                {
                    var first = firsts[week];
                    var midnight = first.AtStartOfDayInZone(Dublin).ToInstant();
                    var spans = meetings
                        .Select(one => new Span(midnight + Quarters(one.Item1), midnight + Quarters(one.Item1 + one.Item2)))
                        .ToList();
                    var blocks = WeekLayout.Of(spans, first, Dublin);
                    foreach (var block in blocks)
                    {
                        block.Lane.ShouldBeInRange(0, block.Lanes - 1);
                        (0 <= block.From && block.From < block.To && block.To <= 1440).ShouldBeTrue();
                        blocks
                            .Where(other => other != block && other.Day == block.Day && other.From < block.To && block.From < other.To)
                            .ShouldAllBe(other => other.Lane != block.Lane && other.Lanes == block.Lanes);
                    }

                    for (var day = 0; day < 7; day++)
                    {
                        // On the days of a clock change a stretch of the clock is there twice, or not at all.
                        if (
                            first.PlusDays(day).AtStartOfDayInZone(Dublin).ToInstant() + Duration.FromDays(1)
                            != first.PlusDays(day + 1).AtStartOfDayInZone(Dublin).ToInstant()
                        )
                            continue;
                        for (var minute = 0; minute < 1440; minute += 15)
                        {
                            var moment = first.PlusDays(day).At(new LocalTime(minute / 60, minute % 60)).InZoneStrictly(Dublin).ToInstant();
                            blocks
                                .Where(block => block.Day == day && block.From <= minute && minute < block.To)
                                .Select(block => block.Item)
                                .Order()
                                .ShouldBe(
                                    Enumerable.Range(0, spans.Count).Where(item => spans[item].From <= moment && moment < spans[item].To)
                                );
                        }
                    }
                }
            );

        static Duration Quarters(int count) => Duration.FromMinutes(15 * count);
    }

    private static IReadOnlyList<WeekBlock> Of(params (int Day, int Hour, int Minute, int Length)[] meetings) =>
        WeekLayout.Of(
            [
                .. meetings.Select(one =>
                {
                    var start = new LocalDateTime(2026, 11, one.Day, one.Hour, one.Minute).InZoneStrictly(Dublin).ToInstant();
                    return new Span(start, start + Duration.FromMinutes(one.Length));
                }),
            ],
            Monday,
            Dublin
        );
}
