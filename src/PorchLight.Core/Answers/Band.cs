using PorchLight.Core.Common;

namespace PorchLight.Core.Answers;

/// <summary>One end of a <see cref="Band"/>.</summary>
/// <param name="Value">Where it ends.</param>
/// <param name="Open">Whether the value itself is left out.</param>
public sealed record Bound(decimal Value, bool Open = false);

/// <summary>
/// The range of numbers an option stands for: "more than 4,000 up to and including 9,000". A missing end is unbounded.
/// </summary>
/// <param name="Low">The lower end, or null for none.</param>
/// <param name="High">The upper end, or null for none.</param>
/// <param name="Currency">The ISO 4217 code when the band is of money, else null.</param>
/// <param name="Instalments">
/// How many monthly payments the amount stands for; null when it is paid once. Amounts compare over the whole term,
/// so 200 a month for 12 months compares as 2,400.
/// </param>
public sealed record Band(Bound? Low, Bound? High, string? Currency = null, int? Instalments = null)
{
    /// <summary>Exactly one number.</summary>
    /// <param name="value">The number.</param>
    /// <param name="currency">An ISO 4217 code, or null for a bare number.</param>
    public static Band Exactly(decimal value, string? currency = null) => new(new Bound(value), new Bound(value), currency);

    /// <summary>Whether no number at all lies in the band, which is a mistake of whoever wrote it.</summary>
    public bool IsEmpty =>
        Low is { } low && High is { } high && (low.Value > high.Value || (low.Value == high.Value && (low.Open || high.Open)));

    /// <summary>
    /// The band over its whole term: both ends times the number of instalments, none being one. Null when that is too
    /// large a number.
    /// </summary>
    public Band? OverTerm()
    {
        try
        {
            return Instalments is not { } times
                ? this
                : new Band(
                    Low is null ? null : Low with { Value = Low.Value * times },
                    High is null ? null : High with { Value = High.Value * times },
                    Currency
                );
        }
        catch (OverflowException)
        {
            return null;
        }
    }

    /// <summary>Whether both hold the same amounts: one instalment is the same as none.</summary>
    /// <param name="other">The band to compare with; another currency is never the same, whatever it would be worth.</param>
    public bool IsSame(Band other) => this with { Instalments = Instalments ?? 1 } == other with { Instalments = other.Instalments ?? 1 };

    /// <summary>Whether every number of the band stands in the relation to the value; unknown when only some do.</summary>
    /// <param name="relation">The relation.</param>
    /// <param name="value">
    /// The number compared with, in the unit of the band. An open end does not hold its number itself; an end that is
    /// not there is without limit.
    /// </param>
    public Truth Compare(NumberRelation relation, decimal value)
    {
        var allUnder = High is { } h && (h.Value < value || (h.Value == value && h.Open));
        var allAtMost = High is { } m && m.Value <= value;
        var allOver = Low is { } l && (l.Value > value || (l.Value == value && l.Open));
        var allAtLeast = Low is { } a && a.Value >= value;
        var (all, none) = relation switch
        {
            NumberRelation.Under => (allUnder, allAtLeast),
            NumberRelation.AtMost => (allAtMost, allOver),
            NumberRelation.AtLeast => (allAtLeast, allUnder),
            NumberRelation.Over => (allOver, allAtMost),
            _ => throw new ArgumentOutOfRangeException(nameof(relation)),
        };
        return all ? Truth.True
            : none ? Truth.False
            : Truth.Unknown;
    }
}

/// <summary>How a number is compared with a threshold.</summary>
public enum NumberRelation
{
    /// <summary>Less than the threshold.</summary>
    Under,

    /// <summary>The threshold or less.</summary>
    AtMost,

    /// <summary>The threshold or more.</summary>
    AtLeast,

    /// <summary>More than the threshold.</summary>
    Over,
}
