using Microsoft.AspNetCore.Http.HttpResults;
using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Core.Forms;
using PorchLight.Server.Calendar;
using PorchLight.Server.Forms;
using PorchLight.Server.Hosting;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Inquiries;

/// <summary>
/// Where a developer's own markup posts to. The same rules hold; what has to be put right is kept and shown in the form
/// itself, with everything that was typed. There is no ticket and no proof of work, only the field that people do not see.
/// </summary>
internal static class PlainPostEndpoints
{
    public static void MapPlain(this IEndpointRouteBuilder app) =>
        app.MapPost("/public/forms/{token}/plain", SendAsync)
            .For(Access.Public)
            .RequireRateLimiting(RateLimits.PublicForms)
            .DisableAntiforgery()
            .ExcludeFromDescription();

    private static async Task<Results<RedirectHttpResult, ProblemHttpResult>> SendAsync(
        string token,
        HttpRequest request,
        PorchDb db,
        FormAccess access,
        Intake intake,
        Tokens tokens,
        BusinessClock clock,
        TimeProvider time,
        StorageQuota storageQuota,
        CancellationToken cancellationToken
    )
    {
        var (target, refusal) = await access.EnterAsync(token, pass: null, lightToo: true);
        if (target is not { Form: var form })
            return refusal!;
        if (!form.Settings.TakesPlainPosts)
            return Problems.Conflict(
                "This form takes no answers from HTML outside of it. Its owner can change that in the form's settings."
            );
        if (!request.HasFormContentType)
            return Problems.Unprocessable("Post this as an HTML form does, please.");
        if (request.ContentLength is not <= UnfinishedFormEndpoints.LargestAnswers)
            return Problems.Say(StatusCodes.Status413PayloadTooLarge, Problems.TooMuch);
        if (storageQuota.Take(request.HttpContext, form.Id.Value, request.ContentLength.Value) is { } full)
            return Problems.Unprocessable(full);
        IFormCollection posted;
        try
        {
            posted = await request.ReadFormAsync(cancellationToken);
        }
        catch (Exception failure) when (failure is InvalidDataException or IOException)
        {
            return Problems.Unprocessable(
                "This post could not be read: it has too many fields, names that are too long, or parts that do not end. Please post it as an HTML form does."
            );
        }

        var version = (await db.FormVersionAsync(form.Id, form.PublishedVersion))!;
        var (answers, unreadable) = PlainAnswers.Read(
            version.Content,
            posted.ToDictionary(field => field.Key, field => (IReadOnlyList<string>)[.. field.Value.OfType<string>()])
        );
        var sending = new SubmissionRequest(version.Number, Guid.CreateVersion7(), answers, request.Headers.Referer);
        var outside = new SubmissionContext(
            null,
            (new SpamContext(!string.IsNullOrEmpty(posted[PlainMarkup.Trap]), Duration.MaxValue, ProofHolds: true), null)
        );
        if (unreadable.Count > 0)
            return await KeepAsync(unreadable[0]);
        return await intake.SendAsync(target, sending, outside, clock.GetCurrentInstant(), cancellationToken) switch
        {
            IntakeResult.Received received => TypedResults.Redirect($"/f/{token}?sent={received.Receipt}"),
            IntakeResult.Refused { Findings.Count: > 0 } refused => await KeepAsync(refused.Findings[0]),
            IntakeResult.Refused refused => Problems.Say(refused.Status, refused.Sentence),
            var other => throw new InvalidOperationException($"No answer for {other}."),
        };

        // Nothing typed is lost: it waits in the form, open at the page that needs another look.
        async Task<RedirectHttpResult> KeepAsync(Finding finding)
        {
            var link = tokens.Create();
            var now = time.Now();
            var page =
                version.Content.Pages.FirstOrDefault(page => page.Items.Any(item => item.Key == Places.QuestionOf(finding.Place)))
                ?? version.Content.Pages[0];
            await using var write = await db.WriteAsync(cancellationToken);
            db.UnfinishedForms.Add(
                new UnfinishedForm
                {
                    Id = new Id<UnfinishedForm>(Guid.CreateVersion7()),
                    FormId = form.Id,
                    FormVersion = version.Number,
                    SendKey = sending.SendKey,
                    LinkHash = link.Hash,
                    LinkSealed = link.Sealed,
                    Page = page.Key,
                    Answers = new GivenAnswers(answers),
                    Saved = now,
                    GoodUntil = now + Duration.FromDays((await db.BusinessAsync()).KeepUnfinishedDays),
                }
            );
            await write.SaveAsync(cancellationToken);
            return TypedResults.Redirect($"/f/{token}?later={link.Token}&look=1");
        }
    }
}
