using System.Globalization;
using System.Security.Cryptography;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Core.Forms;
using PorchLight.Core.Messages;
using PorchLight.Server.Calendar;
using PorchLight.Server.Forms;
using PorchLight.Server.Hosting;
using PorchLight.Server.Messages;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Inquiries;

/// <summary>Before a form opens: the code that shows who has a personal link, and asking to be told when the light is on again.</summary>
internal static class FormAccessEndpoints
{
    private const int CodesADay = 10;
    private const int MostTries = 5;
    private static readonly Duration CodeLifetime = Duration.FromMinutes(15);
    private static readonly Duration BetweenCodes = Duration.FromSeconds(30);

    /// <param name="Email">Where to write.</param>
    internal sealed record ReopenSubscriptionRequest(string Email);

    /// <param name="Code">As typed.</param>
    internal sealed record TypedCode(string Code);

    /// <param name="Pass">What the browser shows from now on.</param>
    internal sealed record PassView(string Pass);

    public static void MapFormAccess(this IEndpointRouteBuilder app)
    {
        var group = app.MapGroup("/public/forms/{token}").For(Access.Public).WithTags("Public");
        group.MapPost("/opened", OpenedAsync).RequireRateLimiting(RateLimits.PublicForms);
        group.MapPost("/reopening", TellMeAsync).RequireRateLimiting(RateLimits.Mail);
        group.MapPost("/code", SendCodeAsync).RequireRateLimiting(RateLimits.Mail);
        group.MapPost("/code/check", CheckCodeAsync).RequireRateLimiting(RateLimits.SignIn);
        group
            .MapGet("/challenge", (string token, SpamCheck spam) => TypedResults.Ok(spam.NewChallenge()))
            .RequireRateLimiting(RateLimits.PublicForms);
    }

    /// <summary>An address of which only its owner knows the rest: "t•••@bakes.example".</summary>
    internal static string Veil(string email) =>
        email.IndexOf('@', StringComparison.Ordinal) is > 0 and var at ? $"{email[0]}•••{email[at..]}" : "•••";

    /// <summary>
    /// Notes that somebody has opened a form by a personal link. The browser says so when it shows the form: a mail program that only looks
    /// at the page is no person.
    /// </summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> OpenedAsync(
        string token,
        [FromHeader(Name = FormAccess.PassHeader)] string? pass,
        PorchDb db,
        FormAccess access,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        var (target, refusal) = await access.EnterAsync(token, pass, lightToo: true);
        if (target is null)
            return refusal!;
        if (target.Link is { Opened: null } link)
        {
            link.Opened = clock.GetCurrentInstant();
            await write.SaveAsync(cancellationToken);
        }

        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> TellMeAsync(
        string token,
        ReopenSubscriptionRequest wish,
        PorchDb db,
        FormAccess access,
        ProgramMail messages,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        var email = wish.Email.Trim();
        if (EmailAddress.Check(email) is { } wrong)
            return Problems.Invalid(new Finding("email", wrong));
        await using var write = await db.WriteAsync(cancellationToken);
        if (await access.FindAsync(token) is not { } target)
            return Problems.NotFound(FormAccess.NoSuchForm);
        var key = EmailAddress.Key(email);
        if (await access.LightAsync(target.Form, await db.BusinessAsync()) == LightState.On)
            return Problems.Conflict("The light is on already. Please reload the page.");
        if (await messages.WordsAsync(BuiltInMessage.OpenAgain, target.Form.Id) is null)
            return Problems.Conflict("This form tells nobody when it is open again. Please look in from time to time.");
        if (!await db.ReopenSubscriptions.AnyAsync(one => one.FormId == target.Form.Id && one.EmailKey == key, cancellationToken))
        {
            db.ReopenSubscriptions.Add(
                new ReopenSubscription
                {
                    Id = new Id<ReopenSubscription>(Guid.CreateVersion7()),
                    FormId = target.Form.Id,
                    Email = email,
                    EmailKey = key,
                    At = clock.GetCurrentInstant(),
                }
            );
            await write.SaveAsync(cancellationToken);
        }

        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> SendCodeAsync(
        string token,
        PorchDb db,
        FormAccess access,
        MailQueue mail,
        ProgramMail messages,
        BusinessClock clock,
        TimeProvider time,
        Quotas quotas,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        var business = await db.BusinessAsync();
        if (
            await access.FindAsync(token) is not { Link: { } link } target
            || await access.JudgeAsync(target, null, business) != AccessState.CodeNeeded
        )
            return Problems.NotFound(FormAccess.NoSuchForm);
        var now = time.Now();
        if (link.CodeSent is { } sent && now - sent < BetweenCodes)
            return Problems.Conflict(
                "A code is on its way already. Please look into your mail, or wait half a minute and ask for another one."
            );
        // Five guesses a code and ten codes a day leave a million numbers where they are for long enough.
        if (!quotas.Use("code", link.Id.ToString(), CodesADay, Duration.FromDays(1)))
            return Problems.Conflict(
                $"Enough codes were sent for this link today. Please try again tomorrow, or write to {business.MailAddress}."
            );
        var code = RandomNumberGenerator.GetInt32(1_000_000).ToString("D6", CultureInfo.InvariantCulture);
        (link.CodeHash, link.CodeSent, link.CodeTries) = (Hash(link, code), now, 0);
        mail.Queue(
            $"code {link.Id} {now.ToUnixTimeMilliseconds()}",
            business,
            link.Email,
            link.ClientId,
            (await messages.WriteAsync(BuiltInMessage.AccessCode, target.Form, ("code", code)))!,
            automatic: true,
            clock.GetCurrentInstant()
        );
        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
    }

    private static async Task<Results<Ok<PassView>, ProblemHttpResult>> CheckCodeAsync(
        string token,
        TypedCode typed,
        PorchDb db,
        FormAccess access,
        Tokens tokens,
        TimeProvider time,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await access.FindAsync(token) is not { Link: { } link })
            return Problems.NotFound(FormAccess.NoSuchForm);
        if (link.CodeHash is null || link.CodeSent is not { } sent || time.Now() - sent > CodeLifetime || link.CodeTries >= MostTries)
            return Problems.Unprocessable("This code is too old, or was tried too often. Please ask for a new one.");
        link.CodeTries++;
        var right = link.CodeHash == Hash(link, new string([.. typed.Code.Where(char.IsAsciiDigit)]));
        var pass = tokens.Create();
        if (right)
            (link.PassHash, link.CodeHash) = (pass.Hash, null);
        // A wrong try counts, too.
        await write.SaveAsync(cancellationToken);
        return right
            ? TypedResults.Ok(new PassView(pass.Token))
            : Problems.Invalid(
                new Finding(
                    "code",
                    link.CodeTries == MostTries
                        ? "This is not the code, and it was tried too often now. Please ask for a new one."
                        : "This is not the code. Please look again; it has six digits."
                )
            );
    }

    private static string Hash(PersonalLink link, string code) => Tokens.Hash($"{link.LinkHash} {code}");
}
