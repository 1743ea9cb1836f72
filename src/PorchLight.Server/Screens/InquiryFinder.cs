using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Common;
using PorchLight.Core.Inquiries;
using PorchLight.Server.Forms;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Screens;

/// <summary>Makes a query of the database of what a list of inquiries asks for. Everything is filtered and put in order there.</summary>
internal sealed class InquiryFinder(PorchDb db, ClientSearch search)
{
    /// <summary>The inquiries a query asks for, in no order.</summary>
    /// <param name="query">The query, checked.</param>
    public IQueryable<Inquiry> Find(InquiryQuery query)
    {
        var found = db.Inquiries.AsNoTracking();
        if (query.Needs is { Count: > 0 } needs)
            found = found.Where(inquiry => needs.Contains(inquiry.Need));
        else
            found = found.Where(inquiry => inquiry.Need != InquiryNeed.Aside);
        if (query.Fits is { Count: > 0 } fits)
            found = found.Where(inquiry => inquiry.Fit != null && fits.Contains(inquiry.Fit.Value));
        if (query.Forms.Select(form => new Id<Form>(form)).ToList() is { Count: > 0 } forms)
            found = found.Where(inquiry => forms.Contains(inquiry.FormId));
        if (query.Flagged)
            found = found.Where(inquiry => inquiry.Flags > 0);
        if (query.Stages is { Count: > 0 } stages)
            found = found.Where(inquiry => stages.Contains(inquiry.Stage));
        if (query.Unassigned)
            found = found.Where(inquiry => inquiry.LooksAfterId == null);
        else if (query.LookedAfterBy is { Count: > 0 } users)
            found = found.Where(inquiry => inquiry.LooksAfterId != null && users.Contains(inquiry.LooksAfterId.Value));
        if (query.Services is { Count: > 0 } services)
            found = found.Where(inquiry => inquiry.Service != null && services.Contains(inquiry.Service));
        if (query.Sources is { Count: > 0 } sources)
            found = found.Where(inquiry => inquiry.Source != null && sources.Contains(inquiry.Source));
        if (!string.IsNullOrWhiteSpace(query.Words))
        {
            var ids = search.Find(query.Words);
            found = found.Where(inquiry => ids.Contains(inquiry.ClientId));
        }

        return found;
    }

    /// <summary>The inquiries in the order the query asks for; of two that are alike there always the same one first.</summary>
    /// <param name="inquiries">The inquiries found.</param>
    /// <param name="query">The query, checked.</param>
    public static IQueryable<Inquiry> InOrder(IQueryable<Inquiry> inquiries, InquiryQuery query) =>
        (query.Order, query.Backwards) switch
        {
            (InquiryOrder.Received, false) => inquiries.OrderByDescending(one => one.Received).ThenByDescending(one => one.Id),
            (InquiryOrder.Received, true) => inquiries.OrderBy(one => one.Received).ThenBy(one => one.Id),
            (InquiryOrder.Score, false) => inquiries.OrderByDescending(one => one.Score).ThenByDescending(one => one.Id),
            (InquiryOrder.Score, true) => inquiries.OrderBy(one => one.Score).ThenBy(one => one.Id),
            (InquiryOrder.Name, false) => inquiries.OrderBy(one => one.SortName).ThenBy(one => one.Id),
            (InquiryOrder.Name, true) => inquiries.OrderByDescending(one => one.SortName).ThenByDescending(one => one.Id),
            // In a descending order what is null comes last by itself; in the other one it is asked for.
            (InquiryOrder.Budget, false) => inquiries.OrderByDescending(one => one.BudgetAmount).ThenByDescending(one => one.Id),
            (InquiryOrder.Budget, true) => inquiries
                .OrderBy(one => one.BudgetAmount == null)
                .ThenBy(one => one.BudgetAmount)
                .ThenBy(one => one.Id),
            (_, false) => inquiries.OrderBy(one => one.Need).ThenBy(one => one.Urgency).ThenBy(one => one.Id),
            (_, true) => inquiries.OrderByDescending(one => one.Need).ThenByDescending(one => one.Urgency).ThenByDescending(one => one.Id),
        };
}
