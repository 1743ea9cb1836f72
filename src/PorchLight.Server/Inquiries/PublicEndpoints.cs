using System.Text.Json;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.WebUtilities;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Common;
using PorchLight.Core.Forms;
using PorchLight.Core.Records;
using PorchLight.Server.Brand;
using PorchLight.Server.Calendar;
using PorchLight.Server.Data;
using PorchLight.Server.Forms;
using PorchLight.Server.Records;

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
    internal sealed record Filling(int Version, string Page, bool Leaving, Guid SendKey, IReadOnlyDictionary<string, Answer?> Answers);

    /// <param name="Notice">What has to be known before anything else, or null.</param>
    internal sealed record SentView(
        string Title, string? Notice, IReadOnlyList<string> Paragraphs, IReadOnlyList<string> NextSteps, bool OffersCall, bool CallAsked,
        IReadOnlyList<WayForward> WaysForward, string? Video, LinkButton? Button, LinkButton? Download, string? Redirect, string Receipt);

    public static void MapPublic(this IEndpointRouteBuilder app)
    {
        var group = app.MapGroup("/public").RequireRateLimiting(Knocks.AtForms).WithTags("Public");
        group.MapGet("/forms/{token}", ShowAsync);
        group.MapPost("/forms/{token}/evaluate", EvaluateAsync).WithMetadata(new RequestSizeLimitAttribute(LargestBody));
        group.MapPost("/forms/{token}/send", SendAsync).WithMetadata(new RequestSizeLimitAttribute(LargestBody));
        group.MapGet("/receipts/{token}", ShowReceiptAsync);
        group.MapPost("/receipts/{token}/call", AskForCallAsync);
    }

    /// <summary>The door of a form, and behind it the form, with what the address that opened it fills in.</summary>
    /// <param name="opened">The query of the address the form was opened by ("?utm_source=flyer"), or null.</param>
    /// <param name="cameFrom">The page they came from, or null.</param>
    /// <param name="later">The link of a filling-in that was left to be finished later, or null.</param>
    private static async Task<Results<Ok<DoorView>, ProblemHttpResult>> ShowAsync(
        string token, string? opened, string? cameFrom, string? later, [FromHeader(Name = DoorDesk.PassHeader)] string? pass,
        PorchDb db, DoorDesk doors, KeptDesk kept, SpamDesk spam, FillingDesk desk, Tokens tokens, BusinessClock clock, CancellationToken stop)
    {
        if (await doors.FindAsync(token) is not { } door)
            return Problems.NotFound(DoorDesk.NoSuchForm);
        var business = await db.BusinessAsync();
        var (filling, lost) = await kept.FindAsync(door.Form, later, stop);
        var version = (await desk.VersionAsync(door, door.Look ? 0 : filling?.FormVersion ?? door.Form.PublishedVersion))!;
        var content = version.Content;
        var welcome = await doors.JudgeAsync(door, pass, business);
        if (door.Link is { Opened: null } link && welcome == Welcome.Open)
        {
            link.Opened = clock.GetCurrentInstant();
            await db.SaveChangesAsync(stop);
        }

        return TypedResults.Ok(new DoorView(
            content.Title, business.Name, business.Look, business.LogoAddress(), welcome, await doors.SayAsync(door, welcome, business),
            welcome == Welcome.CodeNeeded ? EntryEndpoints.Veil(door.Link!.Email) : null, lost,
            welcome == Welcome.Open ? await FormAsync() : null, door.Look));

        async Task<PublicForm> FormAsync()
        {
            var known = await desk.NothingAsync(content, door, business, clock.GetCurrentInstant(), stop);
            var parameters = QueryHelpers.ParseQuery(opened).ToDictionary(pair => pair.Key, pair => pair.Value.ToString());
            var prefilled = Prefilling.Start(content, parameters, known.OnFile, cameFrom);
            var start = Routes.Trace(known, prefilled.ToDictionary(one => one.Key, one => (Answer?)one.Value), content.Pages[0].Key);
            return new PublicForm(
                content.Intro, version.Number, PublicCover.Of(content.Cover, business),
                await SisterAsync(content.NotForUs, db, tokens, stop), content.Review, PublicForms.Pages(content, known.Today),
                prefilled,
                PublicForms.Step(known, start, start, start.Next, [], null),
                spam.Ticket(door.Form.Id), door.Look ? 0 : door.Form.Settings.Guard.LeastSeconds, !door.Look && door.Form.Settings.Guard.Proof, filling is null ? null : kept.View(filling, business));
        }
    }

    private static async Task<SisterNote?> SisterAsync(NotForUs? note, PorchDb db, Tokens tokens, CancellationToken stop)
    {
        if (note is null)
            return null;
        var sister = note.SisterForm is { } id ? await db.Forms.FindAsync([new Id<Form>(id)], stop) : null;
        return sister is { PublishedVersion: > 0 }
            ? new SisterNote(note.Text, $"/f/{tokens.Open(sister.LinkSealed)}", note.SisterLabel ?? sister.Draft.Title)
            : new SisterNote(note.Text, null, null);
    }

    private static async Task<Results<Ok<FillingStep>, ProblemHttpResult>> EvaluateAsync(
        string token, Filling filling, [FromHeader(Name = DoorDesk.PassHeader)] string? pass,
        PorchDb db, DoorDesk doors, FillingDesk desk, BusinessClock clock, CancellationToken stop)
    {
        var (door, refusal) = await doors.EnterAsync(token, pass, lightToo: false);
        if (door is null)
            return refusal!;
        if (await desk.VersionAsync(door, filling.Version) is not { Content: var content } version || content.Pages.All(page => page.Key != filling.Page))
            return Problems.Unprocessable(FormChanged);
        var business = await db.BusinessAsync();
        var now = clock.GetCurrentInstant();
        if (FormLimits.Refuse(filling.Answers) is { } tooMuch)
            return Problems.Unprocessable(tooMuch);
        var known = await desk.NothingAsync(content, door, business, now, stop);
        var answers = Tidying.Tidy(content, filling.Answers, await desk.AroundAsync(version, filling.SendKey, filling.Answers, business, now, stop));

        var open = Routes.Trace(known, answers, filling.Page);
        // To leave a page makes its blanks final, which may settle where it leads; later pages do not bear on that.
        var left = Routes.Trace(known, answers);
        var notices = AnswerDoubts.About(known, open);
        foreach (var (place, notice) in await desk.NoticesAsync(door.Form, open, stop))
            notices[place] = notice;
        if (!filling.Leaving)
            return TypedResults.Ok(PublicForms.Step(known, open, left, open.Next, [], null, notices));
        var next = left.Pages.SkipWhile(page => page != filling.Page).Skip(1).FirstOrDefault();
        var findings = AnswerChecks.Check(known, left, filling.Page);
        var review = content.Review && next is null && findings.Count == 0 ? PublicForms.Review(known, left) : null;
        return TypedResults.Ok(PublicForms.Step(known, open, left, next, findings, review, notices));
    }

    private static async Task<Results<Ok<SentView>, ProblemHttpResult>> SendAsync(
        string token, Sending sending, [FromHeader(Name = DoorDesk.PassHeader)] string? pass,
        DoorDesk doors, Intake intake, SpamDesk spam, StrangersBudget budget, BusinessClock clock, HttpRequest request, CancellationToken stop)
    {
        if (await doors.FindAsync(token) is not { } door)
            return Problems.NotFound(DoorDesk.NoSuchForm);
        if (budget.Take(request.HttpContext, door.Form.Id.Value, request.ContentLength ?? JsonSerializer.SerializeToUtf8Bytes(sending, Json.Options).LongLength) is { } full)
            return Problems.Unprocessable(full);
        var outside = new Outside(pass, await spam.ReadAsync(door.Form, sending.Ticket, sending.Trap, sending.Proof, stop));
        return await intake.SendAsync(door, sending, outside, clock.GetCurrentInstant(), stop) switch
        {
            IntakeResult.Received received => TypedResults.Ok(View(Counted(received))),
            IntakeResult.Refused refused => Problems.Say(refused.Status, refused.Sentence, refused.Findings),
            var other => throw new InvalidOperationException($"No answer for {other}."),
        };

        IntakeResult.Received Counted(IntakeResult.Received received)
        {
            spam.Used(sending.Ticket);
            return received;
        }
    }

    private static async Task<Results<Ok<SentView>, ProblemHttpResult>> ShowReceiptAsync(
        string token, PorchDb db, Intake intake, BusinessClock clock, CancellationToken stop)
    {
        var hash = Tokens.Hash(token);
        return await db.Submissions.SingleOrDefaultAsync(sent => sent.ReceiptHash == hash, stop) is { } sent
            ? TypedResults.Ok(View(await intake.AgainAsync(sent, clock.GetCurrentInstant(), stop)))
            : Problems.NotFound("What was sent here is not kept any more.");
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> AskForCallAsync(
        string token, PorchDb db, EventLog events, BusinessClock clock, CancellationToken stop)
    {
        await using var transaction = await db.BeginWriteAsync(stop);
        var hash = Tokens.Hash(token);
        if (await (from sent in db.Submissions
                   where sent.ReceiptHash == hash
                   join received in db.Inquiries on sent.Id equals received.SubmissionId
                   select received).SingleOrDefaultAsync(stop) is not { } inquiry)
            return Problems.NotFound("This page has expired. Please answer the mail we sent you instead.");
        if (inquiry.CallAsked is null)
        {
            inquiry.CallAsked = clock.GetCurrentInstant();
            await events.HappenedAsync(new CallAsked(), inquiry.CallAsked.Value, new About(inquiry.ClientId, inquiry.ProjectId, inquiry.Id));
            await db.SaveChangesAsync(stop);
            await transaction.CommitAsync(stop);
        }

        return TypedResults.NoContent();
    }

    private static SentView View(IntakeResult.Received received)
    {
        var (sendOff, words) = (received.SendOff, received.Words);
        return new SentView(
            words(sendOff.Title), received.Notice,
            [.. words(sendOff.Text).Split("\n\n", StringSplitOptions.RemoveEmptyEntries), .. sendOff.SaysAwayNote ? [received.AwayNote] : Array.Empty<string>()],
            [.. sendOff.NextSteps.Select(words)],
            sendOff.OffersCall, received.CallAsked, sendOff.WaysForward, sendOff.Video is { } video ? PublicForms.FileAddress(video) : null, sendOff.Button,
            sendOff.Download is { } download ? new LinkButton(download.Label, PublicForms.FileAddress(download.File)) : null, sendOff.Redirect, received.Receipt);
    }
}
