using Microsoft.AspNetCore.DataProtection;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Server.Calendar;
using PorchLight.Server.Fields;
using PorchLight.Server.Forms;
using PorchLight.Server.Hosting;
using PorchLight.Server.Records;

namespace PorchLight.Server.Storage;

/// <summary>Opens what is kept in the data folder.</summary>
internal static class StorageSetup
{
    public static void AddStorage(this IServiceCollection services, IConfiguration configuration)
    {
        var folder = new DataFolder(Path.GetFullPath(configuration["PorchLight:Data"] ?? "var/demo"));
        // By a factory, so that the folder is let go with the program.
        services.AddSingleton(_ => folder);
        services.AddSingleton<Backup>();
        services.AddSingleton<WriteLock>();
        services.AddSingleton<PublishedVersions>();
        services.AddSingleton<EventNumbers>();
        services.AddSingleton<ChangeNotifier>();
        services.AddSingleton<WriteGuard>();
        services.AddDbContextPool<PorchDb>(
            (provider, options) => options.UseSqlite(ConnectionTo(folder)).AddInterceptors(provider.GetRequiredService<WriteGuard>())
        );
        services.AddDataProtection().SetApplicationName("PorchLight").PersistKeysToFileSystem(new DirectoryInfo(folder.Keys));
        services.AddScoped<Tokens>();
    }

    /// <summary>How the database of a folder is opened.</summary>
    public static string ConnectionTo(DataFolder folder) => $"Data Source={folder.Database};Foreign Keys=True;Default Timeout=30";

    /// <summary>Takes the folder into use, brings the database up to date and sets the business clock.</summary>
    public static async Task OpenAsync(IServiceProvider services)
    {
        if (!services.GetRequiredService<DataFolder>().TryUse())
            throw new InUseException();
        await using var scope = services.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<PorchDb>();
        if ((await db.Database.GetAppliedMigrationsAsync()).Except(db.Database.GetMigrations()).Any())
            throw new UnknownReleaseException();
        // Migrating takes a lock in the database and compares whole models, also when there is nothing to do.
        if ((await db.Database.GetPendingMigrationsAsync()).Any())
        {
            if (File.Exists(services.GetRequiredService<DataFolder>().Database))
                await ForgetLockAsync(db);
            await db.Database.MigrateAsync();
        }

        // The index of words forgets a word with its last place, and not only where it stands (FTS5, 6.16).
        await db.Database.ExecuteSqlRawAsync("INSERT INTO ClientWords(ClientWords, rank) VALUES ('secure-delete', 1)");
        await db.AddBuiltInFieldsAsync();
        services.GetRequiredService<DataFolder>().KeepPrivate();
        if (await db.Businesses.SingleOrDefaultAsync() is { } business)
        {
            services.GetRequiredService<BusinessClock>().Ahead = Duration.FromSeconds(business.ClockAheadSeconds);
            services.GetRequiredService<PublicAddress>().Use(business.PublicAddress);
        }
    }

    // Migrating takes a lock that a killed process leaves behind, and the next one would wait for it for ever. The folder is
    // ours alone, so whoever took it is gone.
    private static async Task ForgetLockAsync(PorchDb db)
    {
        if (
            await db.Database.SqlQuery<int>($"SELECT count(*) AS Value FROM sqlite_master WHERE name = '__EFMigrationsLock'").SingleAsync()
            > 0
        )
            await db.Database.ExecuteSqlAsync($"DELETE FROM __EFMigrationsLock");
    }
}

/// <summary>The data folder was made by a version of the program that this one does not know.</summary>
internal sealed class UnknownReleaseException()
    : Exception(
        "This data folder was made by a version of Porch Light that this one does not know: a newer one, or one from before the first release. Start that version on it, or name another folder."
    );

/// <summary>Another process uses the data folder.</summary>
internal sealed class InUseException()
    : Exception("Porch Light is running on this data folder already. Stop it first, or name another folder.");
