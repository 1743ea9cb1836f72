using System.Net;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Mvc.Testing.Handlers;
using Microsoft.AspNetCore.TestHost;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Hosting;
using Microsoft.Extensions.Time.Testing;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Forms;
using PorchLight.Core.Screening;
using PorchLight.Server.Demo;
using PorchLight.Server.Forms;
using PorchLight.Server.Work;
using static PorchLight.Testing.Requests;

namespace PorchLight.Testing;

/// <summary>A program whose clock stands still until it is moved, and whose work is done only when the test says so.</summary>
internal sealed class TestApp : AppFactory
{
    /// <summary>When the clock of a test begins that does not say otherwise.</summary>
    public static DateTimeOffset Usual => TestClock.Begins;

    /// <summary>The clock of everything; it stands at <see cref="Usual"/> unless a test wants it otherwise.</summary>
    public FakeTimeProvider Time { get; init; } = new(Usual);

    protected override TimeProvider Clock => Time;

    protected override DateTimeOffset MadeAt => Time.Start;

    protected override void ConfigureWebHost(IWebHostBuilder builder)
    {
        base.ConfigureWebHost(builder);
        builder.ConfigureTestServices(services =>
        {
            services.AddSingleton(Clock);
            services.Remove(
                services.Single(service => service.ServiceType == typeof(IHostedService) && service.ImplementationType == typeof(WorkLoop))
            );
        });
    }

    /// <summary>Moves the clock on and does what has fallen due.</summary>
    public async Task PassTimeAsync(Duration duration)
    {
        Time.Advance(duration.ToTimeSpan());
        await WorkAsync();
    }

    public Task WorkAsync() => Services.GetRequiredService<DueWork>().PassAsync(CancellationToken.None);

    /// <summary>Makes and publishes another form, its light on and no time asked for; gives its link.</summary>
    public Task<string> MakeQuickFormAsync(FormContent content, FormSettings? settings = null, ScreeningRules? screening = null) =>
        MakeFormAsync(
            content,
            (settings ?? new FormSettings()) with
            {
                Guard = settings?.Guard ?? new SpamGuard(LeastSeconds: 0),
            },
            screening
        );

    /// <summary>Sends any form as a stranger.</summary>
    public async Task<HttpResponseMessage> SendAsync(
        string link,
        Dictionary<string, Answer?> answers,
        Guid? sendKey = null,
        HttpClient? by = null
    ) =>
        await (by ?? CreateClient()).PostAsync(
            $"/public/forms/{link}/send",
            Body(
                new
                {
                    version = 1,
                    sendKey = sendKey ?? Guid.NewGuid(),
                    answers,
                    cameFrom = (string?)null,
                }
            )
        );

    /// <summary>Changes the working copy of a form by the API.</summary>
    /// <param name="owner">Who changes it.</param>
    /// <param name="form">The identifier of the form.</param>
    /// <param name="change">What is changed.</param>
    /// <param name="was">The form as it was read; null for as it is stored now.</param>
    public async Task<HttpResponseMessage> SaveContentAsync(
        HttpClient owner,
        string form,
        Func<FormContent, FormContent> change,
        FormContent? was = null
    )
    {
        was ??= await ContentAsync(form);
        return await owner.PutAsync($"/api/forms/{form}/content", Body(new { was, now = change(was) }));
    }

    /// <summary>The working copy of a form.</summary>
    public Task<FormContent> ContentAsync(string form)
    {
        var id = Id<Form>.Parse(form, null);
        return AskAsync(db => db.Forms.Where(one => one.Id == id).Select(one => one.Draft).SingleAsync());
    }

    /// <summary>The text of the last mail to somebody.</summary>
    public async Task<string> MailToAsync(string address)
    {
        await WorkAsync();
        return await AskAsync(db =>
            db.PracticeMail.Where(mail => mail.To == address)
                .OrderByDescending(mail => mail.At)
                .ThenByDescending(mail => mail.Id)
                .Select(mail => mail.Text)
                .FirstAsync()
        );
    }

    /// <summary>The signed-in owner, whose requests carry the antiforgery token.</summary>
    public HttpClient Owner() => As(Ready.Owner);

    /// <summary>The signed-in member.</summary>
    public HttpClient Member() => As(Ready.Member);

    /// <summary>The owner's cookies as a header.</summary>
    public string OwnerCookies => string.Join("; ", Ready.Owner!.Cookies.Select(cookie => $"{cookie.Name}={cookie.Value}"));

    private HttpClient As(SignedIn? person)
    {
        var (cookies, antiforgery) = person ?? throw new InvalidOperationException("Nobody is a user of an empty program.");
        StartServer();
        var jar = new CookieContainer();
        foreach (var (name, value) in cookies)
            jar.Add(ClientOptions.BaseAddress, new Cookie(name, value, "/"));
        var client = CreateDefaultClient(ClientOptions.BaseAddress, new RedirectHandler(), new CookieContainerHandler(jar), new SendKeys());
        client.DefaultRequestHeaders.Add(AntiforgeryHeader, antiforgery);
        return client;
    }

    /// <summary>A visitor who is not signed in, but whose requests carry the antiforgery token.</summary>
    public async Task<HttpClient> StrangerAsync()
    {
        StartServer();
        var client = CreateDefaultClient(ClientOptions.BaseAddress, new RedirectHandler(), new CookieContainerHandler(), new SendKeys());
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
}
