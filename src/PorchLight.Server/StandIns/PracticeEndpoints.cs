using System.Text.Encodings.Web;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;
using PorchLight.Core.Meetings;
using PorchLight.Core.Messages;
using PorchLight.Core.Records;
using PorchLight.Server.Calendar;
using PorchLight.Server.Forms;
using PorchLight.Server.Hosting;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Messages;
using PorchLight.Server.Records;
using PorchLight.Server.StandIns.Mail;
using PorchLight.Server.Storage;

namespace PorchLight.Server.StandIns;

/// <summary>The practice mail and the practice clock: the simulated outside, played by hand.</summary>
internal static class PracticeEndpoints
{
    private const string NoSuchMail = "This message is not in the practice mail.";
    private const int LongestAnswer = 20_000;

    internal sealed record MailView(
        Id<PracticeMessage> Id,
        bool Incoming,
        string From,
        string To,
        string Subject,
        string Text,
        string At,
        string MessageId,
        Id<Client>? ClientId,
        string? Name,
        IReadOnlyList<string> Cc,
        IReadOnlyList<string> Files
    );

    /// <param name="Phone">The number a text message went to; null for a note on their page.</param>
    internal sealed record ShortMessageRow(Id<ShortMessage> Id, Id<Client> ClientId, string Name, string? Phone, string Text, string At);

    /// <param name="By">The follow-through that posted it.</param>
    internal sealed record ChatRow(Id<TeamChatPost> Id, Id<Client>? ClientId, string Text, string By, string At);

    /// <param name="Kind">Null for what they write.</param>
    internal sealed record MailAnswer(string Text, PracticeAnswer? Kind = null);

    /// <param name="Now">The business clock in words.</param>
    /// <param name="Ahead">How far it runs ahead of real time, in words; null when it does not.</param>
    /// <param name="NextStep">When the next step falls due, in words; null when none is planned.</param>
    internal sealed record ClockView(string Now, string? Ahead, string? NextStep);

    /// <summary>How far to skip.</summary>
    internal enum SkipTo
    {
        NextHour,
        TomorrowMorning,
        NextStep,
    }

    internal sealed record ClockSkip(SkipTo To);

    public static void MapPractice(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/practice").For(Access.Member).WithTags("Practice");
        group.MapGet("/mail/{id}", ShowAsync);
        group.MapGet("/mail/{id}/page", PageAsync).ExcludeFromDescription();
        group.MapPost("/mail/{id}/answer", AnswerAsync).Once();
        group.MapPost("/mail/{id}/booked", BookedAsync).Once();
        group.MapGet("/chat", ChatAsync);
        group.MapGet("/texts", TextsAsync);
        group.MapGet("/clock", ClockAsync);
        group.MapPost("/clock/skip", SkipAsync).Once();
    }

    private static async Task<Results<Ok<MailView>, ProblemHttpResult>> ShowAsync(
        Id<PracticeMessage> id,
        PorchDb db,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        if (await db.PracticeMail.FindAsync([id], cancellationToken) is not { } message)
            return Problems.NotFound(NoSuchMail);
        var zone = (await db.BusinessAsync()).DateTimeZone;
        var client = message.ClientId is { } clientId ? await db.Clients.FindAsync([clientId], cancellationToken) : null;
        return TypedResults.Ok(
            new MailView(
                id,
                message.Incoming,
                message.From,
                message.To,
                message.Subject,
                message.Text,
                TimeWords.At(message.At, clock.GetCurrentInstant(), zone),
                message.MessageId,
                message.ClientId,
                client?.Name,
                message.Enclosed?.Cc ?? [],
                await NamesOfAsync(db, message.Enclosed?.Files ?? [], cancellationToken)
            )
        );
    }

    private static async Task<IReadOnlyList<string>> NamesOfAsync(
        PorchDb db,
        IReadOnlyList<Guid> files,
        CancellationToken cancellationToken
    )
    {
        var ids = files.Select(file => new Id<StoredFile>(file)).ToList();
        return await db.StoredFiles.Where(file => ids.Contains(file.Id)).Select(file => file.Name).ToListAsync(cancellationToken);
    }

