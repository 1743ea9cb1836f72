namespace PorchLight.Core.Brand;

/// <summary>
/// A colour in OKLCH: perceived lightness, chroma and hue (Björn Ottosson, "A perceptual color space for image
/// processing", 2020; the form used by CSS Color 4).
/// </summary>
/// <param name="Lightness">From 0 (black) to 1 (white).</param>
/// <param name="Chroma">From 0 (grey); sRGB colours reach about 0.32.</param>
/// <param name="Hue">In degrees, from 0 up to 360; without meaning for greys.</param>
public readonly record struct Oklch(double Lightness, double Chroma, double Hue)
{
    /// <summary>The colour of #rrggbb.</summary>
    public static Oklch FromHex(string colour)
    {
        var (r, g, b) = (Contrast.Linear(colour, 1), Contrast.Linear(colour, 3), Contrast.Linear(colour, 5));
        var l = Math.Cbrt((0.4122214708 * r) + (0.5363325363 * g) + (0.0514459929 * b));
        var m = Math.Cbrt((0.2119034982 * r) + (0.6806995451 * g) + (0.1073969566 * b));
        var s = Math.Cbrt((0.0883024619 * r) + (0.2817188376 * g) + (0.6299787005 * b));
        var a = (1.9779984951 * l) - (2.4285922050 * m) + (0.4505937099 * s);
        var bb = (0.0259040371 * l) + (0.7827717662 * m) - (0.8086757660 * s);
        return new Oklch(
            (0.2104542553 * l) + (0.7936177850 * m) - (0.0040720468 * s),
            Math.Sqrt((a * a) + (bb * bb)),
            (Math.Atan2(bb, a) * 180 / Math.PI + 360) % 360);
    }

    /// <summary>The colour as #rrggbb; channels that leave sRGB are held at its edge.</summary>
    public string ToHex()
    {
        var (a, b) = (Chroma * Math.Cos(Hue * Math.PI / 180), Chroma * Math.Sin(Hue * Math.PI / 180));
        var l = Cube(Lightness + (0.3963377774 * a) + (0.2158037573 * b));
        var m = Cube(Lightness - (0.1055613458 * a) - (0.0638541728 * b));
        var s = Cube(Lightness - (0.0894841775 * a) - (1.2914855480 * b));
        return $"#{Channel((4.0767416621 * l) - (3.3077115913 * m) + (0.2309699292 * s)):x2}"
            + $"{Channel((-1.2684380046 * l) + (2.6097574011 * m) - (0.3413193965 * s)):x2}"
            + $"{Channel((-0.0041960863 * l) - (0.7034186147 * m) + (1.7076147010 * s)):x2}";

        static double Cube(double value) => value * value * value;

        static int Channel(double linear)
        {
            var value = linear <= 0.0031308 ? 12.92 * linear : (1.055 * Math.Pow(linear, 1 / 2.4)) - 0.055;
            return (int)Math.Round(Math.Clamp(value, 0, 1) * 255);
        }
    }
}
