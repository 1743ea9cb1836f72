using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Answers;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;
using PorchLight.Core.Forms;
using PorchLight.Core.Records;
using PorchLight.Core.Screening;
using PorchLight.Server.Calendar;
using PorchLight.Server.Forms;
using PorchLight.Server.Hosting;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Messages;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Screens;

/// <summary>
/// Half-finished forms of people who left an address. Whoever was told that one more mail may come can be reminded, once; to finish is
/// to send the same filling-in, which then stands among the inquiries and here no more.
/// </summary>
internal static class LeftAtTheDoorEndpoints
{
    private const string Gone = "These answers are not kept any more: they were sent, or their time ended.";
    private const int Most = 200;

    /// <param name="Name">What to call them in a list: their name, else the address.</param>
    /// <param name="Left">When they were here last, in words.</param>
    /// <param name="Fit">What the fit can still become, in words; null where the form sorts nobody.</param>
    /// <param name="CanFollowUp">Whether they may be written to now.</param>
    /// <param name="FollowedUp">When they were written to, in words; else null.</param>
    internal sealed record LeftRow(
        Id<SavedDraft> Id,
        string Name,
        string Email,
        string Form,
        string Left,
        string Until,
        string? Fit,
        bool CanFollowUp,
        string? FollowedUp
    );

    public static void MapLeftAtTheDoor(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/left-at-the-door").For(Access.Member).WithTags("Inquiries");
        group.MapGet("", ListAsync);
        group.MapPost("/{id}/follow-up", FollowUpAsync);
    }

    private static async Task<Ok<List<LeftRow>>> ListAsync(
        PorchDb db,
        AnswerContextLoader loader,
        TimeProvider time,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        var (business, now) = (await db.BusinessAsync(), time.Now());
        var drafts = await db
            .SavedDrafts.AsNoTracking()
            .Where(draft => draft.Ended == null && draft.GoodUntil > now)
            .OrderByDescending(draft => draft.Saved)
            .Take(Most)
            .ToListAsync(cancellationToken);
        var rows = new List<LeftRow>();
        foreach (var draft in drafts)
        {
            var form = (await db.Forms.FindAsync([draft.FormId], cancellationToken))!;
            var content = (await db.FormVersionAsync(draft.FormId, draft.FormVersion))!.Content;
            var given = draft.Answers!.ByQuestion;
            var nothing = await loader.NothingAsync(
                content,
                new FormTarget(form, null),
                business,
                clock.GetCurrentInstant(),
                cancellationToken
            );
            var soFar = Routes.Trace(nothing, given, draft.Page).Know(nothing);
            var contact = Contact.Of(
                content,
                given.Where(one => one.Value is not null).ToDictionary(one => one.Key, one => AnswerState.Of(one.Value!))
            );
            if ((draft.MailedTo ?? contact.Email) is not { } email || EmailAddress.Check(email) is not null)
                continue;
            var rules = await db.ScreeningRulesAsync(form.Id, form.ScreeningVersion);
            rows.Add(
                new LeftRow(
                    draft.Id,
                    contact.Name?.Full ?? email,
                    email,
                    content.Title,
                    TimeWords.At(draft.Saved, now, business.DateTimeZone),
                    SavedDrafts.Until(draft, business),
                    rules.Sorts ? FitRanges.Of(rules, soFar).Say() : null,
                    CanFollowUp(draft),
                    draft.FollowedUp is { } at ? TimeWords.At(at, now, business.DateTimeZone) : null
                )
            );
        }

        return TypedResults.Ok(rows);
    }

    /// <summary>Writes to somebody, once and never again, with the link that brings their answers back.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> FollowUpAsync(
        Id<SavedDraft> id,
        PorchDb db,
        MailQueue mail,
        Tokens tokens,
        PublicAddress address,
        TimeProvider time,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.SavedDrafts.FindAsync([id], cancellationToken) is not { Ended: null } draft || draft.GoodUntil <= time.Now())
            return Problems.NotFound(Gone);
        // Pressed twice they were written to already: one mail is what they were told.
        if (draft.FollowedUp is not null)
            return TypedResults.NoContent();
        if (!CanFollowUp(draft))
            return Problems.Conflict("They were not told that you may write to them. The form's settings say how that is done.");
        var (business, form) = (await db.BusinessAsync(), (await db.Forms.FindAsync([draft.FormId], cancellationToken))!);
        draft.FollowedUp = time.Now();
        mail.Queue(
            $"left at the door {draft.Id}",
            business,
            draft.MailedTo!,
            null,
            new MailContent(
                $"Your answers to “{form.Draft.Title}” are still here",
                $"You left “{form.Draft.Title}” half-finished. If you would still like to send it, this link brings your answers back until {SavedDrafts.Until(draft, business)}:\n\n{SavedDraftEndpoints.LinkOf(address, tokens.Open(form.LinkSealed), tokens.Open(draft.LinkSealed))}\n\nIf not, there is nothing to do: we do not write again, and the answers are deleted after that day.\n\n{business.OwnerName}\n{business.Name}"
            ),
            automatic: false,
            clock.GetCurrentInstant()
        );
        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
    }

    private static bool CanFollowUp(SavedDraft draft) => draft is { MayFollowUp: true, FollowedUp: null, MailedTo: not null };
}
