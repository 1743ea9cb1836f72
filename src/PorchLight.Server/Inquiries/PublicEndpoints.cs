using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.WebUtilities;
using Microsoft.EntityFrameworkCore;
using NodaTime;
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
    internal const string NoSuchForm = "There is no form at this address. Perhaps the link was cut short; please ask whoever sent it to you.";
    internal const string FormChanged = "This form has changed. Please reload the page; your answers stay in this browser.";

    /// <param name="Version">The version being answered.</param>
    /// <param name="Page">The open page.</param>
    /// <param name="Leaving">Whether the lead wants to go on, so that the page is checked and its blanks are final.</param>
    /// <param name="SendKey">The same through one filling-in.</param>
    /// <param name="Answers">By question key; null for a blank.</param>
    internal sealed record Filling(int Version, string Page, bool Leaving, Guid SendKey, IReadOnlyDictionary<string, Answer?> Answers);

    internal sealed record SentView(
        string Title, IReadOnlyList<string> Paragraphs, IReadOnlyList<string> NextSteps, bool OffersCall,
        IReadOnlyList<WayForward> WaysForward, string? Video, LinkButton? Button, LinkButton? Download, string? Redirect, string Receipt);

    public static void MapPublic(this IEndpointRouteBuilder app)
    {
        var group = app.MapGroup("/public").RequireRateLimiting(Knocks.AtForms).WithTags("Public");
        group.MapGet("/forms/{token}", ShowAsync);
        group.MapPost("/forms/{token}/evaluate", EvaluateAsync);
        group.MapPost("/forms/{token}/send", SendAsync);
        group.MapPost("/receipts/{token}/call", AskForCallAsync);
    }

    /// <summary>The form, with what the address that opened it fills in.</summary>
    /// <param name="opened">The query of the address the form was opened by ("?utm_source=flyer"), or null.</param>
    /// <param name="cameFrom">The page they came from, or null.</param>
    private static async Task<Results<Ok<PublicForm>, ProblemHttpResult>> ShowAsync(
        string token, string? opened, string? cameFrom, PorchDb db, Tokens tokens, BusinessClock clock, CancellationToken stop)
    {
        if (await FindAsync(db, token) is not { PublishedVersion: > 0 } form)
            return Problems.NotFound(NoSuchForm);
        var content = (await CompiledQueries.FormVersion(db, form.Id, form.PublishedVersion))!.Content;
        var business = await db.BusinessAsync();
        var known = Nothing(content, business.Calendar.Today(clock.GetCurrentInstant()));
        var start = Routes.Trace(known, new Dictionary<string, Answer?>(), content.Pages[0].Key);
        var parameters = QueryHelpers.ParseQuery(opened).ToDictionary(pair => pair.Key, pair => pair.Value.ToString());
        return TypedResults.Ok(new PublicForm(
            content.Title, content.Intro, form.PublishedVersion, business.Name, business.Look, business.LogoAddress(), form.LightOn, form.AwayNote,
            PublicCover.Of(content.Cover, business), await SisterAsync(content.NotForUs, db, tokens, stop), content.Review, PublicForms.Pages(content, known.Today),
            Prefilling.Start(content, parameters, new Dictionary<string, Answer>(), cameFrom),
            PublicForms.Step(known, start, start, start.Next, [], null)));
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
        string token, Filling filling, PorchDb db, FillingDesk desk, BusinessClock clock, CancellationToken stop)
    {
        if (await FindAsync(db, token) is not { } form)
            return Problems.NotFound(NoSuchForm);
        if (await CompiledQueries.FormVersion(db, form.Id, filling.Version) is not { Content: var content } version || content.Pages.All(page => page.Key != filling.Page))
            return Problems.Unprocessable(FormChanged);
        var business = await db.BusinessAsync();
        var now = clock.GetCurrentInstant();
        var known = Nothing(content, business.Calendar.Today(now));
        var answers = Tidying.Tidy(content, filling.Answers, await desk.AroundAsync(version, filling.SendKey, filling.Answers, business, now, stop));

        var open = Routes.Trace(known, answers, filling.Page);
        // To leave a page makes its blanks final, which may settle where it leads; later pages do not bear on that.
        var left = Routes.Trace(known, answers);
        if (!filling.Leaving)
            return TypedResults.Ok(PublicForms.Step(known, open, left, open.Next, [], null));
        var next = left.Pages.SkipWhile(page => page != filling.Page).Skip(1).FirstOrDefault();
        var findings = AnswerChecks.Check(known, left, filling.Page);
        var review = content.Review && next is null && findings.Count == 0 ? PublicForms.Review(known, left) : null;
        return TypedResults.Ok(PublicForms.Step(known, open, left, next, findings, review));
    }

    private static async Task<Results<Ok<SentView>, ProblemHttpResult>> SendAsync(
        string token, Sending sending, PorchDb db, Intake intake, BusinessClock clock, CancellationToken stop)
    {
        if (await FindAsync(db, token) is not { } form)
            return Problems.NotFound(NoSuchForm);
        return await intake.SendAsync(form.Id, sending, clock.GetCurrentInstant(), stop) switch
        {
            IntakeResult.Received received => TypedResults.Ok(View(received)),
            IntakeResult.Refused refused => Problems.Say(refused.Status, refused.Sentence, refused.Findings),
            var other => throw new InvalidOperationException($"No answer for {other}."),
        };
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> AskForCallAsync(
        string token, PorchDb db, EventLog events, BusinessClock clock, CancellationToken stop)
    {
        await using var transaction = await db.BeginWriteAsync(stop);
        var hash = Tokens.Hash(token);
        if (await db.Inquiries.SingleOrDefaultAsync(inquiry => inquiry.ReceiptHash == hash, stop) is not { } inquiry)
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

    internal static Task<Form?> FindAsync(PorchDb db, string token) => CompiledQueries.FormByLink(db, Tokens.Hash(token));

    private static SentView View(IntakeResult.Received received)
    {
        var (sendOff, words) = (received.SendOff, received.Words);
        return new SentView(
            words(sendOff.Title), words(sendOff.Text).Split("\n\n", StringSplitOptions.RemoveEmptyEntries), [.. sendOff.NextSteps.Select(words)],
            sendOff.OffersCall, sendOff.WaysForward, sendOff.Video is { } video ? PublicForms.FileAddress(video) : null, sendOff.Button,
            sendOff.Download is { } download ? new LinkButton(download.Label, PublicForms.FileAddress(download.File)) : null, sendOff.Redirect, received.Receipt);
    }

    private static Known Nothing(FormContent content, LocalDate today) => new(content, new Dictionary<string, AnswerState>(), today);
}
