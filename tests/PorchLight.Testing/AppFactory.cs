using Microsoft.AspNetCore.DataProtection;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Identity;
using Microsoft.AspNetCore.Mvc.Testing;
using Microsoft.AspNetCore.TestHost;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Logging;
using Microsoft.Extensions.Time.Testing;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Forms;
using PorchLight.Core.Screening;
using PorchLight.Server.Calendar;
using PorchLight.Server.Fields;
using PorchLight.Server.Forms;
using PorchLight.Server.Hosting;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Storage;

namespace PorchLight.Testing;

/// <summary>The whole program on a real SQLite file, in a data folder of its own that is gone with it.</summary>
internal abstract class AppFactory : WebApplicationFactory<Program>
{
    private readonly bool _keeps;
    private readonly WhatWentWrong _wentWrong = new();
    private bool _listens;

    /// <summary>What stands in it when it opens.</summary>
    public SeedData SeedData { get; init; } = SeedData.Demo;

    /// <summary>Everything is made by this program itself, as at a first start, and not copied.</summary>
    public bool FromScratch { get; init; }

    /// <summary>
    /// Whether each commit waits for the disk, as it does in real use. Only what is about storage, crashes and backups
    /// asks for it.
    /// </summary>
    public bool Durable { get; init; }

    /// <summary>Settings a test wants otherwise.</summary>
    public Dictionary<string, string> Settings { get; init; } = [];

    /// <summary>Services a test wants otherwise.</summary>
    public Action<IServiceCollection> Change { get; init; } = _ => { };

    /// <summary>Whether the test breaks something on purpose; otherwise every answer of 500 and every logged error fails it.</summary>
    public bool BreaksSomething { get; init; }

    /// <summary>Where everything is kept. One that is given is used as it stands, and left behind.</summary>
    public string Folder
    {
        get => field ??= Directory.CreateTempSubdirectory("porch-light-test-").FullName;
        init
        {
            field = value;
            _keeps = true;
        }
    }

    /// <summary>The current instant of the business.</summary>
    public Instant Now => Services.GetRequiredService<BusinessClock>().GetCurrentInstant();

    /// <summary>The clock of the machine.</summary>
    protected abstract TimeProvider Clock { get; }

    /// <summary>The time at which the folder that is copied was made.</summary>
    protected abstract DateTimeOffset MadeAt { get; }

    /// <summary>The folder this program is a copy of.</summary>
    protected ReadyFolder Ready => ReadyFolder.Of(SeedData, MadeAt);

    /// <summary>Opens the program on a real port of this machine, any that is free.</summary>
    public void Listen()
    {
        _listens = true;
        UseKestrel();
        StartServer();
    }

    /// <summary>Looks into the database.</summary>
    public async Task<T> AskAsync<T>(Func<PorchDb, Task<T>> ask)
    {
        await using var scope = Services.CreateAsyncScope();
        return await ask(scope.ServiceProvider.GetRequiredService<PorchDb>());
    }

    /// <summary>Changes the database.</summary>
    public async Task ChangeAsync(Func<PorchDb, Task> change)
    {
        await using var scope = Services.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<PorchDb>();
        await using var write = await db.WriteAsync(CancellationToken.None);
        await change(db);
        await write.SaveAsync(CancellationToken.None);
    }

    /// <summary>The link of the mural form, the first of the demo.</summary>
    public async Task<string> LinkAsync() =>
        await AskAsync(async db =>
        {
            await using var scope = Services.CreateAsyncScope();
            return scope.ServiceProvider.GetRequiredService<Tokens>().Open((await MuralAsync(db)).LinkSealed);
        });

    /// <summary>Says that the mural form was opened a minute ago.</summary>
    public async Task<string> TicketAsync() =>
        await AskAsync(async db =>
            new SpamCheck(
                db,
                Services.GetRequiredService<IDataProtectionProvider>(),
                Services.GetRequiredService<Quotas>(),
                new FakeTimeProvider(Clock.GetUtcNow().AddMinutes(-1))
            ).Ticket((await MuralAsync(db)).Id)
        );

    /// <summary>Sends the mural form as a stranger.</summary>
    public async Task<HttpResponseMessage> SendAsync(Dictionary<string, Answer?> answers, Guid? sendKey = null, int version = 1) =>
        await CreateClient()
            .PostAsync(
                $"/public/forms/{await LinkAsync()}/send",
                Requests.Body(
                    new
                    {
                        version,
                        sendKey = sendKey ?? Guid.NewGuid(),
                        answers,
                        cameFrom = "https://bakery.example/walls",
                        ticket = await TicketAsync(),
                    }
                )
            );

