using System.Globalization;
using NodaTime;
using NodaTime.Text;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;

namespace PorchLight.Core.Meetings;

/// <summary>Says what a week holds.</summary>
public static class CalendarNote
{
    private static readonly LocalDatePattern DayAndMonth = LocalDatePattern.CreateWithInvariantCulture("d MMMM");

    /// <summary>"This week", "Next week", "Last week", "Week of 14 December".</summary>
    /// <param name="first">The first day of the week.</param>
    /// <param name="thisWeek">The first day of the week of today.</param>
    public static string Title(LocalDate first, LocalDate thisWeek) =>
        (Period.DaysBetween(thisWeek, first) / WeekLayout.Days) switch
        {
            0 => "This week",
            1 => "Next week",
            -1 => "Last week",
            _ => $"Week of {DayAndMonth.Format(first)}",
        };

    /// <summary>"30 November to 6 December 2026".</summary>
    /// <param name="first">The first day of the week.</param>
    public static string Range(LocalDate first)
    {
        var last = first.PlusDays(WeekLayout.Days - 1);
        return string.Create(CultureInfo.InvariantCulture, $"{DayAndMonth.Format(first)} to {DayAndMonth.Format(last)} {last.Year}");
    }

    /// <summary>"Three meetings, one of them today at 15:00." Past ones count; cancelled ones do not.</summary>
    /// <param name="starts">When the meetings of the week begin, on the business's clock, in order.</param>
    /// <param name="now">Now, on the same clock.</param>
    public static string Say(IReadOnlyList<LocalDateTime> starts, LocalDateTime now)
    {
        if (starts.Count == 0)
            return "No meetings.";
        var count = Capital(NumberWords.Say(starts.Count)) + (starts.Count == 1 ? " meeting" : " meetings");
        var today = starts.Where(start => start.Date == now.Date && start >= now).ToList();
        var times = string.Join(" and ", today.Select(start => TimeWords.Clock(start.TimeOfDay)));
        return today.Count switch
        {
            0 => $"{count}.",
            _ when today.Count == starts.Count => $"{count}, today at {times}.",
            _ => $"{count}, {NumberWords.Say(today.Count)} of them today at {times}.",
        };
    }

    private static string Capital(string words) => char.ToUpperInvariant(words[0]) + words[1..];
}
