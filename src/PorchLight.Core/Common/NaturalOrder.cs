using System.Globalization;
using System.Numerics;

namespace PorchLight.Core.Common;

/// <summary>Orders names as people do: "Reminder 2" before "Reminder 10".</summary>
public sealed class NaturalOrder : IComparer<string>
{
    /// <summary>The order by the rules of no language in particular, without regard to case.</summary>
    public static NaturalOrder Instance { get; } = new();

    private static readonly CompareInfo Words = CultureInfo.InvariantCulture.CompareInfo;

    /// <summary>
    /// Compares runs of digits by their value, however long, and what stands between them as words. Names that differ only in case or in
    /// leading zeros come in the order of their characters, so that only equal names are equal.
    /// </summary>
    /// <param name="x">One name; null comes first.</param>
    /// <param name="y">The other.</param>
    public int Compare(string? x, string? y)
    {
        if (x is null || y is null)
            return (x is null ? 0 : 1) - (y is null ? 0 : 1);
        var (left, right) = (0, 0);
        while (left < x.Length && right < y.Length)
        {
            var (one, other) = (Part(x, left), Part(y, right));
            (left, right) = (left + one.Length, right + other.Length);
            var order =
                char.IsAsciiDigit(one[0]) && char.IsAsciiDigit(other[0])
                    ? Number(one).CompareTo(Number(other))
                    : Words.Compare(one, other, CompareOptions.IgnoreCase);
            if (order != 0)
                return order;
        }

        var rest = (x.Length - left).CompareTo(y.Length - right);
        return rest != 0 ? rest : string.CompareOrdinal(x, y);
    }

    private static string Part(string name, int from)
    {
        var to = from;
        while (to < name.Length && char.IsAsciiDigit(name[to]) == char.IsAsciiDigit(name[from]))
            to++;
        return name[from..to];
    }

    private static BigInteger Number(string digits) => BigInteger.Parse(digits, NumberStyles.None, CultureInfo.InvariantCulture);
}
