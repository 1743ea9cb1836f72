using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.FollowThrough;

/// <summary>The follow-throughs of a client.</summary>
internal sealed class ClientRuns(PorchDb db, RunEngine engine) : IClientPart
{
    public IEnumerable<ClientRows> RowsOf(WholePerson person)
    {
        var records = person.Records;
        yield return new ClientRows<Run>(db.Runs.Where(run => run.ClientId != null && records.Contains(run.ClientId.Value)))
        {
            WhenMerged = WhenMerged.GoesOver,
            Goes = ("One follow-through that is running", "{0} follow-throughs that are running"),
            Counted = (runs, cancellationToken) => runs.CountAsync(run => run.Active, cancellationToken),
            Saved = run => new
            {
                Project = run.ProjectId,
                run.State.Started,
                run.State.Status,
                run.State.Ended,
                run.State.StoppedBy,
            },
        };
    }

    public Task MergedAsync(ClientMerge merge, Instant now, CancellationToken cancellationToken) =>
        engine.KeepOneJourneyAsync(merge.KeptId, now);

    public async Task<IReadOnlyList<string>> LostBySplittingAsync(ClientMerge merge, CancellationToken cancellationToken)
    {
        var ended = (
            await db
                .Runs.AsNoTracking()
                .Where(run => run.ClientId == merge.KeptId && !run.Active)
                .Join(
                    db.FollowThroughVersions,
                    run => new { run.FollowThroughId, Number = run.FollowThroughNumber },
                    version => new { version.FollowThroughId, version.Number },
                    (run, version) => new { run.State, version.Content }
                )
                .ToListAsync(cancellationToken)
        )
            .Where(run => run.State.Ended == merge.At)
            .Select(run => $"“{run.Content.Name}”")
            .Distinct()
            .ToList();
        return ended.Count == 0 ? [] : [$"{string.Join(" and ", ended)} ended when the two became one, and does not start again."];
    }
}
