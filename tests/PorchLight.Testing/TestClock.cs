using System.Globalization;

namespace PorchLight.Testing;

/// <summary>The one place where tests ask what time it is.</summary>
internal static class TestClock
{
    private const string Variable = "PORCH_LIGHT_DAY";
    private static readonly TimeZoneInfo Dublin = TimeZoneInfo.FindSystemTimeZoneById("Europe/Dublin");

    /// <summary>Ten in the morning, in Dublin, of the day on which the clocks of the tests begin: <c>./test --on 2031-02-28</c>.</summary>
    public static DateTimeOffset Begins { get; } = TenOn(Day(Environment.GetEnvironmentVariable(Variable)));

    /// <summary>
    /// Ten in the morning of the first Monday from that day on, for what is about office hours: on any day somebody is there, and the
    /// whole week lies ahead.
    /// </summary>
    public static DateTimeOffset BeginsAtWork { get; } = TenOn(MondayFrom(DateOnly.FromDateTime(Begins.DateTime)));

    /// <summary>Monday 23 November 2026, 10:00 in Dublin: for tests whose sentences name days.</summary>
    public static DateTimeOffset Written { get; } = TenOn(new DateOnly(2026, 11, 23));

#pragma warning disable RS0030 // Banned everywhere else.
    /// <summary>The clock of the machine, for waiting and for what a browser looks at by its own clock.</summary>
    public static TimeProvider Machine => TimeProvider.System;
#pragma warning restore RS0030

    private static DateOnly Day(string? given) =>
        string.IsNullOrEmpty(given) ? new DateOnly(2026, 11, 23) : DateOnly.ParseExact(given, "yyyy-MM-dd", CultureInfo.InvariantCulture);

    private static DateOnly MondayFrom(DateOnly day) => day.AddDays((8 - (int)day.DayOfWeek) % 7);

    private static DateTimeOffset TenOn(DateOnly day)
    {
        var ten = day.ToDateTime(new TimeOnly(10, 0));
        return new DateTimeOffset(ten, Dublin.GetUtcOffset(ten));
    }
}
