using System.Net;
using Microsoft.AspNetCore.Mvc.Testing;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Conditions;

namespace PorchLight.Server.Tests;

public sealed class PlainPostTests
{
    private static readonly Dictionary<string, string> Good = new()
    {
        ["name.given"] = "Tilda",
        ["name.family"] = "Brackenridge",
        ["email"] = "tilda@bakes.example",
        ["place"] = "Howth",
        ["what"] = "Bread and gulls",
        ["budget"] = "4000-9000",
        ["decides"] = "me",
    };

    [Fact]
    public async Task A_developers_own_markup_posts_to_the_same_rules_and_is_led_to_the_send_off()
    {
        await using var app = new TestApp();
        await app.ChangeFormAsync(settings => settings with { TakesPlainPosts = true });
        var sent = await PostAsync(app, Good);
        sent.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        var receipt = sent.Headers.Location!.ToString().Split("?sent=")[1];
        (await app.CreateClient().GetAsync($"/public/receipts/{receipt}").JsonAsync()).Text("title").ShouldBe("Come in, the lamp is on");
        (await app.AskAsync(db => db.Inquiries.SingleAsync())).Fit!.Value.ShouldBe(Fit.ComeIn);
    }

    [Theory]
    [InlineData("email", "tilda", "you")]
    [InlineData("budget", "a lot", "wall")]
    [InlineData("wanted", "soon", "wall")]
    public async Task What_needs_another_look_waits_in_the_form_itself_with_everything_that_was_typed(
        string name,
        string value,
        string page
    )
    {
        await using var app = new TestApp();
        await app.ChangeFormAsync(settings => settings with { TakesPlainPosts = true });
        var sent = await PostAsync(app, new Dictionary<string, string>(Good) { [name] = value });
        var later = sent.Headers.Location!.ToString().Split("?later=")[1].Split('&')[0];
        var kept = (await app.CreateClient().GetAsync($"/public/forms/{await app.LinkAsync()}?later={later}").JsonAsync())
            .GetProperty("form")
            .GetProperty("kept");
        kept.Text("page").ShouldBe(page);
        kept.GetProperty("answers").GetProperty("what").Text("text").ShouldBe("Bread and gulls");
        (await app.AskAsync(db => db.Submissions.CountAsync())).ShouldBe(0);
    }

    [Fact]
    public async Task It_is_off_until_the_owner_wants_it_and_the_unseen_field_is_its_guard()
    {
        await using var app = new TestApp();
        (await PostAsync(app, Good)).StatusCode.ShouldBe(HttpStatusCode.Conflict);
        await app.ChangeFormAsync(settings => settings with { TakesPlainPosts = true });
        (await PostAsync(app, new Dictionary<string, string>(Good) { ["your-website-again"] = "x" })).StatusCode.ShouldBe(
            HttpStatusCode.UnprocessableEntity
        );
        (await app.AskAsync(db => db.Submissions.CountAsync())).ShouldBe(0);
    }

    [Fact]
    public async Task The_markup_that_is_offered_names_every_question_that_it_can_ask()
    {
        await using var app = new TestApp();
        await app.ChangeFormAsync(settings => settings with { TakesPlainPosts = true });
        var owner = app.Owner();
        var id = await app.AskAsync(db => db.Forms.Select(form => form.Id).SingleAsync());
        var plain = (await owner.GetAsync($"/api/forms/{id}").JsonAsync()).GetProperty("sharing").Text("plain");
        plain.ShouldStartWith($"<form method=\"post\" action=\"http://localhost/public/forms/{await app.LinkAsync()}/plain\">");
        foreach (
            var name in new[]
            {
                "name.given",
                "email",
                "phone",
                "place",
                "what",
                "budget",
                "decides",
                "wanted",
                "found",
                "your-website-again",
            }
        )
            plain.ShouldContain($"name=\"{name}\"");
    }

    private static async Task<HttpResponseMessage> PostAsync(TestApp app, Dictionary<string, string> fields) =>
        await app.CreateClient(new WebApplicationFactoryClientOptions { AllowAutoRedirect = false })
            .PostAsync($"/public/forms/{await app.LinkAsync()}/plain", new FormUrlEncodedContent(fields));
}
