using System.Net;
using System.Text.RegularExpressions;
using Microsoft.AspNetCore.Routing;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using PorchLight.Server.Hosting;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

public sealed partial class AccessTests
{
    /// <summary>
    /// Knocks at every endpoint there is, as a stranger, a member and the owner, and compares whom it lets in with
    /// <c>WhoMay.txt</c>: a new endpoint, or another right, is a line that somebody has to write.
    /// </summary>
    [Fact]
    public async Task Every_endpoint_lets_in_whom_it_should_and_nobody_else()
    {
        await using var app = new TestApp();
        var found = new List<string>();
        foreach (var (method, path) in Endpoints(app))
            found.Add($"{await WhoMayAsync(app, method, path), -8} {method, -6} {path}");
        var written = await File.ReadAllLinesAsync(Path.Combine(AppContext.BaseDirectory, "WhoMay.txt"));
        found.Except(written).ShouldBeEmpty("this is so, and WhoMay.txt does not say it");
        written.Except(found).ShouldBeEmpty("WhoMay.txt says this, and it is not so");
    }

    /// <summary>What an endpoint declares is what the table says of it, so that neither is true by chance.</summary>
    [Fact]
    public async Task A_page_of_another_site_hears_nothing_of_what_changes()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        foreach (
            var (origin, status) in new[]
            {
                ("https://evil.example", 403),
                ("http://localhost.evil.example", 403),
                ("null", 403),
                ("http://localhost", 200),
            }
        )
        {
            using var asked = new HttpRequestMessage(HttpMethod.Post, "/changes/negotiate?negotiateVersion=1");
            asked.Headers.Add("Origin", origin);
            ((int)(await owner.SendAsync(asked)).StatusCode).ShouldBe(status, origin);
        }
    }

    [Fact]
    public async Task Every_endpoint_declares_who_may_use_it()
    {
        await using var app = new TestApp();
        using var started = app.CreateClient();
        var endpoints = app.Services.GetRequiredService<EndpointDataSource>().Endpoints.OfType<RouteEndpoint>().ToList();
        endpoints
            .Where(endpoint => endpoint.Metadata.GetMetadata<AccessMetadata>() is null)
            .Select(endpoint => endpoint.DisplayName)
            .ShouldBeEmpty("say who may, with For(Access...)");
        var written = await File.ReadAllLinesAsync(
            Path.Combine(AppContext.BaseDirectory, "WhoMay.txt"),
            TestContext.Current.CancellationToken
        );
        foreach (var line in written)
        {
            var (who, method, path) = line.Split(' ', StringSplitOptions.RemoveEmptyEntries) is [var a, var b, var c]
                ? (a, b, c)
                : throw new InvalidDataException(line);
            var found = endpoints
                .Where(one =>
                    "/" + one.RoutePattern.RawText!.Trim('/') == path
                    && one.Metadata.GetMetadata<HttpMethodMetadata>()?.HttpMethods.Contains(method) != false
                )
                .ToList();
            found.ShouldNotBeEmpty(line);
            found.ShouldAllBe(
                one =>
                    one.Metadata.GetMetadata<AccessMetadata>()!.Access
                    == (
                        who == "everyone" ? Access.Public
                        : who == "owner" ? Access.Owner
                        : Access.Member
                    ),
                line
            );
        }
    }

    [Fact]
    public async Task Everything_that_changes_something_refuses_requests_without_the_antiforgery_token()
    {
        await using var app = new TestApp();
        var changing = Endpoints(app)
            .Where(endpoint => endpoint.Method != "GET" && endpoint.Path.StartsWith("/api/", StringComparison.Ordinal))
            .ToList();
        changing.Count.ShouldBeGreaterThan(40);
        foreach (var (method, path) in changing)
        {
            var owner = app.Owner();
            owner.DefaultRequestHeaders.Remove(AntiforgeryHeader);
            var response = await owner.SendAsync(Knock(method, path));
            response.StatusCode.ShouldBe(HttpStatusCode.BadRequest, $"{method} {path}");
            (await response.SentenceAsync()).ShouldContain("signed in anew");
        }
    }

    [Fact]
    public async Task A_wrong_password_is_refused_and_guessing_is_slowed_down()
    {
        await using var app = new TestApp();
        var guesser = app.CreateClient();
        await RefreshTokenAsync(guesser);
        HttpResponseMessage last = null!;
        foreach (var email in new[] { "maren@ochrewren.example", "nobody@ochrewren.example" })
        {
            for (var n = 0; n < 9; n++)
                last = await guesser.PostAsync("/api/sign-in", Body(new { email, password = $"guess number {n}" }));
            last.StatusCode.ShouldBe(HttpStatusCode.TooManyRequests, "also for an address nobody has: that is not given away");
            (await last.SentenceAsync()).ShouldContain("wait five minutes");
        }

        app.Time.Advance(TimeSpan.FromMinutes(5));
        (
            await guesser.PostAsync("/api/sign-in", Body(new { email = "maren@ochrewren.example", password = Demo.DemoBusiness.Password }))
        ).EnsureSuccessStatusCode();
    }

    [Fact]
    public async Task Strangers_who_guess_do_not_lock_the_owner_out_of_her_own_device()
    {
        await using var app = new TestApp();
        var maren = await app.SignedInAsync("maren@ochrewren.example");
        await maren.PostAsync("/api/sign-out", null);
        await RefreshTokenAsync(maren);
        var guesser = await app.StrangerAsync();
        for (var n = 0; n < 9; n++)
            await guesser.PostAsync("/api/sign-in", Body(new { email = "maren@ochrewren.example", password = $"guess number {n}" }));
        (
            await maren.PostAsync("/api/sign-in", Body(new { email = "maren@ochrewren.example", password = Demo.DemoBusiness.Password }))
        ).EnsureSuccessStatusCode();
    }

    [Fact]
    public async Task A_cookie_that_was_copied_is_worth_nothing_once_its_session_was_signed_out()
    {
        await using var app = new TestApp();
        var (owner, copy, member) = (app.Owner(), app.Owner(), app.Member());
        (await copy.GetAsync("/api/today")).StatusCode.ShouldBe(HttpStatusCode.OK);
        await owner.PostAsync("/api/sign-out", null);
        (await copy.GetAsync("/api/today")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        (await member.GetAsync("/api/today")).StatusCode.ShouldBe(HttpStatusCode.OK, "nobody else is signed out");
    }

    [Fact]
    public async Task What_people_said_is_stored_by_nobody_on_the_way()
    {
        await using var app = new TestApp();
        await app.SendAsync(Answers());
        foreach (var path in new[] { "/api/inquiries", "/api/today", "/api/clients" })
            (await app.Owner().GetAsync(path)).Headers.CacheControl!.ToString().ShouldBe("no-store", path);
        (await app.CreateClient().GetAsync($"/public/forms/{await app.LinkAsync()}")).Headers.CacheControl!.ToString().ShouldBe("no-store");
    }

    [Fact]
    public async Task Links_are_never_made_of_what_a_request_calls_us_and_other_names_are_refused()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        var card = (await owner.GetAsync("/api/settings").JsonAsync()).GetProperty("business");
        var now = System.Text.Json.Nodes.JsonNode.Parse(card.GetRawText())!.AsObject();
        now["publicAddress"] = "https://forms.ochrewren.example";
        (await owner.PutAsync("/api/settings/business", Body(new { was = card, now }))).EnsureSuccessStatusCode();

        var evil = new HttpRequestMessage(HttpMethod.Get, "/api/session") { Headers = { Host = "evil.example" } };
        (await app.CreateClient().SendAsync(evil)).StatusCode.ShouldBe(HttpStatusCode.MisdirectedRequest);
        foreach (var host in new[] { "forms.ochrewren.example", "localhost:8080", "127.0.0.1", "[::1]:8080" })
            (
                await app.CreateClient().SendAsync(new HttpRequestMessage(HttpMethod.Get, "/api/session") { Headers = { Host = host } })
            ).StatusCode.ShouldBe(HttpStatusCode.OK, host);
        var form = (await owner.GetAsync("/api/forms").JsonAsync())[0].Text("id");
        (await owner.GetAsync($"/api/forms/{form}").JsonAsync())
            .GetProperty("sharing")
            .Text("link")
            .ShouldStartWith("https://forms.ochrewren.example/f/");
    }

    [Fact]
    public async Task Signing_out_ends_it()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        (await owner.GetAsync("/api/today")).StatusCode.ShouldBe(HttpStatusCode.OK);
        await owner.PostAsync("/api/sign-out", null);
        (await owner.GetAsync("/api/today")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
    }

    [Fact]
    public async Task The_business_app_refuses_frames_and_the_public_form_allows_those_the_form_names()
    {
        await using var app = new TestApp();
        var client = app.CreateClient();
        (await client.GetAsync("/inquiries")).Headers.GetValues("Content-Security-Policy").Single().ShouldContain("frame-ancestors 'none'");
        var form = await client.GetAsync($"/f/{await app.LinkAsync()}");
        var policy = form.Headers.GetValues("Content-Security-Policy").Single();
        policy.ShouldContain("frame-ancestors *");
        policy.ShouldContain("default-src 'self'");
        policy.ShouldNotContain("unsafe");
        await app.ChangeFormAsync(settings => settings with { EmbedOn = ["https://bakery.example"] });
        (await client.GetAsync($"/f/{await app.LinkAsync()}"))
            .Headers.GetValues("Content-Security-Policy")
            .Single()
            .ShouldEndWith("frame-ancestors 'self' https://bakery.example");
    }

    [Theory]
    [InlineData("/index.html")]
    [InlineData("/INDEX.HTML")]
    [InlineData("/index.html.br")]
    [InlineData("/form/index.html")]
    public async Task No_page_can_be_had_without_its_security_policy(string file)
    {
        await using var app = new TestApp();
        (await app.CreateClient().GetAsync(file)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task The_public_side_sets_no_cookies_and_tells_nothing_of_screening()
    {
        await using var app = new TestApp();
        var response = await app.CreateClient().GetAsync($"/public/forms/{await app.LinkAsync()}");
        response.Headers.Contains("Set-Cookie").ShouldBeFalse();
        var text = await response.Content.ReadAsStringAsync();
        foreach (var secret in new[] { "points", "signal", "landsIn", "client.email", "\"low\"", "knownBefore" })
            text.ShouldNotContain(secret);
    }

    [Theory]
    [InlineData("/public/forms/invented", 240)]
    [InlineData("/api/join/invented", 30)]
    public async Task Who_knocks_too_often_is_told_to_wait(string door, int often)
    {
        await using var app = new TestApp { Settings = { ["PorchLight:RateLimits"] = "true" } };
        var stranger = app.CreateClient();
        for (var n = 0; n < often; n++)
            (await stranger.GetAsync(door)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        var last = await stranger.GetAsync(door);
        last.StatusCode.ShouldBe(HttpStatusCode.TooManyRequests);
        last.Headers.RetryAfter!.Delta!.Value.ShouldBeInRange(TimeSpan.FromSeconds(1), TimeSpan.FromHours(1));
        (await last.SentenceAsync()).ShouldContain("wait a minute");
    }

    [Fact]
    public async Task The_database_is_set_to_lose_nothing()
    {
        await using var app = new TestApp { Durable = true };
        await app.AskAsync(async db =>
        {
            await db.Database.OpenConnectionAsync();
            async Task<string> Pragma(string name)
            {
                using var command = db.Database.GetDbConnection().CreateCommand();
                command.CommandText = "PRAGMA " + name;
                return (await command.ExecuteScalarAsync())!.ToString()!;
            }

            (await Pragma("synchronous")).ShouldBe("2", "FULL");
            (await Pragma("journal_mode")).ShouldBe("wal");
            (await Pragma("foreign_keys")).ShouldBe("1");
            return 0;
        });
    }

    private static async Task<string> WhoMayAsync(TestApp app, string method, string path)
    {
        var stranger = await (await app.StrangerAsync()).SendAsync(Knock(method, path));
        if (stranger.StatusCode != HttpStatusCode.Unauthorized)
            return "everyone";
        (await stranger.SentenceAsync()).ShouldContain("what you typed is still here", Case.Sensitive, $"{method} {path}");
        var member = await app.Member().SendAsync(Knock(method, path));
        member.StatusCode.ShouldNotBe(HttpStatusCode.Unauthorized, $"{method} {path}");
        if (member.StatusCode != HttpStatusCode.Forbidden)
            return "member";
        (await member.SentenceAsync()).ShouldBe("Only the owner can do this.");
        (await app.Owner().SendAsync(Knock(method, path))).StatusCode.ShouldNotBeOneOf(
            HttpStatusCode.Unauthorized,
            HttpStatusCode.Forbidden
        );
        return "owner";
    }

    /// <summary>Every endpoint by its method and its path, those that answer any method by GET.</summary>
    private static List<(string Method, string Path)> Endpoints(TestApp app)
    {
        app.StartServer();
        return
        [
            .. app
                .Services.GetRequiredService<EndpointDataSource>()
                .Endpoints.OfType<RouteEndpoint>()
                .SelectMany(endpoint =>
                    (endpoint.Metadata.GetMetadata<HttpMethodMetadata>()?.HttpMethods ?? ["GET"]).Select(method =>
                        (method, "/" + endpoint.RoutePattern.RawText!.Trim('/'))
                    )
                )
                .Distinct(),
        ];
    }

    /// <summary>A request that would reach the endpoint, with a body of the right type, if not of the right content.</summary>
    private static HttpRequestMessage Knock(string method, string path) =>
        new(new HttpMethod(method), Parameter().Replace(path, Guid.Empty.ToString())) { Content = method == "GET" ? null : Body(new { }) };

    [GeneratedRegex(@"\{[^}]+\}")]
    private static partial Regex Parameter();
}