    /// <summary>The message as the person who gets it would see it. It may run nothing and load nothing.</summary>
    private static async Task<IResult> PageAsync(
        Id<PracticeMessage> id,
        PorchDb db,
        HttpResponse response,
        CancellationToken cancellationToken
    )
    {
        if (await db.PracticeMail.FindAsync([id], cancellationToken) is not { } message)
            return Problems.NotFound(NoSuchMail);
        var business = await db.BusinessAsync();
        response.Headers.ContentSecurityPolicy = "default-src 'none'; img-src 'self'; style-src 'unsafe-inline'; frame-ancestors 'self'";
        var html = HtmlEncoder.Default;
        var words = message.Formatted is { } formatted
            ? MailHtml.Clean(FormattedText.Read(formatted).ToHtml(file => $"/public/files/{file}"))
            : string.Concat(
                message
                    .Text.Split("\n\n")
                    .Select(paragraph => $"<p>{html.Encode(paragraph).Replace("&#xA;", "<br>", StringComparison.Ordinal)}</p>")
            );
        return Results.Content(
            $$"""
            <!doctype html><html lang="en"><head><meta charset="utf-8"><title>{{html.Encode(message.Subject)}}</title><style>
            body{margin:0;font:16px/1.6 system-ui,sans-serif;color:#1d2033;background:#fff}
            header{background:{{business.Look.Accent}};color:#fff;padding:14px 24px;font-weight:600}
            img{max-width:100%}
            main{padding:12px 24px 24px;max-width:36rem;overflow-wrap:anywhere}
            </style></head><body><header>{{html.Encode(message.Incoming ? message.From : business.Name)}}</header>
            <main>{{words}}</main></body></html>
            """,
            "text/html; charset=utf-8"
        );
    }

    /// <summary>Plays the answer of the person a message went to.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> AnswerAsync(
        Id<PracticeMessage> id,
        MailAnswer answer,
        PorchDb db,
        MailIntake intake,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        var kind = answer.Kind ?? PracticeAnswer.Reply;
        if (kind != PracticeAnswer.CameBack && string.IsNullOrWhiteSpace(answer.Text) || answer.Text.Length > LongestAnswer)
            return Problems.Unprocessable("Write what they answer, in at most 20,000 characters.");
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.PracticeMail.FindAsync([id], cancellationToken) is not { Incoming: false } message)
            return Problems.NotFound(NoSuchMail);
        await PracticeMailbox.AnswerAsync(db, intake, message, kind, answer.Text, clock.GetCurrentInstant());
        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
    }

    /// <summary>Plays a booking of the person a message went to.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> BookedAsync(
        Id<PracticeMessage> id,
        PorchDb db,
        EventLog events,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.PracticeMail.FindAsync([id], cancellationToken) is not { ClientId: { } client })
            return Problems.NotFound(NoSuchMail);
        await events.AppendAsync(new MeetingBooked(), clock.GetCurrentInstant(), await Promises.AboutAsync(db, client));
        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
    }

    /// <summary>The simulated phones and pages of clients, the newest note first.</summary>
    private static async Task<List<ShortMessageRow>> TextsAsync(PorchDb db, BusinessClock clock, CancellationToken cancellationToken)
    {
        var (now, zone) = (clock.GetCurrentInstant(), (await db.BusinessAsync()).DateTimeZone);
        var notes = await (
            from note in db.ShortMessages.AsNoTracking()
            join client in db.Clients on note.ClientId equals client.Id
            orderby note.At descending, note.Id descending
            select new { Note = note, client.Name }
        )
            .Take(200)
            .ToListAsync(cancellationToken);
        return
        [
            .. notes.Select(one => new ShortMessageRow(
                one.Note.Id,
                one.Note.ClientId,
                one.Name,
                one.Note.Phone,
                one.Note.Text,
                TimeWords.At(one.Note.At, now, zone)
            )),
        ];
    }

    /// <summary>The simulated team chat, the newest line first.</summary>
    private static async Task<List<ChatRow>> ChatAsync(PorchDb db, BusinessClock clock, CancellationToken cancellationToken)
    {
        var (now, zone) = (clock.GetCurrentInstant(), (await db.BusinessAsync()).DateTimeZone);
        var posts = await db
            .TeamChat.AsNoTracking()
            .OrderByDescending(post => post.At)
            .ThenByDescending(post => post.Id)
            .Take(200)
            .ToListAsync(cancellationToken);
        return [.. posts.Select(post => new ChatRow(post.Id, post.ClientId, post.Text, post.By, TimeWords.At(post.At, now, zone)))];
    }

    private static async Task<Ok<ClockView>> ClockAsync(PorchDb db, BusinessClock clock, CancellationToken cancellationToken)
    {
        var now = clock.GetCurrentInstant();
        var zone = (await db.BusinessAsync()).DateTimeZone;
        var next = await NextStepAsync(db, now, cancellationToken);
        return TypedResults.Ok(
            new ClockView(
                TimeWords.Exactly(now, zone),
                clock.Ahead == Duration.Zero ? null : Say(clock.Ahead),
                next is { } due ? TimeWords.At(due, now, zone) : null
            )
        );
    }

    private static async Task<Results<Ok<ClockView>, ProblemHttpResult>> SkipAsync(
        ClockSkip skip,
        PorchDb db,
        BusinessClock clock,
        ChangeNotifier notifier,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        var business = await db.BusinessAsync();
        if (!business.IsDemo)
            return Problems.Conflict("Only the demo's clock can be moved; here real people count on real days.");
        var now = clock.GetCurrentInstant();
        var calendar = business.Calendar;
        Instant? target = skip.To switch
        {
            SkipTo.NextHour => now + Duration.FromHours(1),
            SkipTo.TomorrowMorning => calendar.ToInstant(calendar.Today(now).PlusDays(1) + new LocalTime(9, 0)),
            _ => await NextStepAsync(db, now, cancellationToken),
        };
        if (target is not { } instant)
            return Problems.Unprocessable("No step is planned, so there is nothing to skip to.");
        business.ClockAheadSeconds += (long)Math.Ceiling((instant - now).TotalSeconds);
        await write.SaveAsync(cancellationToken);
        clock.Ahead = Duration.FromSeconds(business.ClockAheadSeconds);
        notifier.Wake();
        return await ClockAsync(db, clock, cancellationToken);
    }

    private static Task<Instant?> NextStepAsync(PorchDb db, Instant now, CancellationToken cancellationToken) =>
        db.Runs.Where(run => run.NextMoment > now).MinAsync(run => run.NextMoment, cancellationToken);

    private static string Say(Duration ahead) =>
        ahead.Days > 0 ? $"{ahead.Days} days and {ahead.Hours} hours ahead" : $"{ahead.Hours} hours and {ahead.Minutes} minutes ahead";
}
