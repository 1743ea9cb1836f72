using CsCheck;
using NodaTime;
using PorchLight.Core.Calendar;

namespace PorchLight.Core.Tests.Calendar;

public sealed class BusinessTimeAgainstASecondWayTests
{
    // Zones with a clock change of an hour, of two hours, of half an hour, and at midnight, forward or back; and one without.
    internal static readonly string[] Zones =
    [
        "Europe/Dublin",
        "Antarctica/Troll",
        "Australia/Lord_Howe",
        "Africa/Cairo",
        "America/Havana",
        "Asia/Kathmandu",
    ];

    // The days around the changes of 2026 in those zones (IANA tz database, via NodaTime).
    internal static readonly LocalDate[] Beginnings =
    [
        new(2026, 3, 27),
        new(2026, 10, 23),
        new(2026, 4, 3),
        new(2026, 10, 2),
        new(2026, 4, 22),
        new(2026, 10, 28),
        new(2026, 3, 6),
        new(2026, 10, 30),
        new(2026, 6, 1),
    ];

    private static readonly Gen<OpenSpan> Span = Gen.Select(
        Gen.Int[0, 95],
        Gen.Int[1, 96],
        (a, b) =>
            Math.Min(a, b) is var from && Math.Max(a, b) is var to && from == to
                ? new OpenSpan(Quarter(0), OpenSpan.EndOfDay)
                : new OpenSpan(Quarter(from), Quarter(to))
    );

    internal static readonly Gen<DayHours> Day = Gen.Select(
        Gen.Int[1, 7],
        Span.Array[0, 2],
        (day, spans) => new DayHours((IsoDayOfWeek)day, spans)
    );

    /// <summary>A week with at least one hour, some weekdays in several parts; a closed day or two; a moment near a clock change.</summary>
    private static readonly Gen<Scene> Scenes = Gen.Select(
        RandomForms.Pick(Zones),
        Day.Array[0, 8],
        Gen.Int[0, 9].Array[0, 2],
        RandomForms.Pick(Beginnings),
        Gen.Int[0, 5 * 24 * 60],
        (zone, days, closed, day, minutes) =>
            new Scene(
                DateTimeZoneProviders.Tzdb[zone],
                [.. days, new DayHours((IsoDayOfWeek)(minutes % 7 + 1), [new OpenSpan(Quarter(minutes % 40), OpenSpan.EndOfDay)])],
                [.. closed.Select(offset => day.PlusDays(offset))],
                day.AtMidnight().InZoneLeniently(DateTimeZoneProviders.Tzdb[zone]).ToInstant() + Duration.FromMinutes(minutes)
            )
    );

    [Fact]
    public void Hours_end_when_counting_minute_by_minute_ends() =>
        Gen.Select(Scenes, Gen.Int[0, 30], Gen.Enum<PromiseClock>())
            .Sample(
                (scene, hours, clock) =>
                    scene.Calendar.AddHours(scene.At, hours, clock).ShouldBe(scene.Naive.AddHours(scene.At, hours, clock))
            );

    [Fact]
    public void A_message_is_held_to_the_first_minute_that_is_inside_the_window() =>
        Gen.Select(Scenes, Span)
            .Sample(
                (scene, span) =>
                {
                    var window = new SendingWindow(span.From, span.To == OpenSpan.EndOfDay ? Quarter(95) : span.To);
                    if (window.From < window.To)
                        scene.Calendar.HoldTo(window, scene.At).ShouldBe(scene.Naive.HoldTo(window, scene.At));
                }
            );

    [Fact]
    public void Working_days_are_those_that_are_met_on_the_way() =>
        Gen.Select(Scenes, Gen.Int[-15, 15])
            .Sample(
                (scene, count) =>
                {
                    var start = scene.Calendar.Today(scene.At);
                    var end = scene.Calendar.WorkingDaysAfter(start, count);
                    end.ShouldBe(scene.Naive.WorkingDaysAfter(start, count));
                    var between = Enumerable
                        .Range(0, Math.Abs(Period.DaysBetween(start, end!.Value)) + 1)
                        .Count(offset => scene.Naive.IsWorkingDay((start < end ? start : end.Value).PlusDays(offset)));
                    scene.Calendar.WorkingDaysBetween(start, end.Value).ShouldBe(end < start ? -between : between);
                }
            );

    private static LocalTime Quarter(int quarter) => quarter == 96 ? OpenSpan.EndOfDay : new LocalTime(quarter / 4, quarter % 4 * 15);

    private sealed record Scene(DateTimeZone Zone, IReadOnlyList<DayHours> Weekly, IReadOnlyList<LocalDate> Closed, Instant At)
    {
        public BusinessCalendar Calendar => new(Zone, Weekly, Closed);

        public NaiveCalendar Naive => new(Zone, Weekly, Closed);
    }
}
