using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;
using PorchLight.Core.Forms;
using PorchLight.Core.Messages;
using PorchLight.Server.Calendar;
using PorchLight.Server.Forms;
using PorchLight.Server.Hosting;
using PorchLight.Server.Identity;
using PorchLight.Server.Messages;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Inquiries;

/// <summary>Personal links: a form for one person, who wrote by mail or is a client already.</summary>
internal static class PersonalLinkEndpoints
{
    private const string Gone = "This form is not here any more.";

    /// <param name="State">Whether it was opened or used, in words.</param>
    /// <param name="InquiryId">What came of it, or null.</param>
    internal sealed record LinkRow(
        Id<PersonalLink> Id,
        string Name,
        string Email,
        string Link,
        string State,
        bool Open,
        Id<Inquiry>? InquiryId
    );

    internal sealed record NewLink(string Email, string GivenName, string FamilyName);

    /// <param name="Link">The link that goes.</param>
    /// <param name="TakeBackSeconds">For how many seconds it can be taken back; null where it goes at once.</param>
    internal sealed record LinkGoing(Id<PersonalLink> Link, int? TakeBackSeconds);

    /// <param name="For">Whose link it is.</param>
    /// <param name="Text">The message; see <see cref="LinkInvitation"/>.</param>
    internal sealed record LinkByMail(NewLink For, string Subject, string Text);

    public static void MapPersonalLinks(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/forms/{id}/links").For(Access.Member).WithTags("Forms");
        group.MapGet(
            "",
            async (
                Id<Form> id,
                PorchDb db,
                Tokens tokens,
                BusinessClock clock,
                PublicAddress address,
                CancellationToken cancellationToken
            ) => TypedResults.Ok(await RowsAsync(id, db, tokens, clock, address, cancellationToken))
        );
        group.MapPost("", MakeAsync).Once();
        group.MapPost("/by-mail", SendAsync).Once();
        group.MapDelete("/{link}", WithdrawAsync);
        group.MapPost("/{link}/take-back", TakeBackAsync);
    }

    /// <summary>Makes a link; an open one for the same address is withdrawn.</summary>
    private static async Task<Results<Ok<List<LinkRow>>, ProblemHttpResult>> MakeAsync(
        Id<Form> id,
        NewLink asked,
        PorchDb db,
        Tokens tokens,
        BusinessClock clock,
        ClaimsPrincipal who,
        PublicAddress address,
        CancellationToken cancellationToken
    )
    {
        if (Check(asked) is { } wrong)
            return wrong;
        await using var write = await db.WriteAsync(cancellationToken);
        if (await AddAsync(id, asked, db, tokens, clock, who, cancellationToken) is null)
            return Problems.NotFound(Gone);
        await write.SaveAsync(cancellationToken);
        return TypedResults.Ok(await RowsAsync(id, db, tokens, clock, address, cancellationToken));
    }

    /// <summary>Makes a link and sends it by mail, in a person's words.</summary>
    private static async Task<Results<Ok<LinkGoing>, ProblemHttpResult>> SendAsync(
        Id<Form> id,
        LinkByMail asked,
        PorchDb db,
        MailQueue mail,
        TakeBackTime takeBack,
        Tokens tokens,
        BusinessClock clock,
        ClaimsPrincipal who,
        PublicAddress address,
        CancellationToken cancellationToken
    )
    {
        if (Check(asked.For) is { } wrong)
            return wrong;
        if (LinkInvitation.Check(asked.Subject, asked.Text) is { Count: > 0 } findings)
            return Problems.Invalid(findings);
        await using var write = await db.WriteAsync(cancellationToken);
        if (await AddAsync(id, asked.For, db, tokens, clock, who, cancellationToken) is not ({ } link, { } token))
            return Problems.NotFound(Gone);
        var queued = mail.Queue(
            EffectOf(link.Id),
            await db.BusinessAsync(),
            link.Email,
            link.ClientId,
            new MailContent(asked.Subject.Trim(), LinkInvitation.Fill(asked.Text.Trim(), $"{address.Site}/f/{token}"))
            {
                IsFormatted = true,
            },
            automatic: false,
            link.Made,
            canBeTakenBack: true
        );
        await write.SaveAsync(cancellationToken);
        return TypedResults.Ok(new LinkGoing(link.Id, takeBack.Of(queued).TakeBackSeconds));
    }

