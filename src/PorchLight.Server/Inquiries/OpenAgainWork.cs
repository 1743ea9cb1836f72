using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Forms;
using PorchLight.Server.Calendar;
using PorchLight.Server.Forms;
using PorchLight.Server.Hosting;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Inquiries;

/// <summary>Tells those who asked, once a form's light is on, by hand or by its day.</summary>
internal sealed class OpenAgainWork(PorchDb db, FormAccess access, Notifications notifications, BusinessClock clock) : IDueWork
{
    public DueClock Clock => DueClock.Business;

    public bool FollowsWrites => true;

    public async Task<Instant?> WorkAsync(CancellationToken cancellationToken)
    {
        // A commit wakes the next pass, so nothing is begun while there is nobody to tell.
        if ((await OpenFormsAsync(cancellationToken)).Count > 0)
        {
            await using var write = await db.WriteAsync(cancellationToken);
            foreach (var form in await OpenFormsAsync(cancellationToken))
                await notifications.TellOpenAgainAsync(
                    form,
                    await db.ReopenSubscriptions.Where(wish => wish.FormId == form.Id).ToListAsync(cancellationToken),
                    clock.GetCurrentInstant()
                );
            await write.SaveAsync(cancellationToken);
        }

        return (await db.BusinessAsync()).Calendar.Tomorrow(clock.GetCurrentInstant());
    }

    /// <summary>The forms that are open and for which somebody asked to be told so.</summary>
    private async Task<IReadOnlyList<Form>> OpenFormsAsync(CancellationToken cancellationToken)
    {
        var (business, lit) = (await db.BusinessAsync(), new List<Form>());
        foreach (
            var form in await db
                .Forms.Where(form => db.ReopenSubscriptions.Any(wish => wish.FormId == form.Id))
                .ToListAsync(cancellationToken)
        )
        {
            if (await access.LightAsync(form, business) == LightState.On)
                lit.Add(form);
        }

        return lit;
    }
}
