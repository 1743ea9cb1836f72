using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Core.Records;
using PorchLight.Server.Calendar;
using PorchLight.Server.Fields;
using PorchLight.Server.Hosting;
using PorchLight.Server.Identity;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Clients;

/// <summary>Decides about two clients who are perhaps the same: one, two, or after all two again.</summary>
internal static class ClientMergeEndpoints
{
    private const string Gone = "This client is not here any more.";

    /// <param name="Why">What they have in common, as the end of a sentence.</param>
    internal sealed record PerhapsSame(ClientInShort One, ClientInShort Other, string Why);

    internal sealed record ClientInShort(
        Id<Client> Id,
        string Name,
        string? Email,
        Standing Standing,
        string Since,
        int Projects,
        int Notes
    );

    /// <summary>Two records beside each other, before they are made one.</summary>
    /// <param name="Kept">The record that would be kept.</param>
    /// <param name="Other">The one that would go into it.</param>
    /// <param name="Differ">The fields in which they differ, so that one value has to be chosen.</param>
    /// <param name="Fills">What the other brings that is not known yet.</param>
    internal sealed record MergePreview(
        ClientInShort Kept,
        ClientInShort Other,
        IReadOnlyList<BothSides> Differ,
        IReadOnlyList<BroughtValue> Fills
    );

    internal sealed record BothSides(string Field, string Label, string Kept, string Other);

    internal sealed record BroughtValue(string Label, string Words);

    /// <param name="Take">The fields whose value is taken from the other.</param>
    internal sealed record Merging(IReadOnlyList<string> Take);

    internal sealed record Merged(Id<ClientMerge> Id);

    /// <param name="Anyway">Whether to split although fields were written since that splitting cannot put back.</param>
    internal sealed record Splitting(bool Anyway);

    /// <param name="AreTwo">Whether they are two people; false asks again.</param>
    internal sealed record Decision(bool AreTwo);

    public static void MapClientMerges(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/clients").For(Access.Member).WithTags("Clients");
        group.MapGet("/perhaps-same", ListAsync);
        group.MapGet("/perhaps-same/count", CountAsync);
        group.MapGet("/{id}/beside/{other}", PreviewAsync);
        group.MapPut("/{id}/beside/{other}", DecideAsync);
        group.MapPut("/{id}/beside/{other}/merged", MergeAsync);
        group.MapPut("/merges/{id}/split", SplitAsync);
    }

    private static async Task<Ok<int>> CountAsync(PorchDb db, CancellationToken cancellationToken) =>
        TypedResults.Ok(
            await db.ClientPairs.CountAsync(
                pair =>
                    pair.AreTwo == null
                    && db.CountingClients.Any(client => client.Id == pair.OneId)
                    && db.CountingClients.Any(client => client.Id == pair.OtherId),
                cancellationToken
            )
        );

    private static async Task<Ok<List<PerhapsSame>>> ListAsync(PorchDb db, BusinessClock clock, CancellationToken cancellationToken)
    {
        var zone = (await db.BusinessAsync()).DateTimeZone;
        var pairs = await db
            .ClientPairs.Where(pair => pair.AreTwo == null)
            .Join(db.CountingClients, pair => pair.OneId, client => client.Id, (pair, one) => new { Pair = pair, One = one })
            .Join(
                db.CountingClients,
                both => both.Pair.OtherId,
                client => client.Id,
                (both, other) =>
                    new
                    {
                        both.Pair,
                        both.One,
                        Other = other,
                    }
            )
            .OrderBy(both => both.One.SortName)
            .Take(200)
            .ToListAsync(cancellationToken);
        var found = new List<PerhapsSame>();
        foreach (var both in pairs)
            found.Add(new PerhapsSame(await SummaryOfAsync(both.One), await SummaryOfAsync(both.Other), both.Pair.Likeness.Say()));
        return TypedResults.Ok(found);

        Task<ClientInShort> SummaryOfAsync(Client client) => SummariseAsync(db, client, clock.GetCurrentInstant(), zone, cancellationToken);
    }

