using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Mvc.Testing;
using Microsoft.AspNetCore.TestHost;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Hosting;
using Microsoft.Extensions.Logging;
using Microsoft.Extensions.Time.Testing;
using NodaTime;
using PorchLight.Core.Forms;
using PorchLight.Core.Screening;
using PorchLight.Server.Calendar;
using PorchLight.Server.Data;
using PorchLight.Server.Demo;
using PorchLight.Server.Forms;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Work;

namespace PorchLight.Server.Tests;

/// <summary>
/// A house of its own for one test: a real SQLite file in a folder of its own, a clock that stands still until it is
/// moved, and work that is done only when the test says so.
/// </summary>
internal sealed class TestHouse : WebApplicationFactory<Program>
{
    private readonly string _folder = Directory.CreateTempSubdirectory("porch-light-test-").FullName;

    /// <summary>Monday 23 November 2026, 10:00 in Dublin.</summary>
    public FakeTimeProvider Time { get; init; } = new(new DateTimeOffset(2026, 11, 23, 10, 0, 0, TimeSpan.Zero));

    /// <summary>Settings a test wants otherwise.</summary>
    public Dictionary<string, string> Settings { get; init; } = [];

    /// <summary>Where everything is kept; gone with the house.</summary>
    public string Folder => _folder;

    /// <summary>Services a test wants otherwise.</summary>
    public Action<IServiceCollection> Change { get; init; } = _ => { };

    protected override void ConfigureWebHost(IWebHostBuilder builder)
    {
        builder.UseSetting("PorchLight:Data", _folder);
        builder.UseSetting("PorchLight:Demo", "true");
        builder.UseSetting("PorchLight:DemoPeople", "false");
        builder.UseSetting("PorchLight:RateLimits", "false");
        foreach (var (name, value) in Settings)
            builder.UseSetting(name, value);
        builder.ConfigureLogging(logging => logging.ClearProviders());
        builder.ConfigureTestServices(services =>
        {
            services.AddSingleton<TimeProvider>(Time);
            services.Remove(services.Single(service => service.ServiceType == typeof(IHostedService) && service.ImplementationType == typeof(WorkLoop)));
            Change(services);
        });
    }

    public Instant Now => Services.GetRequiredService<BusinessClock>().GetCurrentInstant();

    /// <summary>Moves the clock on and does what has fallen due.</summary>
    public async Task PassTimeAsync(Duration duration)
    {
        Time.Advance(duration.ToTimeSpan());
        await WorkAsync();
    }

    public Task WorkAsync() => Services.GetRequiredService<DueWork>().PassAsync(CancellationToken.None);

    /// <summary>Looks into the database.</summary>
    public async Task<T> AskAsync<T>(Func<PorchDb, Task<T>> ask)
    {
        await using var scope = Services.CreateAsyncScope();
        return await ask(scope.ServiceProvider.GetRequiredService<PorchDb>());
    }

    public async Task<string> LinkAsync() => await AskAsync(async db =>
    {
        await using var scope = Services.CreateAsyncScope();
        return scope.ServiceProvider.GetRequiredService<Tokens>().Open((await db.Forms.FindAsync(db.Forms.Single().Id))!.LinkSealed);
    });

    /// <summary>Says that the mural form was opened a minute ago.</summary>
    public async Task<string> TicketAsync() => await AskAsync(async db =>
        new SpamDesk(db, Services.GetRequiredService<IDataProtectionProvider>(), new FakeTimeProvider(Time.GetUtcNow().AddMinutes(-1))).Ticket((await db.Forms.SingleAsync()).Id));

    /// <summary>Changes the settings of the mural form.</summary>
    public Task ChangeFormAsync(Func<FormSettings, FormSettings> change) => AskAsync(async db =>
    {
        var form = await db.Forms.SingleAsync();
        form.Settings = change(form.Settings);
        return await db.SaveChangesAsync();
    });

    /// <summary>Makes and publishes another form, its light on and no time asked for; gives its link.</summary>
    public async Task<string> MakeFormAsync(FormContent content, FormSettings? settings = null)
    {
        await using var scope = Services.CreateAsyncScope();
        var (db, tokens) = (scope.ServiceProvider.GetRequiredService<PorchDb>(), scope.ServiceProvider.GetRequiredService<Tokens>());
        var lists = (await db.BusinessAsync()).Lists;
        FormStructure.Check(lists.Into(content)).ShouldBeEmpty();
        var form = db.AddForm(tokens, content, "We are away.", Now);
        db.AddScreening(form, new ScreeningRules(0, 0, 0, 1, []));
        db.Publish(form, lists, Now, "Maren Tolliver");
        form.LightOn = true;
        form.Settings = (settings ?? new FormSettings()) with { Guard = settings?.Guard ?? new SpamGuard(LeastSeconds: 0) };
        await db.SaveChangesAsync();
        return tokens.Open(form.LinkSealed);
    }

