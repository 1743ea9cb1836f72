using NodaTime;
using PorchLight.Server.Hosting;

namespace PorchLight.Server.Messages;

/// <summary>Hands messages over whose time to be tried has come.</summary>
internal sealed class MailWork(MailQueue mail, DueItems items) : IDueWork
{
    public DueClock Clock => DueClock.Machine;

    public bool FollowsWrites => true;

    public async Task<Instant?> WorkAsync(CancellationToken cancellationToken)
    {
        var (allWell, lineWorks) = (true, true);
        foreach (var id in await mail.DueAsync(cancellationToken))
        {
            allWell &= await items.TryAsync(
                "mail",
                id,
                async services => lineWorks = await services.GetRequiredService<MailQueue>().HandOverAsync(id, cancellationToken)
            );
            // One message that waits in vain for a server is enough.
            if (!lineWorks)
                break;
        }

        return allWell ? await mail.NextTryAsync(cancellationToken) : null;
    }

    public Task AfterStartAsync(Duration? stoodStill, CancellationToken cancellationToken) => mail.LookAfterCrashAsync(cancellationToken);
}
