using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;
using PorchLight.Core.Conditions;
using PorchLight.Core.Forms;
using PorchLight.Core.Inquiries;
using PorchLight.Core.Projects;
using PorchLight.Core.Records;
using PorchLight.Core.Screening;
using PorchLight.Server.Calendar;
using PorchLight.Server.Forms;
using PorchLight.Server.Hosting;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Storage;

namespace PorchLight.Server.AcrossAreas;

/// <summary>Past inquiries sorted by a screening that is worked on. Nothing of it is kept.</summary>
internal static class SortingEndpoints
{
    private const string Gone = "This form is not here any more.";

    /// <param name="Rules">The screening as it stands in the window.</param>
    internal sealed record TriedScreening(ScreeningRules Rules);

    /// <param name="Moves">All nine moves, from the best fit to the worst.</param>
    /// <param name="Unsorted">Those nobody sorted yet, by the fit they would have.</param>
    /// <param name="Sorted">Every past inquiry, the newest first.</param>
    /// <param name="Shares">How many were booked of each fit, in words.</param>
    /// <param name="Where">Where points lie, in words; null without history.</param>
    /// <param name="MovesWords">How many move, in words.</param>
    /// <param name="History">What was learned from, or that it is too little.</param>
    /// <param name="HasEnough">Whether the numbers mean something.</param>
    /// <param name="TurnedAway">How much booked work it would have turned away, in words; null when nothing was booked.</param>
    /// <param name="Saved">First calls that would not have been held, in words; null when none.</param>
    /// <param name="Roc">The curve; null when there is nothing to part.</param>
    /// <param name="RocWords">The curve in words.</param>
    /// <param name="Suggestions">What history says of each signal that counts.</param>
    /// <param name="Suggested">The screening with all that history suggests in it; null when nothing is suggested.</param>
    /// <param name="FirstCallMinutes">How long a first call takes.</param>
    internal sealed record SortedAgain(
        IReadOnlyList<FitMove> Moves,
        IReadOnlyList<FirstSorted> Unsorted,
        IReadOnlyList<SortedRow> Sorted,
        IReadOnlyList<ShareOfFit> Shares,
        string? Where,
        string MovesWords,
        string History,
        bool HasEnough,
        string? TurnedAway,
        string? Saved,
        RocCurve? Roc,
        string? RocWords,
        IReadOnlyList<SuggestionView> Suggestions,
        ScreeningRules? Suggested,
        int FirstCallMinutes
    );

    /// <param name="Outcome">What became of it, in words.</param>
    /// <param name="Booked">Whether it was booked.</param>
    /// <param name="Moves">Whether it would be sorted otherwise.</param>
    internal sealed record SortedRow(
        Id<Inquiry> Id,
        string Name,
        string Received,
        FitLabel? Before,
        FitLabel Now,
        int Score,
        string Outcome,
        bool Booked,
        bool Moves
    );

    /// <param name="Signal">The signal's key.</param>
    /// <param name="Counts">Of how many it was true and how many of them booked, in words; null of nobody.</param>
    /// <param name="Points">The points history suggests; null where it suggests none.</param>
    /// <param name="Words">The suggestion as a sentence.</param>
    internal sealed record SuggestionView(string Signal, string? Counts, int? Points, string? Words);

    /// <param name="Words">"61 % booked, most likely between 46 and 74 %, of 40".</param>
    internal sealed record ShareOfFit(FitLabel Fit, string Words);

    /// <param name="Words">"From Not now to Come in, −35 to 82 points"; null while the form sorts nobody.</param>
    internal sealed record FitSoFarView(string? Words);

    /// <param name="Minutes">How long a first call takes.</param>
    internal sealed record FirstCall(int Minutes);

    public static void MapSorting(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/forms/{id}").For(Access.Member).WithTags("Forms");
        group.MapPost("/screening/sort-again", SortAgainAsync);
        group.MapPost("/fit-so-far", SayFitSoFarAsync);
        api.MapPut("/settings/first-call", SetFirstCallAsync).For(Access.Owner).WithTags("Settings");
    }

