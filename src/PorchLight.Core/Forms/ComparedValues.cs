using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Core.Conditions;

namespace PorchLight.Core.Forms;

/// <summary>The values that comparisons can tell apart.</summary>
internal static class ComparedValues
{
    /// <summary>The currencies that amounts are compared in, each once.</summary>
    public static IEnumerable<string> Currencies(this IEnumerable<ComparisonCondition> comparisons) =>
        comparisons
            .Select(comparison =>
                comparison switch
                {
                    NumberCondition c => c.Currency,
                    NumberBetweenCondition c => c.Currency,
                    _ => null,
                }
            )
            .OfType<string>()
            .Distinct();

    /// <summary>
    /// Every threshold and every end itself, and a number on each side of it: no comparison can tell two numbers of one gap apart.
    /// </summary>
    public static IEnumerable<decimal> Numbers(
        this IReadOnlyList<ComparisonCondition> comparisons,
        string? currency,
        decimal? min,
        decimal? max,
        bool whole
    )
    {
        var ends = Thresholds(comparisons, currency).Concat(new[] { min, max }.OfType<decimal>()).Distinct().Order().ToList();
        if (ends.Count == 0)
            return [1m];
        return ends.Zip(ends.Skip(1), (low, high) => whole ? decimal.Floor(low) + 1 : Shorter(low, high))
            .Concat(ends)
            .Append(Further(ends[0], -1))
            .Append(Further(ends[^1], 1))
            .Where(number => !(number < min) && !(number > max) && (!whole || number == decimal.Truncate(number)))
            .Distinct()
            .Order();

        decimal Further(decimal end, int step) =>
            Math.Abs(end) > decimal.MaxValue / 2 ? end
            : whole ? (step < 0 ? decimal.Ceiling(end) : decimal.Floor(end)) + step
            : end + step;

        // A whole number between the two reads better than the middle.
        static decimal Shorter(decimal low, decimal high) =>
            decimal.Floor(low) + 1 < high ? decimal.Floor(low) + 1 : low + (high - low) / 2;
    }

    private static IEnumerable<decimal> Thresholds(IEnumerable<ComparisonCondition> comparisons, string? currency) =>
        comparisons.SelectMany(comparison =>
            comparison switch
            {
                NumberCondition c when c.Currency == currency => [c.Value],
                NumberBetweenCondition c when c.Currency == currency => [c.Low, c.High],
                _ => Array.Empty<decimal>(),
            }
        );

    /// <summary>Every day that is compared with, every end, today, and the days on each side, as far as the limits allow them.</summary>
    public static IEnumerable<LocalDate> Days(this IEnumerable<ComparisonCondition> comparisons, DateLimits? limits, LocalDate today)
    {
        var (first, last) = limits?.On(today) ?? (null, null);
        var days = comparisons
            .SelectMany(comparison =>
                comparison switch
                {
                    BeforeCondition c => [c.Date],
                    AfterCondition c => [c.Date],
                    DateBetweenCondition c => [c.From, c.To],
                    WithinNextDaysCondition c => [today, DayArithmetic.Plus(today, c.Days)],
                    _ => Array.Empty<LocalDate>(),
                }
            )
            .Concat(new[] { first, last }.OfType<LocalDate>());
        return days.SelectMany(day => new[] { DayArithmetic.Plus(day, -1), day, DayArithmetic.Plus(day, 1) })
            .Append(today)
            .Distinct()
            .Order()
            .Where(day => !(day < first) && !(day > last));
    }

    /// <summary>Every text that is compared with, and one that is none of them.</summary>
    public static IEnumerable<string> Texts(this IEnumerable<ComparisonCondition> comparisons)
    {
        var compared = comparisons
            .SelectMany(comparison =>
                comparison switch
                {
                    IsCondition c => [c.Value],
                    IsNotCondition c => [c.Value],
                    IsOneOfCondition c => c.Values,
                    _ => Array.Empty<string>(),
                }
            )
            .ToList();
        return compared.Append(
            compared.Contains("anything else", StringComparer.OrdinalIgnoreCase)
                ? "anything else" + string.Concat(compared)
                : "anything else"
        );
    }
}
