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
    /// <param name="colour">A text of which <see cref="Contrast.IsColour"/> is true; of another no outcome is promised.</param>
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
            (Math.Atan2(bb, a) * 180 / Math.PI + 360) % 360
        );
    }

    /// <summary>Whether sRGB can show it: no channel leaves the range by more than half a step of 8 bits.</summary>
    public bool IsInGamut
    {
        get
        {
            var (red, green, blue) = Linear();
            return Fits(red) && Fits(green) && Fits(blue);

            // Near black the curve is steep: half a step of 255 is 0.00015 there.
            static bool Fits(double channel) => channel is >= -0.00015 and <= 1.0045;
        }
    }

    /// <summary>The colour as #rrggbb; channels that leave sRGB are held at its edge.</summary>
    public string ToHex()
    {
        var (red, green, blue) = Linear();
        return $"#{Channel(red):x2}{Channel(green):x2}{Channel(blue):x2}";

        static int Channel(double linear)
        {
            var value = linear <= 0.0031308 ? 12.92 * linear : (1.055 * Math.Pow(linear, 1 / 2.4)) - 0.055;
            return (int)Math.Round(Math.Clamp(value, 0, 1) * 255);
        }
    }

    private (double Red, double Green, double Blue) Linear()
    {
        var (a, b) = (Chroma * Math.Cos(Hue * Math.PI / 180), Chroma * Math.Sin(Hue * Math.PI / 180));
        var l = Cube(Lightness + (0.3963377774 * a) + (0.2158037573 * b));
        var m = Cube(Lightness - (0.1055613458 * a) - (0.0638541728 * b));
        var s = Cube(Lightness - (0.0894841775 * a) - (1.2914855480 * b));
        return (
            (4.0767416621 * l) - (3.3077115913 * m) + (0.2309699292 * s),
            (-1.2684380046 * l) + (2.6097574011 * m) - (0.3413193965 * s),
            (-0.0041960863 * l) - (0.7034186147 * m) + (1.7076147010 * s)
        );

        static double Cube(double value) => value * value * value;
    }
}
