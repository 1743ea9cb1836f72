using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Mvc.Testing;
using Microsoft.Data.Sqlite;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Logging;
using PorchLight.Server.Data;
using PorchLight.Server.StandIns.SampleSite;

namespace PorchLight.Browser.Tests;

/// <summary>The whole house on a real port, with its sample website on another, and nobody in it yet but its owner.</summary>
internal sealed class BrowserHouse : WebApplicationFactory<Program>
{
    private readonly string _folder = Directory.CreateTempSubdirectory("porch-light-browser-house-").FullName;

    private readonly bool _demo;

    /// <param name="demo">Whether the demo business is there; else the house is empty.</param>
    public BrowserHouse(bool demo = true)
    {
        _demo = demo;
        UseKestrel(0);
        StartServer();
        // By name, so that it is another site than the sample, which is reached by its bare address.
        Address = $"http://localhost:{ClientOptions.BaseAddress.Port}";
    }

    public string Address { get; }

    /// <summary>The key of an empty house, as the terminal shows it.</summary>
    public string FirstRunKey => File.ReadAllText(Path.Combine(_folder, "first-run-key"));

    public string SampleSite => Services.GetRequiredService<SampleSiteHost>().Address;

    public string FormAddress
    {
        get
        {
            using var scope = Services.CreateScope();
            var form = scope.ServiceProvider.GetRequiredService<PorchDb>().Forms.Single();
            return $"{Address}/f/{scope.ServiceProvider.GetRequiredService<Tokens>().Open(form.LinkSealed)}";
        }
    }

    public T Ask<T>(Func<PorchDb, T> ask)
    {
        using var scope = Services.CreateScope();
        return ask(scope.ServiceProvider.GetRequiredService<PorchDb>());
    }

    protected override void ConfigureWebHost(IWebHostBuilder builder)
    {
        builder.UseSetting("PorchLight:Data", _folder);
        builder.UseSetting("PorchLight:Demo", _demo ? "true" : "false");
        builder.UseSetting("PorchLight:DemoPeople", "false");
        builder.UseSetting("PorchLight:RateLimits", "false");
        builder.UseSetting("PorchLight:SampleSitePort", "0");
        builder.ConfigureLogging(logging => logging.ClearProviders());
    }

    public override async ValueTask DisposeAsync()
    {
        await base.DisposeAsync();
        SqliteConnection.ClearAllPools();
        Directory.Delete(_folder, recursive: true);
    }
}
