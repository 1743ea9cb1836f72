using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Forms;
using PorchLight.Server.Calendar;
using PorchLight.Server.Clients;
using PorchLight.Server.Forms;
using PorchLight.Server.Hosting;
using PorchLight.Server.Identity;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Work;

/// <summary>
/// What has to be done around forms when time passes: telling people that a light is on again, letting go of what was
/// abandoned.
/// </summary>
internal sealed class Housekeeping(
    PorchDb db,
    FormAccess access,
    Notifications notifications,
    SavedDrafts drafts,
    RetentionSweep retention,
    ProjectStages stages,
    BusinessClock clock,
    TimeProvider time
)
{
    /// <summary>Tells those who asked, once a form's light is on, by hand or by its day.</summary>
    public async Task TellOpenAgainAsync(CancellationToken cancellationToken)
    {
        // A commit wakes the next pass, so nothing is begun while there is nobody to tell.
        var business = await db.BusinessAsync();
        var lit = new List<Form>();
        foreach (
            var form in await db
                .Forms.Where(form => db.ReopenSubscriptions.Any(wish => wish.FormId == form.Id))
                .ToListAsync(cancellationToken)
        )
        {
            if (await access.LightAsync(form, business) == LightState.On)
                lit.Add(form);
        }

        if (lit.Count == 0)
            return;
        await using var write = await db.WriteAsync(cancellationToken);
        foreach (var form in lit)
            await notifications.TellOpenAgainAsync(
                form,
                await db.ReopenSubscriptions.Where(wish => wish.FormId == form.Id).ToListAsync(cancellationToken),
                clock.GetCurrentInstant()
            );
        await write.SaveAsync(cancellationToken);
    }

    /// <summary>
    /// Lets go of abandoned filling-ins, of files nobody needs, of send keys nobody presses any more, and of clients whose keeping period
    /// is over.
    /// </summary>
    public async Task SweepAsync(CancellationToken cancellationToken)
    {
        await using (var write = await db.WriteAsync(cancellationToken))
        {
            var forgotten = time.Now() - CompletedRequest.Remembered;
            await db.CompletedRequests.Where(act => act.At < forgotten).ExecuteDeleteAsync(cancellationToken);
            var old = time.Now() - Duration.FromTimeSpan(Sessions.Lifetime);
            await db.EndedSessions.Where(ended => ended.At < old).ExecuteDeleteAsync(cancellationToken);
            await write.SaveAsync(cancellationToken);
        }

        await BringBackParkedAsync(cancellationToken);
        await drafts.SweepAsync(cancellationToken);
        await retention.SweepAsync(cancellationToken);
    }

    /// <summary>Brings projects back whose day has come.</summary>
    private async Task BringBackParkedAsync(CancellationToken cancellationToken)
    {
        var (now, business) = (clock.GetCurrentInstant(), await db.BusinessAsync());
        var today = business.Calendar.Today(now);
        await using var write = await db.WriteAsync(cancellationToken);
        foreach (var project in await db.Projects.Where(one => one.ParkedUntil <= today).ToListAsync(cancellationToken))
            await stages.ComeBackAsync(project, now);
        await write.SaveAsync(cancellationToken);
    }
}
