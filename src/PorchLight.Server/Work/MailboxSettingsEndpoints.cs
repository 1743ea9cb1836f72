using System.Security.Cryptography;
using Microsoft.AspNetCore.Http.HttpResults;
using PorchLight.Core.Common;
using PorchLight.Server.Brand;
using PorchLight.Server.Hosting;
using PorchLight.Server.Messages;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Work;

/// <summary>Where the answers of clients are read.</summary>
internal static class MailboxSettingsEndpoints
{
    /// <param name="Reads">Whether a mailbox is read at all; the rest then waits unused.</param>
    /// <param name="Password">Never told; empty keeps the one that is stored.</param>
    internal sealed record MailboxSetting(
        bool Reads,
        string Host,
        int Port,
        MailSecurity Security,
        string User,
        string Password,
        string Folder
    )
    {
        public static MailboxSetting Of(Business business) =>
            business.Imap is { } imap
                ? new MailboxSetting(true, imap.Host, imap.Port, imap.Security, imap.User, "", imap.Folder)
                : new MailboxSetting(false, "", 993, MailSecurity.Tls, "", "", "INBOX");

        public IReadOnlyList<Finding> Check(ImapSettings? before) =>
            !Reads
                ? []
                :
                [
                    .. new (bool IsWrong, string Place, string Sentence)[]
                    {
                        (
                            Uri.CheckHostName(Host.Trim()) == UriHostNameType.Unknown,
                            "host",
                            "Please give the mail server's name, like imap.example.com."
                        ),
                        (Port is < 1 or > 65535, "port", "A port is a number from 1 to 65535; usually 993 or 143."),
                        (User.Trim().Length == 0, "user", "Please give the user name; often it is the whole e-mail address."),
                        (Password.Length == 0 && !IsSameAs(before), "password", "Please give the password of this mailbox."),
                        (Folder.Trim().Length == 0, "folder", "Please name the folder; new mail usually lands in INBOX."),
                    }
                        .Where(one => one.IsWrong)
                        .Select(one => new Finding(one.Place, one.Sentence)),
                ];

        /// <summary>What is stored. A password is only kept for the server and the person it was given for.</summary>
        public ImapSettings? ToImap(ImapSettings? before, Tokens tokens) =>
            Reads
                ? new ImapSettings(
                    Host.Trim(),
                    Port,
                    Security,
                    User.Trim(),
                    Password.Length > 0 ? tokens.Seal(Password) : before!.PasswordSealed,
                    Folder.Trim()
                )
                : null;

        private bool IsSameAs(ImapSettings? before) => before is not null && before.Host == Host.Trim() && before.User == User.Trim();
    }

    /// <param name="Failure">Why it could not be read the last time, as a sentence; null while it can.</param>
    internal sealed record MailboxSettingsView(MailboxSetting Setting, string? Failure);

    /// <param name="Worked">Whether the mailbox could be opened.</param>
    internal sealed record MailboxTest(bool Worked, string Sentence);

    public static void MapMailboxSettings(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/settings/mailbox").WithTags("Settings").For(Access.Owner);
        group.MapGet(
            "",
            async (PorchDb db, Mailbox mailbox, CancellationToken cancellationToken) => ViewOf(await db.BusinessAsync(), mailbox)
        );
        group.MapPut("", SaveAsync);
        group.MapPost("/test", TestAsync);
    }

    private static async Task<Results<Ok<MailboxSettingsView>, ProblemHttpResult>> SaveAsync(
        Edit<MailboxSetting> edit,
        PorchDb db,
        Tokens tokens,
        Mailbox mailbox,
        ImapReader reader,
        CancellationToken cancellationToken
    )
    {
        var begins = await BeginAsync(edit, db, tokens, reader, cancellationToken);
        await using var write = await db.WriteAsync(cancellationToken);
        var business = await db.BusinessAsync();
        var (merged, refusal) = edit.Onto(MailboxSetting.Of(business));
        if (refusal is not null)
            return refusal;
        if (merged.Check(business.Imap) is { Count: > 0 } findings)
            return Problems.Invalid(findings);
        business.Imap = merged.ToImap(business.Imap, tokens);
        if (
            business.Imap is { } imap
            && begins is { } from
            && await db.MailboxPositions.FindAsync([imap.Mailbox], cancellationToken) is null
        )
            db.MailboxPositions.Add(
                new MailboxPosition
                {
                    Mailbox = imap.Mailbox,
                    Validity = from.Validity,
                    Last = from.Last,
                }
            );
        await write.SaveAsync(cancellationToken);
        return TypedResults.Ok(ViewOf(business, mailbox));
    }

    /// <summary>
    /// How far the mailbox goes at this moment: what comes after it is read, however long the first reading is away. Null where it cannot be
    /// opened now; then the first reading begins.
    /// </summary>
    private static async Task<ReadSoFar?> BeginAsync(
        Edit<MailboxSetting> edit,
        PorchDb db,
        Tokens tokens,
        ImapReader reader,
        CancellationToken cancellationToken
    )
    {
        var business = await db.BusinessAsync();
        if (edit.Now.Check(business.Imap).Count > 0 || edit.Now.ToImap(business.Imap, tokens) is not { } imap)
            return null;
        try
        {
            return await reader.ReadAsync(imap, tokens.Open(imap.PasswordSealed), null, (_, _) => Task.CompletedTask, cancellationToken);
        }
        catch (MailboxException)
        {
            return null;
        }
    }

    /// <summary>Opens the mailbox by the settings as they stand on screen, and takes nothing in.</summary>
    private static async Task<Results<Ok<MailboxTest>, ProblemHttpResult>> TestAsync(
        MailboxSetting setting,
        PorchDb db,
        Tokens tokens,
        ImapReader reader,
        CancellationToken cancellationToken
    )
    {
        var business = await db.BusinessAsync();
        if (setting.Check(business.Imap) is { Count: > 0 } findings)
            return Problems.Invalid(findings);
        if (setting.ToImap(business.Imap, tokens) is not { } imap)
            return TypedResults.Ok(new MailboxTest(true, "No mailbox is read. Answers are noted by hand, or come by the practice mail."));
        try
        {
            await reader.ReadAsync(imap, tokens.Open(imap.PasswordSealed), null, (_, _) => Task.CompletedTask, cancellationToken);
            return TypedResults.Ok(
                new MailboxTest(true, "The mailbox can be read. Mail from people on file is brought in automatically from now on.")
            );
        }
        catch (MailboxException failure)
        {
            return TypedResults.Ok(new MailboxTest(false, failure.Message));
        }
        catch (CryptographicException)
        {
            return TypedResults.Ok(new MailboxTest(false, "The stored password cannot be opened any more. Please give it again."));
        }
    }

    private static MailboxSettingsView ViewOf(Business business, Mailbox mailbox) => new(MailboxSetting.Of(business), mailbox.Failure);
}