    private static async Task<Results<Ok<SortedAgain>, ProblemHttpResult>> SortAgainAsync(
        Id<Form> id,
        TriedScreening tried,
        PorchDb db,
        AnswerContextLoader loader,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        if (await db.Forms.FindAsync([id], cancellationToken) is null)
            return Problems.NotFound(Gone);
        if (tried.Rules.Check() is { Count: > 0 } findings)
            return Problems.Unprocessable(findings[0].Sentence, findings);
        var (business, now) = (await db.BusinessAsync(), clock.GetCurrentInstant());
        var rows = await PastInquiriesAsync(id, db, cancellationToken);
        var known = await loader.KnownThenAsync(id, tried.Rules, cancellationToken);
        var past = rows.Select(row => new PastInquiry(
                row.Inquiry.Id.Value,
                row.Inquiry.Fit,
                row.Outcome,
                row.HadFirstCall,
                known[row.Inquiry.Id]
            )
            {
                AlwaysComesIn = row.AlwaysComesIn,
            })
            .ToList();
        var report = SortingAgain.Run(tried.Rules, past, business.FirstCallMinutes);
        var suggestions = PointSuggestions.For(tried.Rules, past);
        return TypedResults.Ok(
            new SortedAgain(
                report.Moves,
                report.Unsorted,
                [
                    .. rows.Zip(
                        report.Inquiries,
                        (row, sorted) =>
                            new SortedRow(
                                row.Inquiry.Id,
                                row.Name,
                                TimeWords.At(row.Inquiry.Received, now, business.DateTimeZone),
                                FitLabel.Of(sorted.Before),
                                FitLabel.Of(sorted.Now)!,
                                sorted.Score,
                                sorted.Outcome.Say(),
                                sorted.Outcome == Outcome.Booked,
                                sorted.Moves
                            )
                    ),
                ],
                [.. report.Shares.Select(share => new ShareOfFit(FitLabel.Of(share.Fit)!, share.Booked.Say()))],
                report.SayWhere(),
                report.SayMoves(),
                report.SayHistory(),
                report.HasEnough,
                report.SayTurnedAway(),
                report.SaySaved(),
                report.Roc,
                report.Roc.Say(),
                [.. suggestions.Signals.Select(one => new SuggestionView(one.Signal, one.SayCounts(), one.Points, one.SayPoints()))],
                suggestions.Base is null ? null : suggestions.Into(tried.Rules),
                business.FirstCallMinutes
            )
        );
    }

    private sealed record PastRow(Inquiry Inquiry, string Name, bool AlwaysComesIn, Outcome Outcome, bool HadFirstCall);

    /// <summary>The past inquiries of a form with what became of them, the newest first.</summary>
    private static async Task<List<PastRow>> PastInquiriesAsync(Id<Form> form, PorchDb db, CancellationToken cancellationToken)
    {
        var stages = (await db.BusinessAsync()).Lists.Stages.ToDictionary(stage => stage.Key);
        var rows = await (
            from inquiry in db.CountingInquiries.AsNoTracking()
            where inquiry.FormId == form
            join client in db.Clients.IgnoreQueryFilters() on inquiry.ClientId equals client.Id
            orderby inquiry.Received descending, inquiry.Id
            select new
            {
                Inquiry = inquiry,
                client.Name,
                client.AlwaysComesIn,
            }
        ).ToListAsync(cancellationToken);
        var stageSet = DomainEvents.KindOf<ProjectStageSet>();
        var talked = (
            await (
                from logged in db.Events.AsNoTracking()
                where
                    logged.Kind == stageSet && db.Inquiries.Any(inquiry => inquiry.FormId == form && inquiry.ProjectId == logged.ProjectId)
                select new { logged.ProjectId, logged.What }
            ).ToListAsync(cancellationToken)
        )
            .Where(one =>
                one.What is ProjectStageSet set
                && stages.GetValueOrDefault(set.Stage) is { Kind: StageKind.Open or StageKind.Won } stage
                && stage.Key != stages.Values.First(first => first.Kind == StageKind.Open).Key
            )
            .Select(one => one.ProjectId!.Value)
            .ToHashSet();
        var outcomes = await InquiryOutcomes.OfAsync(db, db.CountingInquiries.Where(inquiry => inquiry.FormId == form), cancellationToken);
        return
        [
            .. rows.Select(row => new PastRow(
                row.Inquiry,
                row.Name,
                row.AlwaysComesIn,
                outcomes[row.Inquiry.Id],
                talked.Contains(row.Inquiry.ProjectId)
            )),
        ];
    }

    /// <summary>What the fit can still become for the answers somebody tries in the preview, by the screening that is worked on.</summary>
    private static async Task<Results<Ok<FitSoFarView>, ProblemHttpResult>> SayFitSoFarAsync(
        Id<Form> id,
        WorkedOutEndpoints.TrialAnswers trial,
        PorchDb db,
        AnswerContextLoader loader,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        if (await db.Forms.FindAsync([id], cancellationToken) is not { } form)
            return Problems.NotFound(Gone);
        if (FormLimits.Refuse(trial.Answers) is { } tooMuch)
            return Problems.Unprocessable(tooMuch);
        var rules = await ScreeningEndpoints.WorkedOnAsync(form, db);
        if (!rules.Sorts)
            return TypedResults.Ok(new FitSoFarView(null));
        var (known, answers) = await WorkedOutEndpoints.TryAsync(form, trial, db, loader, clock, cancellationToken);
        // The page somebody is on is the last that has an answer; what stands behind it is not asked yet.
        var page =
            known.Form.Pages.LastOrDefault(one => one.Questions.Any(question => answers.GetValueOrDefault(question.Key) is not null))
            ?? known.Form.Pages[0];
        var soFar = Routes.Trace(known, answers, page.Key).Know(known);
        return TypedResults.Ok(new FitSoFarView(FitRanges.Of(rules, soFar).Say()));
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> SetFirstCallAsync(
        FirstCall call,
        PorchDb db,
        CancellationToken cancellationToken
    )
    {
        if (call.Minutes is < 1 or > 480)
            return Problems.Unprocessable("A first call takes from 1 to 480 minutes.", [new Finding("minutes", "From 1 to 480 minutes.")]);
        await using var write = await db.WriteAsync(cancellationToken);
        (await db.BusinessAsync()).FirstCallMinutes = call.Minutes;
        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
    }
}
