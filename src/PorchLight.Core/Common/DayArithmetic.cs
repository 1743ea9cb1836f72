using NodaTime;

namespace PorchLight.Core.Common;

/// <summary>Counts days without running over the ends of the calendar.</summary>
public static class DayArithmetic
{
    /// <summary>
    /// The day so many days later; the first or last day of the calendar (9998 BC, 9999 AD) when there is none so far
    /// away.
    /// </summary>
    /// <param name="day">From where.</param>
    /// <param name="days">How many; negative for earlier.</param>
    public static LocalDate Plus(LocalDate day, int days) =>
        days >= 0
            ? Period.DaysBetween(day, LocalDate.MaxIsoValue) >= days
                ? day.PlusDays(days)
                : LocalDate.MaxIsoValue
            : Period.DaysBetween(LocalDate.MinIsoValue, day) >= -(long)days
                ? day.PlusDays(days)
                : LocalDate.MinIsoValue;

    /// <summary>The last day of the month a day lies in.</summary>
    /// <param name="day">Any day of the month.</param>
    public static LocalDate EndOfMonth(LocalDate day) => new(day.Year, day.Month, day.Calendar.GetDaysInMonth(day.Year, day.Month));

    /// <summary>Counts months from one on: 0 is the month itself. Null beyond the end of the calendar.</summary>
    /// <param name="start">The month to count from.</param>
    public static Func<int, YearMonth?> MonthsAfter(YearMonth start) =>
        count =>
            (LocalDate.MaxIsoValue.Year - start.Year) * 12 + LocalDate.MaxIsoValue.Month - start.Month >= count
                ? start.PlusMonths(count)
                : null;
}
