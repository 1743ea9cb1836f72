using NodaTime;
using PorchLight.Server.Calendar;
using PorchLight.Server.Hosting;
using PorchLight.Server.Storage;

namespace PorchLight.Server.FollowThrough;

/// <summary>Starts what follows forms that were left half-finished.</summary>
internal sealed class StartsAfterLeaving(TimedStarts starts) : IDueWork
{
    public DueClock Clock => DueClock.Machine;

    public bool FollowsWrites => true;

    public async Task<Instant?> WorkAsync(CancellationToken cancellationToken)
    {
        await starts.AfterLeavingAsync(cancellationToken);
        return await starts.NextAfterLeavingAsync(cancellationToken);
    }
}

/// <summary>Starts what follows a day, once it has come.</summary>
internal sealed class StartsOnDays(TimedStarts starts, PorchDb db, BusinessClock clock) : IDueWork
{
    public DueClock Clock => DueClock.Business;

    // Whoever changes the zone of the business may change the day.
    public bool FollowsWrites => true;

    public async Task<Instant?> WorkAsync(CancellationToken cancellationToken)
    {
        await starts.OnDaysAsync(cancellationToken);
        return (await db.BusinessAsync()).Calendar.Tomorrow(clock.GetCurrentInstant());
    }
}
