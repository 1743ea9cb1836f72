using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Core.Inquiries;
using PorchLight.Core.Messages;
using PorchLight.Core.Records;
using PorchLight.Server.Calendar;
using PorchLight.Server.Hosting;
using PorchLight.Server.Identity;
using PorchLight.Server.Messages;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Inquiries;

/// <summary>What the people of the business do with an inquiry: reply, note what happened elsewhere, close, give a place.</summary>
internal static class InquiryActionEndpoints
{
    internal const string Gone = "This inquiry is not here any more.";
    private const int LongestNote = 20_000;

    internal sealed record Reply(MessageDraft Draft);

    /// <param name="Text">What they said, as a person noted it; may be empty.</param>
    internal sealed record TheirWords(string Text);

    public static void MapInquiryActions(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/inquiries").For(Access.Member).WithTags("Inquiries");
        group.MapPost("/{id}/reply", ReplyAsync).Once();
        group.MapPost("/{id}/answered-elsewhere", AnsweredElsewhereAsync).Once();
        group.MapPost("/{id}/got-in-touch", GotInTouchAsync).Once();
        group.MapPost("/{id}/close", CloseAsync);
        group.MapPost("/{id}/open-again", OpenAgainAsync);
        group.MapPost("/{id}/place", GivePlaceAsync);
    }

    /// <summary>Somebody on a waiting list gets a place; writing to them is the person's to do.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> GivePlaceAsync(
        Id<Inquiry> id,
        PorchDb db,
        EventLog events,
        BusinessClock clock,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.Inquiries.FindAsync([id], cancellationToken) is not { WantedMonth: { } month } inquiry)
            return Problems.NotFound(Gone);
        if (inquiry.Waits)
        {
            inquiry.Waits = false;
            await events.AppendAsync(
                new PlaceGiven(month, who.UserId()),
                clock.GetCurrentInstant(),
                new EventContext(inquiry.ClientId, inquiry.ProjectId, inquiry.Id)
            );
            await write.SaveAsync(cancellationToken);
        }

        return TypedResults.NoContent();
    }

    private static async Task<Results<Ok<MailGoing>, ProblemHttpResult>> ReplyAsync(
        Id<Inquiry> id,
        Reply reply,
        PorchDb db,
        PersonalMail mail,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.Inquiries.FindAsync([id], cancellationToken) is not { } inquiry)
            return Problems.NotFound(Gone);
        var client = (await db.Clients.FindAsync([inquiry.ClientId], cancellationToken))!;
        var (going, refusal) = await mail.SendAsync(client, reply.Draft, AboutOf(inquiry), who.UserId());
        if (going is null)
            return refusal!;
        await write.SaveAsync(cancellationToken);
        return TypedResults.Ok(going);
    }

    /// <summary>A person of the business answered by phone, in person or from another mail program: the promise is kept.</summary>
    private static Task<Results<NoContent, ProblemHttpResult>> AnsweredElsewhereAsync(
        Id<Inquiry> id,
        PorchDb db,
        EventLog events,
        BusinessClock clock,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    ) =>
        ChangeAsync(
            id,
            db,
            clock,
            (inquiry, now) => events.AppendAsync(new AnsweredElsewhere(who.UserId()), now, AboutOf(inquiry)),
            cancellationToken
        );

    /// <summary>The client phoned, or wrote elsewhere: what waits to be sent to them stops, as after a mail of theirs.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> GotInTouchAsync(
        Id<Inquiry> id,
        TheirWords said,
        PorchDb db,
        EventLog events,
        BusinessClock clock,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    ) =>
        said.Text.Length > LongestNote
            ? Problems.Unprocessable("This is too long to note down. Please shorten it.")
            : await ChangeAsync(
                id,
                db,
                clock,
                (inquiry, now) =>
                    events.AppendAsync(
                        new ReplyReceived(null, said.Text.Trim() is { Length: > 0 } words ? words : null, who.UserId()),
                        now,
                        AboutOf(inquiry)
                    ),
                cancellationToken
            );

    /// <summary>Nothing more is to be done: nothing is owed, and nothing is sent any more.</summary>
    private static Task<Results<NoContent, ProblemHttpResult>> CloseAsync(
        Id<Inquiry> id,
        PorchDb db,
        ProjectStages stages,
        EventLog events,
        BusinessClock clock,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    ) =>
        ChangeAsync(
            id,
            db,
            clock,
            async (inquiry, now) =>
            {
                if (inquiry.Closed is not null)
                    return;
                if (
                    !await db.Inquiries.AnyAsync(
                        other => other.ProjectId == inquiry.ProjectId && other.Id != inquiry.Id && other.Closed == null,
                        cancellationToken
                    )
                )
                    await stages.CloseWithInquiryAsync(
                        (await db.Projects.FindAsync([inquiry.ProjectId], cancellationToken))!,
                        who.UserId(),
                        now
                    );
                await events.AppendAsync(new InquiryClosed(who.UserId()), now, AboutOf(inquiry));
            },
            cancellationToken
        );

    /// <summary>Takes a closing back. What was stopped stays stopped.</summary>
    private static Task<Results<NoContent, ProblemHttpResult>> OpenAgainAsync(
        Id<Inquiry> id,
        PorchDb db,
        ProjectStages stages,
        EventLog events,
        BusinessClock clock,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    ) =>
        ChangeAsync(
            id,
            db,
            clock,
            async (inquiry, now) =>
            {
                if (inquiry.Closed is null)
                    return;
                await stages.OpenWithInquiryAsync(
                    (await db.Projects.FindAsync([inquiry.ProjectId], cancellationToken))!,
                    who.UserId(),
                    now
                );
                await events.AppendAsync(new InquiryReopened(who.UserId()), now, AboutOf(inquiry));
            },
            cancellationToken
        );

    private static EventContext AboutOf(Inquiry inquiry) => new(inquiry.ClientId, inquiry.ProjectId, inquiry.Id);

    /// <summary>Changes an inquiry in one transaction.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> ChangeAsync(
        Id<Inquiry> id,
        PorchDb db,
        BusinessClock clock,
        Func<Inquiry, Instant, Task> change,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.Inquiries.FindAsync([id], cancellationToken) is not { } inquiry)
            return Problems.NotFound(Gone);
        await change(inquiry, clock.GetCurrentInstant());
        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
    }
}
