using Microsoft.AspNetCore.Http.HttpResults;
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
using PorchLight.Server.Calendar;
using PorchLight.Server.Fields;
using PorchLight.Server.FollowThrough;
using PorchLight.Server.Hosting;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.AcrossAreas;

/// <summary>How an inquiry was sorted, with its words.</summary>
internal sealed record FitLabel(Fit Fit, string Words)
{
    public static FitLabel? Of(Fit? fit) => fit is { } sorted ? new FitLabel(sorted, sorted.Say()) : null;
}

/// <summary>One inquiry in full.</summary>
internal static class InquiryEndpoints
{
    private const string Gone = InquiryActionEndpoints.Gone;

    /// <param name="Fit">Null where the form sorts nothing.</param>
    /// <param name="WrittenDown">Who wrote it down and how it came, in words; null where they sent it themselves.</param>
    /// <param name="Aside">Why it is kept apart; null where it counts.</param>
    /// <param name="Running">The follow-through that still has steps to come, by its name; else null.</param>
    internal sealed record InquiryView(
        Id<Inquiry> Id,
        Id<Client> ClientId,
        Id<Project> ProjectId,
        string Name,
        string? Email,
        string Form,
        string Received,
        string? CameFrom,
        string? WrittenDown,
        AsideReason? Aside,
        bool KnownBefore,
        bool CallAsked,
        string? WaitsFor,
        string? WroteBack,
        bool Closed,
        string? Running,
        FitView? Fit,
        string? Promise,
        bool PromiseOpen,
        string? PromiseExactly,
        string PromiseClock,
        string SendOff,
        IReadOnlyList<AnsweredQuestion> Answers,
        IReadOnlyList<DifferenceOnFile> Differences,
        IReadOnlyList<TimelineEntry> Timeline
    );

    /// <param name="Fit">How it is sorted today, by whomever.</param>
    /// <param name="First">How it was judged when it came in.</param>
    /// <param name="Again">How it was judged once more by a newer screening, the last time; else null.</param>
    /// <param name="CanJudgeAgain">Whether a newer screening is in force by which it was not judged yet.</param>
    /// <param name="Overruled">Who sorted it otherwise and why, as a sentence; else null.</param>
    /// <param name="Reason">Why, in that person's words; else null.</param>
    internal sealed record FitView(
        FitLabel Fit,
        VerdictView First,
        VerdictView? Again,
        bool CanJudgeAgain,
        string? Overruled,
        string? Reason
    );

    /// <param name="Margin">How far the score is from the next threshold, in words.</param>
    /// <param name="By">By which screening, and of a later one when and for whom.</param>
    internal sealed record VerdictView(
        FitLabel Fit,
        int Score,
        int Base,
        string Margin,
        string By,
        IReadOnlyList<Contribution> Contributions
    );

    /// <param name="Landed">Where it was written, in words; null when it was not.</param>
    /// <param name="Files">The files that were sent with it; else empty.</param>
    /// <param name="Strokes">A drawn signature as an SVG path on a field of 600 by 200; else null.</param>
    internal sealed record AnsweredQuestion(
        string Key,
        string Wording,
        string Words,
        string? Landed,
        bool Signal,
        IReadOnlyList<SentFile> Files,
        string? Strokes
    );

    /// <param name="Address">Where it is had; it comes as something to save.</param>
    internal sealed record SentFile(string Name, string Size, string Address);

    /// <param name="Sentence">What would change the verdict for the better; null when nothing small would.</param>
    internal sealed record WhatWouldChangeView(string? Sentence);

    public static void MapInquiries(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/inquiries").For(Access.Member).WithTags("Inquiries");
        group.MapGet("/{id}", ShowAsync);
        group.MapGet("/{id}/what-would-change", WhatWouldChangeAsync);
    }

