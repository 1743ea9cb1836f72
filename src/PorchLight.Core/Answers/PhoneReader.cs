using PhoneNumbers;

namespace PorchLight.Core.Answers;

/// <summary>Reads phone numbers, by libphonenumber.</summary>
public static class PhoneReader
{
    /// <summary>How long a number may be as typed, in UTF-16 code units.</summary>
    public const int Longest = 50;

    /// <summary>
    /// The number as typed, in E.164 form where it can be dialled from anywhere. One that can be dialled only within its own
    /// town or district ("555 0100") is kept as typed alone: the missing area code is nobody's to guess. Null E.164 and not
    /// <see cref="PhoneAnswer.LocalOnly"/> means that it is no number that could be dialled.
    /// </summary>
    /// <param name="typed">As typed.</param>
    /// <param name="region">The ISO 3166 region for numbers without a country code.</param>
    public static PhoneAnswer Read(string typed, string region)
    {
        if (typed.Length > Longest)
            return new PhoneAnswer(typed);
        var phones = PhoneNumberUtil.GetInstance();
        try
        {
            var number = phones.Parse(typed, region);
            if (!phones.IsPossibleNumber(number))
                return new PhoneAnswer(typed);
            // With its country code a number says itself where it belongs; without, only one that the region really has does.
            var belongs = phones.IsValidNumber(number) || typed.TrimStart().StartsWith('+');
            return belongs && phones.IsPossibleNumberWithReason(number) == PhoneNumberUtil.ValidationResult.IS_POSSIBLE
                ? new PhoneAnswer(typed, phones.Format(number, PhoneNumberFormat.E164))
                : new PhoneAnswer(typed, LocalOnly: true);
        }
        catch (NumberParseException)
        {
            return new PhoneAnswer(typed);
        }
    }
}
