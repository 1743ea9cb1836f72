using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;

namespace PorchLight.Core.Forms;

/// <summary>Which days are allowed. Days from today count in the business's zone at the instant of asking.</summary>
/// <param name="Earliest">The first allowed day, or null.</param>
/// <param name="Latest">The last allowed day, or null.</param>
/// <param name="FromDays">The first allowed day is this many days after today (0 is today, negative is past), or null.</param>
/// <param name="ToDays">The last allowed day is this many days after today, or null.</param>
public sealed record DateLimits(LocalDate? Earliest = null, LocalDate? Latest = null, int? FromDays = null, int? ToDays = null)
{
    /// <summary>The first and last allowed day on the day of asking; null where there is none.</summary>
    /// <param name="today">The day of asking.</param>
    public (LocalDate? First, LocalDate? Last) On(LocalDate today) =>
        (
            Pick(Earliest, FromDays is { } from ? DayArithmetic.Plus(today, from) : null, later: true),
            Pick(Latest, ToDays is { } to ? DayArithmetic.Plus(today, to) : null, later: false)
        );

    private static LocalDate? Pick(LocalDate? a, LocalDate? b, bool later) =>
        a is null || b is null ? a ?? b
        : later == (a > b) ? a
        : b;

    /// <summary>What cannot be meant, as sentences.</summary>
    internal IEnumerable<string> Faults() =>
        new[]
        {
            Earliest is { } first ? ValueBounds.Check(first) : null,
            Latest is { } last ? ValueBounds.Check(last) : null,
            Earliest > Latest || FromDays > ToDays ? "The first and the last day that are possible here do not go together." : null,
            IsFarAway(FromDays) || IsFarAway(ToDays)
                ? $"Days from today can be counted up to {ValueBounds.MostDays:N0}, which is a hundred years."
                : null,
        }.OfType<string>();

    /// <summary>That days lie outside, as a sentence, or null.</summary>
    /// <param name="from">The first day that is answered.</param>
    /// <param name="to">The last one.</param>
    /// <param name="today">The day of asking.</param>
    internal string? Outside(LocalDate from, LocalDate to, LocalDate today)
    {
        var (first, last) = On(today);
        return from < first ? $"The first day that is possible here is {DateWords.Say(first.Value)}."
            : to > last ? $"The last day that is possible here is {DateWords.Say(last.Value)}."
            : null;
    }

    private static bool IsFarAway(int? days) => days is < -ValueBounds.MostDays or > ValueBounds.MostDays;
}
