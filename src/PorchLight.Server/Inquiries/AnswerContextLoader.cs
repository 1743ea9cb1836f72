using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Core.Records;
using PorchLight.Core.Screening;
using PorchLight.Server.Brand;
using PorchLight.Server.Forms;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Inquiries;

/// <summary>
/// Gathers what the program itself knows about a filling-in: its files, the lines that were looked up, the day, the
/// months that are full.
/// </summary>
internal sealed class AnswerContextLoader(PorchDb db)
{
    /// <summary>The version of a form under a number, 0 being the working copy for who may look at it; null for one there is not.</summary>
    public async Task<FormVersion?> VersionAsync(FormTarget target, int number) =>
        target.WrittenDown is not null ? Relaxed(await db.FormVersionAsync(target.Form.Id, number))
        : !target.IsPreview ? await db.FormVersionAsync(target.Form.Id, number)
        : number != 0 ? null
        : new FormVersion
        {
            FormId = target.Form.Id,
            Number = 0,
            Content = (await db.BusinessAsync()).Lists.Into(target.Form.Draft),
            Published = target.Form.DraftSaved,
            PublishedBy = "",
        };

    /// <summary>The same for somebody who writes down what a lead said: nothing must be answered.</summary>
    private static FormVersion? Relaxed(FormVersion? version) =>
        version is null
            ? null
            : new FormVersion
            {
                FormId = version.FormId,
                Number = version.Number,
                Content = WritingDown.Relax(version.Content),
                Published = version.Published,
                PublishedBy = version.PublishedBy,
            };

    /// <param name="version">The version that is answered.</param>
    /// <param name="filling">The send key of the filling-in.</param>
    /// <param name="given">The answers as the browser sent them.</param>
    /// <param name="business">The business.</param>
    /// <param name="now">The instant of asking.</param>
    public async Task<NormaliseContext> NormaliseContextAsync(
        FormVersion version,
        Guid filling,
        IReadOnlyDictionary<string, Answer?> given,
        Business business,
        Instant now,
        CancellationToken cancellationToken
    )
    {
        var around = new NormaliseContext(business.Region, version.Number, now, business.Calendar.Today(now));
        var kinds = version.Content.Questions.Where(question => given.GetValueOrDefault(question.Key) is not null).ToList();
        if (kinds.Any(question => question.Kind is FilesKind))
        {
            var files = await Unsent(version, filling).ToListAsync(cancellationToken);
            around = around with { Files = files.ToDictionary(file => file.Id.Value, file => file.Ref) };
        }

        var wanted = kinds
            .Select(question => (Kind: question.Kind as LookUpKind, Answer: given[question.Key] as LookUpAnswer))
            .Where(pair => pair.Kind is not null && pair.Answer is not null)
            .Select(pair => (pair.Kind!, pair.Answer!.Key))
            .ToList();
        return wanted.Count == 0 ? around : around with { Lines = await LookUpListEndpoints.LinesAsync(db, wanted, cancellationToken) };
    }

    /// <summary>All that is known before anything is answered; on file, only for whom a personal link was made.</summary>
    /// <param name="content">The version.</param>
    /// <param name="target">The form, and the link they came by.</param>
    /// <param name="business">The business.</param>
    /// <param name="now">The instant of asking.</param>
    public async Task<AnswerContext> ContextBeforeAnswersAsync(
        FormContent content,
        FormTarget target,
        Business business,
        Instant now,
        CancellationToken cancellationToken
    ) => Nothing(content, target.Link, business, now) with { OnFile = await OnFileAsync(target.Link, cancellationToken) };

    /// <summary>What a sender was asked and said, as their form knew it.</summary>
    public async Task<AnswerContext> ContextOfSubmissionAsync(
        Submission sent,
        FormContent content,
        Business business,
        CancellationToken cancellationToken
    )
    {
        var link = sent.PersonalLinkId is { } id ? await db.PersonalLinks.FindAsync([id], cancellationToken) : null;
        return Nothing(content, link, business, sent.At) with
        {
            Answers = sent.Answers.ByQuestion.ToDictionary(answer => answer.Key, answer => AnswerState.Of(answer.Value)),
        };
    }

