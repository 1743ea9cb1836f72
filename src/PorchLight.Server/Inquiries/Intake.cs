using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;
using PorchLight.Core.Forms;
using PorchLight.Core.Records;
using PorchLight.Core.Screening;
using PorchLight.Server.Brand;
using PorchLight.Server.Data;
using PorchLight.Server.Forms;
using PorchLight.Server.Records;
using Route = PorchLight.Core.Forms.Route;

namespace PorchLight.Server.Inquiries;

/// <summary>What a lead sends.</summary>
/// <param name="Version">The version of the form they saw.</param>
/// <param name="SendKey">The same for every try to send one filling-in.</param>
/// <param name="Answers">By question key; null for a blank.</param>
/// <param name="CameFrom">The page the form stood on, or null.</param>
internal sealed record Sending(int Version, Guid SendKey, IReadOnlyDictionary<string, Answer?> Answers, string? CameFrom);

/// <summary>How a sending ended.</summary>
internal abstract record IntakeResult
{
    /// <summary>It is stored, now or by an earlier try.</summary>
    /// <param name="SendOff">How the form ended for them.</param>
    /// <param name="Words">Sets what is known into the words of the send-off.</param>
    /// <param name="Receipt">Lets the sender ask for a call.</param>
    public sealed record Received(SendOff SendOff, Func<string, string> Words, string Receipt) : IntakeResult;

    /// <summary>Nothing was stored.</summary>
    public sealed record Refused(int Status, string Sentence, IReadOnlyList<Finding> Findings) : IntakeResult;
}

/// <summary>
/// The front door: checks what was sent, and in one transaction stores it, sorts it, finds or makes the client and the
/// project, lands the answers and says that an inquiry came in.
/// </summary>
internal sealed class Intake(PorchDb db, EventLog events, Tokens tokens, FillingDesk desk)
{
    private const int LongestAddress = 500;

    public async Task<IntakeResult> SendAsync(Id<Form> formId, Sending sending, Instant now, CancellationToken stop)
    {
        // The write lock is taken first: of two equal sendings the second waits and finds what the first stored.
        await using var transaction = await db.BeginWriteAsync(stop);
        var form = (await db.Forms.FindAsync([formId], stop))!;
        var business = await db.BusinessAsync();
        if (await CompiledQueries.SubmissionByKey(db, formId, sending.SendKey) is { } stored)
            return await AgainAsync(stored, business, now, stop);

        if (!form.LightOn)
            return Refuse(StatusCodes.Status409Conflict, form.AwayNote);
        if (await CompiledQueries.FormVersion(db, formId, sending.Version) is not { } version)
            return Refuse(StatusCodes.Status422UnprocessableEntity, PublicEndpoints.FormChanged);
        var content = version.Content;
        if (sending.Answers.Keys.FirstOrDefault(key => content.FindQuestion(key) is null) is { } unknown)
            return Refuse(StatusCodes.Status422UnprocessableEntity, "There is an answer here to a question this form does not ask. Please reload the page and try again.",
                [new Finding(KeyForPeople(unknown), "This form does not ask that.")]);

        var known = new Known(content, new Dictionary<string, AnswerState>(), business.Calendar.Today(now));
        var answers = Tidying.Tidy(content, sending.Answers, await desk.AroundAsync(version, sending.SendKey, sending.Answers, business, now, stop));
        var route = Routes.Trace(known, answers);
        if (AnswerChecks.Check(known, route) is { Count: > 0 } findings)
            return Refuse(StatusCodes.Status422UnprocessableEntity, AnswerChecks.Summary(findings), findings);

        var received = await ReceiveAsync(form, version, business, route.Know(known), route, answers, sending, now);
        await db.SaveChangesAsync(stop);
        await transaction.CommitAsync(stop);
        return received;
    }

    private async Task<IntakeResult> ReceiveAsync(
        Form form, FormVersion version, Business business, Known known, Route route,
        IReadOnlyDictionary<string, Answer?> answers, Sending sending, Instant now)
    {
        var rules = (await CompiledQueries.Screening(db, form.Id, form.ScreeningVersion)).Rules;
        var verdict = Screener.Judge(rules, known);
        var sendOff = Routes.End(route, known with { Fit = verdict.Fit, Points = verdict.Score });
        var receipt = tokens.Create();
        var submission = new Submission
        {
            Id = new Id<Submission>(Guid.CreateVersion7()),
            FormId = form.Id,
            FormVersion = version.Number,
            SendKey = sending.SendKey,
            At = now,
            Answers = new SentAnswers(route.Answers.Where(state => state.Value.Answer is not null)
                .ToDictionary(state => state.Key, state => state.Value.Answer!), route.Pages),
            SendOff = sendOff.Key,
            ReceiptSealed = receipt.Sealed,
        };
        db.Submissions.Add(submission);
        // Files behind an answer off the route go with the filling-in, like the answer itself.
        var sent = submission.Answers.ByQuestion.Values.OfType<FilesAnswer>().SelectMany(answer => answer.Files).Select(file => file.Id).ToHashSet();
        foreach (var file in db.StoredFiles.Local.Where(file => sent.Contains(file.Id.Value)))
            file.SubmissionId = submission.Id;

        var contact = Contact.Of(version.Content, route.Answers);
        var deadline = sendOff.TurnsAway ? null : business.Promise.Deadline(now, business.Calendar);
        if (contact.IsReachable)
        {
            var (client, knownBefore) = await ClientAsync(contact, now);
            var (project, joined) = await ProjectAsync(client, knownBefore, form, version.Content, now);
            var inquiry = new Inquiry
            {
                Id = new Id<Inquiry>(Guid.CreateVersion7()),
                SubmissionId = submission.Id,
                FormId = form.Id,
                FormVersion = version.Number,
                ScreeningVersion = form.ScreeningVersion,
                ClientId = client.Id,
                ProjectId = project.Id,
                Received = now,
                Fit = verdict.Fit,
                Verdict = new StoredVerdict(verdict, Changes.Find(rules, known, answers)),
                CameFrom = WebPage(sending.CameFrom),
                KnownBefore = knownBefore,
                PromisedBy = deadline,
                PromiseClock = business.PromiseClock,
                PromiseStopped = sendOff.TurnsAway ? now : null,
                ReceiptHash = receipt.Hash,
            };
            db.Inquiries.Add(inquiry);
            var about = new About(client.Id, project.Id, inquiry.Id);
            var plan = await LandAsync(version.Content, route, client, project, inquiry);
            await events.HappenedAsync(new InquiryReceived(version.Content.Title, verdict.Fit, knownBefore, joined), now, about);
            await events.HappenedAsync(new AnswersLanded(plan.Writes.Count, plan.Notes.Count, plan.Differences.Count), now, about);
        }

        return new IntakeResult.Received(sendOff, Words(known, deadline, business, now), tokens.Open(receipt.Sealed));
    }

