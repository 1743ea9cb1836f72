using System.Text.RegularExpressions;

namespace PorchLight.Core.Common;

/// <summary>Checks and compares e-mail addresses.</summary>
public static partial class EmailAddress
{
    /// <summary>No address is longer, in UTF-16 code units (RFC 3696, erratum 1690).</summary>
    public const int Longest = 254;

    /// <summary>
    /// What is wrong with an e-mail address by the HTML Living Standard's pattern, as a sentence that says what to do,
    /// or null.
    /// </summary>
    /// <param name="address">As typed, without blanks around it.</param>
    public static string? Check(string address) =>
        TextLength.TooLong(address, Longest)
        ?? (
            Pattern().IsMatch(address)
                ? null
                : "This does not look like an e-mail address. It needs a part before and after the @, like name@example.com."
        );

    /// <summary>What two spellings of one e-mail address share: trimmed, case ignored, nothing else.</summary>
    /// <param name="address">The address as it was given; it need not be valid.</param>
    public static string Key(string address) => address.Trim().ToLowerInvariant();

    // WHATWG HTML Living Standard, 4.10.5.1.5 "E-mail state": the pattern of a valid e-mail address.
    [GeneratedRegex(
        @"^[a-zA-Z0-9.!#$%&'*+/=?^_`{|}~-]+@[a-zA-Z0-9](?:[a-zA-Z0-9-]{0,61}[a-zA-Z0-9])?(?:\.[a-zA-Z0-9](?:[a-zA-Z0-9-]{0,61}[a-zA-Z0-9])?)*\z",
        RegexOptions.CultureInvariant
    )]
    private static partial Regex Pattern();
}
