using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Forms;
using PorchLight.Server.Calendar;
using PorchLight.Server.Hosting;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Clients;

/// <summary>Lets go of files that were looked at and never brought in: each is somebody's address book.</summary>
internal sealed class LookedAtImportSweep(PorchDb db, BusinessClock clock) : IDueWork
{
    public DueClock Clock => DueClock.Business;

    public bool FollowsWrites => false;

    public async Task<Instant?> WorkAsync(CancellationToken cancellationToken)
    {
        await using var write = await db.WriteAsync(cancellationToken);
        var now = clock.GetCurrentInstant();
        var looked = now - Retention.LookedAtImport;
        await db
            .ClientImports.Where(import => import.State == ImportState.Looked && import.At < looked)
            .ExecuteDeleteAsync(cancellationToken);
        await write.SaveAsync(cancellationToken);
        return now + Duration.FromHours(1);
    }
}
