using PorchLight.Core.Answers;
using PorchLight.Core.Fields;

namespace PorchLight.Core.Records;

/// <summary>How a row somebody sent stands to the rows on file.</summary>
public enum RowChange
{
    /// <summary>It says what stands there.</summary>
    Same,

    /// <summary>There is no such row yet.</summary>
    Added,

    /// <summary>It is a row that is there, with other cells.</summary>
    Changed,

    /// <summary>Half of its key is that of a row on file: perhaps the same one, corrected.</summary>
    Corrected,

    /// <summary>It is on file and was not sent.</summary>
    Removed,
}

/// <summary>A row on file beside the one that was sent.</summary>
/// <param name="Change">How they stand to each other.</param>
/// <param name="Ours">The row on file; null for one that was added.</param>
/// <param name="Theirs">The row that was sent; null for one that was removed.</param>
public sealed record RowMatch(RowChange Change, AnswerRow? Ours, AnswerRow? Theirs);

/// <summary>Matches rows by their key.</summary>
public static class RowMatching
{
    /// <summary>
    /// What the key of a row is: of people their name and, where there is one, the first day among the columns (their birth
    /// date); of other rows the first column.
    /// </summary>
    /// <param name="columns">The columns of the field, at least one.</param>
    public static IReadOnlyList<FieldColumn> KeyOf(IReadOnlyList<FieldColumn> columns)
    {
        var name = columns.FirstOrDefault(column => column.Kind == FieldKind.PersonName);
        if (name is null)
            return [.. columns.Take(1)];
        return columns.FirstOrDefault(column => column.Kind == FieldKind.Date) is { } born ? [name, born] : [name];
    }

    /// <summary>
    /// Every row of both sides once: those on file in their order, each beside the one that was sent for it, then those that were
    /// added, in the order they were sent. A key is equal when all of its cells are, two blanks included; half equal when it
    /// has two cells and one of them is equal and not blank. Of several rows with one key each is matched with one, in order.
    /// </summary>
    /// <param name="ours">The rows on file.</param>
    /// <param name="theirs">The rows that were sent.</param>
    /// <param name="columns">The columns of the field; other cells are not looked at.</param>
    public static IReadOnlyList<RowMatch> Match(
        IReadOnlyList<AnswerRow> ours,
        IReadOnlyList<AnswerRow> theirs,
        IReadOnlyList<FieldColumn> columns
    )
    {
        var key = KeyOf(columns);
        var left = theirs.ToList();
        // A row is only perhaps another one while neither is certainly anybody else.
        var partner = Pair(ours, left, (a, b) => key.All(column => Same(a, b, column)));
        if (key.Count > 1)
        {
            foreach (
                var (row, other) in Pair(
                    ours.Where(row => !partner.ContainsKey(row)),
                    left,
                    (a, b) => key.Any(column => a[column.Key] is not null && Same(a, b, column))
                )
            )
                partner[row] = other;
        }

        return
        [
            .. ours.Select(row =>
                !partner.TryGetValue(row, out var other) ? new RowMatch(RowChange.Removed, row, null)
                : columns.All(column => Same(row, other, column)) ? new RowMatch(RowChange.Same, row, other)
                : new RowMatch(key.All(column => Same(row, other, column)) ? RowChange.Changed : RowChange.Corrected, row, other)
            ),
            .. left.Select(row => new RowMatch(RowChange.Added, null, row)),
        ];
    }

    private static Dictionary<AnswerRow, AnswerRow> Pair(
        IEnumerable<AnswerRow> ours,
        List<AnswerRow> left,
        Func<AnswerRow, AnswerRow, bool> belong
    )
    {
        var pairs = new Dictionary<AnswerRow, AnswerRow>(ReferenceEqualityComparer.Instance);
        foreach (var row in ours)
        {
            if (left.FindIndex(other => belong(row, other)) is not (>= 0 and var at))
                continue;
            pairs[row] = left[at];
            left.RemoveAt(at);
        }

        return pairs;
    }

    private static bool Same(AnswerRow a, AnswerRow b, FieldColumn column) =>
        (a[column.Key], b[column.Key]) switch
        {
            (null, null) => true,
            ({ } x, { } y) => FieldValues.IsSame(x, y),
            _ => false,
        };
}
