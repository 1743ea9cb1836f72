using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Core.Records;
using PorchLight.Server.Calendar;
using PorchLight.Server.Fields;
using PorchLight.Server.Forms;
using PorchLight.Server.Hosting;
using PorchLight.Server.Identity;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Inquiries;

/// <summary>Settles what differs from what is on file, and takes that back.</summary>
internal static class DifferenceEndpoints
{
    private const string Gone = "This difference is not here any more.";

    /// <param name="Difference">Which one.</param>
    /// <param name="How">Keep ours, take theirs, or write another.</param>
    /// <param name="Another">What is written instead; only for writing another.</param>
    internal sealed record Settling(Id<RecordDifference> Difference, Settlement How, Answer? Another);

    /// <param name="Anyway">Whether to take it back although the field was written again since.</param>
    internal sealed record TakingBack(bool Anyway);

    /// <param name="Was">What counted as theirs when it was read.</param>
    /// <param name="Now">What they meant; null takes a correction back.</param>
    internal sealed record Correction(Answer Was, Answer? Now);

    public static void MapDifferences(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/differences").For(Access.Member).WithTags("Clients");
        group.MapPut("/settled", SettleAsync);
        group.MapPut("/{id}/taken-back", TakeBackAsync);
        group.MapPut("/{id}/corrected", CorrectAsync);
    }

    /// <summary>Settles one or many at once; all of them, or none.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> SettleAsync(
        IReadOnlyList<Settling> settlings,
        PorchDb db,
        RecordWriter writer,
        FieldCatalogues catalogues,
        EventLog events,
        BusinessClock clock,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        var fields = await catalogues.ReadAsync(db);
        var now = clock.GetCurrentInstant();
        var settled = new List<RecordDifference>();
        foreach (var settling in settlings)
        {
            if (await db.Differences.FindAsync([settling.Difference], cancellationToken) is not { } difference)
                return Problems.NotFound(Gone);
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
                new DifferencesSettled(one.Count(), who.UserId()),
                now,
                new EventContext(one.Key.ClientId, one.First().ProjectId, one.Key.InquiryId)
            );
        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();

        void Close(RecordDifference difference, Settlement how) =>
            (difference.SettledAt, difference.SettledBy, difference.Settlement) = (now, who.DisplayName(), how);

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
                    new ValueSource(ValueOrigin.Settled, who.DisplayName(), now)
                )
                .Id;
        }
    }

    /// <summary>Corrects an answer before it is settled, a slip of the pen for instance. What they said stays visible beside it.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> CorrectAsync(
        Id<RecordDifference> id,
        Correction correction,
        PorchDb db,
        RecordWriter writer,
        FieldCatalogues catalogues,
        BusinessClock clock,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.Differences.FindAsync([id], cancellationToken) is not { } difference)
            return Problems.NotFound(Gone);
        if (difference.SettledAt is not null)
            return Problems.Conflict("This is settled already. Take that back first, then correct the answer.");
        var wanted = correction.Now;
        if (wanted is not null && !IsNotes(difference))
        {
            if ((await catalogues.ReadAsync(db)).Find(difference.Field) is not { } field)
                return Problems.Conflict("The field this is about is gone. Keep what is on file, or write it into the notes.");
            var client = (await db.Clients.FindAsync([difference.ClientId], cancellationToken))!;
            var (entered, refusal) = await writer.EnteredAsync(client, field, wanted, clock.GetCurrentInstant());
            if (refusal is not null)
                return refusal;
            wanted = entered;
        }

        if (!Equals(correction.Was, difference.Meant))
            return Edits.Clashing(difference.Field, difference.Meant, wanted);
        (difference.Corrected, difference.CorrectedBy) =
            wanted is null || Equals(wanted, difference.Theirs) ? (null, null) : (wanted, who.DisplayName());
        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
    }

    /// <summary>
    /// Opens a settled difference again and puts back what stood there before. Where the field was written once more since, that is
    /// asked about first.
    /// </summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> TakeBackAsync(
        Id<RecordDifference> id,
        TakingBack how,
        PorchDb db,
        RecordWriter writer,
        EventLog events,
        BusinessClock clock,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.Differences.FindAsync([id], cancellationToken) is not { } difference)
            return Problems.NotFound(Gone);
        if (difference.SettledAt is null)
            return TypedResults.NoContent();
        var client = (await db.Clients.FindAsync([difference.ClientId], cancellationToken))!;
        var now = clock.GetCurrentInstant();
        if (difference.WrittenValueId is { } written)
        {
            var value = (await db.FieldValues.FindAsync([written], cancellationToken))!;
            var current = (await writer.CurrentAsync(client.Id, difference.ProjectId)).GetValueOrDefault(difference.Field);
            if (current?.Id != written && !how.Anyway)
                return Problems.Conflict(
                    $"This field was written again since: it says “{(current?.Value is { } since ? AnswerWords.Say(since) : "nothing")}” now. Take it back anyway?"
                );
            writer.Write(
                client,
                await db.Projects.FindAsync([difference.ProjectId], cancellationToken),
                difference.Field,
                value.Before,
                current,
                new ValueSource(ValueOrigin.Settled, who.DisplayName(), now)
            );
        }

        if (difference.WrittenNoteId is { } note && await db.Notes.FindAsync([note], cancellationToken) is { } added)
        {
            db.Notes.Remove(added);
            client.IsUnindexed = true;
        }

        (difference.SettledAt, difference.SettledBy, difference.Settlement) = (null, null, null);
        (difference.WrittenValueId, difference.WrittenNoteId) = (null, null);
        await events.AppendAsync(
            new SettlementTakenBack(who.UserId()),
            now,
            new EventContext(client.Id, difference.ProjectId, difference.InquiryId)
        );
        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
    }

    private static bool IsNotes(RecordDifference difference) =>
        difference.Field == Landing.NotesKey(RecordScope.Client) || difference.Field == Landing.NotesKey(RecordScope.Project);
}
