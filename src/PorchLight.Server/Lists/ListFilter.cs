namespace PorchLight.Server.Lists;

/// <summary>How a filter is chosen.</summary>
internal enum FilterKind
{
    /// <summary>Some of its choices; none stands for all.</summary>
    Several,

    /// <summary>On or off.</summary>
    Switch,
}

/// <summary>Something a list can be filtered by: which rows it leaves, and what a person can choose.</summary>
/// <param name="Name">The part of the query that holds what is chosen.</param>
/// <param name="Words">What its button says while nothing is chosen; of a switch, what it shows.</param>
/// <param name="Narrow">Leaves the rows that are asked for; all of them where nothing is chosen.</param>
internal sealed record ListFilter<T, TQuery>(string Name, string Words, Func<IQueryable<T>, TQuery, IQueryable<T>> Narrow)
{
    public FilterKind Kind { get; init; }

    /// <summary>What can be chosen; not asked of a switch.</summary>
    public Func<CancellationToken, Task<IReadOnlyList<FilterChoice>>> ChoicesAsync { get; init; } =
        _ => Task.FromResult<IReadOnlyList<FilterChoice>>([]);

    /// <summary>
    /// What its choices are, in a word ("stage"), where it is rarely used and shares a menu with others; null where it has a menu of its own.
    /// </summary>
    public string? Further { get; init; }
}

/// <param name="Value">What stands in the query for it; null for "nothing there".</param>
internal sealed record FilterChoice(string? Value, string Words);

/// <summary>An order of a list.</summary>
/// <param name="Name">What the query calls it.</param>
/// <param name="Words">What a person reads.</param>
/// <param name="Descending">Whether it usually runs from the end.</param>
/// <param name="Keyset">What the rows are in order of.</param>
internal sealed record ListOrder<T>(string Name, string Words, bool Descending, Keyset<T> Keyset);

/// <summary>A column of the file a list is saved in.</summary>
/// <param name="Words">Its heading.</param>
internal sealed record ListColumn<TRow>(string Words, Func<TRow, string?> Cell);
