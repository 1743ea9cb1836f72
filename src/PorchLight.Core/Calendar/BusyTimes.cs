using System.Text.RegularExpressions;
using Ical.Net;
using Ical.Net.DataTypes;
using Ical.Net.Evaluation;
using NodaTime;
using NodaTime.TimeZones;
using Entry = Ical.Net.CalendarComponents.CalendarEvent;
using OutsideCalendar = Ical.Net.Calendar;

namespace PorchLight.Core.Calendar;

/// <summary>Something somebody is busy with, by a calendar that is kept elsewhere.</summary>
/// <param name="When">When it is; not empty.</param>
/// <param name="Title">What it is called there, in one line; empty for nothing.</param>
public sealed record BusyEntry(Span When, string Title);

/// <summary>
/// When somebody is busy by a calendar that is kept elsewhere. Entries that are cancelled, or marked as not taking up time, block nothing;
/// of one that repeats, single times may be left out, moved or cancelled. An entry of whole days blocks them in the zone of whoever keeps the
/// calendar, as does one without a zone its times.
/// </summary>
/// <param name="Entries">What they are busy with, in order of time; several may be at one time.</param>
/// <param name="Faults">What could not be read, a sentence each; the rest counts.</param>
public sealed partial record BusyTimes(IReadOnlyList<BusyEntry> Entries, IReadOnlyList<string> Faults)
{
    /// <summary>When they are busy, in order: <see cref="Spans"/>.</summary>
    public IReadOnlyList<Span> Busy => Spans.Union(Entries.Select(entry => entry.When));

    /// <summary>The longest title of an entry; what is longer is cut short.</summary>
    public const int LongestTitle = 120;

    /// <summary>How many times one entry repeats at most within what is read; of one that does so more often the others are left out.</summary>
    public const int MostTimes = 5_000;

    // Without it the library goes on for ever where a rule by hours or minutes meets an hour that a clock change doubles.
    private static readonly EvaluationOptions Limits = new() { MaxUnmatchedIncrementsLimit = 20_000 };
    private static readonly IDateTimeZoneProvider Zones = DateTimeZoneProviders.Tzdb;

    /// <summary>Reads iCalendar (RFC 5545).</summary>
    /// <param name="text">The file.</param>
    /// <param name="zone">The zone of whoever keeps the calendar.</param>
    /// <param name="within">What is looked at; entries that only reach into it count with that part.</param>
    /// <param name="isOurs">
    /// Whether a UID is that of one of the business's own meetings, which blocks its time already, and would be in its own way when it is
    /// moved; null where there are none.
    /// </param>
    /// <returns>The busy times; null where the text is no calendar at all.</returns>
    public static BusyTimes? Read(string text, DateTimeZone zone, Span within, Func<string, bool>? isOurs = null)
    {
        var faults = new List<string>();
        if (Load(InKnownZones(text, zone, faults)) is not { Count: > 0 } calendars)
            return null;
        var busy = new List<BusyEntry>();
        foreach (var one in calendars.SelectMany(calendar => calendar.Events).GroupBy(entry => entry.Uid))
            if (one.Key is not { } uid || isOurs?.Invoke(uid) != true)
                busy.AddRange(TimesOf([.. one], zone, within, faults));
        return new BusyTimes(
            [
                .. busy.Select(entry => entry with { When = entry.When.Within(within) })
                    .Where(entry => !entry.When.IsEmpty)
                    .OrderBy(entry => entry.When.From)
                    .ThenBy(entry => entry.When.To),
            ],
            faults
        );
    }

    private static CalendarCollection? Load(string text)
    {
        if (!IsWhole(text))
            return null;
        try
        {
            return CalendarCollection.Load(text);
        }
        // The library says in many ways that a text is none it can read.
        catch (Exception unreadable) when (unreadable is not OutOfMemoryException)
        {
            return null;
        }
    }

    /// <summary>Whether there is a calendar, and all that begins in it ends, in turn: the library reads on for ever in one that was cut short.</summary>
    private static bool IsWhole(string text)
    {
        var (open, any) = (new Stack<string>(), false);
        foreach (Match line in Bounds().Matches(text))
        {
            var (isBegin, name) = (line.Groups["word"].Value == "BEGIN", line.Groups["name"].Value.Trim().ToUpperInvariant());
            any |= open.Count == 0 && isBegin && name == "VCALENDAR";
            if (isBegin)
                open.Push(name);
            else if (!open.TryPop(out var begun) || begun != name)
                return false;
        }

        return any && open.Count == 0;
    }

