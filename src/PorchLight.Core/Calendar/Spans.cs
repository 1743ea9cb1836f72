using NodaTime;

namespace PorchLight.Core.Calendar;

/// <summary>A span of time, its end not part of it.</summary>
/// <param name="From">The first moment.</param>
/// <param name="To">The first moment after it. A span that does not end after it begins holds nothing.</param>
public readonly record struct Span(Instant From, Instant To)
{
    /// <summary>Whether there is anything in it.</summary>
    public bool IsEmpty => To <= From;

    /// <summary>The part of it that lies in another; empty where none does.</summary>
    /// <param name="other">The other span.</param>
    public Span Within(Span other) => new(Instant.Max(From, other.From), Instant.Min(To, other.To));
}

/// <summary>
/// Sums with spans. A <em>list in order</em> has no empty span, is in order of time, and no two of its spans overlap or touch; all that is
/// given back here is one.
/// </summary>
public static class Spans
{
    /// <summary>All that lies in any of the spans.</summary>
    /// <param name="spans">In any order; they may overlap, touch or be empty.</param>
    public static IReadOnlyList<Span> Union(IEnumerable<Span> spans)
    {
        var union = new List<Span>();
        foreach (var span in spans.Where(span => !span.IsEmpty).OrderBy(span => span.From))
        {
            if (union is [.., var last] && span.From <= last.To)
                union[^1] = last with { To = Instant.Max(last.To, span.To) };
            else
                union.Add(span);
        }

        return union;
    }

    /// <summary>All that lies in both.</summary>
    /// <param name="one">A list in order.</param>
    /// <param name="other">A list in order.</param>
    public static IReadOnlyList<Span> Intersection(IReadOnlyList<Span> one, IReadOnlyList<Span> other)
    {
        var both = new List<Span>();
        for (int i = 0, j = 0; i < one.Count && j < other.Count; )
        {
            var shared = one[i].Within(other[j]);
            if (!shared.IsEmpty)
                both.Add(shared);
            if (one[i].To < other[j].To)
                i++;
            else
                j++;
        }

        return both;
    }

    /// <summary>Whether a span of some length overlaps none in a list. One that only touches does not overlap.</summary>
    /// <param name="span">The span; an empty one overlaps nothing.</param>
    /// <param name="list">A list in order.</param>
    public static bool IsClearOf(this Span span, IReadOnlyList<Span> list)
    {
        var next = FirstEndingAfter(list, span.From);
        return span.IsEmpty || next == list.Count || list[next].From >= span.To;
    }

    /// <summary>Whether all of a span lies within one span of a list.</summary>
    /// <param name="span">The span; not empty.</param>
    /// <param name="list">A list in order.</param>
    public static bool IsWithin(this Span span, IReadOnlyList<Span> list)
    {
        var next = FirstEndingAfter(list, span.From);
        return next < list.Count && list[next].From <= span.From && span.To <= list[next].To;
    }

    private static int FirstEndingAfter(IReadOnlyList<Span> list, Instant moment)
    {
        var (low, high) = (0, list.Count);
        while (low < high)
        {
            var middle = (low + high) / 2;
            (low, high) = list[middle].To > moment ? (low, middle) : (middle + 1, high);
        }

        return low;
    }
}
