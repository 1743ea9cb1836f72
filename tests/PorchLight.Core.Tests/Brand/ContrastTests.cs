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

    [Fact]
    public void What_can_be_read_on_light_paper_can_be_read_on_dark_paper()
    {
        var dark = Token()
            .Matches(File.ReadAllText(Kit("paper.css")))
            .ToDictionary(match => match.Groups[1].Value, match => match.Groups[2].Value);
        foreach (var text in new[] { "ink", "slate", "brick", "moss", "dusk" })
            Contrast.Ratio(dark[text], dark["card"]).ShouldBeGreaterThanOrEqualTo(4.5, text);
        foreach (var text in new[] { "ink", "slate" })
        {
            Contrast.Ratio(dark[text], dark["mist"]).ShouldBeGreaterThanOrEqualTo(4.5, text);
            Contrast.Ratio(dark[text], dark["glow"]).ShouldBeGreaterThanOrEqualTo(4.5, text);
        }

        foreach (var mark in new[] { "edge", "brick", "lamp" })
            Contrast.Ratio(dark[mark], dark["card"]).ShouldBeGreaterThanOrEqualTo(3, mark);
        // What the rules measure an accent against is what the page is painted with.
        new FormLook { Paper = Paper.Dark }
            .Measure(BrandLook.Plain with { Accent = dark["card"] })
            .Ratio.ShouldBe(1);
    }

    [Fact]
    public void An_accent_of_the_business_gives_way_on_dark_paper_and_one_of_the_forms_own_is_a_finding()
    {
        var brand = BrandLook.Plain with { Accent = "#8a3b1e" };
        FormLook.Over(null, brand).Accent.ShouldBe("#8a3b1e");
        var dark = new FormLook { Paper = Paper.Dark };
        dark.Faults().ShouldBeEmpty();
        Contrast.Ratio(FormLook.Over(dark, brand).Accent, "#1d2033").ShouldBeGreaterThanOrEqualTo(4.5);
        var pale = new FormLook { Accent = "#ffd966" };
        pale.Faults()
            .ShouldHaveSingleItem()
            .ShouldStartWith("The accent #ffd966 cannot be read on this paper: 1.4 to 1, and 4.5 is needed.");
        pale.Measure(brand).Nearest.ShouldBe(Contrast.Nearest("#ffd966", "#ffffff", 4.5));
        (pale with { Paper = Paper.Dark }).Faults().ShouldBeEmpty();
        (pale with { Accent = "red", Backdrop = "blue", ButtonWord = new string('x', 41) }).Faults().Count().ShouldBe(3);
        FormLook.Over(pale with { Accent = "red", ButtonWord = " " }, brand).ShouldBe(FormLook.Over(null, brand));
    }

    [Fact]
    public void However_a_form_is_made_to_look_its_accent_can_be_read() =>
        Gen.Select(Colours, Colours, Gen.Bool, Gen.Bool)
            .Sample(
                (own, brands, isDark, inherits) =>
                {
                    var look = new FormLook { Accent = inherits ? null : own, Paper = isDark ? Paper.Dark : Paper.Light };
                    var shown = FormLook.Over(look, BrandLook.Plain with { Accent = brands });
                    Contrast.Ratio(shown.Accent, isDark ? "#1d2033" : "#ffffff").ShouldBeGreaterThanOrEqualTo(4.5);
                }
            );

    private static Gen<string> Colours => Gen.Int[0, 0xffffff].Select(value => $"#{value:x6}");

    private static string Kit(string file, [CallerFilePath] string here = "") =>
        Path.Combine(Path.GetDirectoryName(here)!, "../../../src/PorchLight.Ui/src/kit", file);

    [GeneratedRegex("--color-([a-z]+): (#[0-9a-f]{6});")]
    private static partial Regex Token();
}
