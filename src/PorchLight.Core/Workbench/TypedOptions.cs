using System.Globalization;
using System.Text.RegularExpressions;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;

namespace PorchLight.Core.Workbench;

/// <summary>Reads a list of answers that was typed or pasted as the options of a choice.</summary>
public static partial class TypedOptions
{
    /// <summary>
    /// An option a line, as far as lines differ. "I don't know yet" is the unsure one, "None of these" excludes the others, "Something
    /// else" asks for own words. When all others are amounts ("Under 1,500", "1,500 to 4,000", "9,000 and more"), each stands for its
    /// band; where one begins with the number another ends with, that number belongs to the one that begins with it.
    /// </summary>
    /// <param name="text">The list (<see cref="TypedLines.Read"/>).</param>
    /// <param name="currency">The ISO 4217 code amounts are in; null for bare numbers.</param>
    /// <param name="taken">The keys of options there are already, to which these are added.</param>
    public static IReadOnlyList<Option> Read(string text, string? currency, IEnumerable<string> taken)
    {
        var lines = TypedLines.Read(text).Distinct(StringComparer.OrdinalIgnoreCase).ToList();
        var bands = lines.ToDictionary(line => line, line => IsSpecial(line) ? null : ReadBand(line, currency));
        var areBands =
            lines.Exists(line => bands[line] is not null) && lines.TrueForAll(line => IsSpecial(line) || bands[line] is not null);
        var keys = taken.ToHashSet();
        var options = new List<Option>();
        foreach (var line in lines)
        {
            options.Add(
                new Option(
                    ItemKeys.For(line, keys, otherwise: "answer"),
                    line,
                    areBands ? bands[line] : null,
                    Unsure: Unsure().IsMatch(line)
                )
                {
                    NoneOfThese = None().IsMatch(line),
                    OwnWords = Other().IsMatch(line),
                }
            );
        }

        return areBands ? [.. options.Select(option => Parted(option, options))] : options;
    }

    /// <summary>
    /// The band a label stands for, or null: "under 1,500", "up to €1,500", "1,500 to 4,000", "1500–4000 euro", "2k-4k", "over 9,000",
    /// "9,000 or more", "9,000+", "12". A number under which or over which it lies is left out, every other is in it.
    /// </summary>
    /// <param name="label">The label, with a comma or blank between thousands and a point before decimals.</param>
    /// <param name="currency">The ISO 4217 code amounts are in; null for bare numbers.</param>
    public static Band? ReadBand(string label, string? currency)
    {
        if (BandWords().Match(label) is not { Success: true } words || Number(words.Groups["a"]) is not { } a)
            return null;
        if (words.Groups["b"].Success)
            return Number(words.Groups["b"]) is { } b && a <= b ? Band(new Bound(a), new Bound(b)) : null;
        return words switch
        {
            _ when words.Groups["under"].Success => Band(null, new Bound(a, Open: true)),
            _ when words.Groups["upTo"].Success => Band(null, new Bound(a)),
            _ when words.Groups["over"].Success => Band(new Bound(a, Open: true), null),
            _ when words.Groups["from"].Success || words.Groups["more"].Success => Band(new Bound(a), null),
            _ => Band(new Bound(a), new Bound(a)),
        };

        Band Band(Bound? low, Bound? high) => new(low, high, currency);
    }

    private static bool IsSpecial(string line) => Unsure().IsMatch(line) || None().IsMatch(line) || Other().IsMatch(line);

    private static Option Parted(Option option, List<Option> options) =>
        option.Band is { Low: var low, High: { Open: false } high } band
        && low?.Value != high.Value
        && options.Exists(other => other != option && other.Band?.Low is { Open: false } next && next.Value == high.Value)
            ? option with
            {
                Band = band with { High = high with { Open = true } },
            }
            : option;

    private static decimal? Number(Group group)
    {
        var text = new string([.. group.Value.Where(c => char.IsAsciiDigit(c) || c == '.')]);
        return
            decimal.TryParse(text, NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var number)
            && number * (group.Value[^1] is 'k' or 'K' ? 1000 : 1) is var amount
            && ValueBounds.Check(amount) is null
            ? amount
            : null;
    }

    [GeneratedRegex(
        @"^(?:i (?:do not|don['’]t) know(?: yet)?|(?:i am |i['’]m )?(?:not sure|unsure|undecided)(?: yet)?|no idea(?: yet)?)\.?$",
        Words
    )]
    private static partial Regex Unsure();

    [GeneratedRegex(@"^none(?: of (?:these|those|them|the above))?\.?$", Words)]
    private static partial Regex None();

    [GeneratedRegex(@"^(?:other|others|something else|somewhere else|another|some other way)(?: ?[:.…_]+| \(.*\))?$", Words)]
    private static partial Regex Other();

    private const RegexOptions Words = RegexOptions.IgnoreCase | RegexOptions.CultureInvariant;

    private const string Amount = @"(?:[\p{Sc}]|[a-z]{3}\b)? ?";

    // A k that begins a unit (km, kg, kW) is no thousand.
    private const string Digits = @"(?:\d{1,3}(?:[, ]\d{3})+(?:\.\d{1,2})?|\d{1,12}(?:\.\d{1,2})?)(?:k(?!\p{L}))?";

    private const string Unit = @" ?(?:[\p{Sc}%]|[a-z][a-z²³]{0,20})?";

    [GeneratedRegex(
        "^(?:(?<under>under|less than|below|fewer than)|(?<upTo>up to|at most|no more than)|(?<over>more than"
            + "|over|above)|(?<from>from|at least|starting at)|(?:between))? ?"
            + Amount
            + "(?<a>"
            + Digits
            + ")"
            + Unit
            + "(?:(?: ?(?:-|–|—|to|and) ?)"
            + Amount
            + "(?<b>"
            + Digits
            + ")"
            + Unit
            + @"|(?<more> ?\+| (?:or|and) (?:more|over|up|above)))?\.?$",
        Words
    )]
    private static partial Regex BandWords();
}
