using System.Net;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Answers;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

/// <summary>The business's own fields, from making one to what lands in it.</summary>
public sealed class FieldTests
{
    private static readonly Field Coffee = new("", "Coffee order", FieldKind.Text);

    [Fact]
    public async Task A_field_of_ones_own_is_offered_landed_in_shown_renamed_put_away_and_still_landed_in()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        var key = (await MakeAsync(owner, "client", Coffee)).Text("key");
        key.ShouldBe("client.coffee-order");
        (await owner.GetAsync("/api/forms/parts").JsonAsync())
            .GetProperty("fields")
            .EnumerateArray()
            .Select(field => field.Text("label"))
            .ShouldContain("Client: Coffee order");
        var link = await FormAsync(app, key);
        await SendAsync(app, link, "one@bakes.example", "Flat white");
        var client = await OnlyClientAsync(owner);
        OnFile(client, key).Text("words").ShouldBe("Flat white");

        var stored = (await owner.GetAsync("/api/fields").JsonAsync())
            .EnumerateArray()
            .Single(one => one.GetProperty("field").Text("key") == key);
        (stored.GetProperty("filled").GetInt32(), stored.GetProperty("forms")[0].GetString()).ShouldBe((1, "Coffee"));
        var field = stored.GetProperty("field").Deserialize<Field>(Storage.Json.Options)!;
        (await ChangeAsync(owner, field, field with { Label = "Coffee", Archived = true })).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await owner.GetAsync("/api/forms/parts").JsonAsync())
            .GetProperty("fields")
            .EnumerateArray()
            .Select(one => one.Text("key"))
            .ShouldNotContain(key, "it is not offered any more");
        await SendAsync(app, link, "two@bakes.example", "Tea");
        (await app.AskAsync(db => db.FieldValues.Where(value => value.Field == key).CountAsync())).ShouldBe(
            2,
            "what lands in it still lands"
        );
        OnFile(await OnlyClientAsync(owner, "two@bakes.example"), key).GetProperty("field").Text("label").ShouldBe("Coffee");
    }

    [Fact]
    public async Task The_field_a_question_would_land_in_is_made_in_one_press_and_fits_it()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        var question = new Question(
            "leaf",
            "Which leaf?",
            new ChoiceKind([new Option("gold", "23 carat gold"), new Option("unsure", "I don't know yet", Unsure: true)])
        );
        var made = await owner.PostAsync("/api/fields/for-question", Body(new { question, scope = "project" }));
        var field = (await made.JsonAsync()).Deserialize<Field>(Storage.Json.Options)!;
        (field.Key, field.Label, field.Kind).ShouldBe(("project.which-leaf", "Which leaf", FieldKind.OneOf));
        field.Options.ShouldBe(["23 carat gold"]);
    }

    [Fact]
    public async Task Another_kind_says_first_what_would_be_lost_and_keeps_that_in_the_history()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        var field = (await MakeAsync(owner, "client", new Field("", "Visit", FieldKind.Text))).Deserialize<Field>(Storage.Json.Options)!;
        var link = await FormAsync(app, field.Key);
        await SendAsync(app, link, "one@bakes.example", "2027-05-14");
        await SendAsync(app, link, "two@bakes.example", "some day in spring");
        var asDate = field with { Kind = FieldKind.Date };
        var lost = await owner.PostAsync($"/api/fields/{field.Key}/other-kind", Body(asDate)).JsonAsync();
        (lost.GetProperty("fit").GetInt32(), lost.GetProperty("lost").GetInt32()).ShouldBe((1, 1));
        lost.GetProperty("examples")[0].Text("words").ShouldBe("some day in spring");
        (await ChangeAsync(owner, field, asDate)).StatusCode.ShouldBe(HttpStatusCode.Conflict, "nobody said that values may go");
        (await app.AskAsync(db => db.FieldValues.CountAsync(value => value.Field == field.Key))).ShouldBe(2, "nothing was done");

        (await ChangeAsync(owner, field, asDate, losesValues: true)).StatusCode.ShouldBe(HttpStatusCode.OK);
        OnFile(await OnlyClientAsync(owner, "one@bakes.example"), field.Key).Text("words").ShouldBe("14 May 2027");
        var two = await OnlyClientAsync(owner, "two@bakes.example");
        OnFile(two, field.Key).Text("words").ShouldBe("");
        var history = await owner.GetAsync($"/api/clients/{two.Text("id")}/values/{field.Key}").JsonAsync();
        history.EnumerateArray().Select(value => value.Text("words")).ShouldBe(["", "some day in spring"]);
    }

    [Fact]
    public async Task Fields_are_the_owners_and_a_form_that_lands_nowhere_cannot_be_published()
    {
        await using var app = new TestApp();
        (await app.Member().PostAsync("/api/fields", Body(new { scope = "client", field = Coffee }))).StatusCode.ShouldBe(
            HttpStatusCode.Forbidden
        );
        var owner = app.Owner();
        var refused = await owner.PostAsync("/api/fields", Body(new { scope = "client", field = Coffee with { Label = "phone" } }));
        (await refused.PlacesAsync()).ShouldBe(["label"], "there is one already");
        var form = (await owner.GetAsync("/api/forms").JsonAsync()).EnumerateArray().Single().Text("id");
        await app.SaveContentAsync(
            owner,
            form,
            content =>
                content with
                {
                    Pages =
                    [
                        .. content.Pages,
                        new Page("more", "More", [new Question("q", "Q?", new ShortTextKind()) { LandsIn = new SetField("client.gone") }]),
                    ],
                }
        );
        (await (await owner.PostAsync($"/api/forms/{form}/publish", null)).PlacesAsync()).ShouldBe(["q"]);
    }

    [Fact]
    public async Task Fields_stand_in_the_order_they_were_put()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        await owner.PutAsync("/api/fields/order", Body(new[] { "client.phone", "client.gone", "client.name" }));
        var order = (await owner.GetAsync("/api/fields").JsonAsync()).EnumerateArray().Select(one => one.GetProperty("field").Text("key"));
        order.Take(3).ShouldBe(["client.phone", "client.name", "client.email"]);
    }

    internal static async Task<JsonElement> MakeAsync(HttpClient owner, string scope, Field field) =>
        await (await owner.PostAsync("/api/fields", Body(new { scope, field }))).EnsureSuccessStatusCode().JsonAsync();

    /// <summary>A form that asks who somebody is and one thing more.</summary>
    internal static Task<string> FormAsync(TestApp app, string field) =>
        app.MakeQuickFormAsync(
            new FormContent(
                "Coffee",
                "",
                [
                    new Page(
                        "one",
                        "One",
                        [
                            new Question("email", "Mail?", new EmailKind()) { LandsIn = new SetField(BuiltInFields.Email.Key) },
                            new Question("words", "And?", new ShortTextKind()) { LandsIn = new SetField(field) },
                        ]
                    ),
                ],
                [],
                new SendOff("end", "Thanks", "Thanks.")
            )
        );

    internal static async Task SendAsync(TestApp app, string link, string email, string words) =>
        (
            await app.SendAsync(link, new() { ["email"] = new TextAnswer(email), ["words"] = new TextAnswer(words) })
        ).EnsureSuccessStatusCode();

    internal static async Task<JsonElement> OnlyClientAsync(HttpClient owner, string? email = null)
    {
        var rows = (await owner.WholeListAsync("/api/clients")).GetProperty("rows").EnumerateArray();
        var id = rows.Single(row => email is null || row.GetProperty("email").GetString() == email).Text("id");
        return await owner.GetAsync($"/api/clients/{id}").JsonAsync();
    }

    internal static JsonElement OnFile(JsonElement client, string field) =>
        client.GetProperty("fields").EnumerateArray().Single(one => one.GetProperty("field").Text("key") == field);

    private static Task<HttpResponseMessage> ChangeAsync(HttpClient owner, Field was, Field now, bool losesValues = false) =>
        owner.PutAsync($"/api/fields/{was.Key}", Body(new { edit = new { was, now }, losesValues }));
}
