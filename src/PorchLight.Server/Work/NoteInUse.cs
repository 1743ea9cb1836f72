using NodaTime;
using PorchLight.Server.Calendar;
using PorchLight.Server.Hosting;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Work;

/// <summary>Notes every minute that the program runs, so that the next start knows how long it did not.</summary>
internal sealed class NoteInUse(DataFolder folder, TimeProvider time) : IDueWork
{
    private static readonly Duration Between = Duration.FromMinutes(1);

    /// <summary>A longer gap than this is none between two notes.</summary>
    public static readonly Duration LongestBetween = 2 * Between;

    public DueClock Clock => DueClock.Machine;

    public bool FollowsWrites => false;

    public Task<Instant?> WorkAsync(CancellationToken cancellationToken)
    {
        var now = time.Now();
        folder.NoteInUse(now);
        return Task.FromResult<Instant?>(now + Between);
    }

    public Task AfterStartAsync(Duration? stoodStill, CancellationToken cancellationToken) => WorkAsync(cancellationToken);
}
