using System.Text.Json;
using System.Text.Json.Nodes;
using Microsoft.EntityFrameworkCore;
using NJsonSchema;
using PorchLight.Core.Forms;

namespace PorchLight.Server.Tests;

/// <summary>The open format of forms, checked with somebody else's reader of JSON Schema.</summary>
public sealed class FormSchemaTests
{
    [Fact]
    public async Task Every_form_of_the_demo_follows_the_published_schema_and_what_is_no_form_does_not()
    {
        await using var app = new TestApp { SeedData = SeedData.DemoWithPeople };
        var published = await app.CreateClient().GetAsync("/schemas/form.json");
        published.Content.Headers.ContentType!.MediaType.ShouldBe("application/schema+json");
        var schema = await JsonSchema.FromJsonAsync(await published.Content.ReadAsStringAsync());
        var forms = await app.AskAsync(db => db.Forms.Select(form => form.Draft).ToListAsync());
        forms.Count.ShouldBe(5);
        foreach (var form in forms)
            schema.Validate(Text(form)).ShouldBeEmpty(form.Title);

        var whole = JsonNode.Parse(Text(forms[0]))!.AsObject();
        foreach (
            var (spoil, because) in new (Action<JsonObject> Spoil, string Because)[]
            {
                (form => form.Remove("title"), "no title"),
                (form => form["pages"] = "one", "pages that are words"),
                (form => form["pages"]![0]!["items"]![0]!["wording"] = 7, "a wording that is a number"),
                (form => form["pages"]![0]!["items"]![0]!["kind"]!["kind"] = "invented", "a kind that there is not"),
            }
        )
        {
            var spoiled = whole.DeepClone().AsObject();
            spoil(spoiled);
            schema.Validate(spoiled.ToJsonString()).ShouldNotBeEmpty(because);
        }
    }

    [Fact]
    public async Task A_form_taken_out_and_put_into_another_comes_back_the_same()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        await app.MakeQuickFormAsync(new FormContent("Empty", "", [new Page("one", "One", [])], [], new SendOff("end", "End", "")));
        var ids = (await owner.GetAsync("/api/forms").JsonAsync()).EnumerateArray().Select(form => form.Text("id")).ToList();
        var taken = await owner.GetAsync($"/api/forms/{ids[0]}/content").JsonAsync();
        var put = new JsonObject { ["revision"] = 1, ["content"] = JsonNode.Parse(taken.GetProperty("content").GetRawText()) };
        (
            await owner.PutAsync(
                $"/api/forms/{ids[1]}/content",
                new StringContent(put.ToJsonString(), System.Text.Encoding.UTF8, "application/json")
            )
        ).EnsureSuccessStatusCode();
        (await owner.GetAsync($"/api/forms/{ids[1]}/content").JsonAsync())
            .GetProperty("content")
            .GetRawText()
            .ShouldBe(taken.GetProperty("content").GetRawText());
    }

    private static string Text(FormContent form) => JsonSerializer.Serialize(form, Storage.Json.Options);
}
