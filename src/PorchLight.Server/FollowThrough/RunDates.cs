using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.FollowThrough;
using PorchLight.Server.Meetings;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.FollowThrough;

/// <summary>
/// Has the worker look again at runs whose step that comes counts from a day of the project or from a meeting, whoever changes those.
/// </summary>
internal sealed class RunDates : IDerivedColumns
{
    private static readonly Instant AtOnce = Instant.FromUnixTimeTicks(0);

    public async Task RefreshAsync(PorchDb db, CancellationToken cancellationToken)
    {
        var projects = db
            .ChangeTracker.Entries<FieldValue>()
            .Where(entry => entry.State == EntityState.Added && entry.Entity is { ProjectId: not null } value && IsDay(value))
            .Select(entry => entry.Entity.ProjectId!.Value)
            .ToHashSet();
        var meetings = db
            .ChangeTracker.Entries<Meeting>()
            .Where(entry => entry.State is EntityState.Added or EntityState.Modified)
            .Select(entry => entry.Entity)
            .ToList();
        projects.UnionWith(meetings.Select(meeting => meeting.ProjectId).OfType<Id<Project>>());
        var moved = meetings.Select(meeting => meeting.Id).ToHashSet();
        if (projects.Count == 0 && moved.Count == 0)
            return;
        foreach (
            var run in await db
                .Runs.Where(run =>
                    run.Active
                    && (
                        run.ProjectId != null && projects.Contains(run.ProjectId.Value)
                        || run.MeetingId != null && moved.Contains(run.MeetingId.Value)
                    )
                )
                .ToListAsync(cancellationToken)
        )
        {
            if (
                run.State.Next is { Status: StepStatus.Planned } next
                && (await db.VersionOfAsync(run)).Content.Step(next.Key).Schedule.Anchor.CanMove()
            )
                run.NextMoment = AtOnce;
        }
    }

    private static bool IsDay(FieldValue value) => value.Value is DateAnswer || value.Before is DateAnswer;
}
