using CsCheck;
using NodaTime;
using PorchLight.Core.Inquiries;

namespace PorchLight.Core.Tests.Inquiries;

public sealed class WrittenDownTimeTests
{
    private static readonly DateTimeZone Dublin = DateTimeZoneProviders.Tzdb["Europe/Dublin"];

    /// <summary>
    /// The day after the clocks went forward in Dublin, an hour ahead of UTC since (time zone database, 2027-03-28 01:00 UTC).
    /// </summary>
    private static readonly Instant Monday = Instant.FromUtc(2027, 3, 29, 9, 30);

    public static TheoryData<string, string?, string?, string?> Said =>
        new()
        {
            { "2027-03-29", null, "2027-03-29T09:30:00Z", null },
            { "2027-03-29", "10:30", "2027-03-29T09:30:00Z", null },
            { "2027-03-29", "10:31", null, "at" },
            { "2027-03-30", null, null, "on" },
            { "2027-03-30", "00:00", null, "on" },
            { "2027-03-26", null, "2027-03-26T12:00:00Z", null },
            { "2027-03-28", null, "2027-03-28T11:00:00Z", null },
            // Half past one did not come that night: an hour later.
            { "2027-03-28", "01:30", "2027-03-28T01:30:00Z", null },
            // Half past one came twice that night: the first.
            { "2026-10-25", "01:30", "2026-10-25T00:30:00Z", null },
            { "2024-03-27", "08:00", "2024-03-27T08:00:00Z", null },
            { "2024-03-25", null, null, "on" },
        };

    [Theory]
    [MemberData(nameof(Said))]
    public void It_came_when_they_say_it_did_or_the_place_that_is_wrong_is_named(string on, string? at, string? came, string? wrong)
    {
        var (received, refusal) = WrittenDownTime.Read(Day(on), at is null ? null : Time(at), Monday, Dublin);
        received?.ToString().ShouldBe(came);
        (received is null).ShouldBe(came is null);
        refusal?.Place.ShouldBe(wrong);
        (refusal is null).ShouldBe(wrong is null);
    }

    [Fact]
    public void Whatever_is_said_it_came_on_that_day_not_after_now_and_in_the_last_three_years_or_is_refused()
    {
        var zones = Gen.Int[0, 2]
            .Select(one => DateTimeZoneProviders.Tzdb[new[] { "Europe/Dublin", "America/St_Johns", "Pacific/Apia" }[one]]);
        Gen.Select(zones, Gen.Int[0, 40_000_000], Gen.Int[-1200, 3], Gen.Int[-1, 1439])
            .Sample(
                (zone, seconds, days, minute) =>
                {
                    var now = Instant.FromUtc(2026, 11, 1, 0, 0) + Duration.FromSeconds(seconds);
                    var on = now.InZone(zone).Date.PlusDays(days);
                    LocalTime? at = minute < 0 ? null : LocalTime.Midnight.PlusMinutes(minute);
                    var (received, refusal) = WrittenDownTime.Read(on, at, now, zone);
                    (received is null).ShouldBe(refusal is not null);
                    if (received is not { } came)
                    {
                        var isFuture = days > 0 || (days == 0 && at is not null && zone.AtLeniently(on + at.Value).ToInstant() > now);
                        (isFuture || days < -WrittenDownTime.OldestDays).ShouldBeTrue();
                        return;
                    }

                    came.ShouldBeLessThanOrEqualTo(now);
                    came.InZone(zone).Date.ShouldBe(on);
                    // At most the hour that is skipped.
                    if (at is { } said)
                        Period
                            .Between(on + said, came.InZone(zone).LocalDateTime, PeriodUnits.Minutes)
                            .Minutes.ShouldBeOneOf(zone.MapLocal(on + said).Count == 0 ? 60 : 0);
                }
            );
    }

    private static LocalDate Day(string text) => NodaTime.Text.LocalDatePattern.Iso.Parse(text).Value;

    private static LocalTime Time(string text) => NodaTime.Text.LocalTimePattern.CreateWithInvariantCulture("HH:mm").Parse(text).Value;
}
