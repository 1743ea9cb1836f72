using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Brand;
using PorchLight.Core.Common;
using PorchLight.Core.Forms;
using PorchLight.Core.Messages;
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
    private const string NoSuchForm = "There is no form at this address. Perhaps the link was cut short; please ask whoever sent it to you.";

    /// <summary>A form as a lead may see it: nothing of screening, landing or conditions.</summary>
    internal sealed record PublicForm(
        string Title, string Intro, int Version, string Business, BrandLook Look, string? Logo, bool LightOn, string AwayNote,
        IReadOnlyList<PublicPage> Pages, FillingStep Start);

    internal sealed record PublicPage(string Key, string Title, IReadOnlyList<PublicQuestion> Questions);

    internal sealed record PublicQuestion(string Key, string Wording, string? Help, bool Required, QuestionKind Kind);

    /// <summary>Where a filling-in stands.</summary>
    /// <param name="Pages">The pages shown so far, the open one last.</param>
    /// <param name="Asked">The questions that are asked on them.</param>
    /// <param name="Next">The page that would follow; null when the form would end.</param>
    /// <param name="Findings">What has to be put right on the open page; only looked for when it is to be left.</param>
    /// <param name="Summary">The findings in one sentence; null when there are none.</param>
    internal sealed record FillingStep(
        IReadOnlyList<string> Pages, IReadOnlyList<string> Asked, string? Next, IReadOnlyList<Finding> Findings, string? Summary);

    /// <param name="Version">The version being answered.</param>
    /// <param name="Page">The open page.</param>
    /// <param name="Leaving">Whether the lead wants to go on, so that the page is checked and its blanks are final.</param>
    /// <param name="Answers">By question key; null for a blank.</param>
    internal sealed record Filling(int Version, string Page, bool Leaving, IReadOnlyDictionary<string, Answer?> Answers);

    internal sealed record SentView(
        string Title, IReadOnlyList<string> Paragraphs, IReadOnlyList<string> NextSteps, bool OffersCall,
        IReadOnlyList<WayForward> WaysForward, string Receipt);

    public static void MapPublic(this IEndpointRouteBuilder app)
    {
        var group = app.MapGroup("/public").RequireRateLimiting(Knocks.AtForms).WithTags("Public");
        group.MapGet("/forms/{token}", ShowAsync);
        group.MapPost("/forms/{token}/evaluate", EvaluateAsync);
        group.MapPost("/forms/{token}/send", SendAsync);
        group.MapPost("/receipts/{token}/call", AskForCallAsync);
    }

    private static async Task<Results<Ok<PublicForm>, ProblemHttpResult>> ShowAsync(
        string token, PorchDb db, BusinessClock clock, CancellationToken stop)
    {
        if (await FindAsync(db, token) is not { PublishedVersion: > 0 } form)
            return Problems.NotFound(NoSuchForm);
        var content = (await CompiledQueries.FormVersion(db, form.Id, form.PublishedVersion))!.Content;
        var business = await db.BusinessAsync();
        var known = Nothing(content, business.Calendar.Today(clock.GetCurrentInstant()));
        var start = Routes.Trace(known, new Dictionary<string, Answer?>(), content.Pages[0].Key);
        return TypedResults.Ok(new PublicForm(
            content.Title, content.Intro, form.PublishedVersion, business.Name, business.Look, business.LogoAddress(), form.LightOn, form.AwayNote,
            [.. content.Pages.Select(page => new PublicPage(page.Key, page.Title,
                [.. page.Questions.Select(question => new PublicQuestion(question.Key, question.Wording, question.Help, question.Required, Plain(question.Kind)))]))],
            new FillingStep(start.Pages, [.. start.Asked(content)], start.Next, [], null)));
    }

    private static async Task<Results<Ok<FillingStep>, ProblemHttpResult>> EvaluateAsync(
        string token, Filling filling, PorchDb db, BusinessClock clock, CancellationToken stop)
    {
        if (await FindAsync(db, token) is not { } form)
            return Problems.NotFound(NoSuchForm);
        if (await CompiledQueries.FormVersion(db, form.Id, filling.Version) is not { Content: var content } || content.Pages.All(page => page.Key != filling.Page))
            return Problems.Unprocessable("This form has changed. Please reload the page; your answers stay in this browser.");
        var business = await db.BusinessAsync();
        var known = Nothing(content, business.Calendar.Today(clock.GetCurrentInstant()));
        var answers = AnswerChecks.Tidy(content, filling.Answers, business.Region);

        var open = Routes.Trace(known, answers, filling.Page);
        if (!filling.Leaving)
            return TypedResults.Ok(new FillingStep(open.Pages, [.. open.Asked(content)], open.Next, [], null));
        // To leave a page makes its blanks final, which may settle where it leads; later pages do not bear on that.
        var left = Routes.Trace(known, answers);
        var next = left.Pages.SkipWhile(page => page != filling.Page).Skip(1).FirstOrDefault();
        var findings = AnswerChecks.Check(content, left, filling.Page);
        return TypedResults.Ok(new FillingStep(
            open.Pages, [.. open.Asked(content)], next, findings, findings.Count == 0 ? null : AnswerChecks.Summary(findings)));
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
        var known = new Dictionary<string, string> { ["promise"] = received.Promise };
        var sendOff = received.SendOff;
        return new SentView(
            KnownValues.Fill(sendOff.Title, known),
            KnownValues.Fill(sendOff.Text, known).Split("\n\n", StringSplitOptions.RemoveEmptyEntries),
            [.. sendOff.NextSteps.Select(step => KnownValues.Fill(step, known))],
            sendOff.OffersCall, sendOff.WaysForward, received.Receipt);
    }

    private static Known Nothing(FormContent content, LocalDate today) => new(content, new Dictionary<string, AnswerState>(), today);

    /// <summary>What the bands stand for is the business's own affair.</summary>
    private static QuestionKind Plain(QuestionKind kind) => kind is ChoiceKind choice
        ? choice with { Options = [.. choice.Options.Select(option => option with { Band = null })] }
        : kind;
}