    /// <summary>The times of an entry, with those of its repetitions that were changed.</summary>
    private static List<BusyEntry> TimesOf(IReadOnlyList<Entry> entry, DateTimeZone zone, Span within, List<string> faults)
    {
        var times = new List<BusyEntry>();
        if (entry.Any(one => one.Start is null))
        {
            faults.Add($"“{NameOf(entry)}” has no time that can be read, so it does not count.");
            return times;
        }

        var calendar = new OutsideCalendar();
        calendar.Events.AddRange(entry);
        try
        {
            var longest = entry.Max(one => ToSpan(one.Start!, one.End ?? one.Start!, zone) is var span ? span.To - span.From : default);
            // A day more on both sides, since a time without a zone is not yet where it belongs.
            var (from, to) = (within.From - longest - NodaTime.Duration.FromDays(1), within.To + NodaTime.Duration.FromDays(1));
            foreach (var time in calendar.GetOccurrences<Entry>(InUtc(from), Limits).TakeWhileBefore(InUtc(to)))
            {
                if (times.Count == MostTimes)
                {
                    faults.Add($"“{NameOf(entry)}” repeats more than {MostTimes:N0} times. Only the first of them count.");
                    break;
                }

                var source = (Entry)time.Source;
                if (!Says(source.Status, EventStatus.Cancelled) && !Says(source.Transparency, TransparencyType.Transparent))
                    times.Add(
                        new BusyEntry(
                            ToSpan(time.Period.StartTime, time.Period.EffectiveEndTime ?? time.Period.StartTime, zone),
                            TitleOf(source.Summary ?? "")
                        )
                    );
            }
        }
        catch (Exception unreadable) when (unreadable is EvaluationException or ArgumentException or InvalidOperationException)
        {
            faults.Add($"“{NameOf(entry)}” repeats in a way that cannot be followed to its end, so not all of its times count.");
        }

        return times;
    }

    private static string TitleOf(string summary)
    {
        var line = Blanks().Replace(summary, " ").Trim();
        return line.Length <= LongestTitle ? line : line[..(LongestTitle - 1)].TrimEnd() + "…";
    }

    private static Span ToSpan(CalDateTime start, CalDateTime end, DateTimeZone zone) => new(ToInstant(start, zone), ToInstant(end, zone));

    private static Instant ToInstant(CalDateTime time, DateTimeZone zone)
    {
        var date = LocalDate.FromDateOnly(time.Date);
        if (time.Time is not { } clock)
            return zone.AtStartOfDay(date).ToInstant();
        var own =
            time.IsUtc ? DateTimeZone.Utc
            : time.TzId is { } id ? Zones.GetZoneOrNull(id) ?? zone
            : zone;
        return (date + LocalTime.FromTimeOnly(clock)).InZoneLeniently(own).ToInstant();
    }

    private static CalDateTime InUtc(Instant instant) => new(instant.ToDateTimeUtc(), CalDateTime.UtcTzId);

    private static bool Says(string? value, string wanted) => string.Equals(value, wanted, StringComparison.OrdinalIgnoreCase);

    private static string NameOf(IReadOnlyList<Entry> entry) =>
        entry.Select(one => one.Summary).FirstOrDefault(summary => !string.IsNullOrWhiteSpace(summary)) ?? "An entry without a name";

    /// <summary>The text with every zone by a name that is known here; of an unknown one the times are read in the zone of the calendar.</summary>
    private static string InKnownZones(string text, DateTimeZone zone, List<string> faults)
    {
        var unknown = new HashSet<string>();
        var named = ZoneName()
            .Replace(
                Names().Replace(Folds().Replace(text, ""), name => name.Value.ToUpperInvariant()),
                match =>
                {
                    var id = match.Groups["id"].Value;
                    if (KnownZone(id) is { } known)
                        return $"TZID={known}";
                    unknown.Add(id);
                    return $"TZID={zone.Id}";
                }
            );
        faults.AddRange(
            unknown
                .Order(StringComparer.Ordinal)
                .Select(id => $"The time zone “{id}” is not known here. Its times are read as times in {zone.Id}.")
        );
        return named;
    }

    private static string? KnownZone(string id) =>
        Zones.GetZoneOrNull(id) is not null ? id
        : TzdbDateTimeZoneSource.Default.WindowsMapping.PrimaryMapping.TryGetValue(id, out var named) ? named
        // Some write a path before the name: "/example.org/20260101/Europe/Dublin".
        : id.IndexOf('/', StringComparison.Ordinal) is var slash and >= 0 ? KnownZone(id[(slash + 1)..])
        : null;

    [GeneratedRegex(@"[\s\p{C}]+", RegexOptions.CultureInvariant)]
    private static partial Regex Blanks();

    [GeneratedRegex(@"\r?\n[ \t]", RegexOptions.CultureInvariant)]
    private static partial Regex Folds();

    // What a line is called may be written in small letters, too.
    [GeneratedRegex(@"^[A-Za-z-]+(?=[;:])", RegexOptions.Multiline | RegexOptions.CultureInvariant)]
    private static partial Regex Names();

    [GeneratedRegex(@"^(?<word>BEGIN|END):(?<name>[^\r\n]*)", RegexOptions.Multiline | RegexOptions.CultureInvariant)]
    private static partial Regex Bounds();

    [GeneratedRegex(@"TZID=(?<quote>""?)(?<id>[^"":;,\r\n]+)\k<quote>(?=[;:])", RegexOptions.IgnoreCase | RegexOptions.CultureInvariant)]
    private static partial Regex ZoneName();
}
