using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Forms;
using PorchLight.Core.Messages;
using PorchLight.Server.Calendar;
using PorchLight.Server.Forms;
using PorchLight.Server.Hosting;
using PorchLight.Server.Messages;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Inquiries;

/// <summary>Finishing later: a link that brings the answers back in any browser.</summary>
internal static class UnfinishedFormEndpoints
{
    internal const int LargestAnswers = 512 * 1024;
    private const int MailsADay = 3;

    /// <param name="Revision">The revision this goes on from; zero the first time.</param>
    internal sealed record DraftAnswers(int Version, string Page, Guid SendKey, int Revision, IReadOnlyDictionary<string, Answer?> Answers);

    /// <param name="Link">The address that brings the answers back.</param>
    internal sealed record UnfinishedFormLink(string Link, string Token, string Until, int Revision);

    /// <param name="Email">Where the link shall go.</param>
    /// <param name="Agrees">That they want this mail.</param>
    internal sealed record MailDraftLinkRequest(Guid SendKey, string Email, bool Agrees);

    public static void MapUnfinishedForms(this IEndpointRouteBuilder app)
    {
        app.MapPut("/public/forms/{token}/unfinished-form", KeepAsync)
            .For(Access.Public)
            .RequireRateLimiting(RateLimits.PublicForms)
            .WithTags("Public");
        app.MapPost("/public/forms/{token}/unfinished-form/mail", MailAsync)
            .For(Access.Public)
            .RequireRateLimiting(RateLimits.Mail)
            .WithTags("Public");
    }

    /// <summary>Keeps a filling-in, or what was added to it since.</summary>
    private static async Task<Results<Ok<UnfinishedFormLink>, ProblemHttpResult>> KeepAsync(
        string token,
        DraftAnswers keeping,
        [FromHeader(Name = FormAccess.PassHeader)] string? pass,
        PorchDb db,
        FormAccess access,
        UnfinishedForms unfinishedForms,
        Tokens tokens,
        TimeProvider time,
        PublicAddress address,
        StorageQuota storageQuota,
        HttpRequest request,
        CancellationToken cancellationToken
    )
    {
        if (request.ContentLength is not <= LargestAnswers)
            return Problems.Say(StatusCodes.Status413PayloadTooLarge, Problems.TooMuch);
        if (FormLimits.Refuse(keeping.Answers) is { } tooMuch)
            return Problems.Unprocessable(tooMuch);
        if (
            await access.FindAsync(token) is { } at
            && storageQuota.Take(request.HttpContext, at.Form.Id.Value, request.ContentLength.Value) is { } full
        )
            return Problems.Unprocessable(full);
        await using var write = await db.WriteAsync(cancellationToken);
        var (target, refusal) = await access.EnterAsync(token, pass, lightToo: false);
        if (target is null)
            return refusal!;
        if (target.IsPreview)
            return Problems.Conflict("This is only a look at your form. What you type here is not kept.");
        if (
            await db.FormVersionAsync(target.Form.Id, keeping.Version) is not { Content: var content }
            || content.Pages.All(page => page.Key != keeping.Page)
        )
            return Problems.Unprocessable(PublicEndpoints.FormChanged);
        if (await CompiledQueries.SubmissionByKey(db, target.Form.Id, keeping.SendKey) is not null)
            return Problems.Conflict("These answers have been sent already. Thank you!");
        var business = await db.BusinessAsync();
        var now = time.Now();
        var unfinished = await db.UnfinishedForms.SingleOrDefaultAsync(
            one => one.FormId == target.Form.Id && one.SendKey == keeping.SendKey,
            cancellationToken
        );
        if (unfinished is not null && (unfinished.Ended is not null || unfinished.Revision != keeping.Revision))
            return Problems.Conflict(
                unfinished.Ended is not null
                    ? "These answers were kept too long ago and are deleted. What you see is still in this browser."
                    : "You went on with these answers in another window. Open the link again to see them; what you write here is not added."
            );
        if (unfinished is null)
        {
            var link = tokens.Create();
            unfinished = db
                .UnfinishedForms.Add(
                    new UnfinishedForm
                    {
                        Id = new Id<UnfinishedForm>(Guid.CreateVersion7()),
                        FormId = target.Form.Id,
                        FormVersion = keeping.Version,
                        SendKey = keeping.SendKey,
                        LinkHash = link.Hash,
                        LinkSealed = link.Sealed,
                        Page = keeping.Page,
                        Saved = now,
                        GoodUntil = now,
                        Revision = 0,
                    }
                )
                .Entity;
        }
        else
            await unfinishedForms.WentOnAsync(unfinished);

        (unfinished.FormVersion, unfinished.Page, unfinished.Answers, unfinished.Saved) = (
            keeping.Version,
            keeping.Page,
            new GivenAnswers(keeping.Answers),
            now
        );
        unfinished.GoodUntil = Retention.UnfinishedUntil(now, business.KeepUnfinishedDays);
        unfinished.Revision++;
        await write.SaveAsync(cancellationToken);
        var name = tokens.Open(unfinished.LinkSealed);
        return TypedResults.Ok(
            new UnfinishedFormLink(LinkOf(address, token, name), name, UnfinishedForms.Until(unfinished, business), unfinished.Revision)
        );
    }

