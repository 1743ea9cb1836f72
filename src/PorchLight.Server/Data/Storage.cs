using Microsoft.AspNetCore.DataProtection;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Server.Calendar;

namespace PorchLight.Server.Data;

/// <summary>Where everything is kept: one folder with the database and the keys.</summary>
internal static class Storage
{
    public static void AddStorage(this IServiceCollection services, IConfiguration configuration)
    {
        var folder = Path.GetFullPath(configuration["PorchLight:Data"] ?? "var/demo");
        services.AddSingleton<Pulse>();
        services.AddSingleton<PulseAfterCommit>();
        services.AddDbContext<PorchDb>((provider, options) => options
            .UseSqlite($"Data Source={Path.Combine(folder, "porch-light.db")};Foreign Keys=True;Default Timeout=30")
            .AddInterceptors(provider.GetRequiredService<PulseAfterCommit>()));
        services.AddDataProtection().SetApplicationName("PorchLight")
            .PersistKeysToFileSystem(new DirectoryInfo(Path.Combine(folder, "keys")));
        services.AddScoped<Tokens>();
    }

    /// <summary>Brings the database up to date and sets the business clock.</summary>
    public static async Task OpenAsync(IServiceProvider services)
    {
        await using var scope = services.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<PorchDb>();
        Directory.CreateDirectory(Path.GetDirectoryName(db.Database.GetDbConnection().DataSource)!);
        await db.Database.MigrateAsync();
        if (await db.Businesses.SingleOrDefaultAsync() is { } business)
            services.GetRequiredService<BusinessClock>().Ahead = Duration.FromSeconds(business.ClockAheadSeconds);
    }
}