    private static async Task<Results<Ok<MergePreview>, ProblemHttpResult>> PreviewAsync(
        Id<Client> id,
        Id<Client> other,
        PorchDb db,
        ClientMerger merger,
        FieldCatalogues catalogues,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        if (await LoadPairAsync(db, id, other, cancellationToken) is not var (kept, goes))
            return Problems.NotFound(Gone);
        var (now, zone, fields) = (clock.GetCurrentInstant(), (await db.BusinessAsync()).DateTimeZone, await catalogues.ReadAsync(db));
        var plan = await merger.PlanAsync(id, other, new HashSet<string>());
        return TypedResults.Ok(
            new MergePreview(
                await SummariseAsync(db, kept, now, zone, cancellationToken),
                await SummariseAsync(db, goes, now, zone, cancellationToken),
                [
                    .. plan.Conflicts.Select(conflict => new BothSides(
                        conflict.Field,
                        fields.Find(conflict.Field)!.Label,
                        AnswerWords.Say(conflict.Kept),
                        AnswerWords.Say(conflict.Other)
                    )),
                ],
                [.. plan.Writes.Select(write => new BroughtValue(fields.Find(write.Key)!.Label, AnswerWords.Say(write.Value)))]
            )
        );
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> DecideAsync(
        Id<Client> id,
        Id<Client> other,
        Decision decision,
        PorchDb db,
        BusinessClock clock,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        var (one, two) = AlikeClients.InOrder(id, other);
        if (await db.ClientPairs.SingleOrDefaultAsync(pair => pair.OneId == one && pair.OtherId == two, cancellationToken) is not { } pair)
            return Problems.NotFound("Nothing says any more that these two are perhaps the same.");
        pair.AreTwo = decision.AreTwo ? clock.GetCurrentInstant() : null;
        pair.DecidedBy = decision.AreTwo ? who.DisplayName() : null;
        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
    }

    /// <summary>Puts the records of the other into these; done once more it changes nothing.</summary>
    private static async Task<Results<Ok<Merged>, ProblemHttpResult>> MergeAsync(
        Id<Client> id,
        Id<Client> other,
        Merging merging,
        PorchDb db,
        ClientMerger merger,
        EventLog events,
        BusinessClock clock,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (
            await db.ClientMerges.SingleOrDefaultAsync(
                one => one.KeptId == id && one.OtherId == other && one.Split == null,
                cancellationToken
            ) is
            { } done
        )
            return TypedResults.Ok(new Merged(done.Id));
        if (await LoadPairAsync(db, id, other, cancellationToken) is not var (kept, goes))
            return Problems.NotFound("One of the two is not here any more, or they are one already.");
        var now = clock.GetCurrentInstant();
        var merge = await merger.MergeAsync(kept, goes, merging.Take.ToHashSet(), who.DisplayName(), now, cancellationToken);
        await events.AppendAsync(new ClientsMerged(who.UserId()), now, new EventContext(id));
        await write.SaveAsync(cancellationToken);
        return TypedResults.Ok(new Merged(merge.Id));
    }

    /// <summary>Splits what was made one. Where a field was written since, that is asked about first.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> SplitAsync(
        Id<ClientMerge> id,
        Splitting how,
        PorchDb db,
        ClientMerger merger,
        EventLog events,
        BusinessClock clock,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.ClientMerges.FindAsync([id], cancellationToken) is not { } merge)
            return Problems.NotFound("This is not here any more.");
        if (merge.Split is not null)
            return TypedResults.NoContent();
        if (!await db.Clients.AnyAsync(client => client.Id == merge.KeptId, cancellationToken))
            return Problems.Conflict("The record these went into was made one with another itself. Split that first.");
        if (!how.Anyway && await merger.LostBySplittingAsync(merge, cancellationToken) is { Count: > 0 } lost)
            return Problems.Conflict($"{string.Join(" ", lost)} Split them anyway?");

        var now = clock.GetCurrentInstant();
        await merger.SplitAsync(merge, who.DisplayName(), now, cancellationToken);
        await events.AppendAsync(new ClientsSplit(who.UserId()), now, new EventContext(merge.KeptId));
        await events.AppendAsync(new ClientsSplit(who.UserId()), now, new EventContext(merge.OtherId));
        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
    }

    private static async Task<(Client Kept, Client Other)?> LoadPairAsync(
        PorchDb db,
        Id<Client> kept,
        Id<Client> other,
        CancellationToken cancellationToken
    ) =>
        kept != other
        && await db.Clients.SingleOrDefaultAsync(client => client.Id == kept, cancellationToken) is { } one
        && await db.Clients.SingleOrDefaultAsync(client => client.Id == other, cancellationToken) is { } two
            ? (one, two)
            : null;

    private static async Task<ClientInShort> SummariseAsync(
        PorchDb db,
        Client client,
        NodaTime.Instant now,
        NodaTime.DateTimeZone zone,
        CancellationToken cancellationToken
    ) =>
        new(
            client.Id,
            client.Name,
            client.Email,
            client.Standing,
            TimeWords.At(client.Since, now, zone),
            await db.Projects.CountAsync(project => project.ClientId == client.Id, cancellationToken),
            await db.Notes.CountAsync(note => note.ClientId == client.Id, cancellationToken)
        );
}
