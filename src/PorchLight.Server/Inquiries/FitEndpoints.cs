using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Common;
using PorchLight.Core.Conditions;
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
        var (now, user) = (clock.GetCurrentInstant(), await UserAsync(db, who));
        var client = (await db.ClientOrMergedAsync(inquiry.ClientId))!;
        var verdict = Screener.Judge(rules, await loader.KnownThenAsync(inquiry, rules, cancellationToken), client.AlwaysComesIn);
        db.LaterVerdicts.Add(
            new LaterVerdict
            {
                InquiryId = id,
                ScreeningVersion = form.ScreeningVersion,
                Verdict = verdict,
                By = user.DisplayName,
                At = now,
            }
        );
        if (await db.OverruledFits.FindAsync([id], cancellationToken) is null)
            inquiry.Fit = verdict.Fit;
        await events.AppendAsync(new JudgedAgain(verdict.Fit, form.ScreeningVersion, user.Id), now, AboutOf(inquiry));
        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
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
