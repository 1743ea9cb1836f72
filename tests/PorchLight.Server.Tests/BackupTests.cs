using System.IO.Compression;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using PorchLight.Server.Storage;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

public sealed class BackupTests : IDisposable
{
    private readonly string _folder = Directory.CreateTempSubdirectory("porch-light-backup-test-").FullName;

    [Fact]
    public async Task A_backup_of_a_running_program_brings_everything_back_in_another_place()
    {
        await using var app = new TestApp { Durable = true };
        await app.SendAsync(Answers());
        var link = await app.LinkAsync();
        var file = In("one.zip");
        var said = await BackUpAsync(app, file);
        said.Done.ShouldBeTrue();
        said.Sentence.ShouldContain(file);
        if (!OperatingSystem.IsWindows())
            File.GetUnixFileMode(file).ShouldBe(UnixFileMode.UserRead | UnixFileMode.UserWrite, "the keys are in it");
        await app.SendAsync(Answers("later@bakes.example"));

        var elsewhere = new DataFolder(In("elsewhere"));
        var restored = await RestoreAsync(app, elsewhere, file);
        restored.Done.ShouldBeTrue(restored.Sentence);
        restored.Sentence.ShouldContain("inquiries 1");
        elsewhere.Dispose();
        await using var other = new TestApp { Folder = elsewhere.Path };
        (await other.LinkAsync()).ShouldBe(link, "the keys came along, so that what is sealed can be opened");
        (await other.AskAsync(db => db.Inquiries.CountAsync())).ShouldBe(1);
    }

    [Fact]
    public async Task What_was_there_before_a_restore_is_put_aside_and_not_lost()
    {
        await using var app = new TestApp { Durable = true };
        await BackUpAsync(app, In("one.zip"));
        using var target = new DataFolder(In("target"));
        (await RestoreAsync(app, target, In("one.zip"))).Done.ShouldBeTrue();
        await File.WriteAllTextAsync(target.Database, "something of value");
        var again = await RestoreAsync(app, target, In("one.zip"));
        again.Done.ShouldBeTrue();
        var aside = Directory.GetDirectories(target.Path).Single(folder => again.Sentence.Contains(folder, StringComparison.Ordinal));
        (await File.ReadAllTextAsync(Path.Combine(aside, "porch-light.db"))).ShouldBe("something of value");
    }

    [Theory]
    [InlineData("cut short")]
    [InlineData("one byte of the database changed")]
    [InlineData("no ZIP at all")]
    [InlineData("without its list")]
    [InlineData("a file that climbs out of the folder")]
    [InlineData("empty")]
    public async Task A_damaged_backup_is_refused_and_nothing_is_touched(string damage)
    {
        await using var app = new TestApp { Durable = true };
        var file = In("one.zip");
        await BackUpAsync(app, file);
        Damage(file, damage);
        using var target = new DataFolder(In("target"));
        Directory.CreateDirectory(target.Path);
        await File.WriteAllTextAsync(target.Database, "something of value");
        var said = await RestoreAsync(app, target, file);
        (said.Done, said.Sentence).ShouldBe((false, "This backup is damaged or no backup of Porch Light. Nothing was changed."));
        (await File.ReadAllTextAsync(target.Database)).ShouldBe("something of value");
        Directory.GetFileSystemEntries(target.Path).Select(Path.GetFileName).ShouldBe(["in-use", "porch-light.db"], ignoreOrder: true);
        File.Exists(In("escaped")).ShouldBeFalse();
    }

    [Fact]
    public async Task A_backup_of_a_newer_version_is_refused()
    {
        await using var app = new TestApp { Durable = true };
        await app.AskAsync(db =>
            db.Database.ExecuteSqlRawAsync("INSERT INTO __EFMigrationsHistory VALUES ('29991231000000_Wings', '99.0')")
        );
        await BackUpAsync(app, In("newer.zip"));
        using var target = new DataFolder(In("target"));
        (await RestoreAsync(app, target, In("newer.zip"))).Sentence.ShouldContain("made by a newer Porch Light");
        File.Exists(target.Database).ShouldBeFalse();
    }

