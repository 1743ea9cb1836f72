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

    /// <summary>"09:00".</summary>
    public static string Say(LocalTime time) => Clock.Format(time);

    /// <summary>"09:00 to 12:30, 13:30 to 17:30"; empty for a day without hours. A span up to midnight ends at 24:00.</summary>
    public static string Say(IReadOnlyList<OpenSpan> spans) =>
        string.Join(", ", spans.Select(span => $"{Clock.Format(span.From)} to {(span.To == OpenSpan.EndOfDay ? "24:00" : Clock.Format(span.To))}"));

    /// <summary>
    /// Reads a day's hours: "9 to 17", "09:00-12:30, 13:30-17:30", or nothing (or "closed") for a day off.
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
                return ([], new Finding(place, $"“{part}” is no span of hours. Write it like 09:00 to 17:30, and leave the day empty when you are closed."));
            if (to <= from)
                return ([], new Finding(place, $"“{part}” ends before it begins. Write the earlier time first."));
            spans.Add(new OpenSpan(from, to));
        }

        spans.Sort((a, b) => a.From.CompareTo(b.From));
        return spans.Zip(spans.Skip(1)).Any(pair => pair.First.To > pair.Second.From)
            ? ([], new Finding(place, "Two spans of this day overlap. Write them one after the other."))
            : (spans, null);
    }

    /// <summary>The days as ISO dates, one after the other.</summary>
    public static string SayDays(IEnumerable<LocalDate> days) => string.Join(", ", days.Order().Select(LocalDatePattern.Iso.Format));

    /// <summary>Reads closed days: ISO dates parted by commas or lines; "2026-12-24 to 2027-01-03" means each day from the first to the last.</summary>
    public static (IReadOnlyList<LocalDate> Days, Finding? Finding) ReadDays(string words, string place)
    {
        var days = new SortedSet<LocalDate>();
        foreach (var part in words.Split([',', ';', '\n'], StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries))
        {
            var ends = part.Split(" to ", StringSplitOptions.TrimEntries).Select(end => LocalDatePattern.Iso.Parse(end)).ToList();
            if (ends.Count > 2 || ends.Any(end => !end.Success))
                return ([], new Finding(place, $"“{part}” is no day. Write days like 2026-12-24, or 2026-12-24 to 2027-01-03."));
            var (first, last) = (ends[0].Value, ends[^1].Value);
            if (last < first || Period.DaysBetween(first, last) > BusinessCalendar.Horizon)
                return ([], new Finding(place, $"“{part}” is no span of days within a year or so. Write the earlier day first."));
            for (var day = first; day <= last; day = day.PlusDays(1))
                days.Add(day);
        }

        return ([.. days], null);
    }

    private static LocalTime? ReadTime(Match match, string end)
    {
        var hour = int.Parse(match.Groups[end].Value, CultureInfo.InvariantCulture);
        var minute = match.Groups[end + "Minute"] is { Success: true, Value: var value } ? int.Parse(value, CultureInfo.InvariantCulture) : 0;
        return (hour, minute) switch
        {
            (24, 0) when end == "to" => OpenSpan.EndOfDay,
            ( < 24, < 60) => new LocalTime(hour, minute),
            _ => null,
        };
    }

    [GeneratedRegex(@"^(?<from>\d{1,2})(?:[:.](?<fromMinute>\d\d))?\s*(?:-|–|to)\s*(?<to>\d{1,2})(?:[:.](?<toMinute>\d\d))?$", RegexOptions.CultureInvariant | RegexOptions.IgnoreCase)]
    private static partial Regex Span();
}
