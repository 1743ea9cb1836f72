using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Mvc.Testing;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Logging;
using PorchLight.Core.Forms;
using PorchLight.Server.Brand;
using PorchLight.Server.Data;
using PorchLight.Server.Forms;

namespace PorchLight.Bench;

/// <summary>The real house on a real port, with two bare addresses beside it to measure against.</summary>
internal sealed class BenchHouse : WebApplicationFactory<PorchDb>
{
    private readonly string _folder = Directory.CreateTempSubdirectory("porch-light-bench-").FullName;

    public BenchHouse()
    {
        UseKestrel(0);
        StartServer();
        Address = new Uri($"http://127.0.0.1:{ClientOptions.BaseAddress.Port}");
    }

    public Uri Address { get; }

    public async Task<T> AskAsync<T>(Func<PorchDb, Task<T>> ask)
    {
        await using var scope = Services.CreateAsyncScope();
        return await ask(scope.ServiceProvider.GetRequiredService<PorchDb>());
    }

    public async Task<string> LinkAsync()
    {
        await using var scope = Services.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<PorchDb>();
        var form = await db.Forms.SingleAsync();
        // What is measured sends at once, as no person does.
        form.Settings = form.Settings with { Guard = new SpamGuard(LeastSeconds: 0) };
        await db.SaveChangesAsync();
        return scope.ServiceProvider.GetRequiredService<Tokens>().Open(form.LinkSealed);
    }

    /// <summary>Publishes a form; gives its link.</summary>
    public async Task<string> MakeFormAsync(FormContent content)
    {
        await using var scope = Services.CreateAsyncScope();
        var (db, tokens) = (scope.ServiceProvider.GetRequiredService<PorchDb>(), scope.ServiceProvider.GetRequiredService<Tokens>());
        var now = NodaTime.SystemClock.Instance.GetCurrentInstant();
        var form = db.AddForm(tokens, content, "We are away.", now);
        db.Publish(form, BusinessLists.Empty, now, "the bench");
        form.LightOn = true;
        await db.SaveChangesAsync();
        return tokens.Open(form.LinkSealed);
    }

    protected override void ConfigureWebHost(IWebHostBuilder builder)
    {
        builder.UseContentRoot(AppContext.BaseDirectory);
        builder.UseSetting("PorchLight:Data", _folder);
        builder.UseSetting("PorchLight:Demo", "true");
        builder.UseSetting("PorchLight:DemoPeople", "false");
        builder.UseSetting("PorchLight:RateLimits", "false");
        builder.ConfigureLogging(logging => logging.ClearProviders());
        builder.ConfigureServices(services => services.AddSingleton<IStartupFilter, BareAddresses>());
    }

    public override async ValueTask DisposeAsync()
    {
        await base.DisposeAsync();
        Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
        Directory.Delete(_folder, recursive: true);
    }

    /// <summary>/bare/nothing answers at once; /bare/insert commits one row first, in the way every row is written here.</summary>
    private sealed class BareAddresses : IStartupFilter
    {
        private static readonly byte[] Row = new byte[100];

        public Action<IApplicationBuilder> Configure(Action<IApplicationBuilder> next) => app =>
        {
            app.Map("/bare/insert", bare => bare.Run(async http =>
            {
                var db = http.RequestServices.GetRequiredService<PorchDb>();
                await using var transaction = await db.BeginWriteAsync(http.RequestAborted);
                db.BrandPictures.Add(new BrandPicture { Hash = Guid.NewGuid().ToString(), ContentType = "image/png", Bytes = Row });
                await db.SaveChangesAsync(http.RequestAborted);
                await transaction.CommitAsync(http.RequestAborted);
                await http.Response.WriteAsync("ok");
            }));
            app.Map("/bare/nothing", bare => bare.Run(http => http.Response.WriteAsync("ok")));
            next(app);
        };
    }
}
