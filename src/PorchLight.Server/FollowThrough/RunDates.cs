using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.FollowThrough;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.FollowThrough;

/// <summary>
/// Has the worker look again at runs whose step that comes counts from a day of the project, whoever changes such a day.
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
        if (projects.Count == 0)
            return;
        foreach (
            var run in await db
                .Runs.Where(run => run.Active && run.ProjectId != null && projects.Contains(run.ProjectId.Value))
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
