using System.Globalization;

namespace PorchLight.Core.Brand;

/// <summary>Contrast of colours by the definition of WCAG 2.2 (relative luminance and contrast ratio).</summary>
public static class Contrast
{
    /// <summary>The contrast ratio of two colours, from 1 to 21.</summary>
    /// <param name="a">As #rrggbb.</param>
    /// <param name="b">As #rrggbb.</param>
    public static double Ratio(string a, string b)
    {
        var (x, y) = (Luminance(a), Luminance(b));
        return (Math.Max(x, y) + 0.05) / (Math.Min(x, y) + 0.05);
    }

    private static double Luminance(string colour)
    {
        if (colour is not ['#', _, _, _, _, _, _])
            throw new ArgumentException("A colour is written as #rrggbb.", nameof(colour));
        return (0.2126 * Channel(1)) + (0.7152 * Channel(3)) + (0.0722 * Channel(5));

        double Channel(int at)
        {
            var value = int.Parse(colour.AsSpan(at, 2), NumberStyles.HexNumber, CultureInfo.InvariantCulture) / 255.0;
            return value <= 0.04045 ? value / 12.92 : Math.Pow((value + 0.055) / 1.055, 2.4);
        }
    }
}
