using System.Globalization;
using NodaTime;
using NodaTime.Extensions;
using NodaTime.TimeZones;
using PhoneNumbers;

namespace PorchLight.Core.Brand;

/// <summary>Something that is chosen by its name and kept by its code.</summary>
/// <param name="Code">The code.</param>
/// <param name="Name">What people call it, in English.</param>
public sealed record NamedCode(string Code, string Name);

/// <summary>
/// Countries, currencies and time zones by the names people give them. Names are those of Unicode CLDR, which come with the
/// platform; zones and their places those of the IANA tz database, by NodaTime.
/// </summary>
public static class Locales
{
    /// <summary>The ISO 3166 regions whose phone numbers can be read without a country code, in order (libphonenumber).</summary>
    public static IReadOnlyList<string> PhoneRegions { get; } =
    [.. PhoneNumberUtil.GetInstance().GetSupportedRegions().Order(StringComparer.Ordinal)];

    private static readonly RegionInfo[] Regions =
    [
        .. PhoneRegions.Select(Region).OfType<RegionInfo>().OrderBy(region => region.EnglishName, StringComparer.Ordinal),
    ];

    /// <summary>The countries, by ISO 3166 code, in the order of their names.</summary>
    public static IReadOnlyList<NamedCode> Countries { get; } =
    [.. Regions.Select(region => new NamedCode(region.TwoLetterISORegionName, region.EnglishName))];

    /// <summary>The currencies in use, by ISO 4217 code, in the order of their names.</summary>
    public static IReadOnlyList<NamedCode> Currencies { get; } =
    [
        .. Regions
            .Where(region => region.ISOCurrencySymbol.Length == 3 && region.ISOCurrencySymbol.All(char.IsAsciiLetterUpper))
            .DistinctBy(region => region.ISOCurrencySymbol)
            .Select(region => new NamedCode(region.ISOCurrencySymbol, region.CurrencyEnglishName))
            .OrderBy(currency => currency.Name, StringComparer.Ordinal),
    ];

    /// <summary>The time zones, by IANA identifier, each with its city and country, in the order of these.</summary>
    public static IReadOnlyList<NamedCode> Zones { get; } =
    [
        .. (TzdbDateTimeZoneSource.Default.ZoneLocations ?? [])
            .Where(place => DateTimeZoneProviders.Tzdb.GetZoneOrNull(place.ZoneId) is not null)
            .DistinctBy(place => place.ZoneId)
            .Select(place => new NamedCode(place.ZoneId, $"{CityOf(place.ZoneId)}, {place.CountryName}"))
            .OrderBy(zone => zone.Name, StringComparer.Ordinal),
    ];

    /// <summary>
    /// The ISO 3166 code of a country that is given by its code or its name, in English or its own language; else the
    /// text itself.
    /// </summary>
    /// <param name="text">What was typed; case and blanks around it do not count. Empty stays empty.</param>
    public static string ReadCountry(string text) =>
        Read(text, Countries) ?? Regions.FirstOrDefault(region => Same(region.NativeName, text))?.TwoLetterISORegionName ?? text.Trim();

    /// <summary>
    /// The ISO 4217 code of a currency that is given by its code, its name ("Euro", "euros") or a sign no other has;
    /// else the text itself.
    /// </summary>
    /// <param name="text">
    /// What was typed; case and blanks around it do not count. A sign that several currencies share ("$") stays the
    /// text.
    /// </param>
    public static string ReadCurrency(string text) =>
        Read(text, Currencies)
        ?? Read(text.Trim().TrimEnd('s'), Currencies)
        ?? (
            Regions.Where(region => Same(region.CurrencySymbol, text)).Select(region => region.ISOCurrencySymbol).Distinct().ToList()
                is [var only]
                ? only
                : text.Trim()
        );

    /// <summary>The IANA zone that is given by its identifier, its city, or a country, by its first zone; else the text itself.</summary>
    /// <param name="text">What was typed; case and blanks around it do not count.</param>
    public static string ReadZone(string text) =>
        Read(text, Zones)
        ?? Zones.FirstOrDefault(zone => Same(CityOf(zone.Code), text))?.Code
        ?? (
            (TzdbDateTimeZoneSource.Default.ZoneLocations ?? [])
                .Where(place => Same(place.CountryName, text))
                .Select(place => place.ZoneId)
                .Distinct()
                .ToList()
                is [var only, ..]
                ? only
                : text.Trim()
        );

    /// <summary>The first day of the week where people live (Unicode CLDR); Monday where it is not known (ISO 8601).</summary>
    /// <param name="region">The ISO 3166 code of the country.</param>
    public static IsoDayOfWeek WeekBeginsOn(string region)
    {
        try
        {
            return new CultureInfo($"en-{region}").DateTimeFormat.FirstDayOfWeek.ToIsoDayOfWeek();
        }
        catch (CultureNotFoundException)
        {
            return IsoDayOfWeek.Monday;
        }
    }

    private static string? Read(string text, IReadOnlyList<NamedCode> all) =>
        all.FirstOrDefault(one => Same(one.Code, text) || Same(one.Name, text))?.Code;

    private static bool Same(string a, string b) => string.Equals(a, b.Trim(), StringComparison.OrdinalIgnoreCase);

    /// <summary>What people call the place a zone is named after: "New York".</summary>
    /// <param name="zone">The IANA identifier.</param>
    public static string CityOf(string zone) => zone[(zone.LastIndexOf('/') + 1)..].Replace('_', ' ');

    private static RegionInfo? Region(string code)
    {
        try
        {
            return new RegionInfo(code);
        }
        catch (ArgumentException)
        {
            return null;
        }
    }
}
