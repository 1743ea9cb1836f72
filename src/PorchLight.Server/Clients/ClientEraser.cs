using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Records;
using PorchLight.Server.Forms;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Clients;

/// <summary>What there is of a client that would be erased.</summary>
/// <param name="Records">Their record, and those that went into it.</param>
/// <param name="Submissions">What they sent.</param>
/// <param name="Files">The files they sent.</param>
/// <param name="Emails">Every address that ever stood in their records, as addresses are compared.</param>
/// <param name="Traces">What speaks of them elsewhere.</param>
internal sealed record ErasedThings(
    IReadOnlyList<Id<Client>> Records,
    IReadOnlyList<Id<Submission>> Submissions,
    IReadOnlyList<StoredFile> Files,
    IReadOnlyList<string> Emails,
    ErasedTraces Traces
);

/// <summary>
/// Erases a person, as part of the caller's write: answers, values, notes, files and mail. What is counted stays, without a word of
/// theirs.
/// </summary>
internal sealed class ClientEraser(PorchDb db, EventLog events, FileStore files, ClientSearch search, Tokens tokens)
{
    public async Task<ErasedThings> LookAsync(Id<Client> client)
    {
        var records = new List<Id<Client>> { client };
        for (var at = 0; at < records.Count; at++)
        {
            var into = records[at];
            records.AddRange(
                await db.Clients.IgnoreQueryFilters().Where(other => other.MergedIntoId == into).Select(other => other.Id).ToListAsync()
            );
        }

        var submissions = await db
            .Inquiries.Where(inquiry => records.Contains(inquiry.ClientId))
            .Select(inquiry => inquiry.SubmissionId)
            .Distinct()
            .ToListAsync();
        var emailField = Core.Fields.BuiltInFields.Email.Key;
        var emails = (
            await db.FieldValues.AsNoTracking().Where(value => records.Contains(value.ClientId) && value.Field == emailField).ToListAsync()
        )
            .Select(value => value.Value)
            .OfType<TextAnswer>()
            .Select(value => EmailAddress.Key(value.Text))
            .Concat(
                await db
                    .Clients.IgnoreQueryFilters()
                    .Where(other => records.Contains(other.Id) && other.EmailKey != null)
                    .Select(other => other.EmailKey!)
                    .ToListAsync()
            )
            .Distinct()
            .ToList();
        // A mailbox that somebody else has, too, is theirs as well: what went there may be about them.
        var shared = await db
            .Clients.IgnoreQueryFilters()
            .Where(other => other.EmailKey != null && emails.Contains(other.EmailKey) && !records.Contains(other.Id))
            .Select(other => other.EmailKey!)
            .ToListAsync();
        var own = emails.Except(shared).ToList();
        return new ErasedThings(
            records,
            submissions,
            await db.StoredFiles.Where(file => file.SubmissionId != null && submissions.Contains(file.SubmissionId.Value)).ToListAsync(),
            own,
            await ErasedTraces.LookAsync(db, records, own, CancellationToken.None)
        );
    }

    /// <summary>Erases a client with everything of theirs.</summary>
    /// <param name="client">The client.</param>
    /// <param name="by">Who does it; null when the keeping period has ended.</param>
    /// <param name="now">The business's now.</param>
    /// <returns>The files to be deleted from the disk once the write is saved.</returns>
    public async Task<IReadOnlyList<string>> EraseAsync(Id<Client> client, Guid? by, Instant now)
    {
        var things = await LookAsync(client);
        var (records, submissions, emails) = (things.Records, things.Submissions, things.Emails);
        await things.Traces.EraseAsync(db, tokens, CancellationToken.None);
        foreach (var record in records)
            await search.ForgetAsync(record, CancellationToken.None);
        var spoken = (
            await db.Events.AsNoTracking().Where(logged => logged.ClientId != null && records.Contains(logged.ClientId.Value)).ToListAsync()
        )
            .Where(logged => !logged.What.OutlivesErasing())
            .Select(logged => logged.Seq)
            .ToList();
        await db.Events.Where(logged => spoken.Contains(logged.Seq)).ExecuteDeleteAsync();
        await db
            .OutgoingMail.Where(mail =>
                mail.ClientId != null && records.Contains(mail.ClientId.Value) || emails.Contains(EF.Functions.Collate(mail.To, "NOCASE"))
            )
            .ExecuteDeleteAsync();
        await db.IncomingMail.Where(mail => emails.Contains(EF.Functions.Collate(mail.From, "NOCASE"))).ExecuteDeleteAsync();
        await db
            .PracticeMail.Where(mail =>
                mail.ClientId != null && records.Contains(mail.ClientId.Value)
                || emails.Contains(EF.Functions.Collate(mail.To, "NOCASE"))
                || emails.Contains(EF.Functions.Collate(mail.From, "NOCASE"))
            )
            .ExecuteDeleteAsync();
        await db
            .SavedDrafts.Where(draft =>
                draft.MailedTo != null && emails.Contains(EF.Functions.Collate(draft.MailedTo, "NOCASE"))
                || db.Submissions.Any(sent => submissions.Contains(sent.Id) && sent.SendKey == draft.SendKey)
            )
            .ExecuteDeleteAsync();
        await db.ReopenSubscriptions.Where(wish => emails.Contains(wish.EmailKey)).ExecuteDeleteAsync();
        await db.StoredFiles.Where(file => file.SubmissionId != null && submissions.Contains(file.SubmissionId.Value)).ExecuteDeleteAsync();
        await db
            .PersonalLinks.Where(link =>
                link.ClientId != null && records.Contains(link.ClientId.Value)
                || emails.Contains(EF.Functions.Collate(link.Email, "NOCASE"))
            )
            .ExecuteDeleteAsync();
        await db.Clients.IgnoreQueryFilters().Where(other => records.Contains(other.Id)).ExecuteDeleteAsync();
        await db
            .Submissions.Where(sent => submissions.Contains(sent.Id))
            .ExecuteUpdateAsync(set =>
                set.SetProperty(sent => sent.Answers, new SentAnswers(new Dictionary<string, Answer>(), []))
                    .SetProperty(sent => sent.ReceiptHash, sent => "erased " + sent.ReceiptHash)
                    .SetProperty(sent => sent.ReceiptSealed, "")
                    .SetProperty(sent => sent.IsErased, true)
            );
        await events.AppendAsync(new ClientErased(by), now, new EventContext(null));
        return [.. things.Files.Concat(things.Traces.Uploads).Select(file => file.StoredAs)];
    }

    /// <summary>
    /// Takes erased files from the disk, and what the database keeps of what it wrote last. What is left behind by a crash before it is
    /// swept like any file nobody knows, and written over with what comes next.
    /// </summary>
    public async Task CleanUpAsync(IEnumerable<string> storedAs)
    {
        foreach (var file in storedAs)
            files.Delete(file);
        await db.Database.ExecuteSqlRawAsync("PRAGMA wal_checkpoint(TRUNCATE)");
    }
}
