namespace PorchLight.Core.Records;

/// <summary>Tells how well something is called by what somebody types.</summary>
public static class NameMatch
{
    /// <summary>
    /// How well a name fits, small and capital letters and accents aside: 0 where it is just that, 1 where it begins so, 2 where a word of it
    /// begins so, 3 where it is within; null where it is not in it.
    /// </summary>
    /// <param name="name">What something is called.</param>
    /// <param name="typed">What was typed; blank fits nothing.</param>
    public static int? Rank(string name, string typed)
    {
        var (whole, part) = (ValueOrder.Fold(name).Trim(), ValueOrder.Fold(typed).Trim());
        if (part.Length == 0)
            return null;
        return whole.IndexOf(part, StringComparison.Ordinal) switch
        {
            < 0 => null,
            0 => whole.Length == part.Length ? 0 : 1,
            _ => BeginsAWord(whole, part) ? 2 : 3,
        };
    }

    /// <summary>Those that are called so, the best first, else in the order given.</summary>
    /// <param name="all">What there is.</param>
    /// <param name="nameOf">What each is called.</param>
    /// <param name="typed">What was typed.</param>
    public static IEnumerable<T> Called<T>(IEnumerable<T> all, Func<T, string> nameOf, string typed) =>
        all.Select(one => (One: one, Rank: Rank(nameOf(one), typed)))
            .Where(one => one.Rank is not null)
            .OrderBy(one => one.Rank)
            .Select(one => one.One);

    private static bool BeginsAWord(string whole, string part)
    {
        for (var at = whole.IndexOf(part, 1, StringComparison.Ordinal); at > 0; at = whole.IndexOf(part, at + 1, StringComparison.Ordinal))
        {
            if (!char.IsLetterOrDigit(whole[at - 1]))
                return true;
        }

        return false;
    }
}
