using System.Globalization;
using System.Text.RegularExpressions;
using NodaTime;

namespace PorchLight.Core.Records;

/// <summary>
/// Reads numbers, amounts and days as people of a country write them. What can be read in two ways is read as the country writes it;
/// what its people would not write is not read at all.
/// </summary>
public static partial class WrittenValues
{
    // By ISO 3166; everywhere else a full stop parts the decimals, and the day comes before the month (CLDR 46, from memory).
    private static readonly HashSet<string> CommaForDecimals =
    [
        .. "AD AL AM AR AT AX AZ BA BE BG BO BR BY CL CO CR CU CY CZ DE DK EC EE ES FI FO FR GE GL GR HR HU ID IS IT KG KZ LT LU LV MA MC MD ME MK MN NL NO PL PT PY RO RS RU SE SI SK SM TN TR UA UY UZ VA VE VN XK ZA".Split(
            ' '
        ),
    ];

    private static readonly HashSet<string> MonthFirst = ["US", "PH", "PW", "FM", "MH", "GU", "PR", "VI", "AS", "MP"];

    private static readonly string[] Languages = ["en", "de", "fr", "es", "it", "nl", "pt", "sv", "da", "nb", "fi", "pl", "cs", "ga"];

    private static readonly Lazy<Dictionary<string, int>> Months = new(NamedMonths);

    /// <summary>A number: "1,234.5", "1 234,5", "1’234", "-3,5".</summary>
    /// <param name="text">What was written; blanks around it do not count.</param>
    /// <param name="region">The ISO 3166 region whose people wrote it.</param>
    /// <returns>The number; null for what is none, or has its thousands marks in odd places.</returns>
    public static decimal? Number(string text, string region)
    {
        var compact = Blanks().Replace(text.Trim(), " ");
        if (!Digits().IsMatch(compact))
            return null;
        var (marks, decimals) = MarksOf(compact, CommaForDecimals.Contains(region) ? ',' : '.');
        var whole = decimals is { } at ? compact[..at] : compact;
        var parts = whole.TrimStart('-', '+').Split(marks);
        if (parts.Length > 1 && (parts[0].Length is < 1 or > 3 || parts.Skip(1).Any(part => part.Length != 3)))
            return null;
        var digits =
            string.Concat(whole.Where(c => char.IsAsciiDigit(c) || c is '-' or '+'))
            + (decimals is { } point ? $".{compact[(point + 1)..]}" : "");
        return decimal.TryParse(
            digits,
            NumberStyles.AllowLeadingSign | NumberStyles.AllowDecimalPoint,
            CultureInfo.InvariantCulture,
            out var number
        )
            ? number
            : null;
    }

    /// <summary>A number with all its decimals and no thousands marks, as <see cref="Number"/> reads it back.</summary>
    /// <param name="number">The number.</param>
    /// <param name="region">The ISO 3166 region whose people read it.</param>
    public static string Say(decimal number, string region) =>
        number
            .ToString("0.############################", CultureInfo.InvariantCulture)
            .Replace('.', CommaForDecimals.Contains(region) ? ',' : '.');

    /// <summary>An amount, with or without the currency in front or behind: "€ 1,200", "1.200,00 EUR".</summary>
    /// <param name="text">What was written.</param>
    /// <param name="region">The ISO 3166 region whose people wrote it.</param>
    /// <param name="currency">The currency that is meant, by its ISO 4217 code; an amount that names another one is not read.</param>
    public static decimal? Amount(string text, string region, string currency)
    {
        var found = Money().Match(text.Trim());
        if (!found.Success)
            return null;
        var named = found.Groups["before"].Value + found.Groups["after"].Value;
        var isMeant =
            named.Length == 0
            || string.Equals(named, currency, StringComparison.OrdinalIgnoreCase)
            || (Symbols.TryGetValue(named, out var codes) && codes.Contains(currency));
        return isMeant ? Number(found.Groups["number"].Value, region) : null;
    }

    /// <summary>
    /// A day: "2027-05-14", "14 May 2027", "May 14, 2027", "14.05.2027", "14/5/2027". Days and months as numbers stand in the order of the
    /// country; where only the other order is a day, that one is meant.
    /// </summary>
    /// <param name="text">What was written; the name of a day of the week in front does not count. The year has four digits.</param>
    /// <param name="region">The ISO 3166 region whose people wrote it.</param>
    public static LocalDate? Day(string text, string region)
    {
        var words = text.Trim();
        if (Named().Match(words) is { Success: true } named && Months.Value.TryGetValue(Folded(named.Groups["month"].Value), out var month))
            return Valid(Of(named, "year"), month, Of(named, "day"));
        if (Numbered().Match(words) is not { Success: true } numbered)
            return null;
        if (numbered.Groups["first"].Length > 0)
            return Valid(Of(numbered, "first"), Of(numbered, "b"), Of(numbered, "c"));
        var (one, two, year) = (Of(numbered, "x"), Of(numbered, "y"), Of(numbered, "last"));
        return MonthFirst.Contains(region)
            ? Valid(year, one, two) ?? Valid(year, two, one)
            : Valid(year, two, one) ?? Valid(year, one, two);
    }

