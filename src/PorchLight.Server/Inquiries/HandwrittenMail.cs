using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Common;
using PorchLight.Core.Messages;
using PorchLight.Core.Records;
using PorchLight.Server.Calendar;
using PorchLight.Server.Forms;
using PorchLight.Server.Hosting;
using PorchLight.Server.Messages;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Inquiries;

/// <summary>What a person of the business writes to a client by hand: checked, sent and written down.</summary>
internal sealed class HandwrittenMail(PorchDb db, MailQueue mail, EventLog events, BusinessClock clock)
{
    /// <summary>
    /// Sends a draft as part of the caller's write. Gives why it cannot go, and has then sent nothing; null when it goes.
    /// </summary>
    /// <param name="client">Who gets it.</param>
    /// <param name="draft">The message as the person sees it.</param>
    /// <param name="about">What it is about.</param>
    /// <param name="who">Who sends it.</param>
    /// <param name="inReplyTo">The message it answers, as its sender named it; null for none.</param>
    public async Task<ProblemHttpResult?> SendAsync(
        Client client,
        MessageDraft draft,
        EventContext about,
        Guid who,
        string? inReplyTo = null
    )
    {
        if (MessageCheck.BeforeSending(draft) is { Count: > 0 } findings)
            return Problems.Unfinished(findings);
        if (client.Email is null)
            return Problems.Unprocessable($"{client.Name} left no e-mail address. Please call them instead.");
        var files = draft.Enclosed.Files.Select(file => new Id<StoredFile>(file)).ToHashSet();
        if (await db.StoredFiles.CountAsync(file => files.Contains(file.Id) && file.SendKey == null) != files.Count)
            return Problems.Unfinished(new Finding("enclosed", "A file that should go with it is gone. Take it away, or attach another."));
        var (now, subject) = (clock.GetCurrentInstant(), KnownValues.OneLine(draft.Subject));
        var queued = mail.Queue(
            $"written {Guid.CreateVersion7()}",
            await db.BusinessAsync(),
            client,
            MailContent.Of(draft with { Subject = subject }, draft.FinishedText!) with
            {
                InReplyTo = inReplyTo,
            },
            automatic: false,
            now
        );
        await events.AppendAsync(new MessageSent(subject, null, who), now, about with { MailId = queued });
        return null;
    }
}
