using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata;
using PorchLight.Core.Common;
using PorchLight.Server.FollowThrough;
using PorchLight.Server.Forms;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Tests;

/// <summary>
/// Looks for rows that name a row which is not there. The tables know no foreign keys of their own for what is named by an
/// <see cref="Id{T}"/>, so the database cannot tell; the model can.
/// </summary>
internal static class DanglingReferences
{
    /// <summary>Columns that together name a version.</summary>
    private static readonly (Type From, string[] Columns, Type To)[] Versions =
    [
        (typeof(Submission), [nameof(Submission.FormId), nameof(Submission.FormVersion)], typeof(FormVersion)),
        (typeof(Inquiry), [nameof(Inquiry.FormId), nameof(Inquiry.FormVersion)], typeof(FormVersion)),
        (typeof(Inquiry), [nameof(Inquiry.FormId), nameof(Inquiry.ScreeningVersion)], typeof(ScreeningVersion)),
        (typeof(FieldValue), [nameof(FieldValue.FormId), nameof(FieldValue.FormVersion)], typeof(FormVersion)),
        (typeof(SavedDraft), [nameof(SavedDraft.FormId), nameof(SavedDraft.FormVersion)], typeof(FormVersion)),
        (typeof(Run), [nameof(Run.FollowThroughId), nameof(Run.FollowThroughNumber)], typeof(FollowThroughVersion)),
    ];

    /// <summary>Every column of the model that names another row.</summary>
    public static IReadOnlyList<(IEntityType From, string[] Columns, IEntityType To)> Of(PorchDb db) =>
        [
            .. from entity in db.Model.GetEntityTypes()
            from property in entity.GetProperties()
            where Named(property.ClrType) is { } named && !(named == entity.ClrType && property.IsPrimaryKey())
            select (entity, new[] { property.Name }, db.Model.FindEntityType(Named(property.ClrType)!)!),
            .. Versions.Select(one => (db.Model.FindEntityType(one.From)!, one.Columns, db.Model.FindEntityType(one.To)!)),
        ];

    /// <summary>What points to nothing, each with how many rows do; empty when all is well.</summary>
    public static async Task<IReadOnlyList<string>> DanglingAsync(PorchDb db)
    {
        var found = new List<string>();
        foreach (var (from, columns, to) in Of(db))
        {
            var keys = to.FindPrimaryKey()!.Properties.Take(columns.Length).Select(key => key.GetColumnName()).ToList();
            var same = string.Join(" AND ", keys.Zip(columns, (key, column) => $"\"to\".\"{key}\" = \"from\".\"{column}\""));
            var count = await db
                .Database.SqlQueryRaw<long>(
                    $"""
                    SELECT count(*) AS "Value" FROM "{from.GetTableName()}" AS "from"
                    WHERE "from"."{columns[^1]}" IS NOT NULL AND NOT EXISTS (SELECT 1 FROM "{to.GetTableName()}" AS "to" WHERE {same})
                    """
                )
                .SingleAsync();
            if (count > 0)
                found.Add($"{count} of {from.GetTableName()} name by {string.Join(" and ", columns)} what is not in {to.GetTableName()}");
        }

        return found;
    }

    private static Type? Named(Type type)
    {
        var bare = Nullable.GetUnderlyingType(type) ?? type;
        return bare.IsGenericType && bare.GetGenericTypeDefinition() == typeof(Id<>) ? bare.GetGenericArguments()[0] : null;
    }
}