    private static async Task<Results<Ok<InquiryView>, ProblemHttpResult>> ShowAsync(
        Id<Inquiry> id,
        PorchDb db,
        FieldCatalogues catalogues,
        AnswerContextLoader engine,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        if (await db.Inquiries.FindAsync([id], cancellationToken) is not { } inquiry)
            return Problems.NotFound(Gone);
        var now = clock.GetCurrentInstant();
        var business = await db.BusinessAsync();
        var zone = business.DateTimeZone;
        var client = (await db.Clients.FindAsync([inquiry.ClientId], cancellationToken))!;
        var submission = (await db.Submissions.FindAsync([inquiry.SubmissionId], cancellationToken))!;
        var content = (await db.FormVersions.FindAsync([inquiry.FormId, inquiry.FormVersion], cancellationToken))!.Content;
        var rules = (await db.ScreeningVersions.FindAsync([inquiry.FormId, inquiry.ScreeningVersion], cancellationToken))!.Rules;
        var landed = (await db.FieldValues.Where(value => value.InquiryId == id).ToListAsync(cancellationToken)).ToLookup(value =>
            value.Question
        );
        var notes = (await db.Notes.Where(note => note.InquiryId == id).ToListAsync(cancellationToken))
            .Select(note => note.Heading)
            .ToHashSet();
        var fields = await catalogues.ReadAsync(db);
        var signals = rules.Counting.SelectMany(signal => signal.When.QuestionsUsed()).ToHashSet();
        var known = await engine.ContextOfSubmissionAsync(submission, content, business, cancellationToken);
        var sendOff = content.FindSendOff(submission.SendOff)!;

        return TypedResults.Ok(
            new InquiryView(
                id,
                client.Id,
                inquiry.ProjectId,
                client.Name,
                client.Email,
                content.Title,
                TimeWords.At(inquiry.Received, now, zone),
                inquiry.CameFrom,
                inquiry.WrittenDownBy is { } by ? $"{inquiry.Channel.Say()}, written down by {by}" : null,
                inquiry.Aside,
                inquiry.KnownBefore,
                inquiry.CallAsked is not null,
                WaitsFor(inquiry),
                inquiry.WroteBack is { } wrote ? TimeWords.At(wrote, now, zone) : null,
                inquiry.Closed is not null,
                await RunningAsync(db, id, cancellationToken),
                inquiry.Fit is { } fit ? await FitAsync(db, inquiry, fit, now, zone, cancellationToken) : null,
                inquiry.Aside is not null ? null
                    : inquiry.Closed is { } closed ? $"Closed {TimeWords.At(closed, now, zone)}."
                    : WaitsFor(inquiry) is { } month ? $"On the waiting list for {month}, so no reply is promised."
                    : PromiseWords.Say(inquiry.PromisedBy, inquiry.PromiseStopped, sendOff.TurnsAway, now, business.Calendar),
                inquiry is { PromiseStopped: null, Aside: null },
                inquiry.PromisedBy is { } exact ? TimeWords.Exactly(exact, zone) : null,
                $"{inquiry.PromiseHours} business hours on the {(inquiry.PromiseClock == PromiseClock.WorkingDays ? "working-day" : "open-hours")} clock",
                sendOff.Title,
                [.. content.Questions.Where(question => submission.Answers.ByQuestion.ContainsKey(question.Key)).Select(Answered)],
                await DifferencesOnFile.OfAsync(
                    db,
                    db.Differences.Where(difference => difference.InquiryId == id),
                    fields,
                    now,
                    zone,
                    cancellationToken
                ),
                await Timeline.OfAsync(
                    db,
                    db.Events.Where(logged =>
                        logged.InquiryId == id
                        || (logged.InquiryId == null && logged.ClientId == client.Id && logged.At >= inquiry.Received)
                    ),
                    now,
                    zone,
                    cancellationToken
                )
            )
        );

        AnsweredQuestion Answered(Question question)
        {
            var answer = submission.Answers.ByQuestion[question.Key];
            var wording = Wordings.Fill(question.Wording, known);
            return new AnsweredQuestion(
                question.Key,
                wording,
                AnswerWords.Say(answer, known.Behind(question.Key)),
                landed[question.Key].FirstOrDefault() is { } value ? fields.Find(value.Field)?.Say()
                    : question.LandsIn is AppendToNotes && notes.Contains(wording) ? "notes"
                    : null,
                signals.Contains(question.Key),
                answer is FilesAnswer { Files: var files }
                    ? [.. files.Select(file => new SentFile(file.Name, FileSize.Say(file.Bytes), $"/api/files/{file.Id}"))]
                    : [],
                (answer as SignatureAnswer)?.Strokes
            );
        }
    }

    private static async Task<FitView> FitAsync(
        PorchDb db,
        Inquiry inquiry,
        Fit fit,
        Instant now,
        DateTimeZone zone,
        CancellationToken cancellationToken
    )
    {
        var again = await FitEndpoints.LatestVerdictAsync(db, inquiry.Id, cancellationToken);
        var overruled = await db.OverruledFits.FindAsync([inquiry.Id], cancellationToken);
        var inForce = await db
            .Forms.Where(form => form.Id == inquiry.FormId)
            .Select(form => form.ScreeningVersion)
            .SingleAsync(cancellationToken);
        return new FitView(
            FitLabel.Of(fit)!,
            View(inquiry.Verdict, $"by screening {inquiry.ScreeningVersion}, as it came in"),
            again is null
                ? null
                : View(again.Verdict, $"by screening {again.ScreeningVersion}, {TimeWords.At(again.At, now, zone)} for {again.By}"),
            inForce > (again?.ScreeningVersion ?? inquiry.ScreeningVersion),
            overruled is null ? null : $"{overruled.By} sorted it as {overruled.Fit.Say()}, {TimeWords.At(overruled.At, now, zone)}.",
            overruled?.Reason
        );

        static VerdictView View(Verdict verdict, string by) =>
            new(FitLabel.Of(verdict.Fit)!, verdict.Score, verdict.Base, verdict.SayMargin(), by, verdict.Contributions);
    }

    /// <summary>
    /// What would change the verdict for the better. It tries many answers, so it is asked for by whoever looks, and never
    /// while somebody sends.
    /// </summary>
    private static async Task<Results<Ok<WhatWouldChangeView>, ProblemHttpResult>> WhatWouldChangeAsync(
        Id<Inquiry> id,
        PorchDb db,
        AnswerContextLoader loader,
        CancellationToken cancellationToken
    )
    {
        if (await db.Inquiries.AsNoTracking().SingleOrDefaultAsync(inquiry => inquiry.Id == id, cancellationToken) is not { } inquiry)
            return Problems.NotFound(Gone);
        var (known, rules, given) = await loader.JudgedAsync(inquiry, cancellationToken);
        var always = (await db.ClientOrMergedAsync(inquiry.ClientId))!.AlwaysComesIn;
        return TypedResults.Ok(new WhatWouldChangeView(rules.Sorts ? FitChanges.Find(rules, known, given, always)?.Sentence : null));
    }

    private static async Task<string?> RunningAsync(PorchDb db, Id<Inquiry> id, CancellationToken cancellationToken) =>
        (
            await (
                from one in db.RunsWithVersion()
                where one.Run.InquiryId == id && one.Run.Active
                select one.Version.Content
            ).FirstOrDefaultAsync(cancellationToken)
        )?.Name;

    internal static string? WaitsFor(Inquiry inquiry) => inquiry is { Waits: true, WantedMonth: { } month } ? Capacities.Say(month) : null;
}
