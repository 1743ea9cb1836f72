using System.IO.Compression;
using System.Security.Cryptography;
using System.Text.Json;
using Microsoft.Data.Sqlite;
using NodaTime;
using PorchLight.Server.Calendar;
using PorchLight.Server.Hosting;

namespace PorchLight.Server.Storage;

/// <summary>What a command did, or why it did nothing.</summary>
internal sealed record CommandResult(bool Done, string Sentence);

/// <summary>
/// Copies of the whole program in one ZIP: the database as it was at one instant, the keys that open what is sealed in it,
/// the files people sent, and a list of all of them with their hashes.
/// </summary>
internal sealed class Backup(DataFolder folder, TimeProvider time)
{
    private const string Format = "porch-light-backup";
    private const string DatabaseEntry = "porch-light.db";
    private const string KeysEntry = "keys/";
    private const string FilesEntry = "files/";
    private const string ManifestEntry = "manifest.json";
    private const string Damaged = "This backup is damaged or no backup of Porch Light. Nothing was changed.";

    private sealed record Manifest(string Format, int Version, Instant Made, IReadOnlyList<Kept> Files);

    private sealed record Kept(string Name, string Sha256);

    /// <summary>Writes a backup while the program may be running. A file that exists is never overwritten.</summary>
    public async Task<CommandResult> WriteAsync(string file, CancellationToken cancellationToken)
    {
        if (File.Exists(file))
            return new CommandResult(false, $"{file} exists already. Name a file that does not exist yet.");
        if (!File.Exists(folder.Database))
            return new CommandResult(false, $"There is nothing to back up in {folder.Path}.");
        var unfinished = file + ".unfinished";
        try
        {
            await using (var stream = DataFolder.CreatePrivateFile(unfinished))
            {
                await WriteAsync(stream, cancellationToken);
                stream.Flush(flushToDisk: true);
            }

            File.Move(unfinished, file);
        }
        catch (IOException failure)
        {
            return new CommandResult(false, $"The backup could not be written: {failure.Message}");
        }
        finally
        {
            if (File.Exists(unfinished))
                File.Delete(unfinished);
        }

        return new CommandResult(
            true,
            $"Backed up to {file} ({(new FileInfo(file).Length + 1023) / 1024} KB): the database, the keys and the files, as of {time.Now():uuuu'-'MM'-'dd HH':'mm':'ss} UTC."
        );
    }

    /// <summary>Writes a backup into a stream that can be sought.</summary>
    public async Task WriteAsync(Stream stream, CancellationToken cancellationToken)
    {
        await using var copying = folder.BeginCopy();
        var copy = Path.Combine(folder.Path, $"{DataFolder.Unfinished}{Guid.NewGuid():N}.db");
        try
        {
            await CopyDatabaseAsync(copy, cancellationToken);
            using var zip = new ZipArchive(stream, ZipArchiveMode.Create, leaveOpen: true);
            var kept = new List<Kept> { await AddAsync(zip, DatabaseEntry, copy, cancellationToken) };
            foreach (var key in Directory.Exists(folder.Keys) ? Directory.GetFiles(folder.Keys) : [])
                kept.Add(await AddAsync(zip, KeysEntry + Path.GetFileName(key), key, cancellationToken));
            // Only what the copy of the database knows: a file may come or go while this is written.
            foreach (
                var file in (await KnownFilesAsync(copy, cancellationToken)).Where(name => File.Exists(Path.Combine(folder.Files, name)))
            )
                kept.Add(await AddAsync(zip, FilesEntry + file, Path.Combine(folder.Files, file), cancellationToken));
            await using var manifest = await zip.CreateEntry(ManifestEntry).OpenAsync(cancellationToken);
            await JsonSerializer.SerializeAsync(manifest, new Manifest(Format, 1, time.Now(), kept), Json.Options, cancellationToken);
        }
        finally
        {
            File.Delete(copy);
        }
    }

