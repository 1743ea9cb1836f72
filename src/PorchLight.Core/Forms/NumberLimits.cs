using System.Globalization;
using PorchLight.Core.Answers;

namespace PorchLight.Core.Forms;

/// <summary>The limits of a number.</summary>
internal static class NumberLimits
{
    /// <summary>That a number lies outside, as a sentence, or null.</summary>
    /// <param name="value">The number.</param>
    /// <param name="min">The smallest that is allowed; null for no limit.</param>
    /// <param name="max">The largest that is allowed; null for no limit.</param>
    public static string? Outside(decimal value, decimal? min, decimal? max) =>
        value < min ? string.Create(CultureInfo.InvariantCulture, $"The smallest number that makes sense here is {min:#,0.##}.")
        : value > max ? string.Create(CultureInfo.InvariantCulture, $"The largest number that makes sense here is {max:#,0.##}.")
        : null;

    /// <summary>What cannot be meant in two limits; at most one sentence.</summary>
    /// <param name="min">The smallest that is to be allowed; null for no limit.</param>
    /// <param name="max">The largest; null for no limit.</param>
    public static IEnumerable<string> Faults(decimal? min, decimal? max) =>
        new[]
        {
            min is { } low ? ValueBounds.Check(low) : null,
            max is { } high ? ValueBounds.Check(high) : null,
            min > max ? "The smallest and the largest number do not go together." : null,
        }
            .OfType<string>()
            .Take(1);
}
