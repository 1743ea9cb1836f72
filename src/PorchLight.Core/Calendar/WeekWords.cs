using NodaTime;
using PorchLight.Core.Common;

namespace PorchLight.Core.Calendar;

/// <summary>Weekly hours, as a person writes them down.</summary>
/// <param name="Monday">"09:00 to 17:30"; empty for none. So for each day.</param>
/// <param name="Tuesday">As for Monday.</param>
/// <param name="Wednesday">As for Monday.</param>
/// <param name="Thursday">As for Monday.</param>
/// <param name="Friday">As for Monday.</param>
/// <param name="Saturday">As for Monday.</param>
/// <param name="Sunday">As for Monday.</param>
public sealed record WeekWords(
    string Monday,
    string Tuesday,
    string Wednesday,
    string Thursday,
    string Friday,
    string Saturday,
    string Sunday
)
{
    /// <summary>Hours as they are kept, in words.</summary>
    /// <param name="weekly">Hours as they are kept; a weekday they do not name has none.</param>
    public static WeekWords Of(IReadOnlyList<DayHours> weekly)
    {
        return new WeekWords(
            Day(IsoDayOfWeek.Monday),
            Day(IsoDayOfWeek.Tuesday),
            Day(IsoDayOfWeek.Wednesday),
            Day(IsoDayOfWeek.Thursday),
            Day(IsoDayOfWeek.Friday),
            Day(IsoDayOfWeek.Saturday),
            Day(IsoDayOfWeek.Sunday)
        );

        string Day(IsoDayOfWeek day) => HoursWords.Say(weekly.FirstOrDefault(one => one.Day == day)?.Spans ?? []);
    }

    /// <summary>Reads the words.</summary>
    /// <returns>The days that have hours, only good without findings; the findings name the days: "monday".</returns>
    public (IReadOnlyList<DayHours> Weekly, IReadOnlyList<Finding> Findings) Read()
    {
        var days = new[] { Monday, Tuesday, Wednesday, Thursday, Friday, Saturday, Sunday }
            .Select((words, index) => (Day: (IsoDayOfWeek)(index + 1), Words: words))
            .Select(day => (day.Day, Read: HoursWords.Read(day.Words, day.Day.ToString().ToLowerInvariant())))
            .ToList();
        return (
            [.. days.Where(day => day.Read.Spans.Count > 0).Select(day => new DayHours(day.Day, day.Read.Spans))],
            [.. days.Select(day => day.Read.Finding).OfType<Finding>()]
        );
    }
}