    /// <summary>What an inquiry was judged by when it came in: what they said, and what was on file until then.</summary>
    public async Task<(AnswerContext Known, ScreeningRules Rules, IReadOnlyDictionary<string, Answer?> Given)> JudgedAsync(
        Inquiry inquiry,
        CancellationToken cancellationToken
    )
    {
        var sent = (await db.Submissions.FindAsync([inquiry.SubmissionId], cancellationToken))!;
        var content = (await db.FormVersionAsync(inquiry.FormId, inquiry.FormVersion))!.Content;
        var rules = await db.ScreeningRulesAsync(inquiry.FormId, inquiry.ScreeningVersion);
        var known = await ContextOfSubmissionAsync(sent, content, await db.BusinessAsync(), cancellationToken);
        if (LooksOnFile(rules, sent))
            known = known with { OnFile = await OnFileThenAsync(inquiry, cancellationToken) };
        return (known, rules, Given(sent));
    }

    /// <summary>The state of every question as it was when an inquiry came in, for rules that came after it.</summary>
    public async Task<AnswerContext> KnownThenAsync(Inquiry inquiry, ScreeningRules rules, CancellationToken cancellationToken)
    {
        var (known, _, given) = await JudgedAsync(inquiry, cancellationToken);
        if (rules.LooksOnFile)
            known = known with { OnFile = await OnFileThenAsync(inquiry, cancellationToken) };
        return Routes.Trace(known, given).Know(known);
    }

    /// <summary>What an inquiry said, with the fit it has and what is on file by now.</summary>
    public async Task<AnswerContext> KnownNowAsync(Inquiry inquiry, IReadOnlyDictionary<string, Answer> onFile)
    {
        var sent = (await db.Submissions.FindAsync(inquiry.SubmissionId))!;
        var content = (await db.FormVersionAsync(inquiry.FormId, inquiry.FormVersion))!.Content;
        var nothing = Nothing(content, null, await db.BusinessAsync(), sent.At) with { OnFile = onFile };
        return Routes.Trace(nothing, Given(sent)).Know(nothing) with { Fit = inquiry.Fit };
    }

    /// <summary>
    /// The state of every question as it was when each inquiry of a form came in, by inquiry. What was on file then is asked for only
    /// where the rules look at it, or where somebody came by a link of their own.
    /// </summary>
    public async Task<IReadOnlyDictionary<Id<Inquiry>, AnswerContext>> KnownThenAsync(
        Id<Form> form,
        ScreeningRules rules,
        CancellationToken cancellationToken
    )
    {
        var business = await db.BusinessAsync();
        var known = new Dictionary<Id<Inquiry>, AnswerContext>();
        var sent = await (
            from inquiry in db.CountingInquiries.AsNoTracking()
            where inquiry.FormId == form
            join submission in db.Submissions.AsNoTracking() on inquiry.SubmissionId equals submission.Id
            select new { Inquiry = inquiry, Submission = submission }
        ).ToListAsync(cancellationToken);
        foreach (var one in sent)
        {
            var content = (await db.FormVersionAsync(form, one.Inquiry.FormVersion))!.Content;
            var nothing = Nothing(content, null, business, one.Submission.At);
            if (LooksOnFile(rules, one.Submission))
                nothing = nothing with { OnFile = await OnFileThenAsync(one.Inquiry, cancellationToken) };
            known[one.Inquiry.Id] = Routes.Trace(nothing, Given(one.Submission)).Know(nothing);
        }

        return known;
    }

    // By a link of their own a form may have asked what depends on what is on file; to strangers it never shows that.
    private static bool LooksOnFile(ScreeningRules rules, Submission sent) => rules.LooksOnFile || sent.PersonalLinkId is not null;

    private static Dictionary<string, Answer?> Given(Submission sent) =>
        sent.Answers.ByQuestion.ToDictionary(answer => answer.Key, answer => (Answer?)answer.Value);

