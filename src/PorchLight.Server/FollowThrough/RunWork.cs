using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Core.FollowThrough;
using PorchLight.Server.Calendar;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.FollowThrough;

/// <summary>What the worker does with runs that are due, in as few transactions as can be.</summary>
internal sealed class RunWork(PorchDb db, RunEngine engine, EventLog events, BusinessClock clock)
{
    /// <summary>
    /// Carries out the next that is due of each run, all in one transaction: waiting for the disk takes longer than many a step. Each
    /// sees what those before it did, as if it had been committed; when one fails, nothing has happened.
    /// </summary>
    /// <returns>Those of which more is due now.</returns>
    public async Task<Id<Run>[]> AdvanceAsync(IReadOnlyList<Id<Run>> ids, CancellationToken cancellationToken)
    {
        await using var write = await db.WriteAsync(cancellationToken);
        var stillDue = new List<Id<Run>>();
        foreach (var id in ids)
        {
            var now = clock.GetCurrentInstant();
            // Read under the write lock: somebody may have stopped or moved it meanwhile.
            if (await db.Runs.FindAsync([id], cancellationToken) is not { } run || !(run.NextMoment <= now))
                continue;
            await engine.AdvanceAsync(run, now);
            await write.FlushAsync(cancellationToken);
            if (run.NextMoment <= now)
                stillDue.Add(id);
        }

        await write.SaveAsync(cancellationToken);
        return [.. stillDue];
    }

    /// <summary>Gives every nod that was waited for the time back in which the program did not run.</summary>
    public async Task StoodStillAsync(Duration gap, CancellationToken cancellationToken)
    {
        await using var write = await db.WriteAsync(cancellationToken);
        var now = clock.GetCurrentInstant();
        foreach (var run in await db.Runs.Where(run => run.NodStatus == StepStatus.Waiting).ToListAsync(cancellationToken))
            await engine.StoodStillAsync(run, now - gap, now);
        await write.SaveAsync(cancellationToken);
    }

    /// <summary>
    /// Notes why what was due has failed, and when it is tried again; after growing pauses it waits for a person, with its reason.
    /// </summary>
    public async Task PutOffAsync(Id<Run> id, Exception failure, CancellationToken cancellationToken)
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.Runs.FindAsync([id], cancellationToken) is not { Active: true } run)
            return;
        var now = clock.GetCurrentInstant();
        run.Tries++;
        run.Failure = failure is StepFailedException ? failure.Message : "Something went wrong in the program itself; its log says more.";
        var pause = Retries.PauseAfter(run.Tries);
        run.NextMoment = now + pause;
        if (pause is null && run.State.Current is { } step)
            await events.AppendAsync(new RunFailed(step.Key), now, new EventContext(run.ClientId, run.ProjectId, run.InquiryId, run.Id));
        await write.SaveAsync(cancellationToken);
    }
}
