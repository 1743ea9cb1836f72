using System.Globalization;

namespace PorchLight.Core.Common;

/// <summary>Says what is wrong with the length of a text.</summary>
public static class TextLength
{
    /// <summary>That a text is too long, as a sentence that says what to do, or null.</summary>
    /// <param name="text">The text.</param>
    /// <param name="most">How long it may be, in UTF-16 code units; at least 1.</param>
    public static string? TooLong(string text, int most) =>
        text.Length <= most
            ? null
            : string.Create(
                CultureInfo.InvariantCulture,
                $"This is {text.Length:N0} characters long; {most:N0} fit here. Please shorten it, or send the rest when we answer."
            );

    /// <summary>That a text is too short or too long, as a sentence that says what to do, or null.</summary>
    /// <param name="text">The text.</param>
    /// <param name="least">How long it must be, in UTF-16 code units; 0 for none.</param>
    /// <param name="most">How long it may be; at least 1.</param>
    public static string? Outside(string text, int least, int most) =>
        TooLong(text, most)
        ?? (
            text.Length >= least
                ? null
                : string.Create(
                    CultureInfo.InvariantCulture,
                    $"Please say a little more: at least {least:N0} characters, and this is {text.Length:N0}."
                )
        );

    /// <summary>That a text has more than one line, as a sentence, or null.</summary>
    /// <param name="text">The text, its ends trimmed.</param>
    public static string? MoreThanALine(string text) => text.AsSpan().ContainsAny('\r', '\n') ? "Please write this in one line." : null;
}