    private async Task<(Client Client, bool KnownBefore)> ClientAsync(Contact contact, Instant now)
    {
        var key = contact.Email is { } email ? Matching.EmailKey(email) : null;
        if (key is not null && await CompiledQueries.ClientByEmail(db, key) is { } found)
            return (found, true);
        return (db.Clients.Add(new Client
        {
            Id = new Id<Client>(Guid.CreateVersion7()),
            Name = contact.ListName,
            Email = contact.Email,
            EmailKey = key,
            Standing = Standing.Lead,
            Since = now,
        }).Entity, false);
    }

    /// <summary>A client's second inquiry through the same form joins the project that is still open.</summary>
    private async Task<(Project Project, bool Joined)> ProjectAsync(Client client, bool knownBefore, Form form, FormContent content, Instant now)
    {
        var open = !knownBefore ? null : await db.Projects.Where(project => project.ClientId == client.Id && project.FormId == form.Id && project.Closed == null)
            .OrderByDescending(project => project.Opened).FirstOrDefaultAsync();
        return open is not null
            ? (open, true)
            : (db.Projects.Add(new Project
            {
                Id = new Id<Project>(Guid.CreateVersion7()),
                ClientId = client.Id,
                FormId = form.Id,
                Title = content.Title,
                Opened = now,
            }).Entity, false);
    }

    private async Task<LandingPlan> LandAsync(FormContent content, Route route, Client client, Project project, Inquiry inquiry)
    {
        var values = !inquiry.KnownBefore ? [] : await db.FieldValues
            .Where(value => value.ClientId == client.Id && (value.ProjectId == null || value.ProjectId == project.Id)).ToListAsync();
        var onFile = values
            .OrderBy(value => value.At).ThenBy(value => value.Id.Value)
            .GroupBy(value => value.Field).ToDictionary(values => values.Key, values => values.Last().Value);
        var plan = Landing.Plan(content, route.Answers, onFile, inquiry.KnownBefore);
        db.FieldValues.AddRange(plan.Writes.Select(write => new FieldValue
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
        }));
        db.Notes.AddRange(plan.Notes.Select(note => new Note
        {
            Id = new Id<Note>(Guid.CreateVersion7()),
            ClientId = client.Id,
            ProjectId = note.Scope == RecordScope.Project ? project.Id : null,
            Heading = note.Heading,
            Text = note.Text,
            InquiryId = inquiry.Id,
            By = client.Name,
            At = inquiry.Received,
        }));
        db.Differences.AddRange(plan.Differences.Select(difference => new OpenDifference
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
        }));
        return plan;
    }

    private async Task<IntakeResult> AgainAsync(Submission stored, Business business, Instant now, CancellationToken stop)
    {
        var content = (await db.FormVersions.FindAsync([stored.FormId, stored.FormVersion], stop))!.Content;
        var deadline = await db.Inquiries.Where(inquiry => inquiry.SubmissionId == stored.Id).Select(inquiry => inquiry.PromisedBy).SingleOrDefaultAsync(stop);
        var known = new Known(content, stored.Answers.ByQuestion.ToDictionary(answer => answer.Key, answer => AnswerState.Of(answer.Value)), business.Calendar.Today(stored.At));
        return new IntakeResult.Received(content.FindSendOff(stored.SendOff)!, Words(known, deadline, business, now), tokens.Open(stored.ReceiptSealed));
    }

    private static Func<string, string> Words(Known known, Instant? deadline, Business business, Instant now)
    {
        var values = new Dictionary<string, string>
        {
            ["promise"] = deadline is { } due ? TimeWords.By(due, now, business.DateTimeZone) : "as soon as we can",
            ["firstName"] = Contact.Of(known.Form, known.Answers).Name?.Given ?? "",
            ["business"] = business.Name,
            ["owner"] = business.OwnerName,
        };
        return words => Wordings.Fill(words, known, values);
    }

    /// <summary>The page the form stood on, when what the browser said of it is a web address at all.</summary>
    private static string? WebPage(string? said) =>
        said is { Length: <= LongestAddress } && Uri.TryCreate(said, UriKind.Absolute, out var page) && (page.Scheme is "http" or "https") ? said : null;

    private static string KeyForPeople(string key) => key.Length <= 60 ? key : key[..60];

    private static IntakeResult.Refused Refuse(int status, string sentence, IReadOnlyList<Finding>? findings = null) =>
        new(status, sentence, findings ?? []);
}
