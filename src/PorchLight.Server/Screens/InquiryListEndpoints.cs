using System.Globalization;
using System.Text.Json;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Core.Inquiries;
using PorchLight.Core.Projects;
using PorchLight.Server.Calendar;
using PorchLight.Server.Hosting;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Screens;

/// <summary>The inquiries as a list one works in.</summary>
internal static class InquiryListEndpoints
{
    private const int MostAtOnce = 200;

    /// <param name="Query">Which inquiries, and how.</param>
    /// <param name="Skip">How many of them are shown already.</param>
    /// <param name="Take">How many more; at most 200.</param>
    internal sealed record InquiriesAsked(InquiryQuery Query, int Skip, int Take);

    /// <param name="Total">How many there are in all.</param>
    /// <param name="Groups">How many need what, of those found; in the order a list shows them.</param>
    internal sealed record InquiriesFound(int Total, IReadOnlyList<NeedCount> Groups, IReadOnlyList<InquiryRow> Rows);

    /// <param name="Words">The heading over them.</param>
    internal sealed record NeedCount(InquiryNeed Need, string Words, int Count);

    /// <summary>What a list can be made of.</summary>
    /// <param name="LostReasons">Why work does not come.</param>
    internal sealed record InquiryListParts(
        IReadOnlyList<NeedCount> Needs,
        IReadOnlyList<ListChoice> Forms,
        IReadOnlyList<Stage> Stages,
        IReadOnlyList<string> Services,
        IReadOnlyList<string> Sources,
        IReadOnlyList<ListChoice> People,
        IReadOnlyList<string> LostReasons,
        IReadOnlyList<InquiryViewEntry> Views
    );

    internal sealed record ListChoice(Guid Id, string Name);

    internal sealed record InquiryViewEntry(Id<InquiryListView> Id, string Name, InquiryQuery Query);

    internal sealed record NewInquiryView(string Name, InquiryQuery Query);

    public static void MapInquiryList(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/inquiries").For(Access.Member).WithTags("Inquiries");
        group.MapGet(
            "",
            (PorchDb db, InquiryFinder finder, ClientSearch search, BusinessClock clock, CancellationToken cancellationToken) =>
                FindAsync(new InquiriesAsked(new InquiryQuery(), 0, MostAtOnce), db, finder, search, clock, cancellationToken)
        );
        group.MapPost("/found", FindAsync);
        group.MapPost("/all-found", FindAllAsync);
        group.MapGet("/parts", ShowPartsAsync);
        group.MapPut("/views", KeepViewAsync);
        group.MapDelete("/views/{id}", RemoveViewAsync);
        api.MapGet("/inquiries.csv", SaveAsync).For(Access.Member).WithTags("Inquiries");
    }

    private static async Task<Results<Ok<InquiriesFound>, ProblemHttpResult>> FindAsync(
        InquiriesAsked asked,
        PorchDb db,
        InquiryFinder finder,
        ClientSearch search,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        var query = asked.Query;
        if (query.Check() is { Count: > 0 } findings)
            return Problems.Unfinished(findings);
        if (!string.IsNullOrWhiteSpace(query.Words))
            await search.CatchUpSoonAsync(cancellationToken);
        var found = finder.Find(query);
        var groups = await found
            .GroupBy(inquiry => inquiry.Need)
            .Select(same => new { same.Key, Count = same.Count() })
            .ToListAsync(cancellationToken);
        // Who stands on the page is found in the indexes; only then are the rows read.
        var ids = await InquiryFinder
            .InOrder(found, query)
            .Skip(Math.Max(0, asked.Skip))
            .Take(Math.Clamp(asked.Take, 1, MostAtOnce))
            .Select(inquiry => inquiry.Id)
            .ToListAsync(cancellationToken);
        var rows = await db
            .Inquiries.AsNoTracking()
            .Where(inquiry => ids.Contains(inquiry.Id))
            .ToDictionaryAsync(one => one.Id, cancellationToken);
        return TypedResults.Ok(
            new InquiriesFound(
                groups.Sum(one => one.Count),
                [.. groups.OrderBy(one => one.Key).Select(one => new NeedCount(one.Key, one.Key.Say(), one.Count))],
                await InquiryRows.OfAsync(db, [.. ids.Select(id => rows[id])], clock.GetCurrentInstant(), cancellationToken)
            )
        );
    }

    /// <summary>The identifiers of all inquiries a query finds, for what is done to all of them.</summary>
    private static async Task<Results<Ok<List<Id<Inquiry>>>, ProblemHttpResult>> FindAllAsync(
        InquiryQuery query,
        InquiryFinder finder,
        ClientSearch search,
        CancellationToken cancellationToken
    )
    {
        if (query.Check() is { Count: > 0 } findings)
            return Problems.Unfinished(findings);
        if (!string.IsNullOrWhiteSpace(query.Words))
            await search.CatchUpSoonAsync(cancellationToken);
        return TypedResults.Ok(await finder.Find(query).Select(inquiry => inquiry.Id).ToListAsync(cancellationToken));
    }

