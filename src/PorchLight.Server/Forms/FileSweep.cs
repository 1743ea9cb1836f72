using NodaTime;
using PorchLight.Server.Calendar;
using PorchLight.Server.Hosting;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Forms;

/// <summary>Removes uploads whose form was never sent, and files nobody knows any more.</summary>
internal sealed class FileSweep(PorchDb db, FileStore store, TimeProvider time) : IDueWork
{
    public DueClock Clock => DueClock.Machine;

    public bool FollowsWrites => false;

    public async Task<Instant?> WorkAsync(CancellationToken cancellationToken)
    {
        await store.SweepAsync(db, cancellationToken);
        return time.Now() + Duration.FromHours(1);
    }
}
