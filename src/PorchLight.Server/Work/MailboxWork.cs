using NodaTime;
using PorchLight.Server.Calendar;
using PorchLight.Server.Hosting;

namespace PorchLight.Server.Work;

/// <summary>Reads the mailbox once a minute.</summary>
internal sealed class MailboxWork(Mailbox mailbox, TimeProvider time) : IDueWork
{
    private static readonly Duration Between = Duration.FromMinutes(1);

    public DueClock Clock => DueClock.Machine;

    public bool FollowsWrites => false;

    public async Task<Instant?> WorkAsync(CancellationToken cancellationToken)
    {
        await mailbox.ReadAsync(cancellationToken);
        return time.Now() + Between;
    }
}
