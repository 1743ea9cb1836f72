using System.Text.Json;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Forms;
using PorchLight.Core.Inquiries;
using PorchLight.Server.Calendar;
using PorchLight.Server.Forms;
using PorchLight.Server.Hosting;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Inquiries;

/// <summary>What strangers may ask: to see a form, to be led through it, to send it. No cookies, no sign-in.</summary>
internal static class PublicEndpoints
{
    internal const string FormChanged = "This form has changed. Please reload the page; your answers stay in this browser.";

    /// <summary>More than any form can be answered with; refused before it is read.</summary>
    private const int LargestBody = 1024 * 1024;

    /// <param name="Version">The version being answered.</param>
    /// <param name="Page">The open page.</param>
    /// <param name="Leaving">Whether the lead wants to go on, so that the page is checked and its blanks are final.</param>
    /// <param name="SendKey">The same through one filling-in.</param>
    /// <param name="Answers">By question key; null for a blank.</param>
    internal sealed record EvaluateRequest(
        int Version,
        string Page,
        bool Leaving,
        Guid SendKey,
        IReadOnlyDictionary<string, Answer?> Answers
    );

    /// <param name="Notice">What has to be known before anything else, or null.</param>
    /// <param name="WrittenDown">The inquiry, for somebody of the business who wrote it down; else null.</param>
    internal sealed record SentView(
        string Title,
        string? Notice,
        IReadOnlyList<string> Paragraphs,
        IReadOnlyList<string> NextSteps,
        bool OffersCall,
        bool OffersTimes,
        bool CallAsked,
        IReadOnlyList<WayForward> WaysForward,
        string? Video,
        LinkButton? Button,
        LinkButton? Download,
        string? Redirect,
        string Receipt,
        Id<Inquiry>? WrittenDown
    );

    public static void MapPublic(this IEndpointRouteBuilder app)
    {
        var group = app.MapGroup("/public").For(Access.Public).RequireRateLimiting(RateLimits.PublicForms).WithTags("Public");
        group.MapGet("/forms/{token}", ShowAsync);
        group.MapPost("/forms/{token}/evaluate", EvaluateAsync).WithMetadata(new RequestSizeLimitAttribute(LargestBody));
        group.MapPost("/forms/{token}/send", SendAsync).WithMetadata(new RequestSizeLimitAttribute(LargestBody));
        group.MapGet("/receipts/{token}", ShowReceiptAsync);
        group.MapPost("/receipts/{token}/call", AskForCallAsync);
    }

    /// <summary>The target of a form, and behind it the form, with what the address that opened it fills in.</summary>
    /// <param name="opened">The query of the address the form was opened by ("?utm_source=flyer"), or null.</param>
    /// <param name="cameFrom">The page they came from, or null.</param>
    /// <param name="later">The link of a filling-in that was left to be finished later, or null.</param>
    private static async Task<Results<Ok<FormPageView>, ProblemHttpResult>> ShowAsync(
        string token,
        string? opened,
        string? cameFrom,
        string? later,
        [FromHeader(Name = FormAccess.PassHeader)] string? pass,
        FormAccess access,
        FormPageLoader pages,
        CancellationToken cancellationToken
    ) =>
        await access.FindAsync(token) is { } target
            ? TypedResults.Ok(await pages.LoadAsync(target, new FormOpening(opened, cameFrom, later, pass), cancellationToken))
            : Problems.NotFound(FormAccess.NoSuchForm);

    private static async Task<Results<Ok<EvaluatedPage>, ProblemHttpResult>> EvaluateAsync(
        string token,
        EvaluateRequest filling,
        [FromHeader(Name = FormAccess.PassHeader)] string? pass,
        PorchDb db,
        FormAccess access,
        AnswerContextLoader loader,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        var (target, refusal) = await access.EnterAsync(token, pass, lightToo: false);
        if (target is null)
            return refusal!;
        if (
            await loader.VersionAsync(target, filling.Version) is not { Content: var content } version
            || content.Pages.All(page => page.Key != filling.Page)
        )
            return Problems.Unprocessable(FormChanged);
        var business = await db.BusinessAsync();
        var now = clock.GetCurrentInstant();
        if (FormLimits.Refuse(filling.Answers) is { } tooMuch)
            return Problems.Unprocessable(tooMuch);
        var known = await loader.ContextBeforeAnswersAsync(content, target, business, now, cancellationToken);
        var answers = AnswerNormaliser.Normalise(
            content,
            filling.Answers,
            await loader.NormaliseContextAsync(version, filling.SendKey, filling.Answers, business, now, cancellationToken)
        );

        var capacity = target.Form.Settings.Capacity;
        var taken = capacity is null ? [] : await loader.TakenAsync(target.Form.Id, cancellationToken);
        return TypedResults.Ok(PageEvaluation.Evaluate(known, answers, filling.Page, filling.Leaving, capacity, taken));
    }

