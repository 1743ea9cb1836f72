using System.Runtime.CompilerServices;
using System.Text.Json;
using System.Text.RegularExpressions;
using CsCheck;
using PorchLight.Core.Brand;

namespace PorchLight.Core.Tests.Brand;

public sealed partial class ContrastTests
{
    // WCAG 2.2, definitions of relative luminance and contrast ratio; the usual published values.
    [Theory]
    [InlineData("#767676", "#ffffff", 4.54)]
    [InlineData("#777777", "#ffffff", 4.48)]
    [InlineData("#000000", "#ffffff", 21)]
    public void Ratios_are_as_published(string a, string b, double ratio) => Contrast.Ratio(a, b).ShouldBe(ratio, 0.005);

    // CSS Color Module Level 4 gives the sRGB primaries so in oklch(); the digits are from memory.
    [Theory]
    [InlineData("#ff0000", 0.62796, 0.25768, 29.234)]
    [InlineData("#00ff00", 0.86644, 0.29483, 142.495)]
    [InlineData("#0000ff", 0.45201, 0.31321, 264.052)]
    public void Oklch_of_the_primaries_is_as_published(string colour, double lightness, double chroma, double hue)
    {
        var found = Oklch.FromHex(colour);
        found.Lightness.ShouldBe(lightness, 0.0001);
        found.Chroma.ShouldBe(chroma, 0.0001);
        found.Hue.ShouldBe(hue, 0.01);
    }

    [Fact]
    public void Every_colour_comes_back_from_oklch() => Colours.Sample(colour => Oklch.FromHex(colour).ToHex().ShouldBe(colour));

    [Fact]
    public void The_nearest_readable_colour_always_passes_and_keeps_the_hue() =>
        Gen.Select(Colours, Colours)
            .Sample(
                (colour, against) =>
                {
                    var (given, found) = (Oklch.FromHex(colour), Contrast.Nearest(colour, against, 4.5).ShouldNotBeNull());
                    Contrast.Ratio(found, against).ShouldBeGreaterThanOrEqualTo(4.5);
                    var kept = Oklch.FromHex(found);
                    // Rounding to 8 bits turns the hue of a colour that is nearly grey; it has next to none.
                    if (kept.Chroma > 0.04)
                        Math.Abs(((kept.Hue - given.Hue + 540) % 360) - 180).ShouldBeLessThan(4);
                    kept.Chroma.ShouldBeLessThan(given.Chroma + 0.01);
                }
            );

    [Fact]
    public void No_colour_of_the_same_hue_and_chroma_that_passes_is_nearer() =>
        Gen.Select(Colours, Colours)
            .Sample(
                (colour, against) =>
                {
                    var given = Oklch.FromHex(colour);
                    var change = Math.Abs(Oklch.FromHex(Contrast.Nearest(colour, against, 4.5)!).Lightness - given.Lightness);
                    for (var lightness = 0.0; lightness <= 1; lightness += 0.01)
                    {
                        var other = given with { Lightness = lightness };
                        // Where rounding to 8 bits leaves the colour what it was.
                        if (
                            Math.Abs(lightness - given.Lightness) < change - 0.01
                            && other.IsInGamut
                            && Math.Abs(Oklch.FromHex(other.ToHex()).Chroma - given.Chroma) < 0.005
                        )
                            Contrast.Ratio(other.ToHex(), against).ShouldBeLessThan(4.5, other.ToString());
                    }
                }
            );

    [Fact]
    public void Where_neither_black_nor_white_passes_nothing_is_offered() => Contrast.Nearest("#8a3b1e", "#777777", 7).ShouldBeNull();

    [Theory]
    [InlineData("#12345G", false)]
    [InlineData("#123", false)]
    [InlineData("red", false)]
    [InlineData(null, false)]
    [InlineData("#8A3b1e", true)]
    public void A_colour_is_written_with_six_hex_digits(string? text, bool isColour) => Contrast.IsColour(text).ShouldBe(isColour);

    [Fact]
    public void Every_allowed_pair_of_tokens_can_be_read_or_seen()
    {
        var tokens = Token()
            .Matches(File.ReadAllText(Kit("tokens.css")))
            .ToDictionary(match => match.Groups[1].Value, match => match.Groups[2].Value);
        tokens.Count.ShouldBe(11);
        var pairs = JsonSerializer.Deserialize<Dictionary<string, string[][]>>(File.ReadAllText(Kit("contrast.json")))!;
        foreach (var (least, kind) in new[] { (4.5, "text"), (3.0, "marks") })
        {
            foreach (var pair in pairs[kind])
                Contrast.Ratio(tokens[pair[0]], tokens[pair[1]]).ShouldBeGreaterThanOrEqualTo(least, $"{pair[0]} on {pair[1]}");
        }
    }

    private static Gen<string> Colours => Gen.Int[0, 0xffffff].Select(value => $"#{value:x6}");

    private static string Kit(string file, [CallerFilePath] string here = "") =>
        Path.Combine(Path.GetDirectoryName(here)!, "../../../src/PorchLight.Ui/src/kit", file);

    [GeneratedRegex("--color-([a-z]+): (#[0-9a-f]{6});")]
    private static partial Regex Token();
}