    private static readonly Dictionary<string, string[]> Symbols = new(StringComparer.OrdinalIgnoreCase)
    {
        ["€"] = ["EUR"],
        ["£"] = ["GBP"],
        ["$"] = ["USD", "CAD", "AUD", "NZD", "SGD", "HKD", "MXN"],
        ["¥"] = ["JPY", "CNY"],
        ["Fr."] = ["CHF"],
        ["kr"] = ["SEK", "NOK", "DKK", "ISK"],
        ["zł"] = ["PLN"],
        ["₹"] = ["INR"],
    };

    /// <summary>What parts thousands, and where the decimals begin; null where there are none.</summary>
    private static (char[] Thousands, int? Decimals) MarksOf(string number, char usual)
    {
        var (lastPoint, lastComma) = (number.LastIndexOf('.'), number.LastIndexOf(','));
        char[] others = [' ', '\'', '’'];
        if (lastPoint >= 0 && lastComma >= 0)
            return lastPoint > lastComma ? ([.. others, ','], lastPoint) : ([.. others, '.'], lastComma);
        var at = Math.Max(lastPoint, lastComma);
        if (at < 0)
            return (others, null);
        var mark = number[at];
        var isThousands =
            number.IndexOf(mark) != at || (mark != usual && number.Length - at == 4 && number[..at].TrimStart('-', '+') is not ("0" or ""));
        return isThousands ? ([.. others, mark], null) : (others, at);
    }

    private static int Of(Match found, string group) => int.Parse(found.Groups[group].Value, CultureInfo.InvariantCulture);

    private static LocalDate? Valid(int year, int month, int day) =>
        year is >= 1 and <= 9999 && month is >= 1 and <= 12 && day >= 1 && day <= CalendarSystem.Iso.GetDaysInMonth(year, month)
            ? new LocalDate(year, month, day)
            : null;

    private static Dictionary<string, int> NamedMonths()
    {
        var named = new Dictionary<string, int>();
        foreach (var format in Languages.Select(language => CultureInfo.GetCultureInfo(language).DateTimeFormat))
        {
            foreach (var names in new[] { format.MonthNames, format.AbbreviatedMonthNames, format.MonthGenitiveNames })
            {
                for (var month = 0; month < 12; month++)
                    named.TryAdd(Folded(names[month]), month + 1);
            }
        }

        return named;
    }

    private static string Folded(string word) => ValueOrder.Fold(word).Trim('.', ' ');

    [GeneratedRegex(@"[\u00A0\u202F\u2009\s]+", RegexOptions.CultureInvariant)]
    private static partial Regex Blanks();

    [GeneratedRegex(@"^[-+]?\d[\d.,'’ ]*$|^[-+]?[.,]\d+$", RegexOptions.CultureInvariant)]
    private static partial Regex Digits();

    [GeneratedRegex(
        @"^(?<before>[^\d\s+\-.,]+\.?)?\s*(?<number>[-+]?[\d.,][\d.,'’\s]*?)\s*(?<after>[^\d\s+\-.,]+)?$",
        RegexOptions.CultureInvariant
    )]
    private static partial Regex Money();

    [GeneratedRegex(
        @"^(?:\p{L}+,?\s+)??(?:(?<day>\d{1,2})(?:st|nd|rd|th|º|\.)?\s*(?:de\s+)?(?<month>\p{L}+\.?)\s*,?\s*(?:de\s+)?(?<year>\d{4})|(?<month>\p{L}+\.?)\s+(?<day>\d{1,2})(?:st|nd|rd|th)?,?\s+(?<year>\d{4}))$",
        RegexOptions.CultureInvariant | RegexOptions.IgnoreCase
    )]
    private static partial Regex Named();

    [GeneratedRegex(
        @"^(?:(?<first>\d{4})[-./](?<b>\d{1,2})[-./](?<c>\d{1,2})|(?<x>\d{1,2})\s?[-./]\s?(?<y>\d{1,2})\s?[-./]\s?(?<last>\d{4}))$",
        RegexOptions.CultureInvariant
    )]
    private static partial Regex Numbered();
}
