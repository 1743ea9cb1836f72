using System.Globalization;
using PorchLight.Core.Common;

namespace PorchLight.Core.Forms;

/// <summary>Reads what was typed into a control.</summary>
internal static class TextParts
{
    /// <summary>The text without blanks around it and without characters nobody can type or see (but line ends and tabs).</summary>
    /// <param name="text">Any text.</param>
    public static string Clean(string text) =>
        UnicodeText.Valid(text.Any(IsUnseen) ? string.Concat(text.Where(c => !IsUnseen(c))) : text).Trim();

    /// <summary>A part of an answer, cleaned; null when nothing is left of it.</summary>
    /// <param name="part">The part, or null.</param>
    public static string? Part(string? part) => part is not null && Clean(part) is { Length: > 0 } text ? text : null;

    /// <summary>A number with a point and without any other mark, or null.</summary>
    /// <param name="text">Any text; a sign in front is allowed, a comma is not.</param>
    public static decimal? Number(string text) =>
        decimal.TryParse(text, NumberStyles.AllowLeadingSign | NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var number)
            ? number
            : null;

    private static bool IsUnseen(char c) => char.IsControl(c) && c is not ('\r' or '\n' or '\t');
}
