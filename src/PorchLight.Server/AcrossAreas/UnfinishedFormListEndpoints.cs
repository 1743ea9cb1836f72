using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;
using PorchLight.Core.Messages;
using PorchLight.Core.Records;
using PorchLight.Core.Screening;
using PorchLight.Server.Calendar;
using PorchLight.Server.Forms;
using PorchLight.Server.Hosting;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Messages;
using PorchLight.Server.Storage;

namespace PorchLight.Server.AcrossAreas;

/// <summary>
/// Half-finished forms of people who left an address. Whoever was told that one more mail may come can be reminded, once; to finish is
/// to send the same filling-in, which then stands among the inquiries and here no more.
/// </summary>
internal static class UnfinishedFormListEndpoints
{
    private const string Gone = "These answers are not kept any more: they were sent, or their time ended.";
    private const int Most = 200;

    /// <param name="Name">What to call them in a list: their name, else the address.</param>
    /// <param name="Left">When they were here last, in words.</param>
    /// <param name="Fit">What the fit can still become, in words; null where the form sorts nobody.</param>
    /// <param name="CanFollowUp">Whether they may be written to now.</param>
    /// <param name="FollowedUp">When they were written to, in words; else null.</param>
    internal sealed record UnfinishedFormRow(
        Id<UnfinishedForm> Id,
        string Name,
        string Email,
        string Form,
        string Left,
        string Until,
        string? Fit,
        bool CanFollowUp,
        string? FollowedUp
    );

    /// <param name="TakeBackSeconds">For how many seconds it can be taken back; null where it has gone.</param>
    internal sealed record ReminderGoing(int? TakeBackSeconds);

    public static void MapUnfinishedFormList(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/unfinished-forms").For(Access.Member).WithTags("Inquiries");
        group.MapGet("", ListAsync);
        group.MapPost("/{id}/follow-up", FollowUpAsync);
        group.MapPost("/{id}/take-back", TakeBackAsync);
    }

    private static async Task<Ok<List<UnfinishedFormRow>>> ListAsync(
        PorchDb db,
        UnfinishedFormReader forms,
        TimeProvider time,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        var (business, now) = (await db.BusinessAsync(), time.Now());
        var unfinishedForms = await db
            .UnfinishedForms.AsNoTracking()
            .Where(unfinished => unfinished.Ended == null && unfinished.GoodUntil > now)
            .OrderByDescending(unfinished => unfinished.Saved)
            .Take(Most)
            .ToListAsync(cancellationToken);
        var rows = new List<UnfinishedFormRow>();
        foreach (var unfinished in unfinishedForms)
        {
            var left = await forms.ReadAsync(unfinished, cancellationToken);
            if (left.Email is not { } email)
                continue;
            var rules = await db.ScreeningRulesAsync(left.Form.Id, left.Form.ScreeningVersion);
            rows.Add(
                new UnfinishedFormRow(
                    unfinished.Id,
                    left.Name?.Full ?? email,
                    email,
                    left.Content.Title,
                    TimeWords.At(unfinished.Saved, now, business.DateTimeZone),
                    UnfinishedForms.Until(unfinished, business),
                    rules.Sorts ? FitRanges.Of(rules, left.Known).Say() : null,
                    unfinished.MayBeWrittenTo(),
                    unfinished.FollowedUp is { } at ? TimeWords.At(at, now, business.DateTimeZone) : null
                )
            );
        }

        return TypedResults.Ok(rows);
    }

    /// <summary>Writes to somebody, once and never again, with the link that brings their answers back.</summary>
    private static async Task<Results<Ok<ReminderGoing>, ProblemHttpResult>> FollowUpAsync(
        Id<UnfinishedForm> id,
        PorchDb db,
        MailQueue mail,
        TakeBackTime takeBack,
        ProgramMail messages,
        UnfinishedFormReader forms,
        TimeProvider time,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (
            await db.UnfinishedForms.FindAsync([id], cancellationToken) is not { Ended: null } unfinished
            || unfinished.GoodUntil <= time.Now()
        )
            return Problems.NotFound(Gone);
        // Pressed twice they were written to already: one mail is what they were told.
        if (unfinished.FollowedUp is not null)
            return TypedResults.Ok(new ReminderGoing(null));
        if (!unfinished.MayBeWrittenTo())
            return Problems.Conflict("They were not told that you may write to them. The form's settings say how that is done.");
        var left = await forms.ReadAsync(unfinished, cancellationToken);
        unfinished.FollowedUp = time.Now();
        var queued = mail.Queue(
            EffectOf(id),
            await db.BusinessAsync(),
            unfinished.MailedTo!,
            null,
            ProgramMail.Write((await messages.WordsAsync(BuiltInMessage.StillUnfinished, left.Form.Id))!, await forms.ValuesAsync(left)),
            automatic: false,
            clock.GetCurrentInstant(),
            canBeTakenBack: true
        );
        await write.SaveAsync(cancellationToken);
        return TypedResults.Ok(new ReminderGoing(takeBack.Of(queued).TakeBackSeconds));
    }

    /// <summary>Takes the one mail back; they can be written to again.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> TakeBackAsync(
        Id<UnfinishedForm> id,
        PorchDb db,
        MailQueue mail,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (!await mail.TakeBackAsync(EffectOf(id), cancellationToken))
            return Problems.Conflict(MailEndpoints.GoneAlready);
        if (await db.UnfinishedForms.FindAsync([id], cancellationToken) is { } unfinished)
            unfinished.FollowedUp = null;
        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
    }

    private static string EffectOf(Id<UnfinishedForm> unfinished) => $"unfinished form {unfinished}";
}
