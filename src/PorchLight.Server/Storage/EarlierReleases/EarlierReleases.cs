using System.Reflection;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace PorchLight.Server.Storage;

/// <summary>
/// Databases that were made before the migrations were drawn together into one: each step they lack is a script beside this file, named
/// by the migration it was. What they come to is what the first migration makes of nothing.
/// </summary>
internal static class EarlierReleases
{
    private const string First = "20261126145113_Initial";
    private const string Prefix = "EarlierReleases.";

    private static readonly Assembly Program = typeof(EarlierReleases).Assembly;

    /// <summary>The migrations a database of an earlier release may name, in their order.</summary>
    public static IReadOnlyList<string> Migrations { get; } =
    [
        First,
        .. Program
            .GetManifestResourceNames()
            .Where(name => name.StartsWith(Prefix, StringComparison.Ordinal))
            .Select(name => name[Prefix.Length..])
            .Order(StringComparer.Ordinal),
    ];

    /// <summary>Every migration this program can read: its own and those of earlier releases.</summary>
    public static HashSet<string> Readable(PorchDb db) => [.. Migrations, .. db.Database.GetMigrations()];

    /// <summary>Brings a database of an earlier release to where the first migration begins. Any other is left as it is.</summary>
    public static async Task UpgradeAsync(PorchDb db)
    {
        var baseline = db.Database.GetMigrations().First();
        var applied = (await db.Database.GetAppliedMigrationsAsync()).ToHashSet();
        if (!applied.Contains(First) || applied.Contains(baseline))
            return;
        var connection = (SqliteConnection)db.Database.GetDbConnection();
        await db.Database.OpenConnectionAsync();
        try
        {
            foreach (var step in Migrations.Where(step => !applied.Contains(step)))
                await RunAsync(connection, await ReadAsync(step));
            await db.Database.ExecuteSqlAsync(
                $"INSERT INTO __EFMigrationsHistory (MigrationId, ProductVersion) VALUES ({baseline}, {EarlierVersion})"
            );
            // Earlier releases left what was deleted in free pages.
            await RunAsync(connection, "INSERT INTO ClientWords(ClientWords) VALUES ('rebuild'); VACUUM");
        }
        finally
        {
            await db.Database.CloseConnectionAsync();
        }
    }

    private const string EarlierVersion = "10.0.12";

    private static async Task RunAsync(SqliteConnection connection, string script)
    {
        await using var command = connection.CreateCommand();
        command.CommandText = script;
        await command.ExecuteNonQueryAsync();
    }

    private static async Task<string> ReadAsync(string step)
    {
        using var reader = new StreamReader(Program.GetManifestResourceStream(Prefix + step)!);
        return await reader.ReadToEndAsync();
    }
}