    /// <summary>Takes back the mail that a link goes with, and the link. One that was withdrawn for it stays so.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> TakeBackAsync(
        Id<Form> id,
        Id<PersonalLink> link,
        PorchDb db,
        MailQueue mail,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (
            await db.PersonalLinks.SingleOrDefaultAsync(one => one.Id == link && one.FormId == id, cancellationToken) is not { } given
            || !await mail.TakeBackAsync(EffectOf(link), cancellationToken)
        )
            return Problems.Conflict(MailEndpoints.GoneAlready);
        db.PersonalLinks.Remove(given);
        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
    }

    private static string EffectOf(Id<PersonalLink> link) => $"link {link}";

    private static ProblemHttpResult? Check(NewLink asked) =>
        EmailAddress.Check(asked.Email.Trim()) is { } wrong ? Problems.Invalid(new Finding("email", wrong))
        : asked.GivenName.Trim().Length + asked.FamilyName.Trim().Length > 200
            ? Problems.Invalid(new Finding("givenName", "This name is too long. Please shorten it."))
        : null;

    /// <summary>
    /// Adds a link as part of the caller's write, and withdraws an open one for the same address. Null when the form is gone.
    /// </summary>
    private static async Task<(PersonalLink Link, string Token)?> AddAsync(
        Id<Form> id,
        NewLink asked,
        PorchDb db,
        Tokens tokens,
        BusinessClock clock,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        if (await db.Forms.FindAsync([id], cancellationToken) is null)
            return null;
        var email = asked.Email.Trim();
        var name = $"{asked.GivenName.Trim()} {asked.FamilyName.Trim()}".Trim();
        var now = clock.GetCurrentInstant();
        var made = tokens.Create();
        await db
            .PersonalLinks.Where(one => one.FormId == id && one.Email == email && one.SubmissionId == null)
            .ExecuteDeleteAsync(cancellationToken);
        var link = new PersonalLink
        {
            Id = new Id<PersonalLink>(Guid.CreateVersion7()),
            FormId = id,
            LinkHash = made.Hash,
            LinkSealed = made.Sealed,
            Email = email,
            GivenName = asked.GivenName.Trim(),
            FamilyName = asked.FamilyName.Trim(),
            // Several may share an address; whose it is, the name says.
            ClientId = (await db.ClientWritingFromAsync(email, name.Length > 0 ? name : null))?.Id,
            MadeBy = who.DisplayName(),
            Made = now,
            GoodUntil = now + Retention.PersonalLink,
        };
        db.PersonalLinks.Add(link);
        return (link, made.Token);
    }

    private static async Task<Ok<List<LinkRow>>> WithdrawAsync(
        Id<Form> id,
        Id<PersonalLink> link,
        PorchDb db,
        Tokens tokens,
        BusinessClock clock,
        PublicAddress address,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        await db
            .PersonalLinks.Where(one => one.FormId == id && one.Id == link && one.SubmissionId == null)
            .ExecuteDeleteAsync(cancellationToken);
        await write.SaveAsync(cancellationToken);
        return TypedResults.Ok(await RowsAsync(id, db, tokens, clock, address, cancellationToken));
    }

    private static async Task<List<LinkRow>> RowsAsync(
        Id<Form> form,
        PorchDb db,
        Tokens tokens,
        BusinessClock clock,
        PublicAddress address,
        CancellationToken cancellationToken
    )
    {
        var now = clock.GetCurrentInstant();
        var zone = (await db.BusinessAsync()).DateTimeZone;
        var links = await db
            .PersonalLinks.AsNoTracking()
            .Where(link => link.FormId == form)
            .OrderByDescending(link => link.Made)
            .Take(100)
            .ToListAsync(cancellationToken);
        var used = links.Select(link => link.SubmissionId).OfType<Id<Submission>>().ToList();
        var inquiries = await db
            .Inquiries.Where(inquiry => used.Contains(inquiry.SubmissionId))
            .ToDictionaryAsync(inquiry => inquiry.SubmissionId, inquiry => inquiry.Id, cancellationToken);
        return
        [
            .. links.Select(link => new LinkRow(
                link.Id,
                link.Name?.Full ?? link.Email,
                link.Email,
                $"{address.Site}/f/{tokens.Open(link.LinkSealed)}",
                link.Used is { } sent ? $"sent {TimeWords.At(sent, now, zone)}"
                    : Retention.HasRunOut(link.GoodUntil, now) ? "ran out"
                    : link.Opened is { } opened ? $"opened {TimeWords.At(opened, now, zone)}"
                    : $"made {TimeWords.At(link.Made, now, zone)}, not opened yet",
                link.SubmissionId is null && !Retention.HasRunOut(link.GoodUntil, now),
                link.SubmissionId is { } submission && inquiries.TryGetValue(submission, out var inquiry) ? inquiry : null
            )),
        ];
    }
}
