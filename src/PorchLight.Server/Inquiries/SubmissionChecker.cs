using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Conditions;
using PorchLight.Core.Forms;
using PorchLight.Core.Records;
using PorchLight.Core.Screening;
using PorchLight.Server.Brand;
using PorchLight.Server.Forms;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;
using Route = PorchLight.Core.Forms.Route;

namespace PorchLight.Server.Inquiries;

/// <summary>
/// Checks and sorts what was sent, and writes nothing: a stranger is walked here, before anybody waits for the turn to
/// write.
/// </summary>
internal sealed class SubmissionChecker(PorchDb db, AnswerContextLoader loader, FormAccess access)
{
    /// <summary>Tidies, walks and checks what was sent, and sorts it. Writes nothing.</summary>
    public async Task<(CheckedSubmission? Checked, IntakeResult.Refused? Refusal)> CheckAsync(
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
        var content = Contact.WithContactLanding(version.Content);
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

        var known = await loader.ContextBeforeAnswersAsync(content, target, business, now, cancellationToken);
        var answers = AnswerNormaliser.Normalise(
            content,
            sending.Answers,
            await loader.NormaliseContextAsync(version, sending.SendKey, sending.Answers, business, now, cancellationToken)
        );
        var route = Routes.Trace(known, answers);
        if (AnswerChecks.Check(known, route) is { Count: > 0 } findings)
            return (null, Refuse(StatusCodes.Status422UnprocessableEntity, AnswerChecks.Summary(findings), findings));
        if (
            sender is not null
            && target is { IsPreview: false, WrittenDown: null }
            && target.Form.Settings.Guard.Judge(sender.Seen.Signs) is { } suspicion
        )
            return (null, Refuse(StatusCodes.Status422UnprocessableEntity, suspicion.Sentence) with { RetryAfter = suspicion.RetryAfter });

        route = Wordings.WithAgreedWords(route, known);
        var rules = await db.ScreeningRulesAsync(target.Form.Id, target.Form.ScreeningVersion);
        var contact = Contact.Of(content, route.Answers);
        // What is on file may speak for somebody without their seeing it: it is looked at for the verdict alone.
        var client = rules.LooksOnFile || rules.BreaksDeals ? await ClientAsync(target.Link, contact, cancellationToken) : null;
        var onFile =
            target.Link is null && rules.LooksOnFile && client is not null
                ? await loader.OnFileAsync(client.Id, cancellationToken)
                : known.OnFile;
        var judged = route.Know(known) with { OnFile = onFile };
        if (target.WrittenDown is not null && !contact.IsReachable && contact.Name is null)
            return (
                null,
                Refuse(
                    StatusCodes.Status422UnprocessableEntity,
                    "Write down a name, a mail address or a phone number, so that you find them again."
                )
            );
        return (
            new CheckedSubmission(
                version,
                route.Know(known),
                route,
                contact,
                target.Form.ScreeningVersion,
                rules,
                Screener.Judge(rules, judged, client is { AlwaysComesIn: true })
            ),
            null
        );
    }

    /// <summary>Whom the business knows the sender as; null for somebody new.</summary>
    private async Task<Client?> ClientAsync(PersonalLink? link, Contact contact, CancellationToken cancellationToken) =>
        link?.ClientId is { } id ? await db.Clients.FindAsync([id], cancellationToken)
        : contact.Email is { } email ? await db.ClientWritingFromAsync(email, contact.Name?.Full)
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
