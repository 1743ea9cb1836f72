using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Core.Messages;
using PorchLight.Server.Calendar;
using PorchLight.Server.Forms;
using PorchLight.Server.Hosting;
using PorchLight.Server.Messages;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Inquiries;

/// <summary>What a person of the business writes to a client by hand: checked, sent and written down.</summary>
internal sealed class PersonalMail(PorchDb db, MailQueue mail, TakeBackTime takeBack, BusinessClock clock)
{
    /// <summary>
    /// Sends a draft as part of the caller's write. What follows from it follows when it goes: until then it can be taken back.
    /// </summary>
    /// <returns>The message that goes; or why it cannot go, and then nothing was sent.</returns>
    /// <param name="client">Who gets it.</param>
    /// <param name="draft">The message as the person sees it.</param>
    /// <param name="about">What it is about.</param>
    /// <param name="who">Who sends it.</param>
    /// <param name="stage">The key of the stage the project comes to with it; null where it stays.</param>
    /// <param name="until">The day it comes back, of a stage where nothing happens; else null.</param>
    /// <param name="inReplyTo">The message it answers, as its sender named it; null for none.</param>
    public async Task<(MailGoing? Going, ProblemHttpResult? Refusal)> SendAsync(
        Client client,
        MessageDraft draft,
        EventContext about,
        Guid who,
        string? inReplyTo = null,
        string? stage = null,
        LocalDate? until = null
    )
    {
        if (MessageCheck.BeforeSending(draft) is { Count: > 0 } findings)
            return (null, Problems.Invalid(findings));
        if (client.Email is not { } address)
            return (null, Problems.Unprocessable($"{client.Name} left no e-mail address. Please call them instead."));
        var files = draft.Enclosed.Files.Select(file => new Id<StoredFile>(file)).ToHashSet();
        if (await db.StoredFiles.CountAsync(file => files.Contains(file.Id) && file.SendKey == null) != files.Count)
            return (
                null,
                Problems.Invalid(new Finding("enclosed", "A file that should go with it is gone. Take it away, or attach another."))
            );
        var subject = KnownValues.OneLine(draft.Subject);
        var queued = mail.Queue(
            $"written {Guid.CreateVersion7()}",
            await db.BusinessAsync(),
            address,
            client.Id,
            MailContent.Of(draft with { Subject = subject }, draft.FinishedText!) with
            {
                InReplyTo = inReplyTo,
            },
            automatic: false,
            clock.GetCurrentInstant(),
            canBeTakenBack: true,
            new HeldMail(who, about.ProjectId, about.InquiryId, stage, until)
        );
        if (takeBack.Length == Duration.Zero)
            await mail.ApplyHeldAsync((await db.OutgoingMail.FindAsync(queued))!);
        return (takeBack.Of(queued), null);
    }
}
