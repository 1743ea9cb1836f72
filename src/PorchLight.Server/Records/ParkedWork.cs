using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Server.Calendar;
using PorchLight.Server.Hosting;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Records;

/// <summary>Brings projects back that were parked until a day, once it has come.</summary>
internal sealed class ParkedWork(PorchDb db, ProjectStages stages, BusinessClock clock) : IDueWork
{
    public DueClock Clock => DueClock.Business;

    // Somebody may park work until today, or change the business's zone.
    public bool FollowsWrites => true;

    public async Task<Instant?> WorkAsync(CancellationToken cancellationToken)
    {
        var (now, calendar) = (clock.GetCurrentInstant(), (await db.BusinessAsync()).Calendar);
        var today = calendar.Today(now);
        // A commit wakes the next pass, so nothing is begun while nothing comes back.
        if (await db.Projects.AnyAsync(one => one.ParkedUntil <= today, cancellationToken))
        {
            await using var write = await db.WriteAsync(cancellationToken);
            foreach (var project in await db.Projects.Where(one => one.ParkedUntil <= today).ToListAsync(cancellationToken))
                await stages.ComeBackAsync(project, now);
            await write.SaveAsync(cancellationToken);
        }

        return calendar.Tomorrow(now);
    }
}
