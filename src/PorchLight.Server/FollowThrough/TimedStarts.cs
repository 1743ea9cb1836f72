using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Projects;
using PorchLight.Server.Calendar;
using PorchLight.Server.Forms;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.FollowThrough;

/// <summary>Starts follow-throughs when time has passed: after a form was left half-finished, and on days counted from a date.</summary>
internal sealed class TimedStarts(PorchDb db, RunEngine engine, BusinessClock clock, TimeProvider time)
{
    /// <summary>Starts what is to follow forms that were left half-finished.</summary>
    public async Task AfterLeavingAsync(CancellationToken cancellationToken)
    {
        var live = await LiveAsync<LeftUnfinishedStart>(cancellationToken);
        if (live.Count == 0)
            return;
        // A commit wakes the next pass, so nothing is begun while there is nothing to start.
        var due = await DueAsync(live, cancellationToken);
        if (due.Count == 0)
            return;
        await using var write = await db.WriteAsync(cancellationToken);
        // Asked again under the write lock: somebody may have come back meanwhile, or switched it off.
        live = await LiveAsync<LeftUnfinishedStart>(cancellationToken);
        foreach (var (id, versions) in live.Count == 0 ? [] : await DueAsync(live, cancellationToken))
        {
            var unfinished = (await db.UnfinishedForms.FindAsync([id], cancellationToken))!;
            foreach (var version in FollowThroughs.Of(versions, one => one.Content))
                await engine.StartAsync(version, unfinished, clock.GetCurrentInstant());
        }

        await write.SaveAsync(cancellationToken);
    }

    /// <summary>When the next form will have been left half-finished for long enough to start something; null for none.</summary>
    public async Task<Instant?> NextAfterLeavingAsync(CancellationToken cancellationToken)
    {
        var hours = (await LiveAsync<LeftUnfinishedStart>(cancellationToken))
            .Select(one => Duration.FromHours(((LeftUnfinishedStart)one.Content.Starts).Hours))
            .Distinct()
            .ToList();
        if (hours.Count == 0)
            return null;
        var now = time.Now();
        var earliest = now - hours.Max();
        var saved = await db
            .UnfinishedForms.Where(unfinished => unfinished.Ended == null && unfinished.Saved > earliest)
            .Select(unfinished => unfinished.Saved)
            .ToListAsync(cancellationToken);
        return saved.SelectMany(at => hours.Select(after => at + after)).Where(at => at > now).Select(at => (Instant?)at).Min();
    }

    private async Task<IReadOnlyList<(Id<UnfinishedForm> Draft, IReadOnlyList<FollowThroughVersion> Versions)>> DueAsync(
        IReadOnlyList<FollowThroughVersion> live,
        CancellationToken cancellationToken
    )
    {
        var now = time.Now();
        var latest = now - Duration.FromHours(live.Min(one => ((LeftUnfinishedStart)one.Content.Starts).Hours));
        var unfinishedForms = await db
            .UnfinishedForms.AsNoTracking()
            .Where(unfinished => unfinished.Ended == null && unfinished.GoodUntil > now && unfinished.Saved <= latest)
            .Select(unfinished => new
            {
                unfinished.Id,
                unfinished.FormId,
                unfinished.Saved,
                unfinished.Revision,
                MayBeWrittenTo = unfinished.MayFollowUp && unfinished.FollowedUp == null && unfinished.MailedTo != null,
            })
            .ToListAsync(cancellationToken);
        if (unfinishedForms.Count == 0)
            return [];
        var begun = (
            await db
                .Runs.AsNoTracking()
                .Where(run => run.UnfinishedFormId != null)
                .Select(run => new
                {
                    run.UnfinishedFormId,
                    run.DraftRevision,
                    run.FollowThroughId,
                })
                .ToListAsync(cancellationToken)
        ).Select(run => (run.UnfinishedFormId!.Value, run.DraftRevision!.Value, run.FollowThroughId)).ToHashSet();
        return
        [
            .. unfinishedForms
                .Select(unfinished =>
                    (
                        unfinished.Id,
                        Versions: (IReadOnlyList<FollowThroughVersion>)
                            [
                                .. live.Where(one =>
                                    ((LeftUnfinishedStart)one.Content.Starts).IsStartedBy(unfinished.FormId.Value, now - unfinished.Saved)
                                    && (unfinished.MayBeWrittenTo || !one.Content.Steps.Any(step => step.Action.IsMessage()))
                                    && !begun.Contains((unfinished.Id, unfinished.Revision, one.FollowThroughId))
                                ),
                            ]
                    )
                )
                .Where(one => one.Versions.Count > 0),
        ];
    }

