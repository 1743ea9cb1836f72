using System.Text;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Common;
using PorchLight.Core.Forms;
using PorchLight.Server.Forms;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Inquiries;

/// <summary>
/// Finds clients by any words in their records: names, values, notes, tags, and everything they answered. The words stand in an
/// index of their own (SQLite FTS5), which is brought up to date after the writes and not within them, for leads wait for those.
/// </summary>
internal sealed class ClientSearch(PorchDb db, AlikeClients alike) : IClientPart
{
    private const int AtOnce = 25;
    private const int MostWaitedFor = 20;

    public IEnumerable<ClientRows> RowsOf(WholePerson person)
    {
        var records = person.Records;
        yield return new ClientRows<ClientSearchRow>(db.ClientSearchRows.Where(one => records.Contains(one.ClientId)))
        {
            WhenMerged = WhenMerged.Stays,
            Saved = null,
        };
    }

    public async Task ForgetAsync(WholePerson person, CancellationToken cancellationToken)
    {
        foreach (var record in person.Records)
            await ForgetAsync(record, cancellationToken);
    }

    /// <summary>The clients in whose records all of the words stand, or begin; to be composed into a query.</summary>
    /// <param name="words">What was typed; not blank.</param>
    public IQueryable<Id<Client>> Find(string words)
    {
        var match = Match(words);
        return db
            .ClientSearchRows.FromSql(
                $"SELECT r.* FROM ClientSearchRows AS r JOIN ClientWords AS w ON w.rowid = r.Row WHERE w.words MATCH {match}"
            )
            .Select(row => row.ClientId);
    }

    /// <summary>
    /// Takes in what has just changed, before somebody searches. Where much waits to be taken in, as after an import, the worker goes on with
    /// it and nobody waits.
    /// </summary>
    public async Task CatchUpSoonAsync(CancellationToken cancellationToken)
    {
        if (await db.Clients.Where(client => client.IsUnindexed).Take(MostWaitedFor + 1).CountAsync(cancellationToken) <= MostWaitedFor)
            await CatchUpAsync(cancellationToken);
    }

    /// <summary>
    /// Takes in the words of clients about whom something changed, and looks who else they perhaps are; says whether any may be left.
    /// </summary>
    public async Task<bool> CatchUpAsync(CancellationToken cancellationToken)
    {
        if (!await db.Clients.AnyAsync(client => client.IsUnindexed, cancellationToken))
            return false;
        await using var write = await db.WriteAsync(cancellationToken);
        var clients = await db.Clients.Where(client => client.IsUnindexed).Take(AtOnce).ToListAsync(cancellationToken);
        var ids = clients.Select(client => client.Id).ToList();
        var words = ids.ToDictionary(id => id, _ => new StringBuilder());
        foreach (var client in clients)
            words[client.Id].AppendLine(client.Name).AppendLine(client.Email);
        foreach (
            var value in await db
                .FieldValues.AsNoTracking()
                .Where(value => ids.Contains(value.ClientId) && value.IsCurrent)
                .ToListAsync(cancellationToken)
        )
            words[value.ClientId].AppendLine(AnswerWords.Say(value.Value!));
        foreach (var note in await db.Notes.AsNoTracking().Where(note => ids.Contains(note.ClientId)).ToListAsync(cancellationToken))
            words[note.ClientId].AppendLine(note.Text);
        foreach (var tag in await db.ClientTags.AsNoTracking().Where(tag => ids.Contains(tag.ClientId)).ToListAsync(cancellationToken))
            words[tag.ClientId].AppendLine(tag.Tag);
        foreach (
            var title in await db
                .Projects.Where(project => ids.Contains(project.ClientId))
                .Select(project => new { project.ClientId, project.Title })
                .ToListAsync(cancellationToken)
        )
            words[title.ClientId].AppendLine(title.Title);
        var sent = await db
            .Inquiries.Where(inquiry => ids.Contains(inquiry.ClientId))
            .Join(
                db.Submissions,
                inquiry => inquiry.SubmissionId,
                submission => submission.Id,
                (inquiry, submission) =>
                    new
                    {
                        inquiry.ClientId,
                        submission.FormId,
                        submission.FormVersion,
                        submission.Answers,
                    }
            )
            .ToListAsync(cancellationToken);
        foreach (var answers in sent)
        {
            var form = (await db.FormVersionAsync(answers.FormId, answers.FormVersion))!.Content;
            foreach (var (question, answer) in answers.Answers.ByQuestion)
                words[answers.ClientId].AppendLine(AnswerWords.Say(answer, form.FindQuestion(question)));
        }

        var rows = await db
            .ClientSearchRows.AsNoTracking()
            .Where(row => ids.Contains(row.ClientId))
            .ToDictionaryAsync(row => row.ClientId, row => row.Row, cancellationToken);
        var fresh = ids.Where(id => !rows.ContainsKey(id)).Select(id => new ClientSearchRow { ClientId = id }).ToList();
        db.ClientSearchRows.AddRange(fresh);
        foreach (var client in clients)
            client.IsUnindexed = false;
        await db.SaveChangesAsync(cancellationToken);
        foreach (var (client, row) in rows.Concat(fresh.Select(row => KeyValuePair.Create(row.ClientId, row.Row))))
        {
            var text = words[client].ToString();
            await db.Database.ExecuteSqlAsync(
                $"INSERT OR REPLACE INTO ClientWords(rowid, words) VALUES ({row}, {text})",
                cancellationToken
            );
        }

        await alike.LookAsync(ids, cancellationToken);
        await write.SaveAsync(cancellationToken);
        return clients.Count == AtOnce;
    }

    /// <summary>Forgets a client's words, as part of the caller's write: nobody finds them by any.</summary>
    public async Task ForgetAsync(Id<Client> client, CancellationToken cancellationToken)
    {
        if (await db.ClientSearchRows.SingleOrDefaultAsync(row => row.ClientId == client, cancellationToken) is not { } row)
            return;
        await db.Database.ExecuteSqlAsync($"DELETE FROM ClientWords WHERE rowid = {row.Row}", cancellationToken);
        db.ClientSearchRows.Remove(row);
        await db.SaveChangesAsync(cancellationToken);
    }

    /// <summary>Every word as the beginning of one; what could be read as an operator is only a word.</summary>
    internal static string Match(string words) =>
        string.Join(
            ' ',
            UnicodeText
                .Valid(new string([.. words.Select(c => char.IsControl(c) ? ' ' : c)]))
                .Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries)
                .Select(word => $"\"{word.Replace("\"", "\"\"", StringComparison.Ordinal)}\"*")
        );
}
