using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Forms;
using PorchLight.Core.Webhooks;
using PorchLight.Server.Calendar;
using PorchLight.Server.Hosting;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Webhooks;

/// <summary>Lets go of what webhooks were told, once they have taken it and nobody asks for it any more.</summary>
internal sealed class TakenCallSweep(PorchDb db, BusinessClock clock) : IDueWork
{
    public DueClock Clock => DueClock.Business;

    public bool FollowsWrites => false;

    public async Task<Instant?> WorkAsync(CancellationToken cancellationToken)
    {
        await using var write = await db.WriteAsync(cancellationToken);
        var now = clock.GetCurrentInstant();
        var old = now - Retention.CarriedMail;
        await db.WebhookCalls.Where(call => call.State == WebhookState.Taken && call.Written < old).ExecuteDeleteAsync(cancellationToken);
        await write.SaveAsync(cancellationToken);
        return now + Duration.FromHours(1);
    }
}
