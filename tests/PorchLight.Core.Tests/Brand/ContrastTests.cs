using System.Runtime.CompilerServices;
using System.Text.Json;
using System.Text.RegularExpressions;
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

    [Fact]
    public void Every_allowed_pair_of_tokens_can_be_read_or_seen()
    {
        var tokens = Token().Matches(File.ReadAllText(Kit("tokens.css"))).ToDictionary(match => match.Groups[1].Value, match => match.Groups[2].Value);
        tokens.Count.ShouldBe(11);
        var pairs = JsonSerializer.Deserialize<Dictionary<string, string[][]>>(File.ReadAllText(Kit("contrast.json")))!;
        foreach (var (least, kind) in new[] { (4.5, "text"), (3.0, "marks") })
        {
            foreach (var pair in pairs[kind])
                Contrast.Ratio(tokens[pair[0]], tokens[pair[1]]).ShouldBeGreaterThanOrEqualTo(least, $"{pair[0]} on {pair[1]}");
        }
    }

    private static string Kit(string file, [CallerFilePath] string here = "") =>
        Path.Combine(Path.GetDirectoryName(here)!, "../../../src/PorchLight.Ui/src/kit", file);

    [GeneratedRegex("--color-([a-z]+): (#[0-9a-f]{6});")]
    private static partial Regex Token();
}
