using MailKit;
using MailKit.Net.Imap;
using MailKit.Security;
using MimeKit;
using PorchLight.Server.Brand;

namespace PorchLight.Server.Messages;

/// <summary>A message in a mailbox, its head read.</summary>
/// <param name="Number">Its number in the mailbox.</param>
/// <param name="Fetch">Reads the whole of it.</param>
internal sealed record MailAtHand(long Number, HeaderList Head, Func<CancellationToken, Task<MimeMessage>> Fetch);

/// <summary>How far a reading got.</summary>
/// <param name="Validity">What the numbers are valid with.</param>
/// <param name="Last">The number of the last message that was looked at.</param>
internal sealed record ReadSoFar(long Validity, long Last);

/// <summary>Reads a mailbox by IMAP (RFC 9051, RFC 3501) and changes nothing in it: what is new to us stays new to its owner.</summary>
internal sealed class ImapReader(IConfiguration configuration)
{
    private const uint LargestMail = 10 * 1024 * 1024;
    private readonly TimeSpan _patience = TimeSpan.FromSeconds(configuration.GetValue("PorchLight:ImapTimeoutSeconds", 30.0));

    /// <summary>
    /// Looks at each message that came since, in order. A mailbox that is read for the first time, or has been made anew, begins with what
    /// comes from then on: nobody wants years of mail taken in.
    /// </summary>
    /// <param name="before">How far it was read; null for never.</param>
    /// <param name="look">Is given each message, and how far the reading has got with it.</param>
    /// <returns>How far it has got.</returns>
    /// <exception cref="MailboxException">It could not be read; the message is a sentence for the owner.</exception>
    public async Task<ReadSoFar> ReadAsync(
        ImapSettings settings,
        string password,
        ReadSoFar? before,
        Func<MailAtHand, ReadSoFar, Task> look,
        CancellationToken cancellationToken
    )
    {
        using var patience = CancellationTokenSource.CreateLinkedTokenSource(cancellationToken);
        patience.CancelAfter(_patience);
        using var client = new ImapClient();
        try
        {
            await client.ConnectAsync(settings.Host, settings.Port, settings.Security.ToOptions(), patience.Token);
            await client.AuthenticateAsync(settings.User, password, patience.Token);
            var folder = await client.GetFolderAsync(settings.Folder, patience.Token);
            await folder.OpenAsync(FolderAccess.ReadOnly, patience.Token);
            var next = folder.UidNext?.Id ?? 1;
            var last = before?.Validity == folder.UidValidity ? before.Last : next - 1;
            if (last + 1 < next)
            {
                var found = await folder.FetchAsync(
                    new UniqueIdRange(new UniqueId((uint)(last + 1)), UniqueId.MaxValue),
                    MessageSummaryItems.UniqueId | MessageSummaryItems.Size | MessageSummaryItems.Headers,
                    patience.Token
                );
                foreach (var one in found.Where(one => one.UniqueId.Id > last).OrderBy(one => one.UniqueId.Id))
                {
                    last = one.UniqueId.Id;
                    // Nobody answers with ten megabytes of words; the mailbox keeps it.
                    if (one is { Headers: { } head, Size: null or <= LargestMail })
                        await look(
                            new MailAtHand(last, head, token => folder.GetMessageAsync(one.UniqueId, token)),
                            new ReadSoFar(folder.UidValidity, last)
                        );
                }
            }

            await client.DisconnectAsync(quit: true, patience.Token);
            return new ReadSoFar(folder.UidValidity, last);
        }
        catch (Exception failure) when (failure is not OperationCanceledException || !cancellationToken.IsCancellationRequested)
        {
            throw new MailboxException(Say(failure), failure);
        }
    }

    private static string Say(Exception failure) =>
        failure switch
        {
            AuthenticationException => "The mail server does not accept the user name and password.",
            FolderNotFoundException => "There is no folder of this name in the mailbox.",
            OperationCanceledException => "The mail server does not answer.",
            SslHandshakeException => "The mail server cannot be trusted: its certificate does not fit.",
            NotSupportedException => "The mail server does not offer this encryption. Choose another one.",
            System.Net.Sockets.SocketException => "The mail server cannot be reached.",
            IOException or ProtocolException => "The line to the mail server broke.",
            _ => $"The mailbox could not be read: {failure.Message}",
        };
}

/// <summary>A mailbox could not be read.</summary>
/// <param name="sentence">Why, as a sentence for the owner.</param>
/// <param name="inner">What lies beneath.</param>
internal sealed class MailboxException(string sentence, Exception inner) : Exception(sentence, inner);
