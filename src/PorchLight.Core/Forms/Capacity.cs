using NodaTime;
using NodaTime.Text;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;

namespace PorchLight.Core.Forms;

/// <summary>How much fits into a month.</summary>
/// <param name="Month">The month.</param>
/// <param name="Most">How many inquiries fit into it; at least 0.</param>
public sealed record MonthLimit(YearMonth Month, int Most);

/// <summary>How much fits into the months to come. A month that is not named has room for all.</summary>
/// <param name="Question">The key of the question for the wanted day or days.</param>
/// <param name="Months">The months that are limited, each once.</param>
public sealed record Capacity(string Question, IReadOnlyList<MonthLimit> Months);

/// <summary>The month an inquiry is for.</summary>
/// <param name="Month">The month.</param>
/// <param name="Waits">Whether it was fully booked, so that the inquiry is on its waiting list.</param>
public sealed record WantedMonth(YearMonth Month, bool Waits);

/// <summary>Finds room in the months.</summary>
public static class Capacities
{
    private static readonly YearMonthPattern InWords = YearMonthPattern.CreateWithInvariantCulture("MMMM uuuu");

    /// <summary>
    /// The month an answer asks for: of a day its month; of a range the first of its months that has room, or else, waiting,
    /// the first one. Null when no day was given.
    /// </summary>
    /// <param name="capacity">How much fits.</param>
    /// <param name="answer">The answer to <see cref="Capacity.Question"/>.</param>
    /// <param name="taken">How many inquiries each month has already, waiting ones not counted; absent for none.</param>
    public static WantedMonth? Find(this Capacity capacity, Answer? answer, IReadOnlyDictionary<YearMonth, int> taken)
    {
        var months = MonthsOf(answer).ToList();
        return months.Count == 0
            ? null
            : months.Where(HasRoom).Select(month => new WantedMonth(month, Waits: false)).FirstOrDefault()
                ?? new WantedMonth(months[0], Waits: true);

        bool HasRoom(YearMonth month) =>
            capacity.Months.FirstOrDefault(limited => limited.Month == month) is not { } limit
            || taken.GetValueOrDefault(month) < limit.Most;
    }

    /// <summary>The first month after a fully booked one that has room; null when the calendar ends before.</summary>
    /// <param name="capacity">How much fits.</param>
    /// <param name="full">The month that is full.</param>
    /// <param name="taken">How many inquiries each month has already.</param>
    public static YearMonth? NextFree(this Capacity capacity, YearMonth full, IReadOnlyDictionary<YearMonth, int> taken)
    {
        var month = After(full);
        while (month is { } next && capacity.Months.Any(limited => limited.Month == next && taken.GetValueOrDefault(next) >= limited.Most))
            month = After(next);
        return month;
    }

    /// <summary>What is said beside the day when its month is fully booked, or null when there is room.</summary>
    /// <param name="capacity">How much fits.</param>
    /// <param name="answer">The answer to <see cref="Capacity.Question"/>.</param>
    /// <param name="taken">How many inquiries each month has already.</param>
    public static string? NoticeOf(this Capacity capacity, Answer? answer, IReadOnlyDictionary<YearMonth, int> taken) =>
        capacity.Find(answer, taken) is { Waits: true, Month: var full } ? Note(full, capacity.NextFree(full, taken)) : null;

    /// <summary>What is said beside the day while its month is fully booked: that, when there is room, and what sending means.</summary>
    /// <param name="full">The month that is full.</param>
    /// <param name="nextFree">The next one with room, or null when there is none.</param>
    public static string Note(YearMonth full, YearMonth? nextFree) =>
        nextFree is { } free
            ? $"{Say(full)} is fully booked. There is room in {Say(free)}; or send this as it is, and you are on the waiting list for {Say(full)}."
            : $"{Say(full)} is fully booked. Send this as it is, and you are on the waiting list for {Say(full)}.";

    /// <summary>The months that can be limited: those of the three years to come.</summary>
    /// <param name="today">The day of asking.</param>
    public static IReadOnlyList<YearMonth> MonthsToCome(LocalDate today) =>
        [.. Enumerable.Range(1, 36).Select(DayArithmetic.MonthsAfter(today.ToYearMonth())).OfType<YearMonth>()];

    /// <summary>What is said at the end to somebody who is on a waiting list.</summary>
    /// <param name="month">The month they wait for.</param>
    public static string WaitingNote(YearMonth month) =>
        $"You are on the waiting list for {Say(month)}. We write to you when a place comes free.";

    /// <summary>A month in words: "May 2027".</summary>
    /// <param name="month">The month; always said with its year.</param>
    public static string Say(YearMonth month) => InWords.Format(month);

    private static IEnumerable<YearMonth> MonthsOf(Answer? answer)
    {
        var (from, to) = answer switch
        {
            DateAnswer day => (day.Date, day.Date),
            DateRangeAnswer range when range.From <= range.To => (range.From, range.To),
            _ => ((LocalDate?)null, (LocalDate?)null),
        };
        if (from is not { } first || to is not { } last)
            yield break;
        // Nobody's range is longer than this; a hostile one shall not make us count to the year 9999.
        YearMonth? month = first.ToYearMonth();
        for (var count = 0; count < 60 && month is { } one && one <= last.ToYearMonth(); count++, month = After(one))
            yield return one;
    }

    private static YearMonth? After(YearMonth month) => month < LocalDate.MaxIsoValue.ToYearMonth() ? month.PlusMonths(1) : null;
}