    private static async Task<Ok<InquiryListParts>> ShowPartsAsync(PorchDb db, CancellationToken cancellationToken)
    {
        var lists = (await db.BusinessAsync()).Lists;
        var forms = await db
            .Forms.Where(form => db.CountingInquiries.Any(inquiry => inquiry.FormId == form.Id))
            .ToListAsync(cancellationToken);
        return TypedResults.Ok(
            new InquiryListParts(
                [.. Enum.GetValues<InquiryNeed>().Select(need => new NeedCount(need, need.Say(), 0))],
                [
                    .. forms
                        .Select(form => new ListChoice(form.Id.Value, form.Draft.Title))
                        .OrderBy(form => form.Name, StringComparer.Create(CultureInfo.InvariantCulture, ignoreCase: true)),
                ],
                lists.Stages,
                await NamesAsync(db.CountingInquiries.Select(inquiry => inquiry.Service)),
                await NamesAsync(db.CountingInquiries.Select(inquiry => inquiry.Source)),
                [
                    .. (await db.Users.ToListAsync(cancellationToken))
                        .Select(user => new ListChoice(user.Id, user.DisplayName))
                        .OrderBy(user => user.Name, StringComparer.Create(CultureInfo.InvariantCulture, ignoreCase: true)),
                ],
                lists.LostReasons,
                [
                    .. (await db.InquiryListViews.AsNoTracking().ToListAsync(cancellationToken))
                        .OrderBy(view => view.Name, StringComparer.Create(CultureInfo.InvariantCulture, ignoreCase: true))
                        .Select(view => new InquiryViewEntry(view.Id, view.Name, view.Query)),
                ]
            )
        );

        // What stands in the records, which may hold more than the lists of today.
        async Task<IReadOnlyList<string>> NamesAsync(IQueryable<string?> names) =>
            [
                .. (await names.Where(name => name != null).Distinct().Take(MostAtOnce).ToListAsync(cancellationToken))
                    .OfType<string>()
                    .Order(StringComparer.OrdinalIgnoreCase),
            ];
    }

    /// <summary>Keeps a view under a name; one that has the name already takes the new query.</summary>
    private static async Task<Results<Ok<InquiryViewEntry>, ProblemHttpResult>> KeepViewAsync(
        NewInquiryView wanted,
        PorchDb db,
        CancellationToken cancellationToken
    )
    {
        var name = wanted.Name.Trim();
        if (name.Length is 0 or > 60)
            return Problems.Unfinished(new Finding("name", "A view needs a name of at most 60 characters."));
        if (wanted.Query.Check() is { Count: > 0 } findings)
            return Problems.Unfinished(findings);
        await using var write = await db.WriteAsync(cancellationToken);
        var view = await db.InquiryListViews.FirstOrDefaultAsync(one => one.Name == name, cancellationToken);
        if (view is null)
            db.InquiryListViews.Add(
                view = new InquiryListView
                {
                    Id = new Id<InquiryListView>(Guid.CreateVersion7()),
                    Name = name,
                    Query = wanted.Query,
                }
            );
        view.Query = wanted.Query;
        await write.SaveAsync(cancellationToken);
        return TypedResults.Ok(new InquiryViewEntry(view.Id, view.Name, view.Query));
    }

    private static async Task<NoContent> RemoveViewAsync(Id<InquiryListView> id, PorchDb db, CancellationToken cancellationToken)
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.InquiryListViews.FindAsync([id], cancellationToken) is { } view)
            db.InquiryListViews.Remove(view);
        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
    }

    /// <summary>All inquiries of a query as a table.</summary>
    private static async Task<Results<PushStreamHttpResult, ProblemHttpResult>> SaveAsync(
        string? query,
        PorchDb db,
        InquiryFinder finder,
        ClientSearch search,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        InquiryQuery? asked;
        try
        {
            asked = query is null ? new InquiryQuery() : JsonSerializer.Deserialize<InquiryQuery>(query, Json.Options);
        }
        catch (JsonException)
        {
            asked = null;
        }

        if (asked is null)
            return Problems.Unprocessable("This link does not say which inquiries are wanted. Please press the button again.");
        if (asked.Check() is { Count: > 0 } findings)
            return Problems.Unfinished(findings);
        if (!string.IsNullOrWhiteSpace(asked.Words))
            await search.CatchUpSoonAsync(cancellationToken);
        var ids = await InquiryFinder.InOrder(finder.Find(asked), asked).Select(inquiry => inquiry.Id).ToListAsync(cancellationToken);
        return InquiriesCsv.Of(ids, db, clock.GetCurrentInstant(), cancellationToken);
    }
}
