using System.Text.RegularExpressions;

namespace PorchLight.Core.Messages;

/// <summary>A text in its own words, and what it quotes of an earlier message at its end.</summary>
/// <param name="Own">What they wrote; never empty where the whole is not.</param>
/// <param name="Quoted">What stands below it in quotes, with the line that introduces it; empty for nothing.</param>
public sealed partial record QuotedText(string Own, string Quoted)
{
    /// <summary>
    /// Splits a text where its last block of quoted lines begins (lines that begin with "&gt;", RFC 3676, 4.5). A line just above it that
    /// ends with a colon belongs to the quote, with the lines before it where it was broken ("On Tue, 1 Dec, Ada Roe
    /// &lt;ada@…&gt;" above "wrote:"). Answers between quoted lines, and words below the quote, keep the whole together.
    /// </summary>
    /// <param name="text">The text; any line ends.</param>
    public static QuotedText Split(string text)
    {
        var lines = text.ReplaceLineEndings("\n").Split('\n');
        var end = lines.Length;
        while (end > 0 && string.IsNullOrWhiteSpace(lines[end - 1]))
            end--;
        var start = end;
        while (start > 0 && (IsQuoted(lines[start - 1]) || string.IsNullOrWhiteSpace(lines[start - 1])))
            start--;
        while (start < end && string.IsNullOrWhiteSpace(lines[start]))
            start++;
        var isQuote = start < end && IsQuoted(lines[start]);
        var introduction = start;
        while (introduction > 0 && string.IsNullOrWhiteSpace(lines[introduction - 1]))
            introduction--;
        if (isQuote && introduction > 0 && lines[introduction - 1].TrimEnd().EndsWith(':'))
            start = BeginOfIntroduction(lines, introduction - 1);
        var own = string.Join('\n', lines.Take(start)).Trim();
        return !isQuote || own.Length == 0 || lines.Take(start).Any(IsQuoted)
            ? new QuotedText(text.ReplaceLineEndings("\n").Trim(), "")
            : new QuotedText(own, string.Join('\n', lines.Skip(start).Take(end - start)).Trim());
    }

    private static int BeginOfIntroduction(string[] lines, int last)
    {
        for (var first = last; first >= Math.Max(0, last - LongestIntroduction + 1) && !string.IsNullOrWhiteSpace(lines[first]); first--)
        {
            if (Introduces().IsMatch(lines[first].TrimStart()))
                return first;
        }

        return last;
    }

    // As mail programs of these languages begin the line above a quote. Common practice, no source.
    [GeneratedRegex(@"^(On|Am|Le|El|Il|Op|Em|Den|Dnia|Ar)\s.*\d", RegexOptions.CultureInvariant)]
    private static partial Regex Introduces();

    private const int LongestIntroduction = 3;

    private static bool IsQuoted(string line) => line.StartsWith('>');
}