    /// <summary>Sends any form as a stranger.</summary>
    public async Task<HttpResponseMessage> SendAsync(string link, Dictionary<string, Answer?> answers, Guid? sendKey = null, HttpClient? by = null) =>
        await (by ?? CreateClient()).PostAsync($"/public/forms/{link}/send", Body(new { version = 1, sendKey = sendKey ?? Guid.NewGuid(), answers, cameFrom = (string?)null }));

    /// <summary>The text of the last mail to somebody.</summary>
    public async Task<string> MailToAsync(string address)
    {
        await WorkAsync();
        return await AskAsync(db => db.PracticeMail.Where(mail => mail.To == address).OrderByDescending(mail => mail.At).ThenByDescending(mail => mail.Id).Select(mail => mail.Text).FirstAsync());
    }

    /// <summary>Sends the mural form as a stranger.</summary>
    public async Task<HttpResponseMessage> SendAsync(Dictionary<string, Answer?> answers, Guid? sendKey = null, int version = 1) =>
        await CreateClient().PostAsync($"/public/forms/{await LinkAsync()}/send", Body(new { version, sendKey = sendKey ?? Guid.NewGuid(), answers, cameFrom = "https://bakery.example/walls", ticket = await TicketAsync() }));

    /// <summary>A signed-in owner whose requests carry the antiforgery token.</summary>
    public Task<HttpClient> OwnerAsync() => SignedInAsync(DemoBusiness.OwnerMail);

    /// <summary>A signed-in member.</summary>
    public Task<HttpClient> MemberAsync() => SignedInAsync(DemoBusiness.MemberMail);

    /// <summary>A visitor who is not signed in, but whose requests carry the antiforgery token.</summary>
    public async Task<HttpClient> StrangerAsync()
    {
        var client = CreateClient();
        await RefreshTokenAsync(client);
        return client;
    }

    public async Task<HttpClient> SignedInAsync(string email, string password = DemoBusiness.Password)
    {
        var client = await StrangerAsync();
        (await client.PostAsync("/api/sign-in", Body(new { email, password }))).EnsureSuccessStatusCode();
        await RefreshTokenAsync(client);
        return client;
    }

    public static async Task RefreshTokenAsync(HttpClient client)
    {
        var session = await client.GetFromJsonAsync<JsonElement>("/api/session");
        client.DefaultRequestHeaders.Remove("X-Porch-Light");
        client.DefaultRequestHeaders.Add("X-Porch-Light", session.GetProperty("antiforgery").GetString());
    }

    public static JsonContent Body(object value) => JsonContent.Create(value, options: Json.Options);

    public static Dictionary<string, Answer?> Answers(string email = "tilda@bakes.example", string budget = "4000-9000") => new()
    {
        ["name"] = new PersonNameAnswer("Tilda", "Brackenridge"),
        ["email"] = new TextAnswer(email),
        ["phone"] = new PhoneAnswer("01 555 0142"),
        ["place"] = new TextAnswer("Howth"),
        ["what"] = new TextAnswer("Bread and gulls"),
        ["budget"] = ChoiceAnswer.Of(budget),
        ["decides"] = ChoiceAnswer.Of("me"),
    };

    public override async ValueTask DisposeAsync()
    {
        await base.DisposeAsync();
        SqliteConnection.ClearAllPools();
        Directory.Delete(_folder, recursive: true);
    }
}

internal static class Responses
{
    public static async Task<JsonElement> JsonAsync(this HttpResponseMessage response) => await response.Content.ReadFromJsonAsync<JsonElement>();

    public static async Task<JsonElement> JsonAsync(this Task<HttpResponseMessage> response) => await (await response).JsonAsync();

    public static string Text(this JsonElement element, string property) => element.GetProperty(property).GetString()!;

    /// <summary>The sentence of a refusal.</summary>
    public static async Task<string> SentenceAsync(this HttpResponseMessage response) => (await response.JsonAsync()).Text("detail");

    /// <summary>The places of a refusal's findings.</summary>
    public static async Task<string?[]> PlacesAsync(this HttpResponseMessage response) =>
        [.. (await response.JsonAsync()).GetProperty("findings").EnumerateArray().Select(finding => finding.Text("place"))];
}
