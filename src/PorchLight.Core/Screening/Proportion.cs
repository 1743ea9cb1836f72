namespace PorchLight.Core.Screening;

/// <summary>A share of a group, with the bounds between which the true share lies in 19 of 20 cases.</summary>
/// <param name="Count">How many of the group.</param>
/// <param name="Of">How large the group is.</param>
/// <param name="Share">The share, from 0 to 1; 0 of an empty group.</param>
/// <param name="Low">The lower bound; 0 of an empty group.</param>
/// <param name="High">The upper bound; 1 of an empty group, of which nothing is known.</param>
public sealed record Proportion(int Count, int Of, double Share, double Low, double High)
{
    // The point of the normal distribution that leaves one in forty on each side.
    private const double Z = 1.959963984540054;

    /// <summary>
    /// The score interval of Wilson without continuity correction (E. B. Wilson 1927; recommended by R. G. Newcombe, Statistics in
    /// Medicine 17, 1998), for a confidence of 95 %. It stays within 0 and 1, also where none or all of the group count.
    /// </summary>
    /// <param name="count">How many of the group; 0 or more.</param>
    /// <param name="of">How large the group is; at least <paramref name="count"/>.</param>
    /// <exception cref="ArgumentOutOfRangeException">There are fewer than none, or more than the group.</exception>
    public static Proportion Wilson(int count, int of)
    {
        ArgumentOutOfRangeException.ThrowIfNegative(count);
        ArgumentOutOfRangeException.ThrowIfGreaterThan(count, of);
        if (of == 0)
            return new Proportion(0, 0, 0, 0, 1);
        var (share, square) = ((double)count / of, Z * Z);
        var middle = share + square / (2.0 * of);
        var half = Z * Math.Sqrt(share * (1 - share) / of + square / (4.0 * of * of));
        var whole = 1 + square / of;
        return new Proportion(
            count,
            of,
            share,
            count == 0 ? 0 : Math.Max(0, (middle - half) / whole),
            count == of ? 1 : Math.Min(1, (middle + half) / whole)
        );
    }
}
