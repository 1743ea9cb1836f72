using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Fields;

namespace PorchLight.Core.Records;

/// <summary>Why two clients are perhaps the same person.</summary>
public enum Likeness
{
    /// <summary>They have the same e-mail address, under names unlike each other: perhaps a mailbox several people share.</summary>
    SameEmail,

    /// <summary>They have the same phone number.</summary>
    SamePhone,

    /// <summary>Their names are nearly equal, and so is their postal code.</summary>
    AlikeNameSamePostalCode,

    /// <summary>Their names are nearly equal, and their e-mail addresses are of one house that is not open to everybody.</summary>
    AlikeNameSameMailDomain,
}

/// <summary>What a client is recognised by.</summary>
/// <param name="Name">The main contact's name; null when nobody said.</param>
/// <param name="EmailKey">Their e-mail address as <see cref="EmailAddress.Key"/> has it; null without one.</param>
/// <param name="Phone">Their phone number in its E.164 form; null without one, and for one that is only local.</param>
/// <param name="PostalCode">Their postal code; null without one.</param>
public sealed record ClientTraits(string? Name, string? EmailKey, string? Phone, string? PostalCode)
{
    /// <summary>The traits among values on file.</summary>
    /// <param name="onFile">Values by field key; others are not looked at.</param>
    public static ClientTraits Of(IReadOnlyDictionary<string, Answer> onFile) =>
        new(
            (onFile.GetValueOrDefault(BuiltInFields.Name.Key) as PersonNameAnswer)?.Full,
            onFile.GetValueOrDefault(BuiltInFields.Email.Key) is TextAnswer { Text: var email } ? EmailAddress.Key(email) : null,
            (onFile.GetValueOrDefault(BuiltInFields.Phone.Key) as PhoneAnswer)?.E164,
            (onFile.GetValueOrDefault(BuiltInFields.Address.Key) as AddressAnswer)?.PostalCode
        );

    /// <summary>
    /// Short texts of which two clients share at least one whenever they are alike, to find whom to compare: by their address, the house
    /// it is of, the phone number, the postal code.
    /// </summary>
    public IEnumerable<string> Keys
    {
        get
        {
            if (EmailKey is not null)
                yield return $"mail {EmailKey}";
            if (MailDomains.OwnDomain(EmailKey) is { } domain)
                yield return $"domain {domain}";
            if (Phone is not null)
                yield return $"phone {Phone}";
            if (ClientLikeness.Bare(PostalCode) is { Length: > 0 } postal)
                yield return $"postal {postal}";
        }
    }
}

/// <summary>Tells whether two clients are perhaps the same. It never decides; a person does.</summary>
public static class ClientLikeness
{
    /// <summary>Names less alike than this are those of two people, even under one e-mail address.</summary>
    public const double UnlikeBelow = 0.85;

    /// <summary>Names at least this much alike are perhaps one, where something else agrees.</summary>
    public const double AlikeFrom = 0.92;

    /// <summary>The strongest reason why two clients are perhaps the same; null when nothing says so. The order does not matter.</summary>
    /// <param name="a">One client.</param>
    /// <param name="b">The other.</param>
    public static Likeness? Between(ClientTraits a, ClientTraits b)
    {
        if (a.EmailKey is not null && a.EmailKey == b.EmailKey)
            return Likeness.SameEmail;
        if (a.Phone is not null && a.Phone == b.Phone)
            return Likeness.SamePhone;
        if (a.Name is null || b.Name is null || NamesAlike(a.Name, b.Name) < AlikeFrom)
            return null;
        if (Bare(a.PostalCode) is { Length: > 0 } postal && postal == Bare(b.PostalCode))
            return Likeness.AlikeNameSamePostalCode;
        return MailDomains.OwnDomain(a.EmailKey) is { } domain && domain == MailDomains.OwnDomain(b.EmailKey)
            ? Likeness.AlikeNameSameMailDomain
            : null;
    }

    /// <summary>Whether two names are so unlike that they are taken for two people. A name nobody said is unlike none.</summary>
    /// <param name="a">One name, or null.</param>
    /// <param name="b">The other, or null.</param>
    public static bool AreUnlike(string? a, string? b) => a is not null && b is not null && NamesAlike(a, b) < UnlikeBelow;

    /// <summary>How alike two names are, from 0 to 1, without regard to case and accents.</summary>
    /// <param name="a">One name.</param>
    /// <param name="b">The other.</param>
    public static double NamesAlike(string a, string b) => JaroWinkler.Similarity(ValueOrder.Fold(a), ValueOrder.Fold(b));

    /// <summary>The reason as the end of a sentence: "the same phone number".</summary>
    /// <param name="likeness">The reason.</param>
    public static string Say(this Likeness likeness) =>
        likeness switch
        {
            Likeness.SameEmail => "the same e-mail address",
            Likeness.SamePhone => "the same phone number",
            Likeness.AlikeNameSamePostalCode => "nearly the same name and the same postal code",
            Likeness.AlikeNameSameMailDomain => "nearly the same name, and mail from the same place",
            _ => throw new ArgumentOutOfRangeException(nameof(likeness)),
        };

    // "D05 X2Y9" and "d05x2y9" are one code.
    internal static string Bare(string? postalCode) => string.Concat((postalCode ?? "").Where(char.IsLetterOrDigit)).ToUpperInvariant();
}
