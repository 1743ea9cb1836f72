using System.Net;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Brand;
using PorchLight.Core.Calendar;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

public sealed class FirstRunTests
{
    private static readonly BusinessCard Card = new(
        "Inkwell & Oak",
        "Noor Ambler",
        "noor@inkwelloak.example",
        "NZ",
        "NZD",
        "Pacific/Auckland"
    );
    private static readonly OpeningWords Hours = new("8 to 16", "8 to 16", "8 to 16", "8 to 16", "", "", "", "", "08:00", "16:00");

    [Fact]
    public async Task An_empty_program_becomes_a_business_with_an_owner_and_a_form_that_takes_inquiries()
    {
        await using var app = Empty();
        var noor = await app.StrangerAsync();
        (await noor.GetAsync("/api/session").JsonAsync()).GetProperty("business").ValueKind.ShouldBe(System.Text.Json.JsonValueKind.Null);
        (await noor.PostAsync("/api/first-run", Body(First(app)))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        await RefreshTokenAsync(noor);
        var session = await noor.GetAsync("/api/session").JsonAsync();
        (session.Text("name"), session.Text("role"), session.GetProperty("isDemo").GetBoolean()).ShouldBe(("Noor Ambler", "owner", false));
        (await noor.GetAsync("/api/forms").JsonAsync()).GetArrayLength().ShouldBe(0);

        var id = (
            await noor.PostAsync(
                    "/api/forms",
                    Body(
                        new
                        {
                            title = "A sign for your shop",
                            startingPrice = 2500m,
                            ready = "any",
                        }
                    )
                )
                .JsonAsync()
        ).Text("id");
        (await noor.PostAsync($"/api/forms/{id}/light", Body(new { on = true }))).StatusCode.ShouldBe(
            HttpStatusCode.UnprocessableEntity,
            "it is not published yet"
        );
        (await noor.PostAsync($"/api/forms/{id}/publish", null)).EnsureSuccessStatusCode();
        (await noor.PostAsync($"/api/forms/{id}/light", Body(new { on = true }))).EnsureSuccessStatusCode();
        var shown = await app.CreateClient().GetAsync($"/public/forms/{await app.LinkAsync()}").JsonAsync();
        (shown.Text("title"), shown.Text("business")).ShouldBe(("A sign for your shop", "Inkwell & Oak"));
        await app.SignedInAsync("noor@inkwelloak.example", "eight oak planks");
    }

    [Fact]
    public async Task Only_who_has_the_key_from_the_terminal_becomes_the_owner_and_only_once()
    {
        await using var app = Empty();
        var stranger = await app.StrangerAsync();
        var guessed = await stranger.PostAsync("/api/first-run", Body(First(app, key: "0123456789abcdef")));
        (await guessed.PlacesAsync()).ShouldBe(["key"]);
        var first = First(app);
        (await stranger.PostAsync("/api/first-run", Body(first))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        var second = await (await app.StrangerAsync()).PostAsync("/api/first-run", Body(first));
        second.StatusCode.ShouldBe(HttpStatusCode.Conflict);
        File.Exists(Path.Combine(app.Folder, "first-run-key")).ShouldBeFalse();
    }

    [Fact]
    public async Task Everything_that_is_wrong_is_named_at_once_and_nothing_is_made()
    {
        await using var app = Empty();
        var first = First(app) with
        {
            Business = Card with { Zone = "Nowhere" },
            Hours = Hours with { Monday = "all day" },
            Promise = new ReplyPromise(0, PromiseClock.OpenHours),
            Password = "short",
        };
        var refused = await (await app.StrangerAsync()).PostAsync("/api/first-run", Body(first));
        (await refused.PlacesAsync()).ShouldBe(["zone", "monday", "hours", "password"]);
        (await app.AskAsync(async db => (await db.Businesses.CountAsync(), await db.Users.CountAsync()))).ShouldBe((0, 0));
    }

    [Fact]
    public async Task A_double_click_makes_one_business()
    {
        await using var app = Empty();
        var noor = await app.StrangerAsync();
        var first = First(app);
        var both = await Task.WhenAll(Enumerable.Range(0, 3).Select(_ => noor.PostAsync("/api/first-run", Body(first))));
        both.Select(one => one.StatusCode)
            .ShouldBe([HttpStatusCode.NoContent, HttpStatusCode.Conflict, HttpStatusCode.Conflict], ignoreOrder: true);
        (await app.AskAsync(db => db.Users.CountAsync())).ShouldBe(1);
    }

    [Theory]
    [InlineData("", 2500, "title")]
    [InlineData("A sign", 0, "startingPrice")]
    public async Task A_first_form_without_a_title_or_a_price_is_not_made(string title, decimal startingPrice, string place)
    {
        await using var app = new TestApp();
        (
            await (
                await app.Owner()
                    .PostAsync(
                        "/api/forms",
                        Body(
                            new
                            {
                                title,
                                startingPrice,
                                ready = "any",
                            }
                        )
                    )
            ).PlacesAsync()
        ).ShouldBe([place]);
    }

    [Fact]
    public async Task A_real_business_keeps_real_time()
    {
        await using var app = Empty();
        var noor = await app.StrangerAsync();
        (await noor.PostAsync("/api/first-run", Body(First(app)))).EnsureSuccessStatusCode();
        await RefreshTokenAsync(noor);
        (await noor.PostAsync("/api/practice/clock/skip", Body(new { to = "nextHour" }))).StatusCode.ShouldBe(HttpStatusCode.Conflict);
    }

    [Fact]
    public async Task The_choices_hold_zones_countries_and_currencies()
    {
        await using var app = Empty();
        var choices = await app.CreateClient().GetAsync("/api/choices").JsonAsync();
        Names("zones").ShouldContain(("Pacific/Auckland", "Auckland, New Zealand"));
        Names("countries").ShouldContain(("NZ", "New Zealand"));
        Names("currencies").ShouldContain(("NZD", "New Zealand Dollar"));

        IEnumerable<(string, string)> Names(string of) =>
            choices.GetProperty(of).EnumerateArray().Select(one => (one.Text("code"), one.Text("name")));
    }

    private static TestApp Empty() => new() { SeedData = SeedData.Empty };

    private static Identity.FirstRunEndpoints.FirstRun First(TestApp app, string? key = null) =>
        new(key ?? ReadKey(app), "eight oak planks", Card, Hours, new ReplyPromise(8, PromiseClock.OpenHours));

    private static string ReadKey(TestApp app)
    {
        _ = app.Server;
        return File.ReadAllText(Path.Combine(app.Folder, "first-run-key"));
    }
}
