using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using PorchLight.Server.Storage;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

public sealed class DataFolderTests
{
    [Fact]
    public async Task A_start_after_a_kill_while_it_migrated_does_not_wait_for_ever()
    {
        var path = Directory.CreateTempSubdirectory("porch-light-test-").FullName;
        try
        {
            // What Entity Framework leaves behind when a process is killed within MigrateAsync.
            await using (var connection = new SqliteConnection(StorageSetup.ConnectionTo(new DataFolder(path)) + ";Pooling=False"))
            {
                await connection.OpenAsync();
                await using var command = connection.CreateCommand();
                command.CommandText =
                    """CREATE TABLE "__EFMigrationsLock" ("Id" INTEGER NOT NULL CONSTRAINT "PK___EFMigrationsLock" PRIMARY KEY, "Timestamp" TEXT NOT NULL); INSERT INTO "__EFMigrationsLock" VALUES (1, '2026-11-23')""";
                await command.ExecuteNonQueryAsync();
            }

            await using var app = new TestApp
            {
                SeedData = SeedData.Empty,
                FromScratch = true,
                Folder = path,
            };
            (await app.AskAsync(db => db.Businesses.CountAsync())).ShouldBe(0);
        }
        finally
        {
            Directory.Delete(path, recursive: true);
        }
    }

    [Fact]
    public async Task A_folder_of_a_version_that_is_not_known_is_refused_with_a_sentence_and_left_as_it_is()
    {
        await using var app = new TestApp();
        await app.AskAsync(db =>
            db.Database.ExecuteSqlAsync(
                $"INSERT INTO __EFMigrationsHistory (MigrationId, ProductVersion) VALUES ('20991231000000_Later', '99.0.0')"
            )
        );
        (await Should.ThrowAsync<UnknownReleaseException>(() => StorageSetup.OpenAsync(app.Services))).Message.ShouldContain(
            "Start that version on it, or name another folder."
        );
    }

    [Fact]
    public async Task A_folder_somebody_made_beforehand_is_closed_to_other_users_of_the_machine()
    {
        if (OperatingSystem.IsWindows())
            return;
        await using var app = new TestApp();
        foreach (var open in new[] { "keys", "files" }.Select(name => Path.Combine(app.Folder, name)))
        {
            Directory.CreateDirectory(open);
            File.SetUnixFileMode(open, (UnixFileMode)0b111_101_101);
            await File.WriteAllTextAsync(Path.Combine(open, "old"), "x");
            File.SetUnixFileMode(Path.Combine(open, "old"), (UnixFileMode)0b110_100_100);
        }

        await app.SendAsync(Answers());
        foreach (var entry in Directory.EnumerateFileSystemEntries(app.Folder, "*", SearchOption.AllDirectories).Append(app.Folder))
            ((int)File.GetUnixFileMode(entry) & 0b000_111_111).ShouldBe(0, entry);
    }

    [Fact]
    public async Task A_copy_that_a_killed_backup_left_is_taken_away_at_the_next_start()
    {
        await using var app = new TestApp();
        var left = Path.Combine(app.Folder, "copy-left.db");
        await File.WriteAllTextAsync(left, "half");
        app.StartServer();
        File.Exists(left).ShouldBeFalse();
    }

    [Fact]
    public async Task A_copy_that_another_process_writes_now_is_left_alone()
    {
        await using var app = new TestApp();
        var young = Path.Combine(app.Folder, "copy-young.db");
        await File.WriteAllTextAsync(young, "half");
        using (var folder = new DataFolder(app.Folder))
        await using (folder.BeginCopy())
            app.StartServer();
        File.Exists(young).ShouldBeTrue();
    }
}
