using System.Globalization;
using System.Linq.Expressions;
using System.Text;
using CsvHelper;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Common;
using PorchLight.Server.Hosting;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Lists;

/// <summary>
/// A list one works in. It says once what its rows are, what they can be filtered and put in order by, and what a file of them holds; the
/// pages, the counts, what a screen offers to choose, the views and the file are made of that (<see cref="ListEndpoints"/>).
/// </summary>
/// <typeparam name="T">What is filtered and put in order: rows of a table, or what was read into memory where they are few.</typeparam>
/// <typeparam name="TId">What tells them apart.</typeparam>
/// <typeparam name="TQuery">What can be asked of it.</typeparam>
/// <typeparam name="TRow">A row as it is shown.</typeparam>
internal abstract class ListOf<T, TId, TQuery, TRow>
    where TId : notnull
    where TQuery : ListQuery, new()
{
    private const int LinesAtOnce = 500;

    /// <summary>The list, by its address; kept with its views.</summary>
    public abstract string Name { get; }

    /// <summary>What it can be filtered by, in the order a screen shows it.</summary>
    public abstract IReadOnlyList<ListFilter<T, TQuery>> Filters { get; }

    /// <summary>What it can be in order of, the usual order first.</summary>
    public abstract IReadOnlyList<ListOrder<T>> Orders { get; }

    /// <summary>What a file of it holds of its rows; none where <see cref="WriteAsync"/> writes something else.</summary>
    protected virtual IReadOnlyList<ListColumn<TRow>> Columns => [];

    /// <summary>What tells its rows apart.</summary>
    protected abstract Expression<Func<T, TId>> Identifier { get; }

    /// <summary>What is wrong with a query; none when the list can be made.</summary>
    public virtual Task<IReadOnlyList<Finding>> CheckAsync(TQuery query) => Task.FromResult(query.Check());

    /// <summary>The name of the order a query asks for.</summary>
    protected abstract string OrderOf(TQuery query);

    /// <summary>All rows, but for those that are only shown where they are asked for, with the words that are searched for.</summary>
    protected abstract Task<IQueryable<T>> AllAsync(TQuery query, CancellationToken cancellationToken);

    /// <summary>The rows as they are shown, in the same order. Who is gone meanwhile is left out.</summary>
    protected abstract Task<IReadOnlyList<TRow>> RowsAsync(IReadOnlyList<TId> ids, TQuery query, CancellationToken cancellationToken);

    /// <summary>How many of the rows found there are of each group; none where the list has no groups.</summary>
    protected virtual Task<IReadOnlyList<ListGroup>> GroupsAsync(IQueryable<T> found, CancellationToken cancellationToken) =>
        Task.FromResult<IReadOnlyList<ListGroup>>([]);

    /// <summary>Fields of records the list can be filtered and put in order by.</summary>
    protected virtual Task<IReadOnlyList<FieldToFilter>> FieldsAsync() => Task.FromResult<IReadOnlyList<FieldToFilter>>([]);

    /// <summary>The keys of rows that follow, the last of them what tells them apart.</summary>
    protected virtual Task<List<object?[]>> KeysAsync(
        IQueryable<T> found,
        TQuery query,
        object?[]? after,
        int take,
        CancellationToken cancellationToken
    )
    {
        var order = Orders.Single(order => order.Name == OrderOf(query));
        return order.Keyset.ReadAsync(found, order.Descending != query.Backwards, after, take, cancellationToken);
    }

    /// <summary>Reads where the page before ended; null where it says nothing of the kind.</summary>
    protected virtual Task<object?[]?> ReadAfterAsync(string after, TQuery query) =>
        Task.FromResult(Orders.Single(order => order.Name == OrderOf(query)).Keyset.Read(after));

    /// <summary>A page of the list, with its counts where it is the first.</summary>
    /// <returns>The page; else what is wrong.</returns>
    public async Task<(ListPage<TRow>? Page, IReadOnlyList<Finding> Findings)> PageAsync(
        ListAsked<TQuery> asked,
        CancellationToken cancellationToken
    )
    {
        var query = asked.Query;
        if (await CheckAsync(query) is { Count: > 0 } findings)
            return (null, findings);
        var after = asked.After is { } text ? await ReadAfterAsync(text, query) : null;
        if (asked.After is not null && after is null)
            return (null, [new Finding("after", "The list has changed. Please load it again.")]);
        var found = await FindAsync(query, cancellationToken);
        IReadOnlyList<ListGroup> groups = [];
        int? total = null;
        if (after is null)
        {
            groups = await GroupsAsync(found, cancellationToken);
            total = groups.Count > 0 ? groups.Sum(group => group.Count) : await Keyset.CountAsync(found, cancellationToken);
        }

        // Who stands on the page is found in the indexes, with one more that says whether there is another page.
        var take = Math.Clamp(asked.Take, 1, ListEndpoints.MostAtOnce);
        var keys = await KeysAsync(found, query, after, take + 1, cancellationToken);
        var onPage = keys.Take(take).ToList();
        return (
            new ListPage<TRow>(
                total,
                groups,
                await RowsAsync([.. onPage.Select(IdOf)], query, cancellationToken),
                keys.Count > take ? Keyset.Write(onPage[^1]) : null
            ),
            []
        );
    }

    /// <summary>What all rows a query finds are told apart by, in the order of the list; else what is wrong.</summary>
    public async Task<(IReadOnlyList<TId>? Ids, IReadOnlyList<Finding> Findings)> IdsAsync(
        TQuery query,
        CancellationToken cancellationToken
    )
    {
        if (await CheckAsync(query) is { Count: > 0 } findings)
            return (null, findings);
        var keys = await KeysAsync(await FindAsync(query, cancellationToken), query, null, int.MaxValue, cancellationToken);
        return ([.. keys.Select(IdOf)], []);
    }

    /// <summary>What a screen offers to choose.</summary>
    public async Task<ListChoices<TQuery>> ChoicesAsync(PorchDb db, CancellationToken cancellationToken)
    {
        var filters = new List<FilterPart>();
        foreach (var filter in Filters)
            filters.Add(
                new FilterPart(filter.Name, filter.Kind, filter.Words, filter.Further, await filter.ChoicesAsync(cancellationToken))
            );
        var views = await db.ListViews.AsNoTracking().Where(view => view.List == Name).ToListAsync(cancellationToken);
        return new ListChoices<TQuery>(
            filters,
            [.. Orders.Select(order => new OrderPart(order.Name, order.Words))],
            await FieldsAsync(),
            [
                .. views
                    .OrderBy(view => view.Name, StringComparer.Create(CultureInfo.InvariantCulture, ignoreCase: true))
                    .Select(view => new ListViewEntry<TQuery>(view.Id, view.Name, StoredJson.Read<TQuery>(view.Query))),
            ]
        );
    }

    /// <summary>The rows as a table (RFC 4180), some hundred lines at a time. Cells that a spreadsheet would run are defused.</summary>
    public virtual async Task WriteAsync(Stream stream, IReadOnlyList<TId> ids, TQuery query, CancellationToken cancellationToken)
    {
        var columns = Columns;
        // The mark at the start tells spreadsheets that it is UTF-8.
        await using var text = new StreamWriter(stream, new UTF8Encoding(encoderShouldEmitUTF8Identifier: true), leaveOpen: true);
        await using var csv = new CsvWriter(text, CsvFiles.Rfc4180);
        foreach (var column in columns)
            csv.WriteCell(column.Words);
        await csv.NextRecordAsync();
        foreach (var batch in ids.Chunk(LinesAtOnce))
        {
            foreach (var row in await RowsAsync(batch, query, cancellationToken))
            {
                foreach (var column in columns)
                    csv.WriteCell(column.Cell(row));
                await csv.NextRecordAsync();
            }

            await csv.FlushAsync();
        }
    }

    /// <summary>A key of an order.</summary>
    protected static LambdaExpression By<TKey>(Expression<Func<T, TKey>> key) => key;

    /// <summary>An order by some keys, and where they are alike by what tells the rows apart.</summary>
    protected ListOrder<T> InOrder(string name, string words, bool descending, params IReadOnlyList<LambdaExpression> keys) =>
        new(name, words, descending, new Keyset<T>([.. keys, Identifier]));

    /// <summary>A filter that leaves the rows with one of the values chosen.</summary>
    protected static ListFilter<T, TQuery> Several<TValue>(
        string name,
        string words,
        Func<TQuery, IReadOnlyList<TValue>> chosen,
        Expression<Func<T, TValue>> of,
        Func<CancellationToken, Task<IReadOnlyList<FilterChoice>>> choices
    ) =>
        new(name, words, (rows, query) => chosen(query) is { Count: > 0 } values ? rows.Where(IsOneOf(values, of)) : rows)
        {
            ChoicesAsync = choices,
        };

    /// <summary>A filter that is on or off.</summary>
    protected static ListFilter<T, TQuery> Switch(string name, string words, Func<TQuery, bool> isOn, Expression<Func<T, bool>> test) =>
        new(name, words, (rows, query) => isOn(query) ? rows.Where(test) : rows) { Kind = FilterKind.Switch };

    /// <summary>Choices that are always the same.</summary>
    protected static Func<CancellationToken, Task<IReadOnlyList<FilterChoice>>> Fixed<TValue>(Func<TValue, string> words)
        where TValue : struct, Enum =>
        _ =>
            Task.FromResult<IReadOnlyList<FilterChoice>>([
                .. Enum.GetValues<TValue>().Select(value => new FilterChoice(Json.NameOf(value), words(value))),
            ]);

    /// <summary>The values themselves as choices, in the order of the alphabet.</summary>
    protected static IReadOnlyList<FilterChoice> Named(IEnumerable<string?> names) =>
        [.. names.OfType<string>().Distinct().Order(StringComparer.OrdinalIgnoreCase).Select(name => new FilterChoice(name, name))];

    private static Expression<Func<T, bool>> IsOneOf<TValue>(IReadOnlyList<TValue> values, Expression<Func<T, TValue>> of)
    {
        Expression<Func<TValue, bool>> contains = value => values.Contains(value);
        return Expression.Lambda<Func<T, bool>>(new ParameterReplacer(contains.Parameters[0], of.Body).Visit(contains.Body), of.Parameters);
    }

    private sealed class ParameterReplacer(ParameterExpression parameter, Expression by) : ExpressionVisitor
    {
        protected override Expression VisitParameter(ParameterExpression node) => node == parameter ? by : node;
    }

    private async Task<IQueryable<T>> FindAsync(TQuery query, CancellationToken cancellationToken) =>
        Filters.Aggregate(await AllAsync(query, cancellationToken), (rows, filter) => filter.Narrow(rows, query));

    private static TId IdOf(object?[] keys) => (TId)keys[^1]!;
}
