using System.Text;

namespace PorchLight.Core.Common;

/// <summary>A text read from bytes.</summary>
/// <param name="Text">The text, without a mark at its start.</param>
/// <param name="Encoding">What its bytes were taken for, for people: "UTF-8", "UTF-16", "Windows-1252".</param>
public sealed record DecodedText(string Text, string Encoding);

/// <summary>Reads text whose encoding nobody says.</summary>
public static class TextDecoding
{
    private static readonly UTF8Encoding Strict = new(encoderShouldEmitUTF8Identifier: false, throwOnInvalidBytes: true);

    // What Windows-1252 has at 0x80 to 0x9F; everything else is where Latin-1 has it (WHATWG Encoding Standard, index windows-1252).
    private const string Upper =
        "\u20AC\u0081\u201A\u0192\u201E\u2026\u2020\u2021\u02C6\u2030\u0160\u2039\u0152\u008D\u017D\u008F"
        + "\u0090\u2018\u2019\u201C\u201D\u2022\u2013\u2014\u02DC\u2122\u0161\u203A\u0153\u009D\u017E\u0178";

    /// <summary>
    /// The text: by the mark at its start; else as UTF-16 where every other byte of its beginning is zero, as it is of Western text; else
    /// as UTF-8 when it is valid; else as Windows-1252, in which any bytes are text.
    /// </summary>
    /// <param name="bytes">The bytes; none are the empty text.</param>
    public static DecodedText Read(ReadOnlySpan<byte> bytes)
    {
        if (bytes.StartsWith(Encoding.UTF8.Preamble))
            return new DecodedText(Encoding.UTF8.GetString(bytes[3..]), "UTF-8");
        if (bytes.StartsWith(Encoding.Unicode.Preamble))
            return new DecodedText(Encoding.Unicode.GetString(bytes[2..]), "UTF-16");
        if (bytes.StartsWith(Encoding.BigEndianUnicode.Preamble))
            return new DecodedText(Encoding.BigEndianUnicode.GetString(bytes[2..]), "UTF-16");
        var start = bytes[..Math.Min(bytes.Length, 400)];
        if (start.Length >= 4 && IsEveryOtherZero(start, 1))
            return new DecodedText(Encoding.Unicode.GetString(bytes), "UTF-16");
        if (start.Length >= 4 && IsEveryOtherZero(start, 0))
            return new DecodedText(Encoding.BigEndianUnicode.GetString(bytes), "UTF-16");
        try
        {
            return new DecodedText(Strict.GetString(bytes), "UTF-8");
        }
        catch (DecoderFallbackException)
        {
            var text = new StringBuilder(bytes.Length);
            foreach (var one in bytes)
                text.Append(one is >= 0x80 and < 0xA0 ? Upper[one - 0x80] : (char)one);
            return new DecodedText(text.ToString(), "Windows-1252");
        }
    }

    private static bool IsEveryOtherZero(ReadOnlySpan<byte> bytes, int from)
    {
        var zeros = 0;
        for (var at = from; at < bytes.Length; at += 2)
            zeros += bytes[at] == 0 ? 1 : 0;
        return zeros * 2 >= (bytes.Length / 2 * 2) - (bytes.Length / 10);
    }
}
