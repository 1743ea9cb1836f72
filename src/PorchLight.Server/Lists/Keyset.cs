using System.Linq.Expressions;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Query;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Lists;

/// <summary>What orders of rows have in common.</summary>
internal static class Keyset
{
    /// <summary>A value that is a parameter of a query and no part of it, so that the database plans it once.</summary>
    public sealed record Held<T>(T Value);

    /// <summary>The keys of a row as text, for whoever asks for those that follow it.</summary>
    public static string Write(object?[] row) => JsonSerializer.Serialize(row, Json.Options);

    /// <summary>Reads a query of the database, or of rows that are in memory.</summary>
    public static Task<List<T>> AllAsync<T>(IQueryable<T> rows, CancellationToken cancellationToken) =>
        rows.Provider is IAsyncQueryProvider ? rows.ToListAsync(cancellationToken) : Task.FromResult(rows.ToList());

    /// <summary>How many rows there are, in the database or in memory.</summary>
    public static Task<int> CountAsync<T>(IQueryable<T> rows, CancellationToken cancellationToken) =>
        rows.Provider is IAsyncQueryProvider ? rows.CountAsync(cancellationToken) : Task.FromResult(rows.Count());

    /// <summary>The rows that have something in the first key, and when they run out those that have nothing there.</summary>
    /// <param name="after">The keys of the row they follow; null for the first ones.</param>
    /// <param name="take">How many at most.</param>
    /// <param name="filled">Reads the first ones behind some keys.</param>
    /// <param name="unfilled">Reads the others, whose keys are those that are left.</param>
    public static async Task<List<object?[]>> FilledFirstAsync(
        object?[]? after,
        int take,
        Func<object?[]?, int, Task<List<object?[]>>> filled,
        Func<object?[]?, int, Task<List<object?[]>>> unfilled
    )
    {
        var isPastThem = after is [null, ..];
        var found = isPastThem ? [] : await filled(after, take);
        if (found.Count < take)
            found.AddRange(
                (await unfilled(isPastThem ? after![1..] : null, take - found.Count)).Select(keys => (object?[])[null, .. keys])
            );
        return found;
    }
}

/// <summary>
/// Reads rows in an order, so many at a time, each time from where the last reading ended: what came or went meanwhile makes no other row
/// appear twice or be left out. A row whose own keys changed stands where they are now.
/// </summary>
/// <param name="keys">
/// What the rows are in order of, one after the other; together they tell any two rows apart. The first may be null: who has nothing there
/// comes last, whichever way the order runs.
/// </param>
internal sealed class Keyset<T>(params IReadOnlyList<LambdaExpression> keys)
{
    /// <summary>The keys of the rows that follow.</summary>
    /// <param name="rows">The rows, in no order.</param>
    /// <param name="descending">Whether the last comes first.</param>
    /// <param name="after">The keys of the row they follow; null for the first ones.</param>
    /// <param name="take">How many at most.</param>
    public async Task<List<object?[]>> ReadAsync(
        IQueryable<T> rows,
        bool descending,
        object?[]? after,
        int take,
        CancellationToken cancellationToken
    )
    {
        if (!MayBeNull)
            return await Keyset.AllAsync(Follow(Sort(rows, descending), descending, after).Take(take), cancellationToken);
        return await Keyset.FilledFirstAsync(
            after,
            take,
            (behind, some) => Filled.ReadAsync(rows.Where(IsFilled), descending, behind, some, cancellationToken),
            (behind, some) => Unfilled.ReadAsync(rows.Where(Not(IsFilled)), descending, behind, some, cancellationToken)
        );
    }

    /// <summary>Reads the keys of a row that <see cref="Keyset.Write"/> wrote; null where it is something else.</summary>
    public object?[]? Read(string text) => Read(text, MayBeNull);