    /// <summary>Mails the link, once they have given an address and agreed to it.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> MailAsync(
        string token,
        MailDraftLinkRequest wish,
        [FromHeader(Name = FormAccess.PassHeader)] string? pass,
        PorchDb db,
        FormAccess access,
        MailQueue mail,
        ProgramMail messages,
        Tokens tokens,
        BusinessClock clock,
        PublicAddress address,
        Quotas quotas,
        CancellationToken cancellationToken
    )
    {
        var email = wish.Email.Trim();
        if (EmailAddress.Check(email) is { } wrong)
            return Problems.Invalid(new Finding("email", wrong));
        if (!wish.Agrees)
            return Problems.Invalid(new Finding("agrees", "Please tick that you want this mail; we write to nobody who did not ask."));
        await using var write = await db.WriteAsync(cancellationToken);
        var (target, refusal) = await access.EnterAsync(token, pass, lightToo: false);
        if (target is null)
            return refusal!;
        if (
            await db.UnfinishedForms.SingleOrDefaultAsync(
                one => one.FormId == target.Form.Id && one.SendKey == wish.SendKey && one.Ended == null,
                cancellationToken
            )
            is not { } unfinished
        )
            return Problems.NotFound("These answers are not kept any more. Press “Finish later” again.");
        var business = await db.BusinessAsync();
        var effect = $"finish later {unfinished.Id} {unfinished.Revision} {EmailAddress.Key(email)}";
        if (await db.OutgoingMail.AnyAsync(sent => sent.EffectKey == effect, cancellationToken))
            return TypedResults.NoContent();
        if (!quotas.Use("finish later", EmailAddress.Key(email), MailsADay, Duration.FromDays(1)))
            return Problems.Conflict("This address has been sent enough links today. Please use the last one, or copy the link above.");
        var mayFollowUp = target.Form.Settings.FollowsUpUnfinished;
        if (
            await messages.WriteAsync(
                BuiltInMessage.FinishLater,
                target.Form,
                ("until", UnfinishedForms.Until(unfinished, business)),
                ("link", LinkOf(address, token, tokens.Open(unfinished.LinkSealed))),
                (
                    "address",
                    mayFollowUp
                        ? "We will write to you once more if you do not come back, and use this address for nothing else."
                        : "We use this address for nothing else."
                )
            )
            is not { } content
        )
            return Problems.Conflict("This form sends no links by mail. Please copy the link above.");
        (unfinished.MailedTo, unfinished.MayFollowUp) = (email, mayFollowUp);
        mail.Queue(effect, business, email, null, content, automatic: true, clock.GetCurrentInstant());
        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
    }

    /// <summary>The address of a form with the answers that were left.</summary>
    internal static string LinkOf(PublicAddress address, string token, string unfinished) => $"{address.Site}/f/{token}?later={unfinished}";
}
