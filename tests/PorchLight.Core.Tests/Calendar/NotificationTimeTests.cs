using CsCheck;
using NodaTime;
using PorchLight.Core.Calendar;

namespace PorchLight.Core.Tests.Calendar;

public sealed class NotificationTimeTests
{
    private static readonly DateTimeZone Dublin = DateTimeZoneProviders.Tzdb["Europe/Dublin"];
    private static readonly NotificationTime AtOnce = new(null, AtNight: false);

    private static Instant At(int day, int hour, int minute = 0) =>
        new LocalDateTime(2026, 11, day, hour, minute).InZoneStrictly(Dublin).ToInstant();

    [Fact]
    public void By_day_it_is_told_at_once_and_at_night_when_the_night_ends()
    {
        AtOnce.Due(At(23, 7), Dublin).ShouldBe(At(23, 7));
        AtOnce.Due(At(23, 20, 59), Dublin).ShouldBe(At(23, 20, 59));
        AtOnce.Due(At(23, 21), Dublin).ShouldBe(At(24, 7));
        AtOnce.Due(At(24, 6, 59), Dublin).ShouldBe(At(24, 7));
        (AtOnce with { AtNight = true }).Due(At(23, 23), Dublin).ShouldBe(At(23, 23), "they asked for it");
    }

    [Fact]
    public void The_daily_mail_takes_all_until_its_time_that_time_included()
    {
        var daily = new NotificationTime(new LocalTime(17, 30), AtNight: false);
        daily.Due(At(23, 9), Dublin).ShouldBe(At(23, 17, 30));
        daily.Due(At(23, 17, 30), Dublin).ShouldBe(At(23, 17, 30));
        daily.Due(At(23, 17, 31), Dublin).ShouldBe(At(24, 17, 30));
    }

    [Fact]
    public void Across_changes_of_the_clocks_in_three_zones_it_is_the_first_moment_a_second_way_finds()
    {
        // Every minute from then on, one after the other, until a clock on the wall shows that it may be.
        var zones = new[] { "Europe/Dublin", "America/New_York", "Australia/Lord_Howe" }
            .Select(id => DateTimeZoneProviders.Tzdb[id])
            .ToArray();
        Gen.Select(
                Gen.Int[0, zones.Length - 1].Select(index => zones[index]),
                Gen.Int[0, 3],
                Gen.Int[-3 * 1440, 3 * 1440],
                Gen.Int[-40, 95].Select(quarter => quarter < 0 ? (LocalTime?)null : new LocalTime(quarter / 4, quarter % 4 * 15))
            )
            .Sample(
                (zone, change, minutes, daily) =>
                {
                    var changes = zone.GetZoneIntervals(Instant.FromUtc(2026, 1, 1, 0, 0), Instant.FromUtc(2028, 1, 1, 0, 0))
                        .Where(interval => interval.HasStart && interval.Start.InUtc().Year >= 2026)
                        .ToList();
                    var came = changes[change % changes.Count].Start + Duration.FromMinutes(minutes);
                    var due = new NotificationTime(daily, AtNight: false).Due(came, zone);
                    (due - came).ShouldBeInRange(Duration.Zero, Duration.FromHours(25));
                    var first = came;
                    while (!MayBeTold(first, daily, zone))
                        first += Duration.FromMinutes(1);
                    due.ShouldBe(first);
                },
                iter: 400
            );

        static bool MayBeTold(Instant at, LocalTime? daily, DateTimeZone zone)
        {
            var shown = at.InZone(zone).LocalDateTime;
            if (daily is not { } time)
                return shown.TimeOfDay.Hour is >= 7 and < 21;
            // A time of day that is skipped is as far behind what comes before it as it would have been.
            var before = (at - Duration.FromHours(2)).InZone(zone);
            var asBefore = before.LocalDateTime.PlusHours(2);
            var isSkipped = zone.MapLocal(asBefore).Count == 0 && asBefore.TimeOfDay == time;
            var isSecond = zone.MapLocal(shown) is { Count: 2 } twice && at == twice.Last().ToInstant();
            return isSkipped || (shown.TimeOfDay == time && !isSecond);
        }
    }
}
