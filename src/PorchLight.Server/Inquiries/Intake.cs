using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;
using PorchLight.Core.Forms;
using PorchLight.Core.Inquiries;
using PorchLight.Core.Records;
using PorchLight.Server.Brand;
using PorchLight.Server.Forms;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Inquiries;

/// <summary>What a lead sends.</summary>
/// <param name="Version">The version of the form they saw.</param>
/// <param name="SendKey">The same for every try to send one filling-in.</param>
/// <param name="Answers">By question key; null for a blank.</param>
/// <param name="CameFrom">The page the form stood on, or null.</param>
/// <param name="Ticket">What the form said of when it was opened; null when the sender never saw it.</param>
/// <param name="Trap">What stands in the field that people do not see; null or empty for people.</param>
/// <param name="Proof">The proof of work, where the form asks for one.</param>
internal sealed record SubmissionRequest(
    int Version,
    Guid SendKey,
    IReadOnlyDictionary<string, Answer?> Answers,
    string? CameFrom,
    string? Ticket = null,
    string? Trap = null,
    string? Proof = null
);

/// <summary>What is known of a sender from outside.</summary>
/// <param name="Pass">What their browser shows that the code was typed there, or null.</param>
/// <param name="Seen">How it was filled in, and the name of the proof that holds.</param>
internal sealed record SubmissionContext(string? Pass, (SpamContext Signs, string? ProofHash) Seen);

/// <summary>How a sending ended.</summary>
internal abstract record IntakeResult
{
    /// <summary>It is stored, now or by an earlier try.</summary>
    /// <param name="SendOff">How the form ended for them.</param>
    /// <param name="Words">Sets what is known into the words of the send-off.</param>
    /// <param name="Notice">What has to be known before anything else, or null.</param>
    /// <param name="AwayNote">The form's away note, for send-offs that say it.</param>
    /// <param name="CallAsked">Whether a call was asked for already.</param>
    /// <param name="Receipt">Lets the sender see this again and ask for a call.</param>
    /// <param name="Inquiry">The inquiry it made; null where it made none.</param>
    public sealed record Received(
        SendOff SendOff,
        Func<string, string> Words,
        string? Notice,
        string AwayNote,
        bool CallAsked,
        string Receipt,
        Id<Inquiry>? Inquiry = null
    ) : IntakeResult;

    /// <summary>Nothing was stored.</summary>
    /// <param name="RetryAfter">In how many seconds the same would be taken; null when waiting alone does not help.</param>
    public sealed record Refused(int Status, string Sentence, IReadOnlyList<Finding> Findings, int? RetryAfter = null) : IntakeResult;
}

