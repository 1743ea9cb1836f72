using System.Security.Cryptography;
using Microsoft.EntityFrameworkCore;
using PorchLight.Server.Brand;
using PorchLight.Server.Calendar;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Messages;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Work;

/// <summary>Reads the mailbox of the business, where it has named one, and takes in what comes from people on file.</summary>
internal sealed class Mailbox(IServiceScopeFactory scopes, ImapReader reader, BusinessClock clock)
{
    /// <summary>Why the mailbox could not be read the last time, as a sentence; null while it can.</summary>
    public string? Failure { get; private set; }

    /// <summary>
    /// Looks at what came since the last time. Each message is taken in one transaction with how far the mailbox has been read, so that
    /// one that was taken is not taken again, and none is passed over.
    /// </summary>
    public async Task ReadAsync(CancellationToken cancellationToken)
    {
        var (settings, before) = await InScopeAsync(async services =>
        {
            var db = services.GetRequiredService<PorchDb>();
            var imap = (await db.Businesses.AsNoTracking().SingleOrDefaultAsync(cancellationToken))?.Imap;
            var position = imap is null
                ? null
                : await db.MailboxPositions.AsNoTracking().SingleOrDefaultAsync(one => one.Mailbox == imap.Mailbox, cancellationToken);
            return (imap, position is null ? null : new ReadSoFar(position.Validity, position.Last));
        });
        if (settings is null)
        {
            Failure = null;
            return;
        }

        try
        {
            var read = await reader.ReadAsync(
                settings,
                await InScopeAsync(services => Task.FromResult(services.GetRequiredService<Tokens>().Open(settings.PasswordSealed))),
                before,
                (mail, soFar) => TakeAsync(settings, mail, soFar, cancellationToken),
                cancellationToken
            );
            if (read != before)
                await InScopeAsync(services => KeepAsync(services, settings, read, null, cancellationToken));
            Failure = null;
        }
        catch (MailboxException failure)
        {
            Failure = failure.Message;
        }
        catch (CryptographicException)
        {
            Failure = "The password of the mailbox cannot be opened any more. Give it again in Settings.";
        }
    }

    private Task<bool> TakeAsync(ImapSettings settings, MailAtHand mail, ReadSoFar soFar, CancellationToken cancellationToken) =>
        InScopeAsync(async services =>
        {
            // Fetched before the write begins: no line is waited for while others wait for the write.
            var message = await services.GetRequiredService<MailIntake>().ConcernsAsync(mail.Head)
                ? await mail.Fetch(cancellationToken)
                : null;
            return await KeepAsync(services, settings, soFar, message, cancellationToken);
        });

    private async Task<bool> KeepAsync(
        IServiceProvider services,
        ImapSettings settings,
        ReadSoFar soFar,
        MimeKit.MimeMessage? message,
        CancellationToken cancellationToken
    )
    {
        var db = services.GetRequiredService<PorchDb>();
        await using var write = await db.WriteAsync(cancellationToken);
        if (message is not null)
            await services.GetRequiredService<MailIntake>().TakeAsync(message, clock.GetCurrentInstant());
        if (await db.MailboxPositions.FindAsync([settings.Mailbox], cancellationToken) is { } position)
            (position.Validity, position.Last) = (soFar.Validity, soFar.Last);
        else
            db.MailboxPositions.Add(
                new MailboxPosition
                {
                    Mailbox = settings.Mailbox,
                    Validity = soFar.Validity,
                    Last = soFar.Last,
                }
            );
        await write.SaveAsync(cancellationToken);
        return true;
    }

    private async Task<T> InScopeAsync<T>(Func<IServiceProvider, Task<T>> ask)
    {
        await using var scope = scopes.CreateAsyncScope();
        return await ask(scope.ServiceProvider);
    }
}
