namespace PorchLight.Core.Common;

/// <summary>How alike two short texts are, made for names with slips of the pen.</summary>
/// <remarks>
/// M. A. Jaro, "Advances in Record-Linkage Methodology", Journal of the American Statistical Association 84 (1989); W. E. Winkler,
/// "String Comparator Metrics and Enhanced Decision Rules in the Fellegi-Sunter Model of Record Linkage" (1990), for the prefix.
/// </remarks>
public static class JaroWinkler
{
    private const double PrefixWeight = 0.1;
    private const int LongestPrefix = 4;

    /// <summary>
    /// From 0 (nothing in common) to 1 (equal). Letters are compared one by one as they are, in UTF-16 code units: fold case and accents
    /// before. Two empty texts are equal; an empty one has nothing in common with any other. The order of the two does not matter.
    /// </summary>
    /// <param name="a">One text.</param>
    /// <param name="b">The other.</param>
    public static double Similarity(string a, string b)
    {
        var jaro = Jaro(a, b);
        var prefix = a.Zip(b).Take(LongestPrefix).TakeWhile(pair => pair.First == pair.Second).Count();
        return jaro + (prefix * PrefixWeight * (1 - jaro));
    }

    private static double Jaro(string a, string b)
    {
        if (a.Length == 0 && b.Length == 0)
            return 1;
        // Letters count as common when they stand no further apart than half the longer text.
        var reach = Math.Max((Math.Max(a.Length, b.Length) / 2) - 1, 0);
        var (inA, inB) = (new bool[a.Length], new bool[b.Length]);
        var common = 0;
        for (var i = 0; i < a.Length; i++)
        {
            for (var j = Math.Max(0, i - reach); j < b.Length && j <= i + reach; j++)
            {
                if (inB[j] || a[i] != b[j])
                    continue;
                (inA[i], inB[j]) = (true, true);
                common++;
                break;
            }
        }

        if (common == 0)
            return 0;
        var outOfOrder = a.Where((_, i) => inA[i]).Zip(b.Where((_, j) => inB[j])).Count(pair => pair.First != pair.Second);
        double m = common;
        return ((m / a.Length) + (m / b.Length) + ((m - (outOfOrder / 2.0)) / m)) / 3;
    }
}
