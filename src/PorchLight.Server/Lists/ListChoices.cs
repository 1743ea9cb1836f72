using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Core.Records;

namespace PorchLight.Server.Lists;

/// <param name="After">Where the page before ended, as it said; null for the first page.</param>
/// <param name="Take">How many rows; at most 200.</param>
internal sealed record ListAsked<TQuery>(TQuery Query, string? After, int Take)
    where TQuery : ListQuery;

/// <param name="Total">How many rows there are in all; null on a page that is not the first.</param>
/// <param name="Groups">How many there are of each group, in the order of the list; empty where the list has none.</param>
/// <param name="Next">What the page behind this one is asked for with; null when this is the last.</param>
internal sealed record ListPage<TRow>(int? Total, IReadOnlyList<ListGroup> Groups, IReadOnlyList<TRow> Rows, string? Next);

/// <param name="Words">The heading over them.</param>
internal sealed record ListGroup(string Name, string Words, int Count);

/// <summary>What a list can be made of.</summary>
/// <param name="Fields">Fields of records it can be filtered and put in order by, and shows as columns.</param>
internal sealed record ListChoices<TQuery>(
    IReadOnlyList<FilterPart> Filters,
    IReadOnlyList<OrderPart> Orders,
    IReadOnlyList<FieldToFilter> Fields,
    IReadOnlyList<ListViewEntry<TQuery>> Views
)
    where TQuery : ListQuery;

/// <param name="Further">What its choices are, in a word, where it shares a menu with others.</param>
internal sealed record FilterPart(string Name, FilterKind Kind, string Words, string? Further, IReadOnlyList<FilterChoice> Choices);

internal sealed record OrderPart(string Name, string Words);

internal sealed record FieldToFilter(Field Field, RecordScope Scope, IReadOnlyList<FieldTest> Tests);

internal sealed record ListViewEntry<TQuery>(Id<ListView> Id, string Name, TQuery Query)
    where TQuery : ListQuery;

internal sealed record NewListView<TQuery>(string Name, TQuery Query)
    where TQuery : ListQuery;
