using PorchLight.Core.Common;
using PorchLight.Core.Records;
using PorchLight.Server.Calendar;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.FollowThrough;

/// <summary>What the worker does with a run that is due, each time in a transaction of its own.</summary>
internal sealed class RunWork(PorchDb db, RunEngine engine, EventLog events, BusinessClock clock)
{
    /// <summary>Carries out the next that is due.</summary>
    /// <returns>Whether more of it is due now.</returns>
    public async Task<bool> AdvanceAsync(Id<Run> id, CancellationToken cancellationToken)
    {
        await using var write = await db.WriteAsync(cancellationToken);
        var now = clock.GetCurrentInstant();
        // Read again under the write lock: somebody may have stopped or moved it meanwhile.
        if (await db.Runs.FindAsync([id], cancellationToken) is not { } run || !(run.NextMoment <= now))
            return false;
        await engine.AdvanceAsync(run, now);
        await write.SaveAsync(cancellationToken);
        return run.NextMoment <= now;
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