/// <summary>
/// The front door: checks and sorts what was sent, and in one transaction stores it, finds or makes the client and the
/// project, lands the answers and says that an inquiry came in. What a stranger sent is walked before the transaction
/// begins, so that nobody waits for it.
/// </summary>
internal sealed class Intake(
    PorchDb db,
    EventLog events,
    Tokens tokens,
    SubmissionChecker checker,
    InquiryRecords records,
    AnswerContextLoader loader,
    FormAccess access,
    UnfinishedForms unfinishedForms,
    Notifications notifications
)
{
    private const int LongestAddress = 500;

    /// <param name="target">The form, and the link they came by.</param>
    /// <param name="sending">What they send.</param>
    /// <param name="sender">What is known of the sender; null for what the program itself plays.</param>
    /// <param name="now">The business's now.</param>
    /// <param name="cancellationToken">When nobody waits any more.</param>
    public async Task<IntakeResult> SendAsync(
        FormTarget target,
        SubmissionRequest sending,
        SubmissionContext? sender,
        Instant now,
        CancellationToken cancellationToken
    )
    {
        var business = await db.BusinessAsync();
        if (await CompiledQueries.SubmissionByKey(db, target.Form.Id, sending.SendKey) is { } earlier)
            return await AnswerAgainAsync(earlier, sending, now, cancellationToken);
        // What is written down later is judged by the day it came.
        var came = target.WrittenDown?.Received ?? now;
        var (checkedOut, refusal) = await checker.CheckAsync(target, sending, sender, business, came, cancellationToken);
        if (checkedOut is null)
            return refusal!;

        if (target.IsPreview)
            return new IntakeResult.Received(
                checkedOut.End(),
                Words(
                    checkedOut.Known,
                    PromiseOf(target.Form, business).Deadline(now, business.Calendar),
                    CanAnswer(checkedOut, target.Link),
                    business,
                    now
                ),
                Notice(null, CanAnswer(checkedOut, target.Link)),
                target.Form.AwayNote,
                CallAsked: false,
                ""
            );

        await using var write = await db.WriteAsync(cancellationToken);
        if (db.IsUnchangedSince(target.Mark))
            db.AttachRange(new object?[] { target.Form, target.Link, business }.OfType<object>());
        else
        {
            // Of two equal sendings the second finds here what the first stored.
            target = await access.ReloadAsync(target, cancellationToken);
            business = await db.BusinessAsync();
            if (await CompiledQueries.SubmissionByKey(db, target.Form.Id, sending.SendKey) is { } stored)
                return await AnswerAgainAsync(stored, sending, now, cancellationToken);
            if (sender is not null && await access.JudgeAsync(target, sender.Pass, business) is var welcome && welcome != AccessState.Open)
                return Refuse(StatusCodes.Status409Conflict, await access.SayAsync(target, welcome, business));
        }

        if (sender?.Seen.ProofHash is { } proof && await db.Submissions.AnyAsync(sent => sent.ProofHash == proof, cancellationToken))
            return Refuse(
                StatusCodes.Status409Conflict,
                "This page was sent already in another window. Please reload it and send again; your answers stay in this browser."
            );
        var files = await FilesAsync(checkedOut, cancellationToken);
        if (files.Count < checkedOut.Files.Count)
            return Refuse(StatusCodes.Status409Conflict, "One of the files is not here any more. Please check them and send again.");

        var received = await ReceiveAsync(target, checkedOut, files, business, sending, sender, came, now, cancellationToken);
        await write.SaveAsync(cancellationToken);
        return received;
    }

    /// <summary>How fast who sends a form is answered: as the form has it, else as the business has it.</summary>
    private static ReplyPromise PromiseOf(Form form, Business business) => form.Settings.Promise ?? business.Promise;

    /// <summary>Those of the files that were sent with it which are still here.</summary>
    private async Task<IReadOnlyList<StoredFile>> FilesAsync(CheckedSubmission sent, CancellationToken cancellationToken)
    {
        var files = sent.Files.Select(file => new Id<StoredFile>(file)).ToList();
        return files.Count == 0
            ? []
            : await db.StoredFiles.Where(file => files.Contains(file.Id) && file.SubmissionId == null).ToListAsync(cancellationToken);
    }

    private async Task<IntakeResult> ReceiveAsync(
        FormTarget target,
        CheckedSubmission sent,
        IReadOnlyList<StoredFile> files,
        Business business,
        SubmissionRequest sending,
        SubmissionContext? sender,
        Instant came,
        Instant now,
        CancellationToken cancellationToken
    )
    {
        var (form, link) = (target.Form, target.Link);
        var (version, known, route, contact) = (sent.Version, sent.Known, sent.Route, sent.Contact);
        var sendOff = sent.End();
        var receipt = tokens.Create();
        var submission = new Submission
        {
            Id = new Id<Submission>(Guid.CreateVersion7()),
            FormId = form.Id,
            FormVersion = version.Number,
            SendKey = sending.SendKey,
            At = came,
            Answers = new SentAnswers(
                route.Answers.Where(state => state.Value.Answer is not null).ToDictionary(state => state.Key, state => state.Value.Answer!),
                route.Pages
            ),
            SendOff = sendOff.Key,
            ReceiptHash = receipt.Hash,
            ReceiptSealed = receipt.Sealed,
            PersonalLinkId = link?.Id,
            ProofHash = sender?.Seen.ProofHash,
        };
        db.Submissions.Add(submission);
        if (link is not null)
            (link.SubmissionId, link.Used) = (submission.Id, now);
        await unfinishedForms.SentAsync(form.Id, sending.SendKey);
        // Files behind an answer off the route go with the filling-in, like the answer itself.
        foreach (var file in files)
            file.SubmissionId = submission.Id;

        var month = sendOff.TurnsAway ? null : await loader.MonthAsync(form, route.Answers, cancellationToken);
        var writtenDown = target.WrittenDown;
        var owesNothing = sendOff.TurnsAway || month is { Waits: true };
        var promise = PromiseOf(form, business);
        var canAnswer = CanAnswer(sent, link) || writtenDown is not null;
        var deadline = owesNothing || !canAnswer || writtenDown is { Answered: true } ? null : promise.Deadline(came, business.Calendar);
        Id<Inquiry>? made = null;
        if (contact.MakesInquiry(version.Content, route) || link?.ClientId is not null || writtenDown is not null)
        {
            var (client, knownBefore) = await records.ClientAsync(contact, link, came);
            var (project, joined) = await records.ProjectAsync(client, knownBefore, form, version.Content, came);
            var inquiry = new Inquiry
            {
                Id = new Id<Inquiry>(Guid.CreateVersion7()),
                SubmissionId = submission.Id,
                FormId = form.Id,
                FormVersion = version.Number,
                ScreeningVersion = sent.ScreeningVersion,
                ClientId = client.Id,
                ProjectId = project.Id,
                Received = came,
                Fit = sent.Fit,
                Verdict = sent.Verdict,
                About = InquirySummary.Of(version.Content, submission.Answers.ByQuestion),
                Score = sent.Verdict.Score,
                Flags = sent.Verdict.Flags,
                CameFrom = writtenDown is null ? WebPage(sending.CameFrom) : null,
                Channel = writtenDown?.Channel ?? InquiryChannel.Form,
                WrittenDownBy = writtenDown?.ByName,
                KnownBefore = knownBefore,
                PromisedBy = deadline,
                PromiseClock = promise.Clock,
                PromiseHours = promise.Hours,
                WantedMonth = month?.Month,
                Waits = month is { Waits: true },
            };
            inquiry.Turn = InquiryTurn.At(came, owesReply: !owesNothing);
            db.Inquiries.Add(inquiry);
            made = inquiry.Id;
            var about = new EventContext(client.Id, project.Id, inquiry.Id);
            // Who came by a link made for this client is known to be them.
            var plan = await records.LandAsync(
                known,
                client,
                project,
                joined,
                inquiry,
                ClientRecognition.Trust(knownBefore, client.Id.Value, link?.ClientId?.Value)
            );
            Referrals.ThankFor(db, plan, client, project, business, now);
            await events.AppendAsync(
                new InquiryReceived(form.Id.Value, version.Number, sent.Fit, knownBefore, joined)
                {
                    Channel = inquiry.Channel,
                    By = writtenDown?.By,
                    TurnedAway = sendOff.TurnsAway,
                    StartsNothing = writtenDown is { Starts: false },
                },
                now,
                about
            );
            if (writtenDown is { Answered: true })
            {
                // What keeps promises asks the database, which does not hold this one yet.
                var answered = new AnsweredElsewhere(writtenDown.By);
                inquiry.Turn = inquiry.Turn.After(answered, now);
                await events.AppendAsync(answered, now, about);
            }

            await events.AppendAsync(new AnswersLanded(plan.Writes.Count, plan.Notes.Count, plan.Differences.Count), now, about);
            if (sender is not null)
                await notifications.TellAsync(form, inquiry, business, writtenDown?.By, now, cancellationToken);
        }

        return new IntakeResult.Received(
            sendOff,
            Words(known, deadline, canAnswer, business, now),
            Notice(month, canAnswer || made is null),
            form.AwayNote,
            CallAsked: false,
            receipt.Token,
            made
        );
    }

    /// <summary>
    /// What a sender was told, once more; who went on in another window hears that this window's answers are not the
    /// ones that went.
    /// </summary>
    private async Task<IntakeResult.Received> AnswerAgainAsync(
        Submission stored,
        SubmissionRequest sending,
        Instant now,
        CancellationToken cancellationToken
    )
    {
        var told = await AnswerAgainAsync(stored, now, cancellationToken);
        var content = (await db.FormVersions.FindAsync([stored.FormId, stored.FormVersion], cancellationToken))!.Content;
        var around = new NormaliseContext((await db.BusinessAsync()).Region, stored.FormVersion, stored.At, now.InUtc().Date);
        var differs =
            FormLimits.Refuse(sending.Answers) is null
            && AnswerNormaliser
                .Normalise(content, sending.Answers, around)
                .Any(answer =>
                    answer.Value is not (null or FilesAnswer or LookUpAnswer or ConsentAnswer or SignatureAnswer)
                    && stored.Answers.ByQuestion.TryGetValue(answer.Key, out var sent)
                    && !sent.Equals(answer.Value)
                );
        return differs ? told with { Notice = string.Join(" ", new[] { SentElsewhere, told.Notice }.OfType<string>()) } : told;
    }

    private const string SentElsewhere =
        "This was sent already from another window, and counts as it stood there. What you changed in this window since is not part of it; please write to us if it matters.";

    /// <summary>What a sender was told, once more.</summary>
    public async Task<IntakeResult.Received> AnswerAgainAsync(Submission stored, Instant now, CancellationToken cancellationToken)
    {
        var business = await db.BusinessAsync();
        var content = (await db.FormVersions.FindAsync([stored.FormId, stored.FormVersion], cancellationToken))!.Content;
        var inquiry = await db.Inquiries.SingleOrDefaultAsync(inquiry => inquiry.SubmissionId == stored.Id, cancellationToken);
        var known = await loader.ContextOfSubmissionAsync(stored, content, business, cancellationToken);
        var month = inquiry?.WantedMonth is { } wanted ? new WantedMonth(wanted, inquiry.Waits) : null;
        var canAnswer =
            inquiry is null or { Channel: not InquiryChannel.Form } or { KnownBefore: true }
            || Contact.Of(content, known.Answers).IsReachable;
        return new IntakeResult.Received(
            content.FindSendOff(stored.SendOff)!,
            Words(known, inquiry?.PromisedBy, canAnswer, business, now),
            Notice(month, canAnswer),
            (await db.Forms.FindAsync([stored.FormId], cancellationToken))!.AwayNote,
            inquiry?.CallAsked is not null,
            tokens.Open(stored.ReceiptSealed),
            inquiry?.Id
        );
    }

    /// <summary>Whether an answer reaches them: by what they said, or, of who came by a link made for them, by what is on file.</summary>
    private static bool CanAnswer(CheckedSubmission sent, PersonalLink? link) => sent.Contact.IsReachable || link?.ClientId is not null;

    private static string? Notice(WantedMonth? month, bool canAnswer) =>
        month is { Waits: true } ? Capacities.WaitingNote(month.Month)
        : canAnswer ? null
        : "Your answers have arrived. You left neither an e-mail address nor a phone number, so we cannot write back to you.";

    private static Func<string, string> Words(AnswerContext known, Instant? deadline, bool canAnswer, Business business, Instant now)
    {
        var said = known with
        {
            Values = new Dictionary<string, string>
            {
                ["promise"] = deadline is { } due ? DeadlineWords.ToLead(due, now, business.Calendar) : "as soon as we can",
                ["firstName"] = Contact.Of(known.Form, known.Answers).Name?.Given ?? "",
                ["business"] = business.Name,
                ["owner"] = business.OwnerName,
            },
        };
        return words => Wordings.Fill(canAnswer ? words : Wordings.WithoutSentencesThatName(words, "promise"), said);
    }

    /// <summary>The page the form stood on, when what the browser said of it is a web address at all.</summary>
    private static string? WebPage(string? said) =>
        said is { Length: <= LongestAddress } && Uri.TryCreate(said, UriKind.Absolute, out var page) && (page.Scheme is "http" or "https")
            ? said
            : null;

    private static IntakeResult.Refused Refuse(int status, string sentence, IReadOnlyList<Finding>? findings = null) =>
        new(status, sentence, findings ?? []);
}
