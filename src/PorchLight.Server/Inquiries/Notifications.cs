using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Conditions;
using PorchLight.Core.Inquiries;
using PorchLight.Core.Records;
using PorchLight.Server.Brand;
using PorchLight.Server.Forms;
using PorchLight.Server.Hosting;
using PorchLight.Server.Messages;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Inquiries;

/// <summary>Tells people by mail what they asked to be told. Every call is part of the caller's transaction.</summary>
internal sealed class Notifications(PorchDb db, MailQueue mail, Tokens tokens, PublicAddress address)
{
    /// <summary>The people of the business who want to know that an inquiry came in.</summary>
    public async Task TellAsync(
        Form form,
        Inquiry inquiry,
        Client client,
        Business business,
        Instant now,
        CancellationToken cancellationToken
    )
    {
        if (form.Settings.Told.Count == 0)
            return;
        var submission = db.Submissions.Local.Single(sent => sent.Id == inquiry.SubmissionId);
        var content = (await db.FormVersionAsync(form.Id, inquiry.FormVersion))!.Content;
        var sorted = inquiry.Fit is { } fit ? $": {fit.Say()}" : "";
        var text =
            $"{client.Name} sent “{content.Title}”{sorted}.\n\n{InquirySummary.Of(content, submission.Answers.ByQuestion)}\n\n{address.Site}/inquiries/{inquiry.Id}";
        foreach (var user in await db.Users.Where(user => form.Settings.Told.Contains(user.Id)).ToListAsync(cancellationToken))
            mail.Queue(
                $"told {inquiry.Id} {user.Id}",
                business,
                user.Email!,
                null,
                inquiry.Fit is { } said ? $"{said.Say()}: {client.Name}" : $"{client.Name}: {content.Title}",
                text,
                automatic: true,
                now
            );
    }

    /// <summary>Those who asked to be told when a form's light is on again. Each is told once, and then forgotten.</summary>
    public async Task TellOpenAgainAsync(Form form, IEnumerable<ReopenSubscription> wishes, Instant now)
    {
        var business = await db.BusinessAsync();
        foreach (var wish in wishes)
        {
            mail.Queue(
                $"open again {wish.Id}",
                business,
                wish.Email,
                null,
                $"{business.Name} is open again",
                $"You asked us to tell you when “{form.Draft.Title}” is open again. It is:\n\n{address.Site}/f/{tokens.Open(form.LinkSealed)}\n\nThis is the only mail you get about it; your address is not kept.\n\n{business.OwnerName}\n{business.Name}",
                automatic: true,
                now
            );
            db.ReopenSubscriptions.Remove(wish);
        }
    }
}
