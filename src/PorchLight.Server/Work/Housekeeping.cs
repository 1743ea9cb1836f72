using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Forms;
using PorchLight.Server.Calendar;
using PorchLight.Server.Data;
using PorchLight.Server.Inquiries;

namespace PorchLight.Server.Work;

/// <summary>What has to be done around forms when time passes: telling people that a light is on again, letting go of what was abandoned.</summary>
internal sealed class Housekeeping(PorchDb db, DoorDesk doors, Tellings tellings, KeptDesk kept, BusinessClock clock)
{
    /// <summary>Tells those who asked, once a form's light is on, by hand or by its day.</summary>
    public async Task TellOpenAgainAsync(CancellationToken stop)
    {
        if (!await db.OpenAgainWishes.AnyAsync(stop))
            return;
        await using var transaction = await db.BeginWriteAsync(stop);
        var business = await db.BusinessAsync();
        foreach (var wishes in (await db.OpenAgainWishes.ToListAsync(stop)).GroupBy(wish => wish.FormId))
        {
            if (await db.Forms.FindAsync([wishes.Key], stop) is { } form && await doors.LightAsync(form, business) == LightState.On)
                await tellings.TellOpenAgainAsync(form, wishes, clock.GetCurrentInstant());
        }

        await db.SaveChangesAsync(stop);
        await transaction.CommitAsync(stop);
    }

    /// <summary>Lets go of abandoned filling-ins and of files nobody needs.</summary>
    public Task SweepAsync(CancellationToken stop) => kept.SweepAsync(stop);
}
