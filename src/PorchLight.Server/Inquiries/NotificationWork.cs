using NodaTime;
using PorchLight.Server.Calendar;
using PorchLight.Server.Hosting;

namespace PorchLight.Server.Inquiries;

/// <summary>Writes the mails that are due to people of the business about what came in.</summary>
internal sealed class NotificationWork(Notifications notifications, BusinessClock clock) : IDueWork
{
    public DueClock Clock => DueClock.Business;

    public bool FollowsWrites => true;

    public async Task<Instant?> WorkAsync(CancellationToken cancellationToken)
    {
        await notifications.TellDueAsync(clock.GetCurrentInstant(), cancellationToken);
        return await notifications.NextAsync(cancellationToken);
    }
}
