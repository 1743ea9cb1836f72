using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Common;
using PorchLight.Core.Conditions;
using PorchLight.Core.Forms;
using PorchLight.Core.Inquiries;
using PorchLight.Core.Records;
using PorchLight.Core.Screening;
using PorchLight.Server.Calendar;
using PorchLight.Server.Forms;
using PorchLight.Server.Hosting;
using PorchLight.Server.Identity;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Inquiries;

/// <summary>What the people of the business do about a fit: sort otherwise, let the answers decide again, judge by newer rules.</summary>
internal static class FitEndpoints
{
    private const int LongestReason = 500;

    /// <param name="Fit">How it shall be sorted.</param>
    /// <param name="Reason">Why, in the person's words.</param>
    /// <param name="Seen">The fit the person saw, so that what somebody else did meanwhile is not undone unseen.</param>
    internal sealed record FitChoice(Fit Fit, string Reason, Fit Seen);

    public static void MapFits(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/inquiries/{id}").For(Access.Member).WithTags("Inquiries");
        group.MapPut("/fit", OverruleAsync);
        group.MapDelete("/fit", LetAnswersDecideAsync);
        group.MapPost("/judge-again", JudgeAgainAsync);
        api.MapPost("/forms/{id}/screening/sort-unsorted", SortUnsortedAsync).For(Access.Member).WithTags("Forms");
    }

