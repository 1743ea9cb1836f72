using System.Globalization;
using System.Text;

namespace PorchLight.Core.Common;

/// <summary>Text from anywhere, which may hold what is no character at all.</summary>
public static class UnicodeText
{
    /// <summary>The beginning of a text that is too long; no letter and no emoji is cut in half (UAX #29).</summary>
    /// <param name="text">Any text.</param>
    /// <param name="most">How many UTF-16 units it has at most; at least 0.</param>
    public static string Start(string text, int most)
    {
        if (text.Length <= most)
            return text;
        var length = 0;
        while (StringInfo.GetNextTextElementLength(text, length) is var next && length + next <= most)
            length += next;
        return text[..length];
    }

    /// <summary>
    /// The text without what is no character: halves of surrogate pairs, and code points that Unicode keeps free of
    /// meaning (U+FFFE and its like).
    /// </summary>
    /// <param name="text">Any text, also one that is no valid UTF-16.</param>
    public static string Valid(string text)
    {
        var valid = new StringBuilder(text.Length);
        foreach (var rune in text.EnumerateRunes())
        {
            // A lone half is read as U+FFFD; a U+FFFD somebody typed says as little.
            if (rune != Rune.ReplacementChar && (rune.Value & 0xFFFE) != 0xFFFE && rune.Value is not (>= 0xFDD0 and <= 0xFDEF))
                valid.Append(rune);
        }

        return valid.Length == text.Length ? text : valid.ToString();
    }

    /// <summary>The text in a normal form of Unicode, after <see cref="Valid"/>; never throws.</summary>
    /// <param name="text">Any text, also one that is no valid UTF-16.</param>
    /// <param name="form">The normal form (Unicode Standard Annex 15).</param>
    public static string Normal(string text, NormalizationForm form) => Valid(text).Normalize(form);

    /// <summary>
    /// The text as two that say the same are equal: capital letters, accents put together (NFC), one blank for any white space, none
    /// at the ends.
    /// </summary>
    /// <param name="text">Any text.</param>
    public static string Squeezed(string text) =>
        string.Join(
            ' ',
            Normal(text, NormalizationForm.FormC).ToUpperInvariant().Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries)
        );

    /// <summary>Whether two texts say the same (<see cref="Squeezed"/>).</summary>
    public static bool IsSame(string a, string b) => Squeezed(a) == Squeezed(b);
}
