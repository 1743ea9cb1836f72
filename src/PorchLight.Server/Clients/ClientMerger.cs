using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Records;
using PorchLight.Server.Fields;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Clients;

/// <summary>
/// Makes one record of two of the same person, and splits it again, as part of the caller's write. Every row of the other goes over,
/// whichever area keeps it (<see cref="IClientPart"/>), and its key is remembered; of the other stays how it is recognised.
/// </summary>
internal sealed class ClientMerger(
    PorchDb db,
    RecordWriter writer,
    FieldCatalogues catalogues,
    ClientSearch search,
    IEnumerable<IClientPart> parts
)
{
    /// <summary>What would become of the client's own fields.</summary>
    public async Task<MergePlan> PlanAsync(Id<Client> kept, Id<Client> other, IReadOnlySet<string> takeOther) =>
        ClientMerging.Plan(await OnFileAsync(kept), await OnFileAsync(other), await catalogues.ReadAsync(db), takeOther);

    /// <summary>Puts everything of the other into the record that is kept.</summary>
    /// <param name="kept">The record that is kept.</param>
    /// <param name="other">The one that goes into it.</param>
    /// <param name="takeOther">The fields whose value is taken from the other where they differ.</param>
    /// <param name="who">Who decided.</param>
    /// <param name="now">The business's now.</param>
    public async Task<ClientMerge> MergeAsync(
        Client kept,
        Client other,
        IReadOnlySet<string> takeOther,
        string who,
        Instant now,
        CancellationToken cancellationToken
    )
    {
        var plan = await PlanAsync(kept.Id, other.Id, takeOther);
        var before = (kept.Standing, kept.Since, kept.AlwaysComesIn);
        var stood = await db
            .FieldValues.Where(value => value.ClientId == other.Id && value.ProjectId == null && value.IsCurrent)
            .ToListAsync(cancellationToken);
        foreach (var value in stood)
            (value.IsCurrent, value.IsListed) = (false, false);
        await db.UnlistLatestProjectAsync(other.Id);
        await db.UnlistLatestProjectAsync(kept.Id);
        var tags = await db.ClientTags.Where(tag => tag.ClientId == kept.Id || tag.ClientId == other.Id).ToListAsync(cancellationToken);
        var newTags = tags.Select(tag => tag.Tag)
            .Distinct()
            .Except(tags.Where(tag => tag.ClientId == kept.Id).Select(tag => tag.Tag))
            .ToList();
        db.ClientTags.AddRange(newTags.Select(tag => new ClientTag { ClientId = kept.Id, Tag = tag }));
        other.MergedIntoId = kept.Id;
        kept.Standing = StandingWords.Closer(kept.Standing, other.Standing);
        kept.Since = Instant.Min(kept.Since, other.Since);
        kept.AlwaysComesIn |= other.AlwaysComesIn;
        await search.ForgetAsync(other.Id, cancellationToken);
        await db.SaveChangesAsync(cancellationToken);
        db.ChangeTracker.Clear();

        var rows = new Dictionary<string, IReadOnlyList<string>>();
        foreach (var table in Tables())
            rows[table.GetTableName()!] = await MoveAllAsync(table, other.Id, kept.Id);
        var record = (await db.Clients.FindAsync([kept.Id], cancellationToken))!;
        await db.ListLatestProjectAsync(kept.Id);
        var current = await writer.CurrentAsync(kept.Id, null);
        var source = new ValueSource(ValueOrigin.Merged, who, now);
        var written = plan.Writes.Select(write =>
            writer.Write(record, null, write.Key, write.Value, current.GetValueOrDefault(write.Key), source)
        );
        var merge = new ClientMerge
        {
            Id = new Id<ClientMerge>(Guid.CreateVersion7()),
            KeptId = kept.Id,
            OtherId = other.Id,
            Memory = new MergeMemory(
                rows,
                [.. stood.Select(value => value.Id.Value)],
                [.. written.Select(value => value.Id.Value)],
                newTags,
                before.Standing,
                before.Since,
                before.AlwaysComesIn
            ),
            By = who,
            At = now,
        };
        record.IsUnindexed = true;
        db.ClientMerges.Add(merge);
        foreach (var part in parts)
            await part.MergedAsync(merge, now, cancellationToken);
        return merge;
    }

    /// <summary>What splitting would not bring back, a sentence each; empty where both would be as they were.</summary>
    public async Task<IReadOnlyList<string>> LostBySplittingAsync(ClientMerge merge, CancellationToken cancellationToken)
    {
        var lost = new List<string>();
        foreach (var part in parts)
            lost.AddRange(await part.LostBySplittingAsync(merge, cancellationToken));
        return lost;
    }

    /// <summary>
    /// Gives the other its rows back, and what has come since to its pieces of work. Fields that merging wrote say again what they said
    /// before, but for those written again since; whatever else came since stays with the record that was kept.
    /// </summary>
    public async Task SplitAsync(ClientMerge merge, string who, Instant now, CancellationToken cancellationToken)
    {
        var (kept, other) = (
            (await db.Clients.FindAsync([merge.KeptId], cancellationToken))!,
            (await db.ClientOrMergedAsync(merge.OtherId))!
        );
        var memory = merge.Memory;
        var current = await writer.CurrentAsync(kept.Id, null);
        foreach (var id in memory.Written)
        {
            var value = (await db.FieldValues.FindAsync([new Id<FieldValue>(id)], cancellationToken))!;
            if (current.GetValueOrDefault(value.Field) is { } stands && stands.Id == value.Id)
                writer.Write(kept, null, value.Field, value.Before, stands, new ValueSource(ValueOrigin.Merged, who, now));
        }

        await db.UnlistLatestProjectAsync(kept.Id);
        db.ClientTags.RemoveRange(
            await db.ClientTags.Where(tag => tag.ClientId == kept.Id && memory.Tags.Contains(tag.Tag)).ToListAsync(cancellationToken)
        );
        if (kept.Standing == StandingWords.Closer(memory.Standing, other.Standing))
            kept.Standing = memory.Standing;
        kept.Since = memory.Since;
        if (memory.AlwaysComesIn is { } always && kept.AlwaysComesIn == (always || other.AlwaysComesIn))
            kept.AlwaysComesIn = always;
        other.MergedIntoId = null;
        (kept.IsUnindexed, other.IsUnindexed) = (true, true);
        merge.Split = now;
        var pair = AlikeClients.InOrder(kept.Id, other.Id);
        if (
            await db.ClientPairs.SingleOrDefaultAsync(one => one.OneId == pair.One && one.OtherId == pair.Other, cancellationToken) is
            { } alike
        )
            (alike.AreTwo, alike.DecidedBy) = (now, who);
        await db.SaveChangesAsync(cancellationToken);
        db.ChangeTracker.Clear();

        foreach (var table in Tables())
            await MoveBackAsync(table, memory.Rows, merge);
        var ids = memory.Current.Select(id => new Id<FieldValue>(id)).ToList();
        foreach (var value in await db.FieldValues.Where(value => ids.Contains(value.Id)).ToListAsync(cancellationToken))
            (value.IsCurrent, value.IsListed) = (true, true);
        await db.ListLatestProjectAsync(merge.KeptId);
        await db.ListLatestProjectAsync(merge.OtherId);
        foreach (var part in parts)
            await part.SplitAsync(merge, cancellationToken);
    }

    private async Task<Dictionary<string, Answer>> OnFileAsync(Id<Client> client) =>
        (await writer.CurrentAsync(client, null)).ToDictionary(value => value.Key, value => value.Value.Value!);

    /// <summary>Every table whose rows go over.</summary>
    private IEnumerable<IEntityType> Tables() =>
        parts
            .SelectMany(part => part.RowsOf(WholePerson.Nobody))
            .Where(rows => rows.WhenMerged == WhenMerged.GoesOver)
            .Select(rows => rows.Table)
            .Distinct()
            .Select(table => db.Model.FindEntityType(table)!);

    private static string KeyOf(IEntityType table) => table.FindPrimaryKey()!.Properties.Single().GetColumnName();

    // The names in these statements are the model's own; whatever comes from outside is a parameter.
#pragma warning disable EF1002
    private async Task<IReadOnlyList<string>> MoveAllAsync(IEntityType table, Id<Client> from, Id<Client> to)
    {
        Touch(table);
        return await db
            .Database.SqlQueryRaw<string>(
                $$"""UPDATE "{{table.GetTableName()}}" SET "ClientId" = {0} WHERE "ClientId" = {1} RETURNING CAST("{{KeyOf(table)}}" AS TEXT) AS "Value" """,
                to.Value,
                from.Value
            )
            .ToListAsync();
    }

    private async Task MoveBackAsync(IEntityType table, IReadOnlyDictionary<string, IReadOnlyList<string>> rows, ClientMerge merge)
    {
        Touch(table);
        var projects = rows.GetValueOrDefault(db.Model.FindEntityType(typeof(Project))!.GetTableName()!, []);
        var theirs = table.FindProperty(nameof(Note.ProjectId)) is null ? "" : """ OR "ProjectId" IN (SELECT value FROM json_each({3}))""";
        await db.Database.ExecuteSqlRawAsync(
            $$"""
            UPDATE "{{table.GetTableName()}}" SET "ClientId" = {0}
            WHERE "ClientId" = {1} AND (CAST("{{KeyOf(table)}}" AS TEXT) IN (SELECT value FROM json_each({2})){{theirs}})
            """,
            merge.OtherId.Value,
            merge.KeptId.Value,
            JsonSerializer.Serialize(rows.GetValueOrDefault(table.GetTableName()!, [])),
            JsonSerializer.Serialize(projects)
        );
    }

#pragma warning restore EF1002

    // These statements pass by what tells the browsers which areas changed.
    private void Touch(IEntityType table)
    {
        if (WriteGuard.AreaOf(db.Model, table.GetTableName()!) is { } area)
            db.CurrentWrite!.Touch(area);
    }
}
