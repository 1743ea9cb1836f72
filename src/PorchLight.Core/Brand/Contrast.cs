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

    /// <summary>Whether a text is a colour as this program writes it, #rrggbb.</summary>
    /// <param name="text">The text, digits of either case; null is none.</param>
    public static bool IsColour(string? text) => text is ['#', _, _, _, _, _, _] && text.AsSpan(1).IndexOfAnyExcept(HexDigits) < 0;

    /// <summary>
    /// The nearest colour that reaches a contrast: same hue and chroma in OKLCH, least change of lightness; where sRGB has no
    /// such colour, the nearest of the same hue with less chroma, at the last black or white. The colour itself when it
    /// passes already; null only when neither black nor white passes, which for a ratio up to 4.5 never happens.
    /// </summary>
    /// <param name="colour">As #rrggbb.</param>
    /// <param name="against">The colour it stands on or under, as #rrggbb.</param>
    /// <param name="least">The ratio to reach: 4.5 for text, 3 for marks.</param>
    public static string? Nearest(string colour, string against, double least)
    {
        if (Ratio(colour, against) >= least)
            return colour;
        var given = Oklch.FromHex(colour);
        var lightnesses = Enumerable.Range(0, Steps + 1).Select(step => (double)step / Steps).ToList();
        return Passing(lightnesses.Select(lightness => given with { Lightness = lightness }).Where(candidate => candidate.IsInGamut))
            ?? Passing(
                lightnesses.Select(lightness =>
                    given with
                    {
                        Lightness = lightness,
                        Chroma = MostChroma(given with { Lightness = lightness }),
                    }
                )
            );

        string? Passing(IEnumerable<Oklch> candidates) =>
            candidates
                .OrderBy(candidate => Math.Pow(candidate.Lightness - given.Lightness, 2) + Math.Pow(candidate.Chroma - given.Chroma, 2))
                .Where(KeepsItsHue)
                .Select(candidate => candidate.ToHex())
                .FirstOrDefault(candidate => Ratio(candidate, against) >= least);
    }

    // Close to black, rounding to 8 bits makes another colour of a dark one; of greys it turns nothing that can be seen.
    private static bool KeepsItsHue(Oklch colour)
    {
        var rounded = Oklch.FromHex(colour.ToHex());
        return rounded.Chroma < 0.04 || Math.Abs(((rounded.Hue - colour.Hue + 540) % 360) - 180) < 4;
    }

    /// <summary>The most chroma sRGB can show of a hue and lightness, up to the colour's own.</summary>
    private static double MostChroma(Oklch colour)
    {
        if (colour.IsInGamut)
            return colour.Chroma;
        var (low, high) = (0.0, colour.Chroma);
        for (var halving = 0; halving < 12; halving++)
            (low, high) = (colour with { Chroma = (low + high) / 2 }).IsInGamut ? ((low + high) / 2, high) : (low, (low + high) / 2);
        return low;
    }

    /// <summary>One channel as linear light, by the sRGB transfer function.</summary>
    internal static double Linear(string colour, int at)
    {
        var value = int.Parse(colour.AsSpan(at, 2), NumberStyles.HexNumber, CultureInfo.InvariantCulture) / 255.0;
        return value <= 0.04045 ? value / 12.92 : Math.Pow((value + 0.055) / 1.055, 2.4);
    }

    private static double Luminance(string colour) =>
        IsColour(colour)
            ? (0.2126 * Linear(colour, 1)) + (0.7152 * Linear(colour, 3)) + (0.0722 * Linear(colour, 5))
            : throw new ArgumentException("A colour is written as #rrggbb.", nameof(colour));
}
