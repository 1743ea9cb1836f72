using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Fields;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Fields;

/// <summary>A field of the catalogue: one every business has, or one of its own.</summary>
internal sealed class StoredField
{
    public required string Key { get; init; }

    /// <summary>Its place in the order they are shown.</summary>
    public required int Position { get; set; }
    public required Field Field { get; set; }
}

/// <summary>How the view of clients, or of the projects of a service, is put together where somebody has arranged it.</summary>
internal sealed class StoredArrangement
{
    public required RecordScope Scope { get; init; }

    /// <summary>The key of the service whose projects it is for; empty for clients, and for all other projects.</summary>
    public required string Service { get; init; }
    public required Arrangement Arrangement { get; set; }
}

/// <summary>How the catalogue of fields is kept.</summary>
internal static class FieldTables
{
    public static ModelConfigurationBuilder HaveFields(this ModelConfigurationBuilder builder) =>
        builder.HaveJson<Field>().HaveJson<Arrangement>();

    public static void MapFields(this ModelBuilder builder)
    {
        builder.Entity<StoredField>().ToTable("Fields").HasKey(field => field.Key);
        builder.Entity<StoredArrangement>().ToTable("Arrangements").HasKey(one => new { one.Scope, one.Service });
    }

    /// <summary>Adds the fields every business has where they are not there yet.</summary>
    public static async Task AddBuiltInFieldsAsync(this PorchDb db)
    {
        if (await HasAllAsync(db))
            return;
        await using var write = await db.WriteAsync(CancellationToken.None);
        var there = await db.Fields.Select(field => field.Key).ToListAsync();
        db.Fields.AddRange(
            BuiltInFields
                .All.Index()
                .Where(one => !there.Contains(one.Item.Key))
                .Select(one => new StoredField
                {
                    Key = one.Item.Key,
                    Position = one.Index,
                    Field = one.Item,
                })
        );
        await write.SaveAsync(CancellationToken.None);
    }

    private static async Task<bool> HasAllAsync(PorchDb db)
    {
        var keys = BuiltInFields.All.Select(field => field.Key).ToList();
        return await db.Fields.CountAsync(field => keys.Contains(field.Key)) == keys.Count;
    }
}
