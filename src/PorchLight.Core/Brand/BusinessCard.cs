using NodaTime;
using PorchLight.Core.Common;

namespace PorchLight.Core.Brand;

/// <summary>Who the business is, as a person writes it down.</summary>
/// <param name="Name">What clients call it.</param>
/// <param name="OwnerName">Who signs its messages.</param>
/// <param name="MailAddress">Where its messages come from.</param>
/// <param name="Region">ISO 3166 region, for phone numbers without a country code.</param>
/// <param name="Currency">ISO 4217 code.</param>
/// <param name="Zone">IANA time zone.</param>
/// <param name="PublicAddress">
/// The address under which people reach its forms ("https://forms.example.com"); empty while that is this machine.
/// </param>
public sealed record BusinessCard(
    string Name,
    string OwnerName,
    string MailAddress,
    string Region,
    string Currency,
    string Zone,
    string PublicAddress = ""
)
{
    private const int LongestName = 100;

    /// <summary>Without blanks around; a country, a currency or a zone by its name ("Germany", "Euro", "Dublin") as its code.</summary>
    public BusinessCard Normalise() =>
        new(
            Name.Trim(),
            OwnerName.Trim(),
            MailAddress.Trim(),
            Locales.ReadCountry(Region),
            Locales.ReadCurrency(Currency),
            Locales.ReadZone(Zone),
            PublicAddress.Trim().TrimEnd('/')
        );

    /// <summary>What has to be put right, by the place of each value; for a tidy card.</summary>
    public IReadOnlyList<Finding> Check() =>
        [
            .. Named("name", Name, "Please say what your business is called."),
            .. Named("ownerName", OwnerName, "Please give the name that goes under your messages."),
            .. EmailAddress.Check(MailAddress) is { } wrong ? [new Finding("mailAddress", wrong)] : Array.Empty<Finding>(),
            .. Locales.PhoneRegions.Contains(Region)
                ? Array.Empty<Finding>()
                :
                [
                    new Finding(
                        "region",
                        "Please choose your country from the list. It says how phone numbers without a country code are meant."
                    ),
                ],
            .. Currency.Length == 3 && Currency.All(char.IsAsciiLetterUpper)
                ? Array.Empty<Finding>()
                : [new Finding("currency", "Please choose a currency from the list.")],
            .. DateTimeZoneProviders.Tzdb.GetZoneOrNull(Zone) is null
                ? [new Finding("zone", "Please choose your time zone from the list, by its largest city.")]
                : Array.Empty<Finding>(),
            .. PublicAddress.Length == 0 || IsOrigin(PublicAddress)
                ? Array.Empty<Finding>()
                :
                [
                    new Finding(
                        "publicAddress",
                        "Please write the address without a path, like https://forms.example.com, or leave it empty."
                    ),
                ],
        ];

    private static bool IsOrigin(string address) =>
        Uri.TryCreate(address, UriKind.Absolute, out var page)
        && page.Scheme is "http" or "https"
        && string.Equals(address, page.GetLeftPart(UriPartial.Authority), StringComparison.OrdinalIgnoreCase);

    private static IEnumerable<Finding> Named(string place, string text, string missing)
    {
        if (text.Length == 0)
            yield return new Finding(place, missing);
        else if (text.Length > LongestName || text.Any(char.IsControl))
            yield return new Finding(place, $"Please write this in one line of at most {LongestName} characters.");
    }
}

/// <summary>The typefaces that ship with the program.</summary>
public enum Typeface
{
    /// <summary>A plain face made to be told apart letter by letter.</summary>
    Hyperlegible,

    /// <summary>A lively grotesque.</summary>
    Bricolage,

    /// <summary>A round, friendly sans serif.</summary>
    Figtree,

    /// <summary>A book face with serifs.</summary>
    Literata,

    /// <summary>A brushed serif, at home in invitations.</summary>
    Lora,

    /// <summary>An old-fashioned, soft serif.</summary>
    Fraunces,

    /// <summary>A wide, technical sans serif.</summary>
    SpaceGrotesk,

    /// <summary>A sans serif with round ends.</summary>
    Nunito,
}

/// <summary>How public pages look.</summary>
/// <param name="Accent">The colour of buttons and marks, as #rrggbb; white text stands on it.</param>
/// <param name="Backdrop">The colour around the page, as #rrggbb; nothing stands on it.</param>
/// <param name="Typeface">The face of all text.</param>
public sealed record BrandLook(string Accent, string Backdrop, Typeface Typeface)
{
    /// <summary>Of a business that has chosen nothing yet.</summary>
    public static BrandLook Plain { get; } = new("#2a2f5b", "#f2f3f8", Typeface.Hyperlegible);

    /// <summary>What has to be put right. An accent on which white cannot be read names the nearest one that works.</summary>
    public IReadOnlyList<Finding> Check()
    {
        var found = new List<Finding>();
        if (!Contrast.IsColour(Backdrop))
            found.Add(new Finding("backdrop", "A colour is written like #f2f3f8."));
        if (!Contrast.IsColour(Accent))
            found.Add(new Finding("accent", "A colour is written like #2a2f5b."));
        else if (ReadableAccent(Accent) is var readable && readable != Accent)
            found.Add(new Finding("accent", $"White text on {Accent} cannot be read well. The nearest colour that works is {readable}."));
        return found;
    }

    /// <summary>The nearest accent on which white text reaches 4.5:1 (WCAG 2.2, 1.4.3).</summary>
    /// <param name="accent">As #rrggbb.</param>
    public static string ReadableAccent(string accent) => Contrast.Nearest(accent, "#ffffff", 4.5)!;
}
