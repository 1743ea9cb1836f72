using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Server.Calendar;
using PorchLight.Server.Hosting;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.FollowThrough;

/// <summary>Carries out the steps of runs that are due.</summary>
internal sealed class RunsWork(PorchDb db, RunWork runs, DueItems items, BusinessClock clock) : IDueWork
{
    private const int RunsAtATime = 200;
    private const int StepsAtATime = 50;

    // Whoever wants to write meanwhile waits for as many steps.
    private const int RunsTogether = 5;

    public DueClock Clock => DueClock.Business;

    public bool FollowsWrites => true;

    public async Task<Instant?> WorkAsync(CancellationToken cancellationToken)
    {
        var now = clock.GetCurrentInstant();
        var due = await db
            .Runs.Where(run => run.NextMoment <= now)
            .OrderBy(run => run.NextMoment)
            .Select(run => run.Id)
            .Take(RunsAtATime)
            .ToListAsync(cancellationToken);
        var allWell = true;
        foreach (var together in due.Chunk(RunsTogether))
            allWell &= await WorkOnAsync(together, cancellationToken);
        return allWell ? await db.Runs.MinAsync(run => run.NextMoment, cancellationToken) : null;
    }

    public Task AfterStartAsync(Duration? stoodStill, CancellationToken cancellationToken) =>
        stoodStill is { } gap ? runs.StoodStillAsync(gap, cancellationToken) : Task.CompletedTask;

    /// <summary>
    /// Carries out what of some runs is due, a step of each in one transaction. When that fails each goes alone: what fails again is put
    /// off, and the others go on.
    /// </summary>
    private async Task<bool> WorkOnAsync(Id<Run>[] together, CancellationToken cancellationToken)
    {
        for (var steps = 0; together.Length > 0 && steps < StepsAtATime; steps++)
        {
            Exception? failed = null;
            if (
                await items.TryAsync(
                    "run",
                    string.Join(", ", together),
                    async services => together = await services.GetRequiredService<RunWork>().AdvanceAsync(together, cancellationToken),
                    // What a person can put right is no failure of the program.
                    failure => failure is StepFailedException ? LogLevel.Warning : LogLevel.Error,
                    failure => failed = failure
                )
            )
                continue;
            if (together is [var alone])
                return await items.TryAsync(
                    "run",
                    alone,
                    services => services.GetRequiredService<RunWork>().PutOffAsync(alone, failed!, cancellationToken)
                );
            var allWell = true;
            foreach (var run in together)
                allWell &= await WorkOnAsync([run], cancellationToken);
            return allWell;
        }

        return true;
    }
}
