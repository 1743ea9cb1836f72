using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Forms;
using PorchLight.Core.Messages;
using PorchLight.Server.Calendar;
using PorchLight.Server.Hosting;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Messages;

/// <summary>
/// Lets go of what only says that something was carried: mail of the program itself, and the practice mailbox of a business of one's own.
/// Mail with clients stays with them.
/// </summary>
internal sealed class CarriedMailSweep(PorchDb db, BusinessClock clock) : IDueWork
{
    public DueClock Clock => DueClock.Business;

    public bool FollowsWrites => false;

    public async Task<Instant?> WorkAsync(CancellationToken cancellationToken)
    {
        await using var write = await db.WriteAsync(cancellationToken);
        var now = clock.GetCurrentInstant();
        var old = now - Retention.CarriedMail;
        await db
            .OutgoingMail.Where(mail => mail.ClientId == null && mail.State == MailState.HandedOver && mail.Written < old)
            .ExecuteDeleteAsync(cancellationToken);
        if (!(await db.BusinessAsync()).IsDemo)
            await db.PracticeMail.Where(mail => mail.At < old).ExecuteDeleteAsync(cancellationToken);
        await write.SaveAsync(cancellationToken);
        return now + Duration.FromHours(1);
    }
}
