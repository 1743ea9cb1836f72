using NodaTime;

namespace PorchLight.Core.Answers;

/// <summary>Finds numbers, days and bands that cannot be meant, before anybody meets them.</summary>
public static class ValueBounds
{
    /// <summary>No threshold, end or price is larger, nor smaller than this below zero.</summary>
    public const decimal LargestNumber = 1_000_000_000_000m;

    /// <summary>No date is reckoned from further away: a hundred years, in days.</summary>
    public const int MostDays = 36_525;

    /// <summary>No amount is paid in more months: fifty years.</summary>
    public const int MostInstalments = 600;

    private const int FirstYear = 1800;
    private const int LastYear = 2400;

    /// <summary>Why a number cannot be meant, as a sentence, or null.</summary>
    /// <param name="number">The number, of either sign; the largest itself is allowed.</param>
    public static string? Check(decimal number) =>
        Math.Abs(number) > LargestNumber ? "A number here is larger than anything could be." : null;

    /// <summary>Why a day cannot be meant, as a sentence, or null: it must lie in the years 1800 to 2400.</summary>
    /// <param name="day">The day; both years are included.</param>
    public static string? Check(LocalDate day) =>
        day.Year is < FirstYear or > LastYear
            ? $"A day here lies in the year {day.Year}. Choose one from {FirstYear} to {LastYear}."
            : null;

    /// <summary>
    /// Why a band cannot be meant, as a sentence, or null. One that ends before it starts is said by
    /// <see cref="Band.IsEmpty"/>.
    /// </summary>
    /// <param name="band">The band; an end that is not there is not looked at.</param>
    public static string? Check(Band band) =>
        band.Instalments is < 1 or > MostInstalments
            ? $"One of the answers is paid in instalments: choose from 1 to {MostInstalments} months."
            : (band.Low is { } low ? Check(low.Value) : null) ?? (band.High is { } high ? Check(high.Value) : null);
}
