using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Core.Records;
using PorchLight.Server.Fields;
using PorchLight.Server.Forms;
using PorchLight.Server.Hosting;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Inquiries;

/// <param name="Difference">Which one.</param>
/// <param name="How">Keep ours, take theirs, or write another.</param>
/// <param name="Another">What is written instead; only for writing another.</param>
internal sealed record Settling(Id<RecordDifference> Difference, Settlement How, Answer? Another);

/// <summary>Settles differences, as part of the caller's write.</summary>
internal sealed class DifferenceSettler(PorchDb db, RecordWriter writer, FieldCatalogues catalogues, EventLog events)
{
    /// <summary>Settles one or many; what was settled meanwhile is left as it is.</summary>
    /// <param name="settlings">How each is settled.</param>
    /// <param name="by">What the one who settles them is called.</param>
    /// <param name="user">Who that is.</param>
    /// <param name="now">The business's now.</param>
    /// <param name="cancellationToken">When nobody waits any more.</param>
    /// <returns>Why one of them cannot be settled that way, and nothing may be saved; else null.</returns>
    public async Task<ProblemHttpResult?> SettleAsync(
        IReadOnlyList<Settling> settlings,
        string by,
        Guid user,
        Instant now,
        CancellationToken cancellationToken
    )
    {
        var fields = await catalogues.ReadAsync(db);
        var settled = new List<RecordDifference>();
        foreach (var settling in settlings)
        {
            if (await db.Differences.FindAsync([settling.Difference], cancellationToken) is not { } difference)
                return Problems.NotFound(DifferenceEndpoints.Gone);
            // Somebody else was quicker, or it was settled with another that said the same.
            if (difference.SettledAt is not null)
                continue;
            var client = (await db.Clients.FindAsync([difference.ClientId], cancellationToken))!;
            var (written, refusal) = await SettledValueAsync(difference, settling, client);
            if (refusal is not null)
                return refusal;
            Close(difference, settling.How);
            if (settling.How != Settlement.KeptOurs)
                await KeepAsync(difference, written, client);
            settled.Add(difference);
            await db.SaveChangesAsync(cancellationToken);
        }

        foreach (var one in settled.GroupBy(difference => (difference.ClientId, difference.InquiryId)))
            await events.AppendAsync(
                new DifferencesSettled(one.Count(), user),
                now,
                new EventContext(one.Key.ClientId, one.First().ProjectId, one.Key.InquiryId)
            );
        return null;

        void Close(RecordDifference difference, Settlement how) =>
            (difference.SettledAt, difference.SettledBy, difference.Settlement) = (now, by, how);

        async Task<(Answer? Value, ProblemHttpResult? Refusal)> SettledValueAsync(
            RecordDifference difference,
            Settling settling,
            Client client
        )
        {
            if (settling.How == Settlement.KeptOurs)
                return (null, null);
            if (IsNotes(difference))
                return (settling.How == Settlement.TookTheirs ? difference.Meant : settling.Another ?? difference.Meant, null);
            if (fields.Find(difference.Field) is not { } field)
                return (null, Problems.Conflict("The field this is about is gone. Keep what is on file, or write it into the notes."));
            if (settling.How == Settlement.WroteAnother)
                return await writer.EnteredAsync(client, field, settling.Another, now);
            if (
                field.Key == BuiltInFields.Email.Key
                && difference.Meant is TextAnswer { Text: var email }
                && await writer.IsTakenAsync(email, client.Id)
            )
                return (
                    null,
                    Problems.Conflict(
                        "Another client is recognised by this e-mail address. Keep what is on file, or look whether they are the same."
                    )
                );
            return (difference.Meant, null);
        }

        async Task KeepAsync(RecordDifference difference, Answer? value, Client client)
        {
            if (IsNotes(difference))
            {
                var version = (
                    await db
                        .Inquiries.Where(one => one.Id == difference.InquiryId)
                        .Select(one => new { one.FormId, one.FormVersion })
                        .SingleAsync(cancellationToken)
                );
                var form = (await db.FormVersionAsync(version.FormId, version.FormVersion))!.Content;
                var note = new Note
                {
                    Id = new Id<Note>(Guid.CreateVersion7()),
                    ClientId = client.Id,
                    ProjectId = difference.Field == Landing.NotesKey(RecordScope.Project) ? difference.ProjectId : null,
                    Heading = KnownValues.BeforeAnswers(form.FindQuestion(difference.Question)?.Wording ?? ""),
                    Text = AnswerWords.Say(value ?? difference.Meant),
                    InquiryId = difference.InquiryId,
                    By = client.Name,
                    At = now,
                };
                db.Notes.Add(note);
                client.IsUnindexed = true;
                difference.WrittenNoteId = note.Id;
                return;
            }

            var current = (await writer.CurrentAsync(client.Id, difference.ProjectId)).GetValueOrDefault(difference.Field);
            if (Equals(current?.Value, value))
                return;
            difference.WrittenValueId = writer
                .Write(
                    client,
                    await db.Projects.FindAsync([difference.ProjectId], cancellationToken),
                    difference.Field,
                    value,
                    current,
                    new ValueSource(ValueOrigin.Settled, by, now)
                )
                .Id;
        }
    }

    /// <summary>Whether a difference is about notes, which take words beside those they have.</summary>
    public static bool IsNotes(RecordDifference difference) =>
        difference.Field == Landing.NotesKey(RecordScope.Client) || difference.Field == Landing.NotesKey(RecordScope.Project);
}
