using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Core.Inquiries;
using PorchLight.Core.Records;
using PorchLight.Server.Forms;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Screens;

/// <summary>Makes a query of the database of what a list of inquiries asks for. Everything is filtered and put in order there.</summary>
internal sealed class InquiryFinder(PorchDb db, ClientSearch search)
{
    private const string Budget = "project.budget";

    /// <summary>The inquiries a query asks for, in no order.</summary>
    /// <param name="query">The query, checked.</param>
    public IQueryable<Inquiry> Find(InquiryQuery query)
    {
        var found = db.Inquiries.AsNoTracking();
        if (query.Needs is { Count: > 0 } needs)
            found = found.Where(inquiry => needs.Contains(inquiry.Need));
        if (query.Fits is { Count: > 0 } fits)
            found = found.Where(inquiry => inquiry.Fit != null && fits.Contains(inquiry.Fit.Value));
        if (query.Forms.Select(form => new Id<Form>(form)).ToList() is { Count: > 0 } forms)
            found = found.Where(inquiry => forms.Contains(inquiry.FormId));
        if (query.Flagged)
            found = found.Where(inquiry => inquiry.Flags > 0);
        if (query.Stages is { Count: > 0 } stages)
            found = found.Where(inquiry => db.Projects.Any(project => project.Id == inquiry.ProjectId && stages.Contains(project.Stage)));
        if (query.Unassigned)
            found = found.Where(inquiry => db.Projects.Any(project => project.Id == inquiry.ProjectId && project.LooksAfterId == null));
        else if (query.LookedAfterBy is { Count: > 0 } users)
            found = found.Where(inquiry =>
                db.Projects.Any(project =>
                    project.Id == inquiry.ProjectId && project.LooksAfterId != null && users.Contains(project.LooksAfterId.Value)
                )
            );
        if (query.Services.Select(ValueOrder.Fold).ToList() is { Count: > 0 } services)
        {
            var field = BuiltInFields.Service.Key;
            var projects = db
                .FieldValues.Where(value =>
                    value.IsCurrent && value.Field == field && value.OrderText != null && services.Contains(value.OrderText)
                )
                .Select(value => value.ProjectId);
            found = found.Where(inquiry => projects.Contains(inquiry.ProjectId));
        }

        if (query.Sources.Select(ValueOrder.Fold).ToList() is { Count: > 0 } sources)
        {
            var field = BuiltInFields.Source.Key;
            var clients = db
                .FieldValues.Where(value =>
                    value.IsCurrent && value.Field == field && value.OrderText != null && sources.Contains(value.OrderText)
                )
                .Select(value => value.ClientId);
            found = found.Where(inquiry => clients.Contains(inquiry.ClientId));
        }

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
    public IQueryable<Inquiry> InOrder(IQueryable<Inquiry> inquiries, InquiryQuery query) =>
        (query.Order, query.Backwards) switch
        {
            (InquiryOrder.Received, false) => inquiries.OrderByDescending(one => one.Received).ThenByDescending(one => one.Id),
            (InquiryOrder.Received, true) => inquiries.OrderBy(one => one.Received).ThenBy(one => one.Id),
            (InquiryOrder.Score, false) => inquiries.OrderByDescending(one => one.Score).ThenByDescending(one => one.Id),
            (InquiryOrder.Score, true) => inquiries.OrderBy(one => one.Score).ThenBy(one => one.Id),
            (InquiryOrder.Name, var backwards) => ByName(inquiries, backwards),
            (InquiryOrder.Budget, var backwards) => ByBudget(inquiries, backwards),
            (_, false) => inquiries.OrderBy(one => one.Need).ThenBy(one => one.Urgency).ThenBy(one => one.Id),
            (_, true) => inquiries.OrderByDescending(one => one.Need).ThenByDescending(one => one.Urgency).ThenByDescending(one => one.Id),
        };

    private IQueryable<Inquiry> ByName(IQueryable<Inquiry> inquiries, bool backwards)
    {
        var named = inquiries.Join(
            db.Clients.IgnoreQueryFilters(),
            inquiry => inquiry.ClientId,
            client => client.Id,
            (inquiry, client) => new { Inquiry = inquiry, client.SortName }
        );
        return (
            backwards
                ? named.OrderByDescending(one => one.SortName).ThenByDescending(one => one.Inquiry.Id)
                : named.OrderBy(one => one.SortName).ThenBy(one => one.Inquiry.Id)
        ).Select(one => one.Inquiry);
    }

    private IQueryable<Inquiry> ByBudget(IQueryable<Inquiry> inquiries, bool backwards)
    {
        var field = Budget;
        var with = inquiries.Select(inquiry => new
        {
            Inquiry = inquiry,
            Amount = db
                .FieldValues.Where(value => value.ProjectId == inquiry.ProjectId && value.Field == field && value.IsCurrent)
                .Select(value => value.OrderNumber)
                .FirstOrDefault(),
        });
        return (
            backwards
                ? with.OrderBy(one => one.Amount == null).ThenBy(one => one.Amount).ThenBy(one => one.Inquiry.Id)
                : with.OrderBy(one => one.Amount == null).ThenByDescending(one => one.Amount).ThenByDescending(one => one.Inquiry.Id)
        ).Select(one => one.Inquiry);
    }
}
