using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;
using PorchLight.Core.Messages;
using PorchLight.Server.Calendar;
using PorchLight.Server.Hosting;
using PorchLight.Server.Identity;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Messages;

/// <summary>Messages that are stuck: refused for good, or perhaps sent. A person looks and decides.</summary>
internal static class MailEndpoints
{
    internal const string GoneAlready = "It has gone already and cannot be taken back.";
    private const string NotStuck = "This message is not stuck any more. Someone has already decided about it.";

    /// <param name="Perhaps">Whether it may have arrived; else it surely did not.</param>
    internal sealed record StuckRow(Id<OutgoingMail> Id, string Name, string Subject, bool Perhaps, string Why, string Written);

    internal sealed record StuckView(
        Id<OutgoingMail> Id,
        Id<Client>? ClientId,
        string Name,
        string To,
        string Subject,
        string Text,
        bool Perhaps,
        string Why,
        string Written,
        string MessageId,
        int Tries
    );

    public static void MapMail(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/mail").For(Access.Member).WithTags("Mail");
        group.MapGet("/{id}", ShowAsync);
        group.MapPost("/{id}/take-back", TakeBackAsync);
        group.MapPost(
            "/{id}/again",
            (
                Id<OutgoingMail> id,
                PorchDb db,
                EventLog events,
                BusinessClock clock,
                ClaimsPrincipal who,
                CancellationToken cancellationToken
            ) => DecideAsync(id, again: true, db, events, clock, who, cancellationToken)
        );
        group.MapPost(
            "/{id}/leave",
            (
                Id<OutgoingMail> id,
                PorchDb db,
                EventLog events,
                BusinessClock clock,
                ClaimsPrincipal who,
                CancellationToken cancellationToken
            ) => DecideAsync(id, again: false, db, events, clock, who, cancellationToken)
        );
    }

    /// <summary>Everything that is stuck, the longest first.</summary>
    internal static async Task<List<StuckRow>> RowsAsync(PorchDb db, Instant now, DateTimeZone zone, CancellationToken cancellationToken) =>
        [
            .. (
                await (
                    from mail in Stuck(db)
                    join client in db.Clients on mail.ClientId equals client.Id into clients
                    from client in clients.DefaultIfEmpty()
                    orderby mail.Written
                    select new { mail, Name = client == null ? mail.To : client.Name }
                )
                    .AsNoTracking()
                    .ToListAsync(cancellationToken)
            ).Select(row => new StuckRow(
                row.mail.Id,
                row.Name,
                row.mail.Subject,
                row.mail.State == MailState.PerhapsSent,
                row.mail.LastFailure ?? "",
                TimeWords.At(row.mail.Written, now, zone)
            )),
        ];

    internal static IQueryable<OutgoingMail> Stuck(PorchDb db) =>
        db.OutgoingMail.Where(mail => mail.State == MailState.Failed || mail.State == MailState.PerhapsSent);

    private static async Task<Results<Ok<StuckView>, ProblemHttpResult>> ShowAsync(
        Id<OutgoingMail> id,
        PorchDb db,
        EventLog events,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        if (await Stuck(db).SingleOrDefaultAsync(mail => mail.Id == id, cancellationToken) is not { } mail)
            return Problems.NotFound(NotStuck);
        var client = mail.ClientId is { } clientId ? await db.Clients.FindAsync([clientId], cancellationToken) : null;
        var zone = (await db.BusinessAsync()).DateTimeZone;
        return TypedResults.Ok(
            new StuckView(
                id,
                client?.Id,
                client?.Name ?? mail.To,
                mail.To,
                mail.Subject,
                mail.Text,
                mail.State == MailState.PerhapsSent,
                mail.LastFailure ?? "",
                TimeWords.At(mail.Written, clock.GetCurrentInstant(), zone),
                mail.MessageId,
                mail.Tries
            )
        );
    }

    /// <summary>Takes back what somebody has just written and sent: nothing has gone, and nothing followed from it.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> TakeBackAsync(
        Id<OutgoingMail> id,
        PorchDb db,
        MailQueue queue,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.OutgoingMail.FindAsync([id], cancellationToken) is not { Held: not null } mail || !queue.TakeBack(mail))
            return Problems.Conflict(GoneAlready);
        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> DecideAsync(
        Id<OutgoingMail> id,
        bool again,
        PorchDb db,
        EventLog events,
        BusinessClock clock,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await Stuck(db).SingleOrDefaultAsync(mail => mail.Id == id, cancellationToken) is not { } mail)
            return Problems.Conflict(NotStuck);
        mail.State = again ? MailState.Queued : MailState.Left;
        mail.Tries = 0;
        mail.NextTry = Instant.FromUnixTimeTicks(0);
        await events.AppendAsync(
            new DeliverySettled(mail.Subject, again, who.UserId()),
            clock.GetCurrentInstant(),
            new EventContext(mail.ClientId, MailId: mail.Id)
        );
        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
    }
}