    /// <param name="mayBeNull">Whether the first may be null.</param>
    public object?[]? Read(string text, bool mayBeNull)
    {
        try
        {
            if (JsonSerializer.Deserialize<JsonElement[]>(text, Json.Options) is not { } values || values.Length != keys.Count)
                return null;
            var row = new object?[keys.Count];
            for (var at = 0; at < row.Length; at++)
            {
                if (values[at].ValueKind != JsonValueKind.Null)
                    row[at] = values[at].Deserialize(keys[at].ReturnType, Json.Options);
                else if (at > 0 || !mayBeNull)
                    return null;
            }

            return row;
        }
        catch (JsonException)
        {
            return null;
        }
    }

    private bool MayBeNull => Nullable.GetUnderlyingType(keys[0].ReturnType) is not null;

    private Expression<Func<T, bool>> IsFilled =>
        Expression.Lambda<Func<T, bool>>(Expression.Property(keys[0].Body, "HasValue"), keys[0].Parameters);

    private Keyset<T> Filled => new([Expression.Lambda(Expression.Property(keys[0].Body, "Value"), keys[0].Parameters), .. keys.Skip(1)]);

    private Keyset<T> Unfilled => new([.. keys.Skip(1)]);

    private static Expression<Func<T, bool>> Not(Expression<Func<T, bool>> test) =>
        Expression.Lambda<Func<T, bool>>(Expression.Not(test.Body), test.Parameters);

    private IQueryable<T> Sort(IQueryable<T> rows, bool descending)
    {
        var sorted = rows.Expression;
        for (var at = 0; at < keys.Count; at++)
        {
            var name = (at == 0, descending) switch
            {
                (true, false) => nameof(Queryable.OrderBy),
                (true, true) => nameof(Queryable.OrderByDescending),
                (false, false) => nameof(Queryable.ThenBy),
                (false, true) => nameof(Queryable.ThenByDescending),
            };
            sorted = Expression.Call(typeof(Queryable), name, [typeof(T), keys[at].ReturnType], sorted, Expression.Quote(keys[at]));
        }

        return rows.Provider.CreateQuery<T>(sorted);
    }

    private IQueryable<object?[]> Follow(IQueryable<T> sorted, bool descending, object?[]? after)
    {
        var row = Expression.Parameter(typeof(T), "row");
        var bodies = keys.Select(key => new Renamed(key.Parameters[0], row).Visit(key.Body)).ToList();
        if (after is not null)
            sorted = sorted.Where(Expression.Lambda<Func<T, bool>>(Follows(0), row));
        return sorted.Select(
            Expression.Lambda<Func<T, object?[]>>(
                Expression.NewArrayInit(typeof(object), bodies.Select(body => Expression.Convert(body, typeof(object)))),
                row
            )
        );

        // Beyond it by this key, or the same and beyond it by the next ones. That no key is before it is said by itself: an index begins there.
        Expression Follows(int at)
        {
            var compared = Expression.Call(
                bodies[at],
                bodies[at].Type.GetMethod(nameof(IComparable.CompareTo), [bodies[at].Type])!,
                Parameter(after![at]!)
            );
            var beyond = Beyond(compared, orSame: false);
            return at == keys.Count - 1
                ? beyond
                : Expression.AndAlso(Beyond(compared, orSame: true), Expression.OrElse(beyond, Follows(at + 1)));
        }

        Expression Beyond(Expression compared, bool orSame) =>
            Expression.MakeBinary(
                (descending, orSame) switch
                {
                    (false, false) => ExpressionType.GreaterThan,
                    (false, true) => ExpressionType.GreaterThanOrEqual,
                    (true, false) => ExpressionType.LessThan,
                    (true, true) => ExpressionType.LessThanOrEqual,
                },
                compared,
                Expression.Constant(0)
            );
    }

    private static MemberExpression Parameter(object value) =>
        Expression.Property(
            Expression.Constant(Activator.CreateInstance(typeof(Keyset.Held<>).MakeGenericType(value.GetType()), value)),
            nameof(Keyset.Held<>.Value)
        );

    private sealed class Renamed(ParameterExpression from, ParameterExpression to) : ExpressionVisitor
    {
        protected override Expression VisitParameter(ParameterExpression node) => node == from ? to : node;
    }
}