    /// <summary>
    /// Puts a backup in the place of what is in the data folder, which is moved aside and kept. Everything is checked
    /// before anything is touched. The program must not be running.
    /// </summary>
    /// <param name="knownMigrations">What this program can read; a backup of a newer one is refused.</param>
    public async Task<CommandResult> RestoreAsync(string file, IReadOnlySet<string> knownMigrations, CancellationToken cancellationToken)
    {
        if (!File.Exists(file))
            return new CommandResult(false, $"There is no file {file}.");
        if (!folder.TryUse())
            return new CommandResult(false, $"Porch Light is running on {folder.Path}. Stop it first; nothing was changed.");
        var unpacked = Path.Combine(folder.Path, $"restoring-{Guid.NewGuid():N}");
        try
        {
            Manifest manifest;
            try
            {
                manifest = await UnpackAsync(file, unpacked, cancellationToken);
            }
            catch (Exception failure) when (failure is not OperationCanceledException and not OutOfMemoryException)
            {
                return new CommandResult(false, Damaged);
            }

            var (sound, migrations, contents) = await ReadAsync(Path.Combine(unpacked, DatabaseEntry), cancellationToken);
            // Files stand in their folder under names of our own making; a database that names others would read elsewhere.
            sound = sound && (await KnownFilesAsync(Path.Combine(unpacked, DatabaseEntry), cancellationToken)).TrueForAll(IsOurName);
            if (!sound)
                return new CommandResult(false, Damaged);
            if (!migrations.IsSubsetOf(knownMigrations))
                return new CommandResult(
                    false,
                    "This backup was made by a newer Porch Light. Install that version first; nothing was changed."
                );
            var aside = MoveAside();
            File.Move(Path.Combine(unpacked, DatabaseEntry), folder.Database);
            if (Directory.Exists(Path.Combine(unpacked, KeysEntry)))
                Directory.Move(Path.Combine(unpacked, KeysEntry), folder.Keys);
            Directory.Move(Path.Combine(unpacked, FilesEntry), folder.Files);
            return new CommandResult(
                true,
                $"Restored the backup of {manifest.Made:uuuu'-'MM'-'dd HH':'mm':'ss} UTC: {contents}."
                    + (aside is null ? "" : $" What was there before is in {aside}.")
            );
        }
        finally
        {
            if (Directory.Exists(unpacked))
                Directory.Delete(unpacked, recursive: true);
        }
    }

    private static bool IsOurName(string storedAs) => storedAs.Length == 32 && storedAs.All(char.IsAsciiHexDigitLower);

    private async Task CopyDatabaseAsync(string copy, CancellationToken cancellationToken)
    {
        await using var connection = new SqliteConnection($"Data Source={folder.Database};Mode=ReadOnly;Pooling=False;Default Timeout=30");
        await connection.OpenAsync(cancellationToken);
        await using var command = connection.CreateCommand();
        command.CommandText = "VACUUM INTO $copy";
        command.Parameters.AddWithValue("$copy", copy);
        await command.ExecuteNonQueryAsync(cancellationToken);
    }

    private static async Task<List<string>> KnownFilesAsync(string database, CancellationToken cancellationToken)
    {
        await using var connection = new SqliteConnection($"Data Source={database};Mode=ReadOnly;Pooling=False");
        await connection.OpenAsync(cancellationToken);
        await using var command = connection.CreateCommand();
        command.CommandText = "SELECT StoredAs FROM StoredFiles ORDER BY StoredAs";
        await using var reader = await command.ExecuteReaderAsync(cancellationToken);
        var names = new List<string>();
        while (await reader.ReadAsync(cancellationToken))
            names.Add(reader.GetString(0));
        return names;
    }

    private static async Task<Kept> AddAsync(ZipArchive zip, string name, string file, CancellationToken cancellationToken)
    {
        await using var source = File.OpenRead(file);
        var hash = Convert.ToHexStringLower(await SHA256.HashDataAsync(source, cancellationToken));
        source.Position = 0;
        await using var entry = await zip.CreateEntry(name, CompressionLevel.Fastest).OpenAsync(cancellationToken);
        await source.CopyToAsync(entry, cancellationToken);
        return new Kept(name, hash);
    }

