using System.Globalization;
using System.Text.RegularExpressions;
using NodaTime;
using NodaTime.Text;
using PorchLight.Core.Common;

namespace PorchLight.Core.Calendar;

/// <summary>Opening hours and closed days as people write them.</summary>
public static partial class HoursWords
{
    private static readonly LocalTimePattern Clock = LocalTimePattern.CreateWithInvariantCulture("HH:mm");

    private static readonly LocalTime Noon = new(12, 0);
    private static readonly LocalDatePattern[] Written =
    [
        LocalDatePattern.Iso,
        .. new[] { "d MMMM uuuu", "d MMM uuuu", "d'.'M'.'uuuu", "d'. 'M'. 'uuuu", "d'/'M'/'uuuu", "M'/'d'/'uuuu" }.Select(
            LocalDatePattern.CreateWithInvariantCulture
        ),
    ];

    /// <summary>"09:00".</summary>
    /// <param name="time">The time of day; seconds are left out.</param>
    public static string Say(LocalTime time) => Clock.Format(time);

    /// <summary>"09:00 to 12:30, 13:30 to 17:30"; empty for a day without hours. A span up to midnight ends at 24:00.</summary>
    /// <param name="spans">The spans of one day, said in the order given.</param>
    public static string Say(IReadOnlyList<OpenSpan> spans) =>
        string.Join(
            ", ",
            spans.Select(span => $"{Clock.Format(span.From)} to {(span.To == OpenSpan.EndOfDay ? "24:00" : Clock.Format(span.To))}")
        );

    /// <summary>
    /// Reads a day's hours: "9 to 17", "9-5", "9am to 5:30pm", "09:00-12:30, 13:30-17:30", or nothing (or "closed") for a day off.
    /// </summary>
    /// <param name="words">What was written.</param>
    /// <param name="place">The place a finding names.</param>
    /// <returns>The spans in order, or a finding with what to do.</returns>
    public static (IReadOnlyList<OpenSpan> Spans, Finding? Finding) Read(string words, string place)
    {
        var text = words.Trim();
        if (text.Length == 0 || text.Equals("closed", StringComparison.OrdinalIgnoreCase))
            return ([], null);
        var spans = new List<OpenSpan>();
        foreach (var part in text.Split([',', ';'], StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries))
        {
            var match = Span().Match(part);
            if (!match.Success || ReadTime(match, "from") is not { } from || ReadTime(match, "to") is not { } to)
                return (
                    [],
                    new Finding(
                        place,
                        $"“{part}” cannot be read as hours. Write them like 09:00 to 17:30 or 9-5, and leave the day empty when you are closed."
                    )
                );
            // "9-5" is said of the afternoon.
            if (to < from && from < Noon && to <= Noon && !match.Groups["toHalf"].Success)
                to = to.PlusHours(12);
            if (to <= from)
                return ([], new Finding(place, $"“{part}” ends before it begins. Write the earlier time first."));
            spans.Add(new OpenSpan(from, to));
        }

        spans.Sort((a, b) => a.From.CompareTo(b.From));
        return spans.Zip(spans.Skip(1)).Any(pair => pair.First.To > pair.Second.From)
            ? ([], new Finding(place, "Two of the times on this day overlap. Write them one after the other."))
            : (spans, null);
    }

    /// <summary>The days in order, those in a row as one span: "24 December 2026 to 3 January 2027, 17 March 2027".</summary>
    /// <param name="days">The days, in any order; none is empty text. A day given twice is said once.</param>
    public static string SayDays(IEnumerable<LocalDate> days)
    {
        var spans = new List<(LocalDate First, LocalDate Last)>();
        foreach (var day in days.Order())
        {
            if (spans is [.., var open] && open.Last.PlusDays(1) >= day)
                spans[^1] = (open.First, day);
            else
                spans.Add((day, day));
        }

        return string.Join(
            ", ",
            spans.Select(span =>
                span.First == span.Last ? DateWords.Say(span.First) : $"{DateWords.Say(span.First)} to {DateWords.Say(span.Last)}"
            )
        );
    }

    /// <summary>
    /// Reads closed days, parted by commas or lines: "24.12.2026", "24 December 2026" or "2026-12-24"; "24.12.2026 to 3.1.2027" means each
    /// day from the first to the last. A date with slashes is read when only one order of day and month is possible.
    /// </summary>
    /// <param name="words">What was written.</param>
    /// <param name="place">The place a finding names.</param>
    /// <returns>The days, each once and in order, or a finding with what to do.</returns>
    public static (IReadOnlyList<LocalDate> Days, Finding? Finding) ReadDays(string words, string place)
    {
        var days = new SortedSet<LocalDate>();
        foreach (var part in words.Split([',', ';', '\n'], StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries))
        {
            var ends = Until().Split(part).Select(ReadDay).ToList();
            if (ends.Count > 2 || ends.Contains(null))
                return (
                    [],
                    new Finding(
                        place,
                        $"“{part}” cannot be read as a day. Write days like 24 December 2026, or 24 December 2026 to 3 January 2027."
                    )
                );
            var (first, last) = (ends[0]!.Value, ends[^1]!.Value);
            if (last < first || Period.DaysBetween(first, last) > BusinessCalendar.Horizon)
                return (
                    [],
                    new Finding(
                        place,
                        $"“{part}” cannot be read as closed days. Write the earlier day first; {BusinessCalendar.Horizon} days is the most."
                    )
                );
            for (var day = first; day <= last; day = day.PlusDays(1))
                days.Add(day);
        }

        return ([.. days], null);
    }

    private static LocalDate? ReadDay(string text)
    {
        var read = Written
            .Select(pattern => pattern.Parse(text.Trim()))
            .Where(day => day.Success)
            .Select(day => (LocalDate?)day.Value)
            .Distinct()
            .ToList();
        return read is [var only] && only is { Year: > 1900 and < 2400 } ? only : null;
    }

    private static LocalTime? ReadTime(Match match, string end)
    {
        var hour = int.Parse(match.Groups[end].Value, CultureInfo.InvariantCulture);
        var minute = match.Groups[end + "Minute"] is { Success: true, Value: var value }
            ? int.Parse(value, CultureInfo.InvariantCulture)
            : 0;
        if (match.Groups[end + "Half"] is { Success: true, Value: var half })
        {
            if (hour is < 1 or > 12)
                return null;
            hour =
                (hour % 12)
                + (
                    char.ToLowerInvariant(half[0]) == 'p' ? 12
                    : end == "to" && hour == 12 ? 24
                    : 0
                );
        }

        return (hour, minute) switch
        {
            (24, 0) when end == "to" => OpenSpan.EndOfDay,
            (< 24, < 60) => new LocalTime(hour, minute),
            _ => null,
        };
    }

    [GeneratedRegex(@"\s+(?:to|until|-|–)\s+|\s*–\s*", RegexOptions.CultureInvariant | RegexOptions.IgnoreCase)]
    private static partial Regex Until();

    [GeneratedRegex(
        @"^(?<from>\d{1,2})(?:[:.](?<fromMinute>\d\d))?\s*(?:(?<fromHalf>[ap])\.?m\.?)?\s*(?:-|–|to|until)\s*(?<to>\d{1,2})(?:[:.](?<toMinute>\d\d))?\s*(?:(?<toHalf>[ap])\.?m\.?)?$",
        RegexOptions.CultureInvariant | RegexOptions.IgnoreCase
    )]
    private static partial Regex Span();
}
