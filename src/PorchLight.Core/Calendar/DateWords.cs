using NodaTime;
using NodaTime.Text;

namespace PorchLight.Core.Calendar;

/// <summary>
/// Says days in words, each the same wherever it stands. How a day is seen from another one says
/// <see cref="TimeWords.Day"/>.
/// </summary>
public static class DateWords
{
    private static readonly LocalDatePattern WithYear = LocalDatePattern.CreateWithInvariantCulture("d MMMM uuuu");
    private static readonly LocalDatePattern OfMonth = LocalDatePattern.CreateWithInvariantCulture("MMMM uuuu");

    /// <summary>A day: "3 December 2027".</summary>
    /// <param name="day">The day; always said with its year.</param>
    public static string Say(LocalDate day) => WithYear.Format(day);

    /// <summary>The month of a day: "December 2027".</summary>
    /// <param name="day">Any day of the month.</param>
    public static string SayMonth(LocalDate day) => OfMonth.Format(day);
}