    [Fact]
    public async Task Nothing_is_restored_under_a_running_program_and_no_second_program_opens_on_its_folder()
    {
        await using var app = new TestApp { Durable = true };
        await BackUpAsync(app, In("one.zip"));
        using var same = new DataFolder(app.Folder);
        (await RestoreAsync(app, same, In("one.zip"))).Sentence.ShouldContain("Stop it first; nothing was changed");
        same.TryUse().ShouldBeFalse();
    }

    [Fact]
    public async Task A_file_that_exists_is_not_overwritten_and_a_place_that_cannot_be_written_is_named()
    {
        await using var app = new TestApp { Durable = true };
        await File.WriteAllTextAsync(In("mine.zip"), "mine");
        (await BackUpAsync(app, In("mine.zip"))).Done.ShouldBeFalse();
        (await File.ReadAllTextAsync(In("mine.zip"))).ShouldBe("mine");
        (await BackUpAsync(app, In("no/such/folder/one.zip"))).Sentence.ShouldStartWith("The backup could not be written");
    }

    [Fact]
    public async Task The_owner_downloads_the_same_backup()
    {
        await using var app = new TestApp { Time = new(TestClock.Written), Durable = true };
        await app.SendAsync(Answers());
        var owner = app.Owner();
        var download = await owner.GetAsync("/api/settings/backup.zip");
        download.Content.Headers.ContentDisposition!.FileName.ShouldBe("porch-light-2026-11-23-1000.zip");
        await File.WriteAllBytesAsync(In("download.zip"), await download.Content.ReadAsByteArrayAsync());
        using var target = new DataFolder(In("target"));
        (await RestoreAsync(app, target, In("download.zip"))).Done.ShouldBeTrue();
    }

    public void Dispose() => Directory.Delete(_folder, recursive: true);

    private string In(string name) => Path.Combine(_folder, name);

    private static void Damage(string file, string damage)
    {
        switch (damage)
        {
            case "cut short":
                using (var stream = File.OpenWrite(file))
                    stream.SetLength(stream.Length / 2);
                break;
            case "one byte of the database changed":
                Rewrite(file, "porch-light.db", bytes => bytes[bytes.Length / 2] ^= 1);
                break;
            case "no ZIP at all":
                File.WriteAllText(file, "Dear diary");
                break;
            case "without its list":
                using (var zip = ZipFile.Open(file, ZipArchiveMode.Update))
                    zip.GetEntry("manifest.json")!.Delete();
                break;
            case "a file that climbs out of the folder":
                using (var zip = ZipFile.Open(file, ZipArchiveMode.Update))
                {
                    zip.CreateEntry("../escaped");
                    string list;
                    using (var reader = new StreamReader(zip.GetEntry("manifest.json")!.Open()))
                        list = reader.ReadToEnd();
                    zip.GetEntry("manifest.json")!.Delete();
                    using var writer = new StreamWriter(zip.CreateEntry("manifest.json").Open());
                    writer.Write(
                        list.Replace(
                            "\"files\":[",
                            "\"files\":[{\"name\":\"../escaped\",\"sha256\":\"e3b0c44298fc1c149afbf4c8996fb92427ae41e4649b934ca495991b7852b855\"},",
                            StringComparison.Ordinal
                        )
                    );
                }

                break;
            default:
                File.WriteAllBytes(file, []);
                break;
        }
    }

    private static void Rewrite(string file, string entry, Action<byte[]> change)
    {
        using var zip = ZipFile.Open(file, ZipArchiveMode.Update);
        using var content = new MemoryStream();
        using (var stream = zip.GetEntry(entry)!.Open())
            stream.CopyTo(content);
        var bytes = content.ToArray();
        change(bytes);
        zip.GetEntry(entry)!.Delete();
        using var written = zip.CreateEntry(entry).Open();
        written.Write(bytes);
    }

    private static Task<CommandResult> BackUpAsync(TestApp app, string file)
    {
        _ = app.Server;
        return app.Services.GetRequiredService<Backup>().WriteAsync(file, CancellationToken.None);
    }

    private static async Task<CommandResult> RestoreAsync(TestApp app, DataFolder into, string file)
    {
        var known = await app.AskAsync(db => Task.FromResult(db.Database.GetMigrations().ToHashSet()));
        return await new Backup(into, app.Time).RestoreAsync(file, known, CancellationToken.None);
    }
}