    /// <summary>What was on file of the client when an inquiry came in, before it landed.</summary>
    private async Task<Dictionary<string, Answer>> OnFileThenAsync(Inquiry inquiry, CancellationToken cancellationToken)
    {
        // The project as it was judged: the newest that was open before this inquiry made or joined one.
        var project = await db
            .Projects.Where(one =>
                one.ClientId == inquiry.ClientId && one.Opened < inquiry.Received && (one.Closed == null || one.Closed > inquiry.Received)
            )
            .OrderByDescending(one => one.Opened)
            .Select(one => (Id<Project>?)one.Id)
            .FirstOrDefaultAsync(cancellationToken);
        var before = await db
            .FieldValues.AsNoTracking()
            .Where(value =>
                value.ClientId == inquiry.ClientId
                && value.InquiryId != inquiry.Id
                && value.At <= inquiry.Received
                && (value.ProjectId == null || value.ProjectId == project)
            )
            .ToListAsync(cancellationToken);
        return ValuesOnFile.Read(before);
    }

    private static AnswerContext Nothing(FormContent content, PersonalLink? link, Business business, Instant now) =>
        new(content, new Dictionary<string, AnswerState>(), business.Calendar.Today(now))
        {
            Values = new Dictionary<string, string>
            {
                ["business"] = business.Name,
                ["owner"] = business.OwnerName,
                ["firstName"] = link?.GivenName ?? "",
            },
        };

    /// <summary>What is on file of the person a personal link was made for, by field key; nothing for everybody else.</summary>
    public async Task<Dictionary<string, Answer>> OnFileAsync(PersonalLink? link, CancellationToken cancellationToken)
    {
        if (link is null)
            return [];
        var onFile = new Dictionary<string, Answer> { [BuiltInFields.Email.Key] = new TextAnswer(link.Email) };
        if (link.Name is { } name)
            onFile[BuiltInFields.Name.Key] = name;
        if (link.ClientId is { } client)
        {
            foreach (var (field, value) in await OnFileAsync(client, cancellationToken))
                onFile[field] = value;
        }

        return onFile;
    }

    /// <summary>What is on file of a client and of their newest open project, by field key.</summary>
    public async Task<Dictionary<string, Answer>> OnFileAsync(Id<Client> client, CancellationToken cancellationToken)
    {
        var project = await db
            .Projects.Where(one => one.ClientId == client && one.Closed == null)
            .OrderByDescending(one => one.Opened)
            .Select(one => (Id<Project>?)one.Id)
            .FirstOrDefaultAsync(cancellationToken);
        var values = await db
            .FieldValues.AsNoTracking()
            .Where(value => value.ClientId == client && (value.ProjectId == null || value.ProjectId == project))
            .ToListAsync(cancellationToken);
        return ValuesOnFile.Read(values);
    }

    /// <summary>The month a filling-in is for, where its form has limits by month; else null.</summary>
    public async Task<WantedMonth?> MonthAsync(
        Form form,
        IReadOnlyDictionary<string, AnswerState> answers,
        CancellationToken cancellationToken
    ) =>
        form.Settings.Capacity is { } capacity && answers.GetValueOrDefault(capacity.Question).Answer is { } wanted
            ? capacity.Find(wanted, await TakenAsync(form.Id, cancellationToken))
            : null;

    /// <summary>How many places of each month are taken.</summary>
    public async Task<Dictionary<YearMonth, int>> TakenAsync(Id<Form> form, CancellationToken cancellationToken) =>
        await db
            .CountingInquiries.Where(inquiry => inquiry.FormId == form && inquiry.WantedMonth != null && !inquiry.Waits)
            .GroupBy(inquiry => inquiry.WantedMonth!.Value)
            .Select(month => new { month.Key, Count = month.Count() })
            .ToDictionaryAsync(month => month.Key, month => month.Count, cancellationToken);

    /// <summary>The files uploaded with a filling-in that has not been sent.</summary>
    public IQueryable<StoredFile> Unsent(FormVersion version, Guid filling) =>
        db.StoredFiles.Where(file => file.SendKey == filling && file.FormId == version.FormId && file.SubmissionId == null);
}