    private static async Task<Results<Ok<SentView>, ProblemHttpResult>> SendAsync(
        string token,
        SubmissionRequest sending,
        [FromHeader(Name = FormAccess.PassHeader)] string? pass,
        FormAccess access,
        Intake intake,
        SpamCheck spam,
        StorageQuota storageQuota,
        BusinessClock clock,
        HttpRequest request,
        CancellationToken cancellationToken
    )
    {
        if (await access.FindAsync(token) is not { } target)
            return Problems.NotFound(FormAccess.NoSuchForm);
        if (
            storageQuota.Take(
                request.HttpContext,
                target.Form.Id.Value,
                request.ContentLength ?? JsonSerializer.SerializeToUtf8Bytes(sending, Json.Options).LongLength
            ) is
            { } full
        )
            return Problems.Unprocessable(full);
        var outside = new SubmissionContext(
            pass,
            await spam.ReadAsync(target.Form, sending.Ticket, sending.Trap, sending.Proof, cancellationToken)
        );
        return await intake.SendAsync(target, sending, outside, clock.GetCurrentInstant(), cancellationToken) switch
        {
            IntakeResult.Received received => TypedResults.Ok(
                View(Counted(received), target.WrittenDown is null ? null : received.Inquiry)
            ),
            IntakeResult.Refused refused => Problems.Say(refused.Status, refused.Sentence, refused.Findings, refused.RetryAfter),
            var other => throw new InvalidOperationException($"No answer for {other}."),
        };

        IntakeResult.Received Counted(IntakeResult.Received received)
        {
            spam.Used(sending.Ticket);
            return received;
        }
    }

    private static async Task<Results<Ok<SentView>, ProblemHttpResult>> ShowReceiptAsync(
        string token,
        PorchDb db,
        Intake intake,
        WriteDownTickets writeDowns,
        BusinessClock clock,
        HttpContext http,
        CancellationToken cancellationToken
    )
    {
        var hash = Tokens.Hash(token);
        if (await db.Submissions.SingleOrDefaultAsync(sent => sent.ReceiptHash == hash, cancellationToken) is not { } sent)
            return Problems.NotFound("What was sent here is not kept any more.");
        var received = await intake.AnswerAgainAsync(sent, clock.GetCurrentInstant(), cancellationToken);
        return TypedResults.Ok(View(received, writeDowns.Read(sent.FormId, http) is null ? null : received.Inquiry));
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> AskForCallAsync(
        string token,
        PorchDb db,
        EventLog events,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        var hash = Tokens.Hash(token);
        if (
            await (
                from sent in db.Submissions
                where sent.ReceiptHash == hash
                join received in db.Inquiries on sent.Id equals received.SubmissionId
                select received
            ).SingleOrDefaultAsync(cancellationToken)
            is not { } inquiry
        )
            return Problems.NotFound("This page has expired. Please answer the mail we sent you instead.");
        if (inquiry.CallAsked is null)
        {
            inquiry.CallAsked = clock.GetCurrentInstant();
            await events.AppendAsync(
                new CallAsked(),
                inquiry.CallAsked.Value,
                new EventContext(inquiry.ClientId, inquiry.ProjectId, inquiry.Id)
            );
            await write.SaveAsync(cancellationToken);
        }

        return TypedResults.NoContent();
    }

    private static SentView View(IntakeResult.Received received, Id<Inquiry>? writtenDown = null)
    {
        var (sendOff, words) = (received.SendOff, received.Words);
        return new SentView(
            words(sendOff.Title),
            received.Notice,
            [
                .. words(sendOff.Text).Split("\n\n", StringSplitOptions.RemoveEmptyEntries),
                .. sendOff.SaysAwayNote ? [received.AwayNote] : Array.Empty<string>(),
            ],
            [.. sendOff.NextSteps.Select(words).Where(step => step.Length > 0)],
            sendOff.OffersCall,
            sendOff.Meeting is not null && received.Inquiry is not null,
            received.CallAsked,
            sendOff.WaysForward,
            sendOff.Video is { } video ? PublicAddress.OfFile(video) : null,
            sendOff.Button,
            sendOff.Download is { } download ? new LinkButton(download.Label, PublicAddress.OfFile(download.File)) : null,
            sendOff.Redirect,
            received.Receipt,
            writtenDown
        );
    }
}
