using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;
using PorchLight.Core.Messages;
using PorchLight.Core.Records;
using PorchLight.Server.Calendar;
using PorchLight.Server.Hosting;
using PorchLight.Server.Identity;
using PorchLight.Server.Messages;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Inquiries;

/// <summary>What went to a client by mail and what came from them, and an answer on the spot.</summary>
internal static class ConversationEndpoints
{
    private const int Longest = 100;

    /// <summary>What a message of a conversation is.</summary>
    internal enum MessageSort
    {
        /// <summary>Somebody of the business wrote or approved it.</summary>
        Ours,

        /// <summary>It went by itself.</summary>
        ByItself,

        /// <summary>The client wrote it.</summary>
        Theirs,

        /// <summary>A program of theirs wrote it; it is no reply.</summary>
        Automatic,

        /// <summary>It says that one of ours could not be delivered.</summary>
        CameBack,
    }

    /// <param name="Id">Names it among the messages of the client.</param>
    /// <param name="Text">Its own words.</param>
    /// <param name="Quoted">What it quotes of earlier ones; empty for nothing.</param>
    /// <param name="State">What is to be known of its way out, as a sentence; null for one that arrived, and for theirs.</param>
    internal sealed record MessageOnFile(
        Guid Id,
        MessageSort Sort,
        string Subject,
        string Text,
        string Quoted,
        string At,
        string Exactly,
        string? State
    );

    /// <param name="To">The address an answer goes to; null where nobody left one.</param>
    /// <param name="Subject">The subject an answer has, unless somebody writes another.</param>
    /// <param name="Answers">Which message an answer answers; null for none.</param>
    /// <param name="Messages">The newest first.</param>
    internal sealed record ConversationView(string Name, string? To, string Subject, Guid? Answers, IReadOnlyList<MessageOnFile> Messages);

    /// <param name="Answers">Which message of theirs it answers; null for none.</param>
    internal sealed record Written(MessageDraft Draft, Guid? Answers = null);

    public static void MapConversations(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/clients/{id}/messages").For(Access.Member).WithTags("Clients");
        group.MapGet("", ShowAsync);
        group.MapPost("", SendAsync).Once();
    }

    private static async Task<Ok<ConversationView>> ShowAsync(
        Id<Client> id,
        PorchDb db,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        if (await db.Clients.FindAsync([id], cancellationToken) is not { } client)
            // A page that is still open about somebody who has just been erased says so itself.
            return TypedResults.Ok(new ConversationView("", null, "", null, []));
        var (now, business) = (clock.GetCurrentInstant(), await db.BusinessAsync());
        var zone = business.DateTimeZone;
        var incoming = await db
            .IncomingMail.AsNoTracking()
            .Where(message => message.ClientId == id)
            .OrderByDescending(message => message.At)
            .ThenByDescending(message => message.Id)
            .Take(Longest)
            .ToListAsync(cancellationToken);
        // By what happened with them: the outbox itself is in no order of clients.
        var outgoing = await db
            .OutgoingMail.AsNoTracking()
            .Where(mail =>
                mail.ClientId == id
                && (
                    mail.Held != null || db.Events.Any(logged => logged.ClientId == id && logged.MailId != null && logged.MailId == mail.Id)
                )
            )
            .OrderByDescending(mail => mail.Written)
            .ThenByDescending(mail => mail.Id)
            .Take(Longest)
            .ToListAsync(cancellationToken);
        var newest = incoming.FirstOrDefault(message => message.Kind == IncomingKind.Reply);
        var messages = incoming
            .Select(message =>
            {
                var words = QuotedText.Split(message.Text);
                var sort = message.Kind switch
                {
                    IncomingKind.Reply => MessageSort.Theirs,
                    IncomingKind.Automatic => MessageSort.Automatic,
                    _ => MessageSort.CameBack,
                };
                return (message.At, On(message.Id.Value, sort, message.Subject, words, message.At, null));
            })
            .Concat(
                outgoing.Select(mail =>
                    (
                        At: mail.Written,
                        On(
                            mail.Id.Value,
                            mail.Automatic ? MessageSort.ByItself : MessageSort.Ours,
                            mail.Subject,
                            new QuotedText(mail.Text, ""),
                            mail.Written,
                            StateOf(mail)
                        )
                    )
                )
            )
            .OrderByDescending(one => one.At)
            .Select(one => one.Item2)
            .Take(Longest);
        return TypedResults.Ok(
            new ConversationView(
                client.Name,
                client.Email,
                newest is null ? "" : MailSubject.Answering(newest.Subject),
                newest?.Id.Value,
                [.. messages]
            )
        );

        MessageOnFile On(Guid message, MessageSort sort, string subject, QuotedText words, Instant at, string? state) =>
            new(message, sort, subject, words.Own, words.Quoted, TimeWords.At(at, now, zone), TimeWords.Exactly(at, zone), state);
    }

    /// <summary>Writes to a client; what answers a message of theirs says so, so that it stands below it in their mailbox.</summary>
    private static async Task<Results<Ok<MailGoing>, ProblemHttpResult>> SendAsync(
        Id<Client> id,
        Written written,
        PorchDb db,
        PersonalMail mail,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.Clients.FindAsync([id], cancellationToken) is not { } client)
            return Problems.NotFound(ClientEdits.Gone);
        var answered = written.Answers is { } message
            ? await db.IncomingMail.SingleOrDefaultAsync(
                one => one.Id == new Id<IncomingMessage>(message) && one.ClientId == id,
                cancellationToken
            )
            : null;
        var about = await Promises.AboutAsync(db, id);
        var (going, refusal) = await mail.SendAsync(client, written.Draft, about, who.UserId(), answered?.MessageId);
        if (going is null)
            return refusal!;
        await write.SaveAsync(cancellationToken);
        return TypedResults.Ok(going);
    }

    private static string? StateOf(OutgoingMail mail) =>
        mail.State switch
        {
            MailState.HandedOver => null,
            MailState.Failed => mail.LastFailure ?? "It was not delivered.",
            MailState.PerhapsSent => "Perhaps sent; please look on Today.",
            MailState.Left => "Left as it is.",
            _ when mail.Held is not null => "Goes in a few seconds.",
            _ => "On its way.",
        };
}
