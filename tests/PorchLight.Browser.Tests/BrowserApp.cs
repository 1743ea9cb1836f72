using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.TestHost;
using Microsoft.Extensions.DependencyInjection;
using PorchLight.Core.Forms;
using PorchLight.Server.Demo;
using PorchLight.Server.Forms;
using PorchLight.Server.StandIns.SampleSite;
using PorchLight.Server.Storage;

namespace PorchLight.Browser.Tests;

/// <summary>The whole program on a real port and a clock that runs, at work by itself, with its sample website on another port.</summary>
internal sealed class BrowserApp : AppFactory
{
    private static readonly DateTimeOffset RunBegan = OfficeClock.Instance.GetUtcNow();

    private static readonly SpamGuard Unhurried = new(LeastSeconds: 0);

    private readonly TimeProvider _clock;

    /// <param name="furnishing">What stands in it.</param>
    /// <param name="clock">The clock; that of the office when null.</param>
    /// <param name="secondsToTakeBack">For how long what is sent rests before it goes.</param>
    public BrowserApp(SeedData furnishing = SeedData.Demo, TimeProvider? clock = null, int secondsToTakeBack = 0)
    {
        Settings["PorchLight:SecondsToTakeBack"] = $"{secondsToTakeBack}";
        (SeedData, _clock) = (furnishing, clock ?? OfficeClock.Instance);
        Listen();
        // A browser that is driven fills in a form faster than a person: nobody is refused for that, however quick this machine is.
        if (furnishing != SeedData.Empty)
            ChangeFormAsync(settings => settings with { Guard = Unhurried }).GetAwaiter().GetResult();
        // By name, so that it is another site than the sample, which is reached by its bare address.
        Address = $"http://localhost:{ClientOptions.BaseAddress.Port}";
    }

    public string Address { get; }

    /// <summary>The cookies of its owner.</summary>
    public SignedIn Owner => Ready.Owner!;

    /// <summary>The key of an empty program, as the terminal shows it.</summary>
    public string FirstRunKey => File.ReadAllText(Path.Combine(Folder, "first-run-key"));

    public string SampleSite => Services.GetRequiredService<SampleSiteHost>().Address;

    public string FormAddress => $"{Address}/f/{LinkAsync().GetAwaiter().GetResult()}";

    protected override TimeProvider Clock => _clock;

    protected override DateTimeOffset MadeAt => RunBegan;

    /// <summary>Makes and publishes another form; gives its address.</summary>
    public async Task<string> OpenFormAsync(FormContent content, FormSettings? settings = null) =>
        $"{Address}/f/{await MakeFormAsync(content, settings ?? new FormSettings { Guard = Unhurried })}";

    /// <summary>Makes the form that asks in every way, with the list, the picture and the video it shows; gives its address.</summary>
    public async Task<string> OpenEveryKindAsync()
    {
        using var scope = Services.CreateScope();
        var things = await DemoFiles.TakeInAsync(
            scope.ServiceProvider.GetRequiredService<PorchDb>(),
            scope.ServiceProvider.GetRequiredService<FileStore>(),
            scope.ServiceProvider.GetRequiredService<TimeProvider>()
        );
        return await OpenFormAsync(EveryKind.Form(things.Colours, things.Gilded, things.Lettering));
    }

    /// <summary>Changes the database.</summary>
    public void Write(Action<PorchDb> change) =>
        ChangeAsync(db =>
            {
                change(db);
                return Task.CompletedTask;
            })
            .GetAwaiter()
            .GetResult();

    public T Ask<T>(Func<PorchDb, T> ask)
    {
        using var scope = Services.CreateScope();
        return ask(scope.ServiceProvider.GetRequiredService<PorchDb>());
    }

    protected override void ConfigureWebHost(IWebHostBuilder builder)
    {
        base.ConfigureWebHost(builder);
        builder.UseSetting("PorchLight:SampleSitePort", "0");
        builder.ConfigureTestServices(services => services.AddSingleton(Clock));
    }
}
