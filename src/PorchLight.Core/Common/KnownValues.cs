using System.Text;
using System.Text.RegularExpressions;

namespace PorchLight.Core.Common;

/// <summary>Sets known values into words.</summary>
public static partial class KnownValues
{
    /// <summary>
    /// The words with every <c>{name}</c> or <c>{name|fallback}</c> replaced by the known value, or by the fallback while
    /// the value is not known, or by nothing. What belongs to a blank goes with it: quotes, brackets and marks of bold words around it
    /// (“{firstName}”, **{firstName}**); the comma or space that led to it ("Thank you, {name}." is "Thank you."), while the one behind
    /// it stays ("Dear {name}," is "Dear,"); and where it began a sentence, the comma and space behind it, so that the next word begins
    /// with a capital ("{name}, thank you" is "Thank you"). Braces around anything that is no such name stay as they are. Values are set
    /// in once: braces inside a value stay words.
    /// </summary>
    /// <param name="words">Words with places; without any they come back as they are.</param>
    /// <param name="values">The known values by name. One that is there and empty counts as not known.</param>
    public static string Fill(string words, IReadOnlyDictionary<string, string> values)
    {
        if (!words.Contains('{', StringComparison.Ordinal))
            return words;
        var (said, at) = (new StringBuilder(), 0);
        foreach (Match place in Placeholder().Matches(words))
        {
            said.Append(words, at, place.Index - at);
            at = place.Index + place.Length;
            if (values.TryGetValue(place.Groups["name"].Value, out var value) && value.Length > 0)
                said.Append(value);
            else if (place.Groups["fallback"].Value is { Length: > 0 } fallback)
                said.Append(fallback);
            else
                at = LeaveBlank(said, words, at);
        }

        return said.Append(words, at, words.Length - at).ToString();
    }

    /// <summary>Takes away what belongs to a blank, and gives where the words go on.</summary>
    private static int LeaveBlank(StringBuilder said, string words, int at)
    {
        while (Marks.FirstOrDefault(pair => EndsWith(said, pair.Before) && GoesOn(words, at, pair.After)) is { Before: not null } around)
        {
            said.Length -= around.Before.Length;
            at += around.After.Length;
        }

        var next = at < words.Length ? words[at] : '\n';
        if (BeginsASentence(said))
        {
            if (next is ',' or ' ')
                at = words.AsSpan(at).IndexOfAnyExcept(',', ' ') is var skipped and >= 0 ? at + skipped : words.Length;
            if (at < words.Length && char.IsLower(words[at]))
                said.Append(char.ToUpperInvariant(words[at++]));
            return at;
        }

        if (char.IsLetterOrDigit(next) || next == '{')
            return at;
        if (EndsWith(said, " "))
            said.Length--;
        if (EndsWith(said, ","))
            said.Length--;
        return at;
    }

    private static readonly (string Before, string After)[] Marks =
    [
        ("“", "”"),
        ("„", "“"),
        ("‘", "’"),
        ("«", "»"),
        ("\"", "\""),
        ("'", "'"),
        ("(", ")"),
        ("**", "**"),
    ];

    private static bool EndsWith(StringBuilder said, string end) =>
        said.Length >= end.Length && said.ToString(said.Length - end.Length, end.Length) == end;

    private static bool GoesOn(string words, int at, string with) => string.CompareOrdinal(words, at, with, 0, with.Length) == 0;

    private static bool BeginsASentence(StringBuilder said)
    {
        var last = said.Length - 1;
        while (last >= 0 && said[last] == ' ')
            last--;
        return last < 0 || said[last] == '\n' || (said[last] is '.' or '!' or '?' or '…' && last < said.Length - 1);
    }

    /// <summary>The words for lines that only name them: the fallback of each place, or dots, as in "Ring … about the wall".</summary>
    /// <param name="words">Words with places.</param>
    public static string Dotted(string words) =>
        Placeholder().Replace(words, place => place.Groups["fallback"].Value is { Length: > 0 } fallback ? fallback : "…");

    /// <summary>The places in words: what is set in there, and the place as it is written.</summary>
    /// <param name="words">Words with places; a value named twice comes twice.</param>
    public static IEnumerable<(string Name, string Whole)> PlacesIn(string words) =>
        Placeholder().Matches(words).Select(place => (place.Groups["name"].Value, place.Value));

    /// <summary>The words as they read before anything is known: with fallbacks, or with nothing.</summary>
    /// <param name="words">Words with places.</param>
    public static string BeforeAnswers(string words) => Fill(words, new Dictionary<string, string>());

    /// <summary>The text in one line, so that it can stand in a mail header.</summary>
    /// <param name="text">Any text; control characters count as blanks, several blanks as one, those at the ends as none.</param>
    public static string OneLine(string text) =>
        string.Join(' ', new string([.. text.Select(c => char.IsControl(c) ? ' ' : c)]).Split(' ', StringSplitOptions.RemoveEmptyEntries));

    [GeneratedRegex(@"\{(?<name>answer:[a-z0-9-]+|[a-z][A-Za-z]*)(?:\|(?<fallback>[^{}]*))?\}", RegexOptions.CultureInvariant)]
    private static partial Regex Placeholder();
}
