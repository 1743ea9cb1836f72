using System.Linq.Expressions;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Common;
using PorchLight.Core.Conditions;
using PorchLight.Core.Inquiries;
using PorchLight.Server.Calendar;
using PorchLight.Server.Forms;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Lists;
using PorchLight.Server.Storage;

namespace PorchLight.Server.AcrossAreas;

/// <summary>The inquiries as a list one works in, grouped by what they need.</summary>
internal sealed class InquiryList(PorchDb db, ClientSearch search, BusinessClock clock)
    : ListOf<Inquiry, Id<Inquiry>, InquiryQuery, InquiryRow>
{
    private const int MostNames = 200;

    public override string Name => "inquiries";

    protected override Expression<Func<Inquiry, Id<Inquiry>>> Identifier => inquiry => inquiry.Id;

    public override IReadOnlyList<ListFilter<Inquiry, InquiryQuery>> Filters =>
        [
            Several("needs", "Any status", query => query.Needs, inquiry => inquiry.Need, Fixed<InquiryNeed>(need => need.Say())),
            Several(
                "fits",
                "Any fit",
                query => [.. query.Fits.Select(fit => (Fit?)fit)],
                inquiry => inquiry.Fit,
                Fixed<Fit>(fit => fit.Say())
            ),
            Several(
                "forms",
                "All forms",
                query => [.. query.Forms.Select(form => new Id<Form>(form))],
                inquiry => inquiry.FormId,
                FormsAsync
            ),
            Several("lookedAfterBy", "Assigned to anyone", query => query.LookedAfterBy, inquiry => inquiry.LooksAfterId, PeopleAsync),
            Switch("flagged", "flagged", query => query.Flagged, inquiry => inquiry.Flags > 0) with
            {
                Further = "",
            },
            Several("stages", "Any stage", query => query.Stages, inquiry => inquiry.Stage, StagesAsync) with
            {
                Further = "stage",
            },
            Several(
                "services",
                "Any service",
                query => query.Services,
                inquiry => inquiry.Service,
                cancellationToken => NamesAsync(inquiry => inquiry.Service, cancellationToken)
            ) with
            {
                Further = "service",
            },
            Several(
                "sources",
                "Any source",
                query => query.Sources,
                inquiry => inquiry.Source,
                cancellationToken => NamesAsync(inquiry => inquiry.Source, cancellationToken)
            ) with
            {
                Further = "source",
            },
        ];

    public override IReadOnlyList<ListOrder<Inquiry>> Orders =>
        [
            InOrder("need", "Sort by urgency", false, By(inquiry => (int)inquiry.Need), By(inquiry => inquiry.Urgency)),
            InOrder("received", "when they came", true, By(inquiry => inquiry.Received)),
            InOrder("score", "points", true, By(inquiry => inquiry.Score)),
            InOrder("budget", "budget", true, By(inquiry => inquiry.BudgetAmount)),
            InOrder("name", "name", false, By(inquiry => inquiry.SortName)),
        ];

    protected override string OrderOf(InquiryQuery query) => Json.NameOf(query.Order);

    protected override async Task<IQueryable<Inquiry>> AllAsync(InquiryQuery query, CancellationToken cancellationToken)
    {
        var all = db.Inquiries.AsNoTracking();
        if (query.Needs.Count == 0)
            all = all.Where(inquiry => inquiry.Need != InquiryNeed.Aside);
        if (string.IsNullOrWhiteSpace(query.Words))
            return all;
        await search.CatchUpSoonAsync(cancellationToken);
        var clients = search.Find(query.Words);
        return all.Where(inquiry => clients.Contains(inquiry.ClientId));
    }

    protected override async Task<IReadOnlyList<ListGroup>> GroupsAsync(IQueryable<Inquiry> found, CancellationToken cancellationToken) =>
        [
            .. (
                await found
                    .GroupBy(inquiry => inquiry.Need)
                    .Select(same => new { same.Key, Count = same.Count() })
                    .ToListAsync(cancellationToken)
            )
                .OrderBy(group => group.Key)
                .Select(group => new ListGroup(Json.NameOf(group.Key), group.Key.Say(), group.Count)),
        ];

    protected override async Task<IReadOnlyList<InquiryRow>> RowsAsync(
        IReadOnlyList<Id<Inquiry>> ids,
        InquiryQuery query,
        CancellationToken cancellationToken
    ) => await InquiryRows.OfAsync(db, await ReadAsync(ids, cancellationToken), clock.GetCurrentInstant(), cancellationToken);

    public override Task WriteAsync(
        Stream stream,
        IReadOnlyList<Id<Inquiry>> ids,
        InquiryQuery query,
        CancellationToken cancellationToken
    ) => InquiriesCsv.WriteAsync(stream, ids, db, clock.GetCurrentInstant(), cancellationToken);

    private async Task<List<Inquiry>> ReadAsync(IReadOnlyList<Id<Inquiry>> ids, CancellationToken cancellationToken)
    {
        var found = await db
            .Inquiries.AsNoTracking()
            .Where(inquiry => ids.Contains(inquiry.Id))
            .ToDictionaryAsync(inquiry => inquiry.Id, cancellationToken);
        return [.. ids.Where(found.ContainsKey).Select(id => found[id])];
    }

    private async Task<IReadOnlyList<FilterChoice>> FormsAsync(CancellationToken cancellationToken) =>
        [
            .. (
                await db
                    .Forms.AsNoTracking()
                    .Where(form => db.CountingInquiries.Any(inquiry => inquiry.FormId == form.Id))
                    .ToListAsync(cancellationToken)
            )
                .Select(form => new FilterChoice(form.Id.ToString(), form.Draft.Title))
                .OrderBy(form => form.Words, NaturalOrder.Instance),
        ];

    private async Task<IReadOnlyList<FilterChoice>> PeopleAsync(CancellationToken cancellationToken) =>
        [
            new(null, "assigned to no one"),
            .. (await db.Users.AsNoTracking().ToListAsync(cancellationToken))
                .Select(user => new FilterChoice(user.Id.ToString(), user.DisplayName))
                .OrderBy(user => user.Words, NaturalOrder.Instance),
        ];

    private async Task<IReadOnlyList<FilterChoice>> StagesAsync(CancellationToken cancellationToken) =>
        [.. (await db.BusinessAsync()).Lists.Stages.Select(stage => new FilterChoice(stage.Key, stage.Name))];

    // What stands in the records, which may hold more than the lists of today.
    private async Task<IReadOnlyList<FilterChoice>> NamesAsync(
        Expression<Func<Inquiry, string?>> name,
        CancellationToken cancellationToken
    ) => Named(await db.CountingInquiries.Select(name).Where(one => one != null).Distinct().Take(MostNames).ToListAsync(cancellationToken));
}
