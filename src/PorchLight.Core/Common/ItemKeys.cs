using System.Globalization;
using System.Text;

namespace PorchLight.Core.Common;

/// <summary>Makes keys for what is added to a form or to a list.</summary>
public static class ItemKeys
{
    private const int Longest = 40;

    /// <summary>
    /// A key out of the words that will be read: the first few of them in small letters without accents, joined by hyphens; a number
    /// is added while the key is taken. It is taken from then on. Words without any letter or digit of the Latin
    /// alphabet give <paramref name="otherwise"/>.
    /// </summary>
    /// <param name="words">The wording of a question, the label of an option; any text.</param>
    /// <param name="taken">The keys there are already, to which the new one is added.</param>
    /// <param name="otherwise">The key for words that give none; small letters.</param>
    /// <returns>A key of at most 60 small letters, digits and hyphens that is not taken.</returns>
    public static string For(string words, ISet<string> taken, string otherwise = "question")
    {
        var key = Letters(words);
        if (key.Length > Longest)
            key = key[..(key.LastIndexOf('-', Longest) is > 0 and var end ? end : Longest)].Trim('-');
        if (key.Length == 0)
            key = otherwise;
        var free = key;
        for (var number = 2; !taken.Add(free); number++)
            free = string.Create(CultureInfo.InvariantCulture, $"{key}-{number}");
        return free;
    }

    private static string Letters(string words)
    {
        var key = new StringBuilder(words.Length);
        foreach (var c in UnicodeText.Normal(words, NormalizationForm.FormKD))
        {
            if (char.IsAsciiLetterOrDigit(c))
                key.Append(char.ToLowerInvariant(c));
            // Accents and apostrophes stand within a word, everything else between words.
            else if (CharUnicodeInfo.GetUnicodeCategory(c) != UnicodeCategory.NonSpacingMark && c is not ('\'' or '’' or ',' or '.'))
                key.Append(key.Length > 0 && key[^1] != '-' ? "-" : "");
        }

        return key.ToString().Trim('-');
    }
}
