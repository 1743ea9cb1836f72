using System.Text.RegularExpressions;
using PorchLight.Core.Common;

namespace PorchLight.Core.Workbench;

/// <summary>Reads a list that was typed or pasted.</summary>
public static partial class TypedLines
{
    /// <summary>
    /// The lines without what made them a list: bullets, numbers, boxes and letters in front, blanks around. Empty lines are left
    /// out, and blanks within a line count once.
    /// </summary>
    /// <param name="text">Any text, with line ends of any system.</param>
    public static IReadOnlyList<string> Read(string text) =>
        [
            .. UnicodeText
                .Valid(text)
                .Split(['\n', '\r', '\v', '\f', '\u2028', '\u2029'], StringSplitOptions.RemoveEmptyEntries)
                .Select(line => OneBlank(Mark().Replace(line, "")))
                .Where(line => line.Length > 0),
        ];

    private static string OneBlank(string line) => Blanks().Replace(line, " ").Trim();

    // "- ", "* ", "• ", "[ ] ", "☐ ", "3. ", "3) ", "(3) ", "b) "; "3 rooms" and "1.5 m" are words.
    [GeneratedRegex(
        @"^\s*(?:(?:[-–—*+•◦▪‣·○●□☐☑✓✔]|\[[ xX]?\]|\(?\d{1,3}[.)](?=\s)|\(\d{1,3}\)|\(?[a-zA-Z]\)(?=\s))\s*)+",
        RegexOptions.CultureInvariant
    )]
    private static partial Regex Mark();

    [GeneratedRegex(@"[\s\p{Cc}]+", RegexOptions.CultureInvariant)]
    private static partial Regex Blanks();
}
