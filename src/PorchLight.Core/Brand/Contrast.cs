using System.Buffers;
using System.Globalization;

namespace PorchLight.Core.Brand;

/// <summary>Contrast of colours by the definition of WCAG 2.2 (relative luminance and contrast ratio).</summary>
public static class Contrast
{
    private const int Steps = 500;
    private static readonly SearchValues<char> HexDigits = SearchValues.Create("0123456789abcdefABCDEF");

    /// <summary>The contrast ratio of two colours, from 1 to 21.</summary>
    /// <param name="a">As #rrggbb.</param>
    /// <param name="b">As #rrggbb.</param>
    public static double Ratio(string a, string b)
    {
        var (x, y) = (Luminance(a), Luminance(b));
        return (Math.Max(x, y) + 0.05) / (Math.Min(x, y) + 0.05);
    }

    /// <summary>Whether a text is a colour as this house writes it, #rrggbb.</summary>
    public static bool IsColour(string? text) => text is ['#', _, _, _, _, _, _] && text.AsSpan(1).IndexOfAnyExcept(HexDigits) < 0;

    /// <summary>
    /// The nearest colour that reaches a contrast: same hue and chroma in OKLCH, least change of lightness (where that
    /// leaves sRGB, its edge). The colour itself when it passes already; null when no lightness passes.
    /// </summary>
    /// <param name="colour">As #rrggbb.</param>
    /// <param name="against">The colour it stands on or under, as #rrggbb.</param>
    /// <param name="least">The ratio to reach: 4.5 for text, 3 for marks.</param>
    public static string? Nearest(string colour, string against, double least)
    {
        if (Ratio(colour, against) >= least)
            return colour;
        var given = Oklch.FromHex(colour);
        return Enumerable.Range(1, Steps)
            .SelectMany(step => new[] { given.Lightness - ((double)step / Steps), given.Lightness + ((double)step / Steps) })
            .Where(lightness => lightness is >= 0 and <= 1)
            .Select(lightness => (given with { Lightness = lightness }).ToHex())
            .FirstOrDefault(candidate => Ratio(candidate, against) >= least);
    }

    /// <summary>One channel as linear light, by the sRGB transfer function.</summary>
    internal static double Linear(string colour, int at)
    {
        var value = int.Parse(colour.AsSpan(at, 2), NumberStyles.HexNumber, CultureInfo.InvariantCulture) / 255.0;
        return value <= 0.04045 ? value / 12.92 : Math.Pow((value + 0.055) / 1.055, 2.4);
    }

    private static double Luminance(string colour) => IsColour(colour)
        ? (0.2126 * Linear(colour, 1)) + (0.7152 * Linear(colour, 3)) + (0.0722 * Linear(colour, 5))
        : throw new ArgumentException("A colour is written as #rrggbb.", nameof(colour));
}