    /// <summary>Changes the settings of the mural form.</summary>
    public Task ChangeFormAsync(Func<FormSettings, FormSettings> change) =>
        ChangeAsync(async db =>
        {
            var form = await MuralAsync(db);
            form.Settings = change(form.Settings);
        });

    private static async Task<Form> MuralAsync(PorchDb db) => (await db.Forms.ToListAsync()).MinBy(form => form.Id.Value)!;

    /// <summary>Makes and publishes another form, its light on; gives its link.</summary>
    public async Task<string> MakeFormAsync(FormContent content, FormSettings? settings = null, ScreeningRules? screening = null)
    {
        await using var scope = Services.CreateAsyncScope();
        var (db, tokens) = (scope.ServiceProvider.GetRequiredService<PorchDb>(), scope.ServiceProvider.GetRequiredService<Tokens>());
        await using var write = await db.WriteAsync(CancellationToken.None);
        var lists = (await db.BusinessAsync()).Lists;
        var fields = await scope.ServiceProvider.GetRequiredService<FieldCatalogues>().ReadAsync(db);
        FormStructure.Check(lists.Into(content), fields).ShouldBeEmpty();
        var form = db.AddForm(tokens, content, "We are away.", Now);
        db.AddScreening(form, screening ?? new ScreeningRules(0, 0, 0, 1, []));
        db.Publish(form, lists, Now, "Maren Tolliver");
        form.LightOn = true;
        form.Settings = settings ?? form.Settings;
        await write.SaveAsync(CancellationToken.None);
        return tokens.Open(form.LinkSealed);
    }

    protected override void ConfigureWebHost(IWebHostBuilder builder)
    {
        if (!_keeps && !FromScratch)
            Ready.CopyTo(Folder);
        // Asked for here, and not of the factory: that sets the port while the program, on a thread of its own, may have opened already.
        if (_listens)
            builder.UseSetting(WebHostDefaults.ServerUrlsKey, "http://127.0.0.1:0");
        builder.UseSetting("PorchLight:Data", Folder);
        builder.UseSetting("PorchLight:Demo", SeedData == SeedData.Empty ? "false" : "true");
        builder.UseSetting("PorchLight:DemoPeople", SeedData == SeedData.DemoWithPeople ? "true" : "false");
        builder.UseSetting("PorchLight:DemoHistory", "false");
        builder.UseSetting("PorchLight:RateLimits", "false");
        builder.UseSetting("PorchLight:SecondsToTakeBack", "0");
        foreach (var (name, value) in Settings)
            builder.UseSetting(name, value);
        builder.ConfigureLogging(logging => logging.ClearProviders());
        builder.ConfigureTestServices(services =>
        {
            _wentWrong.Watch(services);
            services.Configure<PasswordHasherOptions>(hashing => hashing.IterationCount = 1);
            if (!Durable)
                services.ConfigureDbContext<PorchDb>(options => options.AddInterceptors(FastWrites.Instance));
            Change(services);
        });
    }

    public override async ValueTask DisposeAsync()
    {
        await base.DisposeAsync();
        using (var folder = new DataFolder(Folder))
        using (var pooled = new SqliteConnection(StorageSetup.ConnectionTo(folder)))
        {
            // The program ends on a thread of its own, and may still be letting go of its things.
            while (!folder.TryUse())
                await Task.Delay(5);
            SqliteConnection.ClearPool(pooled);
        }

        if (!_keeps)
            Directory.Delete(Folder, recursive: true);
        if (!BreaksSomething && !_wentWrong.Seen.IsEmpty)
            throw new InvalidOperationException(
                $"The program could not do something that the test did not announce:\n{string.Join('\n', _wentWrong.Seen.Distinct())}"
            );
    }
}

/// <summary>What stands in a program when a test opens it.</summary>
internal enum SeedData
{
    /// <summary>Nothing: it waits for its owner.</summary>
    Empty,

    /// <summary>The demo business with its owner, a member and the mural form.</summary>
    Demo,

    /// <summary>The demo business with all its forms, and leads who have been there.</summary>
    DemoWithPeople,
}
