using System.Net;
using System.Net.Http.Headers;
using PorchLight.Core.Brand;
using PorchLight.Core.Calendar;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

public sealed class SettingsTests
{
    private static readonly byte[] Png = [0x89, (byte)'P', (byte)'N', (byte)'G', 0x0d, 0x0a, 0x1a, 0x0a, 0, 0, 0, 13];
    private static readonly BusinessCard Card = new(
        "Ochre Wren",
        "Maren Tolliver",
        "hello@ochrewren.example",
        "IE",
        "EUR",
        "Europe/Dublin"
    );

    [Fact]
    public async Task The_business_is_renamed_and_its_forms_say_so_at_once()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        (
            await owner.PutAsync("/api/settings/business", Body(new { was = Card, now = Card with { Name = " Ochre & Wren " } }))
        ).EnsureSuccessStatusCode();
        (await app.CreateClient().GetAsync($"/public/forms/{await app.LinkAsync()}").JsonAsync()).Text("business").ShouldBe("Ochre & Wren");
        (await owner.GetAsync("/api/session").JsonAsync()).Text("business").ShouldBe("Ochre & Wren");
    }

    [Fact]
    public async Task Wrong_values_are_named_and_nothing_is_kept()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        var refused = await owner.PutAsync(
            "/api/settings/business",
            Body(new { was = Card, now = Card with { Name = "Wren", Currency = "shells" } })
        );
        refused.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await refused.PlacesAsync()).ShouldBe(["currency"]);
        (await owner.GetAsync("/api/settings").JsonAsync()).GetProperty("business").Text("name").ShouldBe("Ochre Wren");
    }

    [Fact]
    public async Task A_second_window_sees_the_difference_instead_of_overwriting()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        (
            await owner.PutAsync("/api/settings/business", Body(new { was = Card, now = Card with { Name = "Wren" } }))
        ).EnsureSuccessStatusCode();
        var stale = await owner.PutAsync(
            "/api/settings/business",
            Body(new { was = Card, now = Card with { Name = "Ochre", OwnerName = "M. Tolliver" } })
        );
        stale.StatusCode.ShouldBe(HttpStatusCode.Conflict);
        var clash = (await stale.JsonAsync()).GetProperty("clashes").EnumerateArray().Single();
        (clash.Text("place"), clash.Text("theirs"), clash.Text("yours")).ShouldBe(("name", "Wren", "Ochre"));
        (await owner.GetAsync("/api/settings").JsonAsync())
            .GetProperty("business")
            .Text("ownerName")
            .ShouldBe("Maren Tolliver", "an edit is kept whole or not at all");
    }

    [Fact]
    public async Task New_hours_and_a_new_promise_hold_for_whoever_writes_next()
    {
        await using var app = new TestApp { Time = new(TestClock.Written) };
        var owner = app.Owner();
        var settings = await owner.GetAsync("/api/settings").JsonAsync();
        var hours = System.Text.Json.JsonSerializer.Deserialize<OpeningWords>(settings.GetProperty("hours"), Storage.Json.Options)!;
        var promise = System.Text.Json.JsonSerializer.Deserialize<ReplyPromise>(settings.GetProperty("promise"), Storage.Json.Options)!;
        var longer = hours with { Monday = "06:00 to 22:00", Closed = "2026-11-24" };
        (await owner.PutAsync("/api/settings/hours", Body(new { was = hours, now = longer }))).EnsureSuccessStatusCode();
        var saved = await owner
            .PutAsync("/api/settings/promise", Body(new { was = promise, now = new ReplyPromise(4, PromiseClock.OpenHours) }))
            .JsonAsync();
        saved.Text("promiseExample").ShouldBe("Someone who writes to you now is promised an answer by 14:00 today.");
        await app.SendAsync(Answers());
        (await app.AskAsync(db => Task.FromResult(db.Inquiries.Single().PromisedBy!.Value))).ShouldBe(
            app.Now + NodaTime.Duration.FromHours(4)
        );
    }

    [Fact]
    public async Task The_look_reaches_the_form_and_an_unreadable_accent_is_refused_with_the_nearest_that_works()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        var look = System.Text.Json.JsonSerializer.Deserialize<BrandLook>(
            (await owner.GetAsync("/api/settings").JsonAsync()).GetProperty("look"),
            Storage.Json.Options
        )!;
        var pale = await owner.PutAsync("/api/settings/look", Body(new { was = look, now = look with { Accent = "#ffd54a" } }));
        var offered = (await owner.GetAsync("/api/settings/look/readable?accent=%23ffd54a").JsonAsync()).Text("accent");
        (await pale.SentenceAsync()).ShouldContain(offered);
        (
            await owner.PutAsync("/api/settings/look", Body(new { was = look, now = new BrandLook(offered, "#fff7e0", Typeface.Literata) }))
        ).EnsureSuccessStatusCode();
        var form = await app.CreateClient().GetAsync($"/public/forms/{await app.LinkAsync()}").JsonAsync();
        (form.GetProperty("look").Text("accent"), form.GetProperty("look").Text("typeface")).ShouldBe((offered, "literata"));
        (await owner.GetAsync("/api/settings/look/readable?accent=red")).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
    }

    [Fact]
    public async Task A_logo_is_shown_as_what_it_is_and_can_be_taken_away()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        var logo = (await SendLogoAsync(owner, Png, "text/html").JsonAsync()).Text("logo");
        var shown = await app.CreateClient().GetAsync(logo);
        shown.Content.Headers.ContentType!.MediaType.ShouldBe("image/png", "by its bytes, whatever was said");
        shown.Headers.GetValues("Content-Security-Policy").Single().ShouldContain("sandbox");
        shown.Headers.GetValues("X-Content-Type-Options").Single().ShouldBe("nosniff");
        (await app.CreateClient().GetAsync($"/public/forms/{await app.LinkAsync()}").JsonAsync()).Text("logo").ShouldBe(logo);
        (await owner.DeleteAsync("/api/settings/logo")).EnsureSuccessStatusCode();
        (await app.CreateClient().GetAsync(logo)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task A_picture_that_could_hold_script_or_lies_about_its_kind_is_no_logo()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        foreach (
            var bytes in new[]
            {
                "<svg xmlns='http://www.w3.org/2000/svg'><script>alert(1)</script></svg>"u8.ToArray(),
                "<script>alert(1)</script>"u8.ToArray(),
                "GIF89a"u8.ToArray(),
                [0xff],
            }
        )
        {
            var refused = await SendLogoAsync(owner, bytes, "image/png");
            refused.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
            (await refused.SentenceAsync()).ShouldContain("not a PNG, JPEG or WebP");
        }

        (await (await SendLogoAsync(owner, [.. Png, .. new byte[1024 * 1024]], "image/png")).SentenceAsync()).ShouldContain("one megabyte");
    }

    private static Task<HttpResponseMessage> SendLogoAsync(HttpClient owner, byte[] bytes, string contentType) =>
        owner.PutAsync(
            "/api/settings/logo",
            new ByteArrayContent(bytes) { Headers = { ContentType = new MediaTypeHeaderValue(contentType) } }
        );
}
