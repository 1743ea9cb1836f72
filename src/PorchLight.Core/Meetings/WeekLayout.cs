using NodaTime;
using PorchLight.Core.Calendar;

namespace PorchLight.Core.Meetings;

/// <summary>Where something stands in the picture of a week. Several at one time stand side by side.</summary>
/// <param name="Item">What it is: its place in the list that was given.</param>
/// <param name="Day">The day of the week, from 0.</param>
/// <param name="From">When it begins on that day, in minutes of the clock since midnight.</param>
/// <param name="To">When it ends on that day; after <paramref name="From"/>, at most 1440.</param>
/// <param name="Lane">How many stand before it at that time.</param>
/// <param name="Lanes">How many stand side by side there; at least 1.</param>
public sealed record WeekBlock(int Item, int Day, int From, int To, int Lane, int Lanes);

/// <summary>Draws a week: what is when, by the clock of one zone.</summary>
public static class WeekLayout
{
    /// <summary>The days of a week.</summary>
    public const int Days = 7;

    /// <summary>The least height of a block, in minutes, so that its words can be read.</summary>
    public const int LeastMinutes = 15;

    private const int MinutesADay = 24 * 60;

    /// <summary>
    /// The blocks of some spans, by day and then by time. One that goes over midnight has a block on each day; one outside the week has
    /// none. On a day when the clock is put back a block is as long as the clock says, and never shorter than <see cref="LeastMinutes"/>.
    /// </summary>
    /// <param name="spans">What is when; an empty span stands where it begins.</param>
    /// <param name="first">The first day of the week.</param>
    /// <param name="zone">The zone of the clock.</param>
    public static IReadOnlyList<WeekBlock> Of(IReadOnlyList<Span> spans, LocalDate first, DateTimeZone zone)
    {
        var placed = new List<WeekBlock>();
        var pieces = spans.SelectMany((span, item) => PiecesOf(span, item, first, zone)).ToLookup(piece => piece.Day);
        for (var day = 0; day < Days; day++)
        {
            var together = new List<WeekBlock>();
            foreach (var piece in pieces[day].OrderBy(piece => piece.From).ThenByDescending(piece => piece.To).ThenBy(piece => piece.Item))
            {
                if (together.Count > 0 && together.TrueForAll(other => other.To <= piece.From))
                    Flush(together, placed);
                together.Add(piece with { Lane = FreeLane(together, piece.From) });
            }

            Flush(together, placed);
        }

        return placed;
    }

    private static IEnumerable<WeekBlock> PiecesOf(Span span, int item, LocalDate first, DateTimeZone zone)
    {
        var (from, to) = (span.From.InZone(zone).LocalDateTime, span.To.InZone(zone).LocalDateTime);
        for (var day = 0; day < Days; day++)
        {
            var date = first.PlusDays(day);
            var endsBefore = to.Date < date || to.Date == date && to.TimeOfDay == LocalTime.Midnight && from.Date < date;
            if (from.Date > date || endsBefore)
                continue;
            var begin = from.Date < date ? 0 : MinuteOf(from.TimeOfDay);
            var end = to.Date > date ? MinutesADay : MinuteOf(to.TimeOfDay);
            begin = Math.Min(begin, MinutesADay - LeastMinutes);
            yield return new WeekBlock(item, day, begin, Math.Max(end, begin + LeastMinutes), 0, 1);
        }
    }

    private static int FreeLane(List<WeekBlock> together, int from)
    {
        var lane = 0;
        while (together.Exists(other => other.Lane == lane && other.To > from))
            lane++;
        return lane;
    }

    private static void Flush(List<WeekBlock> together, List<WeekBlock> placed)
    {
        var lanes = together.Count == 0 ? 0 : together.Max(block => block.Lane) + 1;
        placed.AddRange(together.Select(block => block with { Lanes = lanes }));
        together.Clear();
    }

    private static int MinuteOf(LocalTime time) => time.Hour * 60 + time.Minute;
}
