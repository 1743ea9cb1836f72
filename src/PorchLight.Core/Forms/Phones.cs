using PhoneNumbers;

namespace PorchLight.Core.Forms;

/// <summary>Reads phone numbers, by libphonenumber.</summary>
public static class Phones
{
    /// <summary>How long a number may be as typed, in UTF-16 code units.</summary>
    public const int Longest = 50;

    /// <summary>The ISO 3166 regions whose phone numbers can be read without a country code, in order.</summary>
    public static IReadOnlyList<string> Regions() => [.. PhoneNumberUtil.GetInstance().GetSupportedRegions().Order(StringComparer.Ordinal)];

    /// <summary>The number in E.164 form, or null when it is none that could be dialled.</summary>
    /// <param name="typed">As typed.</param>
    /// <param name="region">The ISO 3166 region for numbers without a country code.</param>
    public static string? ToE164(string typed, string region)
    {
        if (typed.Length > Longest)
            return null;
        var phones = PhoneNumberUtil.GetInstance();
        try
        {
            var number = phones.Parse(typed, region);
            return phones.IsPossibleNumber(number) ? phones.Format(number, PhoneNumberFormat.E164) : null;
        }
        catch (NumberParseException)
        {
            return null;
        }
    }
}
