using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Mvc.Testing;
using Microsoft.Data.Sqlite;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Logging;
using NodaTime;
using PorchLight.Core.Forms;
using PorchLight.Core.Screening;
using PorchLight.Server.Data;
using PorchLight.Server.Demo;
using PorchLight.Server.Forms;
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
            var form = scope.ServiceProvider.GetRequiredService<PorchDb>().Forms.ToList().OrderBy(form => form.Id.Value).First();
            return $"{Address}/f/{scope.ServiceProvider.GetRequiredService<Tokens>().Open(form.LinkSealed)}";
        }
    }

    /// <summary>Makes and publishes another form; gives its address.</summary>
    public async Task<string> MakeFormAsync(FormContent content, FormSettings? settings = null)
    {
        using var scope = Services.CreateScope();
        var (db, tokens) = (scope.ServiceProvider.GetRequiredService<PorchDb>(), scope.ServiceProvider.GetRequiredService<Tokens>());
        var now = SystemClock.Instance.GetCurrentInstant();
        var lists = (await db.BusinessAsync()).Lists;
        FormStructure.Check(lists.Into(content)).ShouldBeEmpty();
        var form = db.AddForm(tokens, content, "We are away.", now);
        db.AddScreening(form, new ScreeningRules(0, 0, 0, 1, []));
        db.Publish(form, lists, now, "Maren Tolliver");
        form.LightOn = true;
        form.Settings = settings ?? form.Settings;
        await db.SaveChangesAsync();
        return $"{Address}/f/{tokens.Open(form.LinkSealed)}";
    }

    /// <summary>Makes the form that asks in every way, with the list, the picture and the video it shows.</summary>
    public async Task<string> MakeEveryKindAsync()
    {
        using var scope = Services.CreateScope();
        var things = await DemoThings.TakeInAsync(
            scope.ServiceProvider.GetRequiredService<PorchDb>(), scope.ServiceProvider.GetRequiredService<FileRoom>(), scope.ServiceProvider.GetRequiredService<TimeProvider>());
        await scope.ServiceProvider.GetRequiredService<PorchDb>().SaveChangesAsync();
        return await MakeFormAsync(EveryKind.Form(things.Colours, things.Gilded, things.Lettering));
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