    /// <summary>Starts what is to follow on days that have come since it was asked last.</summary>
    public async Task OnDaysAsync(CancellationToken cancellationToken)
    {
        var business = await db.BusinessAsync();
        var today = Today(business);
        if (business.DaysLookedAt >= today)
            return;
        await using var write = await db.WriteAsync(cancellationToken);
        business = await db.BusinessAsync();
        var live = await LiveAsync<DatedStart>(cancellationToken);
        if (live.Count > 0)
        {
            var dates = await DatesAsync(live, cancellationToken);
            for (var day = DatedStart.FirstDay(business.DaysLookedAt, today); day <= today; day = day.PlusDays(1))
                await OnDayAsync(day, live, dates, business.Lists.Stages, cancellationToken);
        }

        business.DaysLookedAt = today;
        await write.SaveAsync(cancellationToken);
    }

    private async Task OnDayAsync(
        LocalDate day,
        IReadOnlyList<FollowThroughVersion> live,
        IReadOnlyList<FieldValue> dates,
        IReadOnlyList<Stage> stages,
        CancellationToken cancellationToken
    )
    {
        foreach (var about in dates.GroupBy(value => (value.ClientId, value.ProjectId)))
        {
            var come = live.Where(one => about.Any(value => IsMeant(one, value, day))).ToList();
            if (come.Count == 0 || await AboutAsync(about.Key.ClientId, about.Key.ProjectId, stages, cancellationToken) is not { } context)
                continue;
            foreach (var version in FollowThroughs.Of(come, one => one.Content))
                await engine.StartAsync(version, context, clock.GetCurrentInstant());
        }
    }

    private static bool IsMeant(FollowThroughVersion version, FieldValue value, LocalDate day) =>
        version.Content.Starts is DatedStart start && start.Field == value.Field && start.Comes(((DateAnswer)value.Value!).Date, day);

    /// <summary>What it is about; null where nobody is to be followed up: archived clients, and work that was lost.</summary>
    private async Task<EventContext?> AboutAsync(
        Id<Client> client,
        Id<Project>? project,
        IReadOnlyList<Stage> stages,
        CancellationToken cancellationToken
    )
    {
        var found = project is { } id
            ? await db.Projects.FindAsync([id], cancellationToken)
            : await db.Projects.FirstOrDefaultAsync(one => one.ClientId == client && one.IsLatest, cancellationToken);
        var stage = project is null ? null : stages.FirstOrDefault(stage => stage.Key == found!.Stage);
        if (
            await db.CountingClients.FirstOrDefaultAsync(one => one.Id == client, cancellationToken) is not { } person
            || !DatedStart.Concerns(person.Standing, stage?.Kind)
        )
            return null;
        var inquiry = found is null ? null : await engine.LatestInquiryAsync(found.Id);
        return new EventContext(client, found?.Id, inquiry);
    }

    private async Task<List<FieldValue>> DatesAsync(IReadOnlyList<FollowThroughVersion> live, CancellationToken cancellationToken)
    {
        var fields = live.Select(one => ((DatedStart)one.Content.Starts).Field).Distinct().ToList();
        return
        [
            .. (
                await db
                    .FieldValues.AsNoTracking()
                    .Where(value => value.IsCurrent && fields.Contains(value.Field))
                    .ToListAsync(cancellationToken)
            ).Where(value => value.Value is DateAnswer),
        ];
    }

    private async Task<IReadOnlyList<FollowThroughVersion>> LiveAsync<T>(CancellationToken cancellationToken)
        where T : StartOn =>
        [.. (await CompiledQueries.LiveFollowThroughs(db).ToListAsync(cancellationToken)).Where(one => one.Content.Starts is T)];

    private LocalDate Today(Brand.Business business) => business.Calendar.Today(clock.GetCurrentInstant());
}
