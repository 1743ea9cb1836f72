using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata;
using Microsoft.Extensions.Time.Testing;
using NodaTime;
using PorchLight.Server.Storage;
using PorchLight.Server.Tests.Crash;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

/// <summary>
/// A backup of each release, which every later version must bring up to date and open. One of a new release is written once, by
/// <c>PORCH_LIGHT_GOLDEN=release-2 ./test server golden</c>, and never again.
/// </summary>
public sealed class GoldenDatabaseTests : IDisposable
{
    private static readonly string Golden = Repository.Find("tests/PorchLight.Server.Tests/Golden");
    private readonly string _folder = Directory.CreateTempSubdirectory("porch-light-golden-").FullName;

    public static TheoryData<string> Releases => [.. Directory.GetDirectories(Golden).Select(release => Path.GetFileName(release))];

    [Theory]
    [MemberData(nameof(Releases))]
    public async Task The_golden_business_of_every_release_opens_and_goes_on(string release)
    {
        var file = Path.Combine(Golden, release, "business.zip");
        if (Environment.GetEnvironmentVariable("PORCH_LIGHT_GOLDEN") == release && !File.Exists(file))
            await WriteAsync(file);
        await using (var today = new TestApp())
        {
            using var target = new DataFolder(Path.Combine(_folder, "data"));
            var migrations = await today.AskAsync(db => Task.FromResult(db.Database.GetMigrations().ToHashSet()));
            var restored = await new Backup(target, today.Time).RestoreAsync(file, migrations, CancellationToken.None);
            restored.Done.ShouldBeTrue(restored.Sentence);
        }

        await using var app = new TestApp
        {
            Folder = Path.Combine(_folder, "data"),
            Time = new FakeTimeProvider(TestApp.Usual.AddDays(30)),
        };
        await using var made = new TestApp { FromScratch = true, SeedData = SeedData.Empty };
        var fresh = made.AskAsync(SchemaAsync);
        await app.AskAsync(async db =>
        {
            (await db.Database.GetPendingMigrationsAsync()).ShouldBeEmpty();
            (await SchemaAsync(db)).ShouldBe(await fresh, release);
            await DataConsistency.ShouldBeSoundAsync(db, release);
            foreach (var table in db.Model.GetEntityTypes().Where(table => !table.IsOwned()))
                await ReadAllAsync(db, table);
            (await db.Inquiries.CountAsync()).ShouldBeGreaterThan(2);
            return 0;
        });
        var owner = await app.SignedInAsync("maren@ochrewren.example");
        foreach (var screen in new[] { "today", "bell", "people", "settings" })
            (await owner.GetAsync($"/api/{screen}")).IsSuccessStatusCode.ShouldBeTrue(screen);
        foreach (var list in new[] { "forms", "inquiries", "clients", "practice/mail" })
            (await owner.GetAsync($"/api/{list}/choices")).IsSuccessStatusCode.ShouldBeTrue(list);
        await app.SendAsync(Answers("later@bakes.example"));
        await app.PassTimeAsync(Duration.FromDays(3));
        await app.AskAsync(async db =>
        {
            await DataConsistency.ShouldBeSoundAsync(db, release);
            return 0;
        });
    }

    public void Dispose() => Directory.Delete(_folder, recursive: true);

    /// <summary>Tables with their columns, and what hangs on them; columns that were added later stand last, which is all the same.</summary>
    internal static async Task<List<string>> SchemaAsync(PorchDb db) =>
        await db
            .Database.SqlQuery<string>(
                $"""
                SELECT t.name || '.' || c.name || ' ' || c.type || ' ' || c."notnull" || ' ' || c.pk AS Value
                FROM sqlite_master AS t JOIN pragma_table_info(t.name) AS c WHERE t.type = 'table' AND t.name NOT LIKE '\_\_%' ESCAPE '\'
                UNION ALL
                SELECT t.name || ' -> ' || f."table" || ' ' || f."from" || ' ' || f.on_delete
                FROM sqlite_master AS t JOIN pragma_foreign_key_list(t.name) AS f WHERE t.type = 'table'
                UNION ALL
                SELECT type || ' ' || name || ' ' || sql FROM sqlite_master WHERE type <> 'table' AND sql IS NOT NULL
                ORDER BY Value
                """
            )
            .ToListAsync();

    private static async Task ReadAllAsync(PorchDb db, IEntityType table)
    {
        var set =
            (IQueryable<object>)typeof(DbContext).GetMethod(nameof(DbContext.Set), [])!.MakeGenericMethod(table.ClrType).Invoke(db, [])!;
        await set.AsNoTracking().ToListAsync();
    }

    /// <summary>The demo after a few days: answers of known and new people, a nod, mail that went and mail that waits.</summary>
    private static async Task WriteAsync(string file)
    {
        await using var app = new TestApp { Durable = true };
        await app.SendAsync(Answers());
        await app.WorkAsync();
        await app.SendAsync(Answers("robin@pell.example"));
        await app.PassTimeAsync(Duration.FromDays(2));
        await app.SendAsync(Answers());
        await app.WorkAsync();
        var owner = app.Owner();
        var download = await owner.GetAsync("/api/settings/backup.zip");
        await File.WriteAllBytesAsync(file, await download.Content.ReadAsByteArrayAsync());
    }
}
