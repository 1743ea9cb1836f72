using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Server.Calendar;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Hosting;

/// <summary>Lets go of send keys that nobody presses any more.</summary>
internal sealed class SendKeySweep(PorchDb db, TimeProvider time) : IDueWork
{
    public DueClock Clock => DueClock.Machine;

    public bool FollowsWrites => false;

    public async Task<Instant?> WorkAsync(CancellationToken cancellationToken)
    {
        await using var write = await db.WriteAsync(cancellationToken);
        var forgotten = time.Now() - CompletedRequest.Remembered;
        await db.CompletedRequests.Where(act => act.At < forgotten).ExecuteDeleteAsync(cancellationToken);
        await write.SaveAsync(cancellationToken);
        return time.Now() + Duration.FromHours(1);
    }
}
