using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Server.Calendar;
using PorchLight.Server.Hosting;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Identity;

/// <summary>Lets go of ended sessions whose cookies are worth nothing any more.</summary>
internal sealed class EndedSessionSweep(PorchDb db, TimeProvider time) : IDueWork
{
    public DueClock Clock => DueClock.Machine;

    public bool FollowsWrites => false;

    public async Task<Instant?> WorkAsync(CancellationToken cancellationToken)
    {
        await using var write = await db.WriteAsync(cancellationToken);
        var old = time.Now() - Duration.FromTimeSpan(Sessions.Lifetime);
        await db.EndedSessions.Where(ended => ended.At < old).ExecuteDeleteAsync(cancellationToken);
        await write.SaveAsync(cancellationToken);
        return time.Now() + Duration.FromHours(1);
    }
}
