using System.Text.RegularExpressions;

namespace PorchLight.Core.Common;

/// <summary>Sets known values into words.</summary>
public static partial class KnownValues
{
    /// <summary>
    /// The words with every <c>{name}</c> or <c>{name|fallback}</c> replaced by the known value, or by the fallback while
    /// the value is not known, or by nothing: then the comma or space that led to it goes with it ("Thank you, {name}." is "Thank
    /// you."), and the one behind it stays ("Dear {name}," is "Dear,"). Braces around anything that is no such name stay as
    /// they are. Values are set in once: braces inside a value stay words.
    /// </summary>
    /// <param name="words">Words with places; without any they come back as they are.</param>
    /// <param name="values">The known values by name. One that is there and empty counts as not known.</param>
    public static string Fill(string words, IReadOnlyDictionary<string, string> values) =>
        Place()
            .Replace(
                words,
                place =>
                {
                    var lead = place.Groups["lead"].Value;
                    if (values.TryGetValue(place.Groups["name"].Value, out var value) && value.Length > 0)
                        return lead + value;
                    if (place.Groups["fallback"].Value is { Length: > 0 } fallback)
                        return lead + fallback;
                    var next = place.Index + place.Length < words.Length ? words[place.Index + place.Length] : ' ';
                    return char.IsLetterOrDigit(next) || next == '{' ? lead : "";
                }
            );

    /// <summary>The words as they read before anything is known: with fallbacks, or with nothing.</summary>
    /// <param name="words">Words with places.</param>
    public static string BeforeAnswers(string words) => Fill(words, new Dictionary<string, string>());

    /// <summary>The text in one line, so that it can stand in a mail header.</summary>
    /// <param name="text">Any text; control characters count as blanks, several blanks as one, those at the ends as none.</param>
    public static string OneLine(string text) =>
        string.Join(' ', new string([.. text.Select(c => char.IsControl(c) ? ' ' : c)]).Split(' ', StringSplitOptions.RemoveEmptyEntries));

    [GeneratedRegex(@"(?<lead>,? ?)\{(?<name>answer:[a-z0-9-]+|[a-z][A-Za-z]*)(?:\|(?<fallback>[^{}]*))?\}", RegexOptions.CultureInvariant)]
    private static partial Regex Place();
}
