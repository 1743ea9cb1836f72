using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Forms;
using PorchLight.Core.Messages;
using PorchLight.Core.Webhooks;
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
            // A file that was looked at and never brought in is somebody's address book.
            var looked = clock.GetCurrentInstant() - Retention.LookedAtImport;
            await db
                .ClientImports.Where(import => import.State == ImportState.Looked && import.At < looked)
                .ExecuteDeleteAsync(cancellationToken);
            await ForgetOldMailAsync(clock.GetCurrentInstant() - Retention.CarriedMail, cancellationToken);
            await write.SaveAsync(cancellationToken);
        }

        await drafts.SweepAsync(cancellationToken);
        await retention.SweepAsync(cancellationToken);
    }

    /// <summary>
    /// Lets go of what only says that something was carried: mail of the program itself, the practice mailbox of a business of one's own,
    /// and what webhooks were told. Mail with clients stays with them.
    /// </summary>
    private async Task ForgetOldMailAsync(Instant old, CancellationToken cancellationToken)
    {
        await db
            .OutgoingMail.Where(mail => mail.ClientId == null && mail.State == MailState.HandedOver && mail.Written < old)
            .ExecuteDeleteAsync(cancellationToken);
        if (!await db.Businesses.AnyAsync(business => business.IsDemo, cancellationToken))
            await db.PracticeMail.Where(mail => mail.At < old).ExecuteDeleteAsync(cancellationToken);
        await db.WebhookCalls.Where(call => call.State == WebhookState.Taken && call.Written < old).ExecuteDeleteAsync(cancellationToken);
    }

    /// <summary>Brings projects back whose day has come.</summary>
    public async Task BringBackParkedAsync(CancellationToken cancellationToken)
    {
        var (now, business) = (clock.GetCurrentInstant(), await db.BusinessAsync());
        var today = business.Calendar.Today(now);
        // A commit wakes the next pass, so nothing is begun while nothing comes back.
        if (!await db.Projects.AnyAsync(one => one.ParkedUntil <= today, cancellationToken))
            return;
        await using var write = await db.WriteAsync(cancellationToken);
        foreach (var project in await db.Projects.Where(one => one.ParkedUntil <= today).ToListAsync(cancellationToken))
            await stages.ComeBackAsync(project, now);
        await write.SaveAsync(cancellationToken);
    }
}
