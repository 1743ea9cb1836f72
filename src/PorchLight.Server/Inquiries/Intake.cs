using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;
using PorchLight.Core.Conditions;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Core.Inquiries;
using PorchLight.Core.Records;
using PorchLight.Core.Screening;
using PorchLight.Server.Brand;
using PorchLight.Server.Forms;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;
using Route = PorchLight.Core.Forms.Route;

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
    public sealed record Received(
        SendOff SendOff,
        Func<string, string> Words,
        string? Notice,
        string AwayNote,
        bool CallAsked,
        string Receipt
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
    AnswerContextLoader loader,
    FormAccess access,
    SavedDrafts drafts,
    Notifications notifications
)
{
    private const int LongestAddress = 500;

    /// <param name="target">The door they came by.</param>
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
            return await AgainAsync(earlier, sending, now, cancellationToken);
        var (checkedOut, refusal) = await CheckAsync(target, sending, sender, business, now, cancellationToken);
        if (checkedOut is null)
            return refusal!;

        if (target.IsPreview)
            return new IntakeResult.Received(
                checkedOut.End(),
                Words(checkedOut.Known, business.Promise.Deadline(now, business.Calendar), business, now),
                null,
                target.Form.AwayNote,
                CallAsked: false,
                ""
            );

        await using var write = await db.WriteAsync(cancellationToken);
        // What was read before may have changed meanwhile; of two equal sendings the second finds here what the first stored.
        await RefreshAsync(target, cancellationToken);
        if (await CompiledQueries.SubmissionByKey(db, target.Form.Id, sending.SendKey) is { } stored)
            return await AgainAsync(stored, sending, now, cancellationToken);
        if (sender is not null && await access.JudgeAsync(target, sender.Pass, business) is var welcome && welcome != AccessState.Open)
            return Refuse(StatusCodes.Status409Conflict, await access.SayAsync(target, welcome, business));
        if (sender?.Seen.ProofHash is { } proof && await db.Submissions.AnyAsync(sent => sent.ProofHash == proof, cancellationToken))
            return Refuse(
                StatusCodes.Status409Conflict,
                "This page was sent already in another window. Please reload it and send again; your answers stay in this browser."
            );
        if (await FilesAreGoneAsync(checkedOut, cancellationToken))
            return Refuse(
                StatusCodes.Status409Conflict,
                "One of the files is not here any more. Please look at them once more and send again."
            );

        var received = await ReceiveAsync(target, checkedOut, business, sending, sender, now, cancellationToken);
        await write.SaveAsync(cancellationToken);
        return received;
    }

    /// <summary>Tidies, walks and checks what was sent, and sorts it. Writes nothing.</summary>
    private async Task<(CheckedSubmission? Checked, IntakeResult.Refused? Refusal)> CheckAsync(
        FormTarget target,
        SubmissionRequest sending,
        SubmissionContext? sender,
        Business business,
        Instant now,
        CancellationToken cancellationToken
    )
    {
        if (sender is not null && await access.JudgeAsync(target, sender.Pass, business) is var welcome && welcome != AccessState.Open)
            return (null, Refuse(StatusCodes.Status409Conflict, await access.SayAsync(target, welcome, business)));
        if (FormLimits.Refuse(sending.Answers) is { } tooMuch)
            return (null, Refuse(StatusCodes.Status422UnprocessableEntity, tooMuch));
        if (await loader.VersionAsync(target, sending.Version) is not { } version)
            return (null, Refuse(StatusCodes.Status422UnprocessableEntity, PublicEndpoints.FormChanged));
        var content = version.Content;
        var asked = content.Questions.Select(question => question.Key).ToHashSet();
        if (sending.Answers.Keys.FirstOrDefault(key => !asked.Contains(key)) is { } unknown)
            return (
                null,
                Refuse(
                    StatusCodes.Status422UnprocessableEntity,
                    "There is an answer here to a question this form does not ask. Please reload the page and try again.",
                    [new Finding(KeyForPeople(unknown), "This form does not ask that.")]
                )
            );

        var known = await loader.NothingAsync(content, target, business, now, cancellationToken);
        var answers = AnswerNormaliser.Normalise(
            content,
            sending.Answers,
            await loader.AroundAsync(version, sending.SendKey, sending.Answers, business, now, cancellationToken)
        );
        var route = Routes.Trace(known, answers);
        if (AnswerChecks.Check(known, route) is { Count: > 0 } findings)
            return (null, Refuse(StatusCodes.Status422UnprocessableEntity, AnswerChecks.Summary(findings), findings));
        if (sender is not null && !target.IsPreview && target.Form.Settings.Guard.Judge(sender.Seen.Signs) is { } suspicion)
            return (null, Refuse(StatusCodes.Status422UnprocessableEntity, suspicion.Sentence) with { RetryAfter = suspicion.RetryAfter });

        var rules = (await CompiledQueries.Screening(db, target.Form.Id, target.Form.ScreeningVersion)).Rules;
        var contact = Contact.Of(content, route.Answers);
        // What is on file may speak for somebody without their seeing it: it is looked at for the verdict alone.
        var onFile =
            target.Link is null
            && rules.LooksOnFile
            && contact.Email is { } email
            && await CompiledQueries.ClientByEmail(db, EmailAddress.Key(email)) is { } client
                ? await loader.OnFileAsync(client.Id, cancellationToken)
                : known.OnFile;
        var judged = route.Know(known) with { OnFile = onFile };
        return (
            new CheckedSubmission(
                version,
                route.Know(known),
                route,
                contact,
                target.Form.ScreeningVersion,
                rules,
                Screener.Judge(rules, judged)
            ),
            null
        );
    }

    private async Task<bool> FilesAreGoneAsync(CheckedSubmission sent, CancellationToken cancellationToken)
    {
        var files = sent.Files.Select(file => new Id<StoredFile>(file)).ToList();
        return files.Count > 0
            && await db.StoredFiles.CountAsync(file => files.Contains(file.Id) && file.SubmissionId == null, cancellationToken)
                != files.Count;
    }

    private async Task<IntakeResult> ReceiveAsync(
        FormTarget target,
        CheckedSubmission sent,
        Business business,
        SubmissionRequest sending,
        SubmissionContext? sender,
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
            At = now,
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
        await drafts.SentAsync(form.Id, sending.SendKey, cancellationToken);
        // Files behind an answer off the route go with the filling-in, like the answer itself.
        foreach (var file in db.StoredFiles.Local.Where(file => sent.Files.Contains(file.Id.Value)))
            file.SubmissionId = submission.Id;

        var month = sendOff.TurnsAway ? null : await loader.MonthAsync(form, route.Answers, cancellationToken);
        var owesNothing = sendOff.TurnsAway || month is { Waits: true };
        var deadline = owesNothing ? null : business.Promise.Deadline(now, business.Calendar);
        if (contact.IsReachable)
        {
            var (client, knownBefore) = await ClientAsync(contact, link, now);
            var (project, joined) = await ProjectAsync(client, knownBefore, form, version.Content, now);
            var inquiry = new Inquiry
            {
                Id = new Id<Inquiry>(Guid.CreateVersion7()),
                SubmissionId = submission.Id,
                FormId = form.Id,
                FormVersion = version.Number,
                ScreeningVersion = sent.ScreeningVersion,
                ClientId = client.Id,
                ProjectId = project.Id,
                Received = now,
                Fit = sent.Fit,
                Verdict = sent.Verdict,
                CameFrom = WebPage(sending.CameFrom),
                KnownBefore = knownBefore,
                PromisedBy = deadline,
                PromiseClock = business.PromiseClock,
                WantedMonth = month?.Month,
                Waits = month is { Waits: true },
            };
            inquiry.Turn = InquiryTurn.At(now, owesReply: !owesNothing);
            db.Inquiries.Add(inquiry);
            var about = new EventContext(client.Id, project.Id, inquiry.Id);
            // Who came by a link made for this client is known to be them.
            var plan = await LandAsync(
                known,
                client,
                project,
                inquiry,
                onlyDifferences: ClientRecognition.OnlyClaims(knownBefore, client.Id.Value, link?.ClientId?.Value)
            );
            await events.AppendAsync(new InquiryReceived(form.Id.Value, version.Number, sent.Fit, knownBefore, joined), now, about);
            await events.AppendAsync(new AnswersLanded(plan.Writes.Count, plan.Notes.Count, plan.Differences.Count), now, about);
            if (sender is not null)
                await notifications.TellAsync(form, inquiry, client, business, now, cancellationToken);
        }

        return new IntakeResult.Received(
            sendOff,
            Words(known, deadline, business, now),
            Notice(month),
            form.AwayNote,
            CallAsked: false,
            tokens.Open(receipt.Sealed)
        );
    }

    private async Task RefreshAsync(FormTarget target, CancellationToken cancellationToken)
    {
        await db.Entry(target.Form).ReloadAsync(cancellationToken);
        if (target.Link is { } link)
            await db.Entry(link).ReloadAsync(cancellationToken);
    }

    private async Task<(Client Client, bool KnownBefore)> ClientAsync(Contact contact, PersonalLink? link, Instant now)
    {
        var lookup = ClientRecognition.LookFor(contact, link?.ClientId?.Value);
        var known = lookup switch
        {
            { Id: { } id } => await db.Clients.FindAsync(new Id<Client>(id)),
            { EmailKey: { } email } => await CompiledQueries.ClientByEmail(db, email),
            _ => null,
        };
        if (known is not null)
            return (known, true);
        return (
            db.Clients.Add(
                new Client
                {
                    Id = new Id<Client>(Guid.CreateVersion7()),
                    Name = contact.ListName,
                    Email = contact.Email,
                    EmailKey = lookup.EmailKey,
                    Standing = Standing.Lead,
                    Since = now,
                }
            ).Entity,
            false
        );
    }

    /// <summary>The project an inquiry is about, as the form has it: a new one, or one that is open.</summary>
    private async Task<(Project Project, bool Joined)> ProjectAsync(
        Client client,
        bool knownBefore,
        Form form,
        FormContent content,
        Instant now
    )
    {
        var inHand = !knownBefore
            ? []
            : await db.Projects.Where(project => project.ClientId == client.Id && project.Closed == null).ToListAsync();
        var joined = ProjectJoining.Joined(
            form.Settings.About,
            form.Id.Value,
            inHand.Select(project => new OpenProject(project.Id.Value, project.FormId.Value, project.Opened))
        );
        return joined is not null
            ? (inHand.Single(project => project.Id.Value == joined.Id), true)
            : (
                db.Projects.Add(
                    new Project
                    {
                        Id = new Id<Project>(Guid.CreateVersion7()),
                        ClientId = client.Id,
                        FormId = form.Id,
                        Title = content.Title,
                        Opened = now,
                    }
                ).Entity,
                false
            );
    }

    private async Task<LandingPlan> LandAsync(AnswerContext known, Client client, Project project, Inquiry inquiry, bool onlyDifferences)
    {
        var values = !inquiry.KnownBefore
            ? []
            : await db
                .FieldValues.Where(value => value.ClientId == client.Id && (value.ProjectId == null || value.ProjectId == project.Id))
                .ToListAsync();
        var onFile = ValuesOnFile.Read(values);
        var plan = Landing.Plan(known, onFile, onlyDifferences);
        db.FieldValues.AddRange(
            plan.Writes.Select(write => new FieldValue
            {
                Id = new Id<FieldValue>(Guid.CreateVersion7()),
                ClientId = client.Id,
                ProjectId = BuiltInFields.Find(write.Field)!.Scope == RecordScope.Project ? project.Id : null,
                Field = write.Field,
                Value = write.Value,
                InquiryId = inquiry.Id,
                FormId = inquiry.FormId,
                FormVersion = inquiry.FormVersion,
                Question = write.Question,
                By = client.Name,
                At = inquiry.Received,
            })
        );
        db.Notes.AddRange(
            plan.Notes.Select(note => new Note
            {
                Id = new Id<Note>(Guid.CreateVersion7()),
                ClientId = client.Id,
                ProjectId = note.Scope == RecordScope.Project ? project.Id : null,
                Heading = note.Heading,
                Text = note.Text,
                InquiryId = inquiry.Id,
                By = client.Name,
                At = inquiry.Received,
            })
        );
        db.Differences.AddRange(
            plan.Differences.Select(difference => new OpenDifference
            {
                Id = new Id<OpenDifference>(Guid.CreateVersion7()),
                ClientId = client.Id,
                ProjectId = project.Id,
                InquiryId = inquiry.Id,
                Field = difference.Field,
                Question = difference.Question,
                Theirs = difference.Theirs,
                Ours = difference.Ours,
                At = inquiry.Received,
            })
        );
        return plan;
    }

    /// <summary>What a sender was told, once more; who went on in another window hears that this window's answers are not the ones that went.</summary>
    private async Task<IntakeResult.Received> AgainAsync(
        Submission stored,
        SubmissionRequest sending,
        Instant now,
        CancellationToken cancellationToken
    )
    {
        var told = await AgainAsync(stored, now, cancellationToken);
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
    public async Task<IntakeResult.Received> AgainAsync(Submission stored, Instant now, CancellationToken cancellationToken)
    {
        var business = await db.BusinessAsync();
        var content = (await db.FormVersions.FindAsync([stored.FormId, stored.FormVersion], cancellationToken))!.Content;
        var inquiry = await db.Inquiries.SingleOrDefaultAsync(inquiry => inquiry.SubmissionId == stored.Id, cancellationToken);
        var known = await loader.SaidAsync(stored, content, business, cancellationToken);
        var month = inquiry?.WantedMonth is { } wanted ? new WantedMonth(wanted, inquiry.Waits) : null;
        return new IntakeResult.Received(
            content.FindSendOff(stored.SendOff)!,
            Words(known, inquiry?.PromisedBy, business, now),
            Notice(month),
            (await db.Forms.FindAsync([stored.FormId], cancellationToken))!.AwayNote,
            inquiry?.CallAsked is not null,
            tokens.Open(stored.ReceiptSealed)
        );
    }

    private static string? Notice(WantedMonth? month) => month is { Waits: true } ? Capacities.WaitingNote(month.Month) : null;

    private static Func<string, string> Words(AnswerContext known, Instant? deadline, Business business, Instant now)
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
        return words => Wordings.Fill(words, said);
    }

    /// <summary>The page the form stood on, when what the browser said of it is a web address at all.</summary>
    private static string? WebPage(string? said) =>
        said is { Length: <= LongestAddress } && Uri.TryCreate(said, UriKind.Absolute, out var page) && (page.Scheme is "http" or "https")
            ? said
            : null;

    private static string KeyForPeople(string key) => key.Length <= 60 ? key : key[..60];

    private static IntakeResult.Refused Refuse(int status, string sentence, IReadOnlyList<Finding>? findings = null) =>
        new(status, sentence, findings ?? []);
}

/// <summary>What was sent, once it is checked and sorted, and before anything is written.</summary>
internal sealed record CheckedSubmission(
    FormVersion Version,
    AnswerContext Known,
    Route Route,
    Contact Contact,
    int ScreeningVersion,
    ScreeningRules Rules,
    Verdict Verdict
)
{
    /// <summary>How it was sorted; null by a form that sorts nothing.</summary>
    public Fit? Fit => Rules.Sorts ? Verdict.Fit : null;

    /// <summary>The files that were sent with it.</summary>
    public HashSet<Guid> Files { get; } =
    [
        .. Route
            .Answers.Values.Select(state => state.Answer)
            .OfType<FilesAnswer>()
            .SelectMany(answer => answer.Files)
            .Select(file => file.Id),
    ];

    /// <summary>The send-off at the end of the route.</summary>
    public SendOff End() => Routes.End(Route, Known with { Fit = Fit, Points = Rules.Sorts ? Verdict.Score : null });
}
