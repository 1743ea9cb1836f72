using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Inquiries;
using PorchLight.Core.Messages;
using PorchLight.Server.Brand;
using PorchLight.Server.Forms;
using PorchLight.Server.Hosting;
using PorchLight.Server.Messages;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Inquiries;

/// <summary>Tells people by mail what they asked to be told. Every call is part of the caller's transaction.</summary>
internal sealed class Notifications(PorchDb db, MailQueue mail, ProgramMail messages, Tokens tokens, PublicAddress address)
{
    /// <summary>Has the people of the business told who want to know that an inquiry came in, each when they want it.</summary>
    /// <param name="except">The user who wrote it down, and knows; else null.</param>
    public async Task TellAsync(
        Form form,
        Inquiry inquiry,
        Business business,
        Guid? except,
        Instant now,
        CancellationToken cancellationToken
    )
    {
        if (form.Settings.Notified.Count == 0)
            return;
        foreach (var user in await db.Users.Where(user => form.Settings.Notified.Contains(user.Id)).ToListAsync(cancellationToken))
        {
            if (user.Id != except)
                db.DueNotifications.Add(
                    new DueNotification
                    {
                        UserId = user.Id,
                        InquiryId = inquiry.Id,
                        Due = user.NotificationTime.Due(now, business.DateTimeZone),
                    }
                );
        }
    }

    /// <summary>When the next mail to somebody of the business is due; null for none.</summary>
    public Task<Instant?> NextAsync(CancellationToken cancellationToken) =>
        db.DueNotifications.MinAsync(notification => (Instant?)notification.Due, cancellationToken);

    /// <summary>
    /// Writes the mails that are due, one to each person about all that is due to them. What was set aside meanwhile is left out.
    /// </summary>
    public async Task TellDueAsync(Instant now, CancellationToken cancellationToken)
    {
        if (!await db.DueNotifications.AnyAsync(notification => notification.Due <= now, cancellationToken))
            return;
        await using var write = await db.WriteAsync(cancellationToken);
        var due = await db.DueNotifications.Where(notification => notification.Due <= now).ToListAsync(cancellationToken);
        var business = await db.BusinessAsync();
        foreach (var ofOne in due.GroupBy(notification => notification.UserId))
        {
            var ids = ofOne.Select(notification => notification.InquiryId).ToList();
            var inquiries = await (
                from inquiry in db.CountingInquiries
                where ids.Contains(inquiry.Id)
                join client in db.Clients.IgnoreQueryFilters() on inquiry.ClientId equals client.Id
                orderby inquiry.Received
                select new { Inquiry = inquiry, client.Name }
            ).ToListAsync(cancellationToken);
            if (inquiries.Count > 0)
            {
                var news = new List<InquiryNews>();
                foreach (var one in inquiries)
                    news.Add(
                        new InquiryNews(
                            one.Name,
                            (await db.FormVersionAsync(one.Inquiry.FormId, one.Inquiry.FormVersion))!.Content.Title,
                            one.Inquiry.Fit,
                            one.Inquiry.About,
                            $"{address.Site}/inquiries/{one.Inquiry.Id}"
                        )
                    );
                var (subject, text) = InquiryNewsWords.Write(news);
                mail.Queue(
                    $"told {inquiries[0].Inquiry.Id} {ofOne.Key}",
                    business,
                    (await db.Users.FindAsync([ofOne.Key], cancellationToken))!.Email!,
                    null,
                    new MailContent(subject, text),
                    automatic: true,
                    now
                );
            }

            db.DueNotifications.RemoveRange(ofOne);
        }

        await write.SaveAsync(cancellationToken);
    }

    /// <summary>Those who asked to be told when a form's light is on again. Each is told once, and then forgotten.</summary>
    public async Task TellOpenAgainAsync(Form form, IEnumerable<ReopenSubscription> wishes, Instant now)
    {
        var business = await db.BusinessAsync();
        // Who asked is told, also where nobody is asked any more.
        var words = await messages.WordsAsync(BuiltInMessage.OpenAgain, form.Id) ?? BuiltInMessages.Find(BuiltInMessage.OpenAgain).Standard;
        var content = await messages.WriteAsync(words, form, ("link", $"{address.Site}/f/{tokens.Open(form.LinkSealed)}"));
        foreach (var wish in wishes)
        {
            mail.Queue($"open again {wish.Id}", business, wish.Email, null, content, automatic: true, now);
            db.ReopenSubscriptions.Remove(wish);
        }
    }
}
