using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Forms;
using PorchLight.Core.Records;
using PorchLight.Server.Calendar;
using PorchLight.Server.Fields;
using PorchLight.Server.Hosting;
using PorchLight.Server.Identity;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Inquiries;

/// <summary>Settles what differs from what is on file, and takes that back.</summary>
internal static class DifferenceEndpoints
{
    internal const string Gone = "This difference is not here any more.";

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
        DifferenceSettler settler,
        BusinessClock clock,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (
            await settler.SettleAsync(settlings, who.DisplayName(), who.UserId(), clock.GetCurrentInstant(), cancellationToken) is
            { } refusal
        )
            return refusal;
        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
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
        if (wanted is not null && !DifferenceSettler.IsNotes(difference))
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
}
