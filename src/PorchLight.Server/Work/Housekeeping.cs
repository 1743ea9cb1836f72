using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Forms;
using PorchLight.Server.Calendar;
using PorchLight.Server.Data;
using PorchLight.Server.Forms;
using PorchLight.Server.Identity;
using PorchLight.Server.Inquiries;

namespace PorchLight.Server.Work;

/// <summary>What has to be done around forms when time passes: telling people that a light is on again, letting go of what was abandoned.</summary>
internal sealed class Housekeeping(PorchDb db, DoorDesk doors, Tellings tellings, KeptDesk kept, BusinessClock clock, TimeProvider time)
{
    /// <summary>Tells those who asked, once a form's light is on, by hand or by its day.</summary>
    public async Task TellOpenAgainAsync(CancellationToken stop)
    {
        // A commit wakes the next pass, so nothing is begun while there is nobody to tell.
        var business = await db.BusinessAsync();
        var lit = new List<Form>();
        foreach (var form in await db.Forms.Where(form => db.OpenAgainWishes.Any(wish => wish.FormId == form.Id)).ToListAsync(stop))
        {
            if (await doors.LightAsync(form, business) == LightState.On)
                lit.Add(form);
        }

        if (lit.Count == 0)
            return;
        await using var transaction = await db.BeginWriteAsync(stop);
        foreach (var form in lit)
            await tellings.TellOpenAgainAsync(form, await db.OpenAgainWishes.Where(wish => wish.FormId == form.Id).ToListAsync(stop), clock.GetCurrentInstant());
        await db.SaveChangesAsync(stop);
        await transaction.CommitAsync(stop);
    }

    /// <summary>Lets go of abandoned filling-ins, of files nobody needs and of send keys nobody presses any more.</summary>
    public async Task SweepAsync(CancellationToken stop)
    {
        var forgotten = time.Now() - DoneAct.Remembered;
        await db.DoneActs.Where(act => act.At < forgotten).ExecuteDeleteAsync(stop);
        var old = time.Now() - Duration.FromTimeSpan(Sessions.Lifetime);
        await db.EndedSessions.Where(ended => ended.At < old).ExecuteDeleteAsync(stop);
        await kept.SweepAsync(stop);
    }
}
