using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Common;
using PorchLight.Core.Messages;
using PorchLight.Server.Brand;
using PorchLight.Server.Calendar;
using PorchLight.Server.Hosting;
using PorchLight.Server.Identity;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Messages;

/// <summary>Whether mail stays in the practice mailbox or goes out by SMTP.</summary>
internal static class MailSettingsEndpoints
{
    /// <param name="Practice">Whether mail stays in the program; the rest then waits unused.</param>
    /// <param name="User">Empty when the server asks for no sign-in.</param>
    /// <param name="Password">Never told; empty keeps the one that is stored.</param>
    internal sealed record MailSetting(bool Practice, string Host, int Port, MailSecurity Security, string User, string Password)
    {
        public static MailSetting Of(Business business) =>
            business.Smtp is { } smtp
                ? new MailSetting(false, smtp.Host, smtp.Port, smtp.Security, smtp.User ?? "", "")
                : new MailSetting(true, "", 587, MailSecurity.StartTls, "", "");

        public IReadOnlyList<Finding> Check() =>
            Practice
                ? []
                :
                [
                    .. Uri.CheckHostName(Host.Trim()) == UriHostNameType.Unknown
                        ? [new Finding("host", "Please give the mail server's name, like smtp.example.com.")]
                        : Array.Empty<Finding>(),
                    .. Port is >= 1 and <= 65535
                        ? Array.Empty<Finding>()
                        : [new Finding("port", "A port is a number from 1 to 65535; usually 587 or 465.")],
                ];

        public SmtpSettings? ToSmtp(SmtpSettings? before, Tokens tokens) =>
            Practice
                ? null
                : new SmtpSettings(
                    Host.Trim(),
                    Port,
                    Security,
                    User.Trim() is { Length: > 0 } user ? user : null,
                        // A password is only kept for the server and the person it was given for.
                        Password.Length > 0
                            ? tokens.Seal(Password)
                        : before is not null && before.Host == Host.Trim() && before.User == User.Trim() ? before.PasswordSealed
                        : null
                );
    }

    /// <param name="Waiting">How many messages wait for their next try.</param>
    /// <param name="Stuck">How many wait for a person.</param>
    internal sealed record MailSettingsView(MailSetting Setting, string From, int Waiting, int Stuck);

    /// <param name="Arrived">Whether the mail server took it.</param>
    /// <param name="Sentence">What happened.</param>
    internal sealed record TestResult(bool Arrived, string Sentence);

    public static void MapMailSettings(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/settings/mail").WithTags("Settings").For(Access.Owner);
        group.MapGet(
            "",
            async (PorchDb db, CancellationToken cancellationToken) => TypedResults.Ok(await ViewAsync(db, cancellationToken))
        );
        group.MapPut("", SaveAsync);
        group.MapPost("/test", TestAsync).Once();
    }

    private static async Task<Results<Ok<MailSettingsView>, ProblemHttpResult>> SaveAsync(
        Edit<MailSetting> edit,
        PorchDb db,
        Tokens tokens,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        var business = await db.BusinessAsync();
        var (merged, refusal) = edit.Onto(MailSetting.Of(business));
        if (refusal is not null)
            return refusal;
        if (merged.Check() is { Count: > 0 } findings)
            return Problems.Invalid(findings);
        business.Smtp = merged.ToSmtp(business.Smtp, tokens);
        await write.SaveAsync(cancellationToken);
        return TypedResults.Ok(await ViewAsync(db, cancellationToken));
    }

    /// <summary>Sends a message to the person who asks, by the settings as they stand on screen.</summary>
    private static async Task<Results<Ok<TestResult>, ProblemHttpResult>> TestAsync(
        MailSetting setting,
        PorchDb db,
        Tokens tokens,
        SmtpCarrier carrier,
        MailQueue mail,
        BusinessClock clock,
        ClaimsPrincipal who,
        UserManager<User> users,
        CancellationToken cancellationToken
    )
    {
        if (setting.Check() is { Count: > 0 } findings)
            return Problems.Invalid(findings);
        var business = await db.BusinessAsync();
        var to = (await users.GetUserAsync(who))!.Email!;
        var subject = $"A test from {business.Name}";
        if (setting.ToSmtp(business.Smtp, tokens) is not { } smtp)
        {
            await using var write = await db.WriteAsync(cancellationToken);
            mail.Queue(
                $"test {Guid.CreateVersion7()}",
                business,
                to,
                null,
                new MailContent(
                    subject,
                    "This is a test message. Mail stays in this program for now: you find everything it would send in the practice mail."
                ),
                automatic: true,
                clock.GetCurrentInstant()
            );
            await write.SaveAsync(cancellationToken);
            return TypedResults.Ok(new TestResult(true, "Mail stays in this program for now. The test message is in the practice mail."));
        }

        var message = SmtpCarrier.Compose(
            business.Name,
            business.MailAddress,
            to,
            subject,
            "This is a test message. If you can read it, your mail settings work, and messages to your clients go out this way."
        );
        return TypedResults.Ok(
            await carrier.CarryAsync(
                smtp,
                smtp.PasswordSealed is { } password ? tokens.Open(password) : null,
                message,
                cancellationToken
            ) switch
            {
                HandOver.Taken => new TestResult(true, $"The mail server took the test message to {to}. Look whether it arrives."),
                HandOver.Refused refused => new TestResult(false, refused.Why),
                _ => new TestResult(false, "The mail server took the whole message but never said whether it keeps it."),
            }
        );
    }

    private static async Task<MailSettingsView> ViewAsync(PorchDb db, CancellationToken cancellationToken)
    {
        var business = await db.BusinessAsync();
        return new MailSettingsView(
            MailSetting.Of(business),
            business.MailAddress,
            await db.OutgoingMail.CountAsync(mail => mail.State == MailState.Queued && mail.Tries > 0, cancellationToken),
            await MailEndpoints.Stuck(db).CountAsync(cancellationToken)
        );
    }
}