    /// <summary>Sorts an inquiry otherwise than the rules did. What the rules found stays beside it.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> OverruleAsync(
        Id<Inquiry> id,
        FitChoice choice,
        PorchDb db,
        EventLog events,
        BusinessClock clock,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        var reason = choice.Reason.Trim();
        if (reason.Length == 0)
            return Problems.Unprocessable("Say in a few words why, for whoever looks at it later.", [new Finding("reason", "A word why.")]);
        if (reason.Length > LongestReason)
            return Problems.Unprocessable($"A reason has up to {LongestReason} characters. Please shorten it.");
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.Inquiries.FindAsync([id], cancellationToken) is not { } inquiry)
            return Problems.NotFound(InquiryActionEndpoints.Gone);
        if (inquiry.Fit is null)
            return Problems.Unprocessable("The form of this inquiry sorts nobody, so there is no fit to overrule.");
        var (now, user) = (clock.GetCurrentInstant(), await UserAsync(db, who));
        var before = await db.OverruledFits.FindAsync([id], cancellationToken);
        // Pressed twice it is so already.
        if (inquiry.Fit == choice.Fit && before?.Reason == reason)
            return TypedResults.NoContent();
        if (inquiry.Fit != choice.Seen)
            return Edits.Clashing("fit", inquiry.Fit.Value.Say(), choice.Fit.Say());
        if (before is null)
            db.OverruledFits.Add(
                new OverruledFit
                {
                    InquiryId = id,
                    Fit = choice.Fit,
                    Reason = reason,
                    By = user.DisplayName,
                    At = now,
                }
            );
        else
            (before.Fit, before.Reason, before.By, before.At) = (choice.Fit, reason, user.DisplayName, now);
        inquiry.Fit = choice.Fit;
        await events.AppendAsync(new FitOverruled(choice.Fit, user.Id), now, AboutOf(inquiry));
        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
    }

    /// <summary>Lets the fit stand again that the rules found last.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> LetAnswersDecideAsync(
        Id<Inquiry> id,
        PorchDb db,
        EventLog events,
        BusinessClock clock,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.Inquiries.FindAsync([id], cancellationToken) is not { } inquiry)
            return Problems.NotFound(InquiryActionEndpoints.Gone);
        if (await db.OverruledFits.FindAsync([id], cancellationToken) is not { } overruled)
            return TypedResults.NoContent();
        db.OverruledFits.Remove(overruled);
        var found = (await LatestVerdictAsync(db, id, cancellationToken))?.Verdict ?? inquiry.Verdict;
        inquiry.Fit = found.Fit;
        await events.AppendAsync(new OverruleTakenBack(found.Fit, who.UserId()), clock.GetCurrentInstant(), AboutOf(inquiry));
        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
    }

    /// <summary>
    /// Judges an inquiry by the screening in force today. The first verdict stays beside it, and so does what a person chose.
    /// </summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> JudgeAgainAsync(
        Id<Inquiry> id,
        PorchDb db,
        AnswerContextLoader loader,
        EventLog events,
        BusinessClock clock,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.Inquiries.FindAsync([id], cancellationToken) is not { } inquiry)
            return Problems.NotFound(InquiryActionEndpoints.Gone);
        var form = (await db.Forms.FindAsync([inquiry.FormId], cancellationToken))!;
        var rules = await db.ScreeningRulesAsync(form.Id, form.ScreeningVersion);
        if (!rules.Sorts)
            return Problems.Unprocessable("The form of this inquiry sorts nobody today, so there is nothing to judge by.");
        if (
            form.ScreeningVersion == inquiry.ScreeningVersion
            || await db.LaterVerdicts.FindAsync([id, form.ScreeningVersion], cancellationToken) is not null
        )
            return TypedResults.NoContent();
        var known = await loader.KnownThenAsync(inquiry, rules, cancellationToken);
        await JudgeAsync(inquiry, form.ScreeningVersion, rules, known, await UserAsync(db, who), db, events, clock);
        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
    }

    /// <param name="Count">How many were sorted.</param>
    internal sealed record SortedNow(int Count);

    /// <summary>Sorts everybody who came by a form while it sorted nobody, by the screening in force. Pressed twice nobody is left.</summary>
    private static async Task<Results<Ok<SortedNow>, ProblemHttpResult>> SortUnsortedAsync(
        Id<Form> id,
        PorchDb db,
        AnswerContextLoader loader,
        EventLog events,
        BusinessClock clock,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.Forms.FindAsync([id], cancellationToken) is not { } form)
            return Problems.NotFound("This form is not here any more.");
        var rules = await db.ScreeningRulesAsync(form.Id, form.ScreeningVersion);
        if (!rules.Sorts)
            return Problems.Unprocessable("This form sorts nobody yet. Put its signals into force first.");
        var unsorted = await db
            .CountingInquiries.Where(inquiry => inquiry.FormId == id && inquiry.Fit == null)
            .ToListAsync(cancellationToken);
        var (known, user) = (await loader.KnownThenAsync(id, rules, cancellationToken), await UserAsync(db, who));
        foreach (var inquiry in unsorted)
            await JudgeAsync(inquiry, form.ScreeningVersion, rules, known[inquiry.Id], user, db, events, clock);
        await write.SaveAsync(cancellationToken);
        return TypedResults.Ok(new SortedNow(unsorted.Count));
    }

    private static async Task JudgeAsync(
        Inquiry inquiry,
        int screening,
        ScreeningRules rules,
        AnswerContext known,
        User user,
        PorchDb db,
        EventLog events,
        BusinessClock clock
    )
    {
        var now = clock.GetCurrentInstant();
        var client = (await db.ClientOrMergedAsync(inquiry.ClientId))!;
        var verdict = Screener.Judge(rules, known, client.AlwaysComesIn);
        db.LaterVerdicts.Add(
            new LaterVerdict
            {
                InquiryId = inquiry.Id,
                ScreeningVersion = screening,
                Verdict = verdict,
                By = user.DisplayName,
                At = now,
            }
        );
        if (await db.OverruledFits.FindAsync(inquiry.Id) is null)
            inquiry.Fit = verdict.Fit;
        await events.AppendAsync(new JudgedAgain(verdict.Fit, screening, user.Id), now, AboutOf(inquiry));
    }

    /// <summary>How an inquiry was judged again last; null when it never was.</summary>
    public static Task<LaterVerdict?> LatestVerdictAsync(PorchDb db, Id<Inquiry> id, CancellationToken cancellationToken) =>
        db
            .LaterVerdicts.Where(verdict => verdict.InquiryId == id)
            .OrderByDescending(verdict => verdict.ScreeningVersion)
            .FirstOrDefaultAsync(cancellationToken);

    private static async Task<User> UserAsync(PorchDb db, ClaimsPrincipal who) => (await db.Users.FindAsync(who.UserId()))!;

    private static EventContext AboutOf(Inquiry inquiry) => new(inquiry.ClientId, inquiry.ProjectId, inquiry.Id);
}
