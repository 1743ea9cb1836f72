using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;
using PorchLight.Core.Inquiries;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Storage;

namespace PorchLight.Server.AcrossAreas;

/// <summary>An inquiry in a list.</summary>
/// <param name="Need">What it needs.</param>
/// <param name="Flags">How many flags are up.</param>
/// <param name="Service">What it is about, by the records; null for nothing in particular.</param>
/// <param name="Budget">The budget by the records, in words; else null.</param>
/// <param name="Source">How they found the business; else null.</param>
/// <param name="LooksAfter">Who looks after it; null for nobody.</param>
/// <param name="Stage">The key of the stage of its project.</param>
/// <param name="StageName">What that stage is called.</param>
/// <param name="Until">Until which day it is parked, in words; else null.</param>
/// <param name="LostReason">Why it will not come; else null.</param>
/// <param name="Promise">Until when, in words; null when nothing is owed (any more).</param>
/// <param name="WhenExactly">The promise, or when they wrote last, with date and zone.</param>
/// <param name="WaitsFor">The month on whose waiting list it stands, in words; else null.</param>
/// <param name="Urgent">Whether it wants somebody today.</param>
/// <param name="WroteBack">When they wrote and were not answered since, in words; else null.</param>
internal sealed record InquiryRow(
    Id<Inquiry> Id,
    string Name,
    FitLabel? Fit,
    int Score,
    int Flags,
    InquiryNeed Need,
    string About,
    string Received,
    string? Service,
    string? Budget,
    string? Source,
    string? LooksAfter,
    string Stage,
    string StageName,
    string? Until,
    string? LostReason,
    string? Promise,
    string WhenExactly,
    PromiseGroup? Group,
    bool Urgent,
    bool CallAsked,
    string? WaitsFor,
    string? WroteBack
);

/// <summary>Makes rows of inquiries, of columns alone: no version of a form is read for a list.</summary>
internal static class InquiryRows
{
    /// <summary>A row for each, in the same order.</summary>
    public static async Task<List<InquiryRow>> OfAsync(
        PorchDb db,
        IReadOnlyList<Inquiry> inquiries,
        Instant now,
        CancellationToken cancellationToken
    )
    {
        var business = await db.BusinessAsync();
        var (zone, today) = (business.DateTimeZone, business.Calendar.Today(now));
        var stages = business.Lists.Stages.ToDictionary(stage => stage.Key);
        var projectIds = inquiries.Select(inquiry => inquiry.ProjectId).Distinct().ToList();
        var clientIds = inquiries.Select(inquiry => inquiry.ClientId).Distinct().ToList();
        var projects = await db
            .Projects.AsNoTracking()
            .Where(project => projectIds.Contains(project.Id))
            .ToDictionaryAsync(project => project.Id, cancellationToken);
        var names = await db
            .Clients.IgnoreQueryFilters()
            .Where(client => clientIds.Contains(client.Id))
            .ToDictionaryAsync(client => client.Id, client => client.Name, cancellationToken);
        var carers = projects.Values.Select(project => project.LooksAfterId).OfType<Guid>().Distinct().ToList();
        var users =
            carers.Count == 0
                ? []
                : await db
                    .Users.Where(user => carers.Contains(user.Id))
                    .ToDictionaryAsync(user => user.Id, user => user.DisplayName, cancellationToken);
        return
        [
            .. inquiries.Select(inquiry =>
            {
                var project = projects[inquiry.ProjectId];
                var owed = inquiry is { PromiseStopped: null, Aside: null };
                var deadline = owed ? inquiry.PromisedBy : null;
                PromiseGroup? group =
                    owed ? TodayNote.Group(deadline, now, zone)
                    : inquiry is { WroteBack: not null, Aside: null } ? PromiseGroup.WroteBack
                    : null;
                return new InquiryRow(
                    inquiry.Id,
                    names[inquiry.ClientId],
                    FitLabel.Of(inquiry.Fit),
                    inquiry.Score,
                    inquiry.Flags,
                    inquiry.Need,
                    inquiry.About,
                    TimeWords.InList(inquiry.Received, now, zone),
                    inquiry.Service,
                    inquiry.Budget,
                    inquiry.Source,
                    project.LooksAfterId is { } user ? users.GetValueOrDefault(user) : null,
                    project.Stage,
                    stages.GetValueOrDefault(project.Stage)?.Name ?? project.Stage,
                    project.ParkedUntil is { } until ? TimeWords.Day(until, today) : null,
                    project.LostReason,
                    deadline is { } due ? DeadlineWords.InList(due, now, business.Calendar) : null,
                    deadline is { } exact
                        ? $"{DeadlineWords.ToOwner(exact, now, business.Calendar)} ({TimeWords.Exactly(exact, zone)})"
                        : $"Wrote {TimeWords.Exactly(inquiry.WroteBack ?? inquiry.Received, zone)}",
                    group,
                    TodayNote.IsUrgent(group, inquiry is { WroteBack: not null, Aside: null }),
                    inquiry.CallAsked is not null,
                    InquiryEndpoints.WaitsFor(inquiry),
                    inquiry.WroteBack is { } wrote ? TimeWords.InList(wrote, now, zone) : null
                );
            }),
        ];
    }
}