    /// <summary>Unpacks what the list names, and nothing else, checking each file against its hash.</summary>
    private static async Task<Manifest> UnpackAsync(string file, string into, CancellationToken cancellationToken)
    {
        using var zip = await ZipFile.OpenReadAsync(file, cancellationToken);
        await using var list = await Entry(ManifestEntry).OpenAsync(cancellationToken);
        var manifest = await JsonSerializer.DeserializeAsync<Manifest>(list, Json.Options, cancellationToken);
        if (manifest is not { Format: Format, Version: 1 } || manifest.Files.All(kept => kept.Name != DatabaseEntry))
            throw new InvalidDataException();
        Directory.CreateDirectory(Path.Combine(into, KeysEntry));
        Directory.CreateDirectory(Path.Combine(into, FilesEntry));
        foreach (var kept in manifest.Files)
        {
            var plain = Path.GetFileName(kept.Name);
            if (kept.Name != DatabaseEntry && kept.Name != KeysEntry + plain && kept.Name != FilesEntry + plain)
                throw new InvalidDataException();
            await using var source = await Entry(kept.Name).OpenAsync(cancellationToken);
            await using var target = DataFolder.CreatePrivateFile(Path.Combine(into, kept.Name));
            await source.CopyToAsync(target, cancellationToken);
            target.Flush(flushToDisk: true);
            target.Position = 0;
            if (Convert.ToHexStringLower(await SHA256.HashDataAsync(target, cancellationToken)) != kept.Sha256)
                throw new InvalidDataException();
        }

        return manifest;

        ZipArchiveEntry Entry(string name) => zip.GetEntry(name) ?? throw new InvalidDataException();
    }

    private static async Task<(bool Sound, HashSet<string> Migrations, string Contents)> ReadAsync(
        string database,
        CancellationToken cancellationToken
    )
    {
        await using var connection = new SqliteConnection($"Data Source={database};Mode=ReadOnly;Pooling=False");
        try
        {
            await connection.OpenAsync(cancellationToken);
            if (await AskAsync("PRAGMA integrity_check") is not ["ok"])
                return (false, [], "");
            var migrations = (await AskAsync("SELECT MigrationId FROM __EFMigrationsHistory")).ToHashSet();
            var counts = await AskAsync(
                "SELECT 'forms ' || (SELECT count(*) FROM Forms) || ', inquiries ' || (SELECT count(*) FROM Inquiries) || ', clients ' || (SELECT count(*) FROM Clients)"
            );
            return (true, migrations, counts[0]);
        }
        catch (Exception failure) when (failure is SqliteException or InvalidCastException or InvalidOperationException)
        {
            return (false, [], "");
        }

        async Task<List<string>> AskAsync(string question)
        {
            await using var command = connection.CreateCommand();
            command.CommandText = question;
            await using var reader = await command.ExecuteReaderAsync(cancellationToken);
            var answers = new List<string>();
            while (await reader.ReadAsync(cancellationToken))
                answers.Add(reader.GetString(0));
            return answers;
        }
    }

    /// <summary>Moves database, keys and files into a folder of their own; null when there was nothing.</summary>
    private string? MoveAside()
    {
        string[] files = [folder.Database, folder.Database + "-wal", folder.Database + "-shm"];
        (string Path, string Name)[] folders = [(folder.Keys, "keys"), (folder.Files, "files")];
        if (!files.Any(File.Exists) && !folders.Any(one => Directory.Exists(one.Path)))
            return null;
        var aside = Path.Combine(folder.Path, $"before-restore-{time.GetUtcNow():yyyyMMdd-HHmmss-fff}");
        Directory.CreateDirectory(aside);
        foreach (var file in files.Where(File.Exists))
            File.Move(file, Path.Combine(aside, Path.GetFileName(file)));
        foreach (var (path, name) in folders.Where(one => Directory.Exists(one.Path)))
            Directory.Move(path, Path.Combine(aside, name));
        return aside;
    }
}

internal static class BackupEndpoints
{
    public static void MapBackup(this IEndpointRouteBuilder api) =>
        api.MapGet(
                "/settings/backup.zip",
                async (Backup backup, DataFolder folder, TimeProvider time, CancellationToken cancellationToken) =>
                {
                    // On disk and not in memory, and gone when it has been sent.
                    var file = new FileStream(
                        Path.Combine(folder.Path, $"{DataFolder.Unfinished}{Guid.NewGuid():N}.zip"),
                        FileMode.CreateNew,
                        FileAccess.ReadWrite,
                        FileShare.None,
                        64 * 1024,
                        FileOptions.DeleteOnClose | FileOptions.Asynchronous
                    );
                    await backup.WriteAsync(file, cancellationToken);
                    file.Position = 0;
                    return TypedResults.File(file, "application/zip", $"porch-light-{time.GetUtcNow():yyyy-MM-dd-HHmm}.zip");
                }
            )
            .WithTags("Settings")
            .For(Access.Owner)
            .ExcludeFromDescription();
}
