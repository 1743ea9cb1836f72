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
        var taken = JsonNode.Parse(await owner.GetStringAsync($"/api/forms/{ids[0]}/content"))!["content"]!;
        var empty = JsonNode.Parse(await owner.GetStringAsync($"/api/forms/{ids[1]}/content"))!["content"]!;
        (await SaveAsync(owner, ids[1], empty, taken)).EnsureSuccessStatusCode();
        var stored = JsonNode.Parse(await owner.GetStringAsync($"/api/forms/{ids[1]}/content"))!["content"]!;
        JsonNode.DeepEquals(stored, taken).ShouldBeTrue(stored.ToJsonString());
    }

    [Fact]
    public async Task Two_people_who_change_different_places_of_a_form_lose_nothing_and_one_place_is_for_them_to_choose()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        await app.MakeQuickFormAsync(
            new FormContent(
                "Quick",
                "",
                [
                    new Page(
                        "one",
                        "One",
                        [new Question("what", "What?", new ShortTextKind()), new Question("where", "Where?", new ShortTextKind())]
                    ),
                ],
                [],
                new SendOff("end", "End", "")
            )
        );
        var id = (await owner.GetAsync("/api/forms").JsonAsync()).EnumerateArray().Last().Text("id");
        var was = JsonNode.Parse(await owner.GetStringAsync($"/api/forms/{id}/content"))!["content"]!;
        var (moved, worded, clashing) = (was.DeepClone(), was.DeepClone(), was.DeepClone());
        var items = moved["pages"]![0]!["items"]!.AsArray();
        var first = items[0]!;
        items.RemoveAt(0);
        items.Add(first);
        worded["pages"]![0]!["items"]![0]!["wording"] = "What, please?";
        clashing["pages"]![0]!["items"]![0]!["wording"] = "What is it?";

        (await SaveAsync(owner, id, was, moved)).EnsureSuccessStatusCode();
        var both = await SaveAsync(owner, id, was, worded);
        both.EnsureSuccessStatusCode();
        var stored = JsonNode.Parse(await both.Content.ReadAsStringAsync())!["content"]!["pages"]![0]!["items"]!.AsArray();
        stored.Select(item => (string)item!["wording"]!).ShouldBe(["Where?", "What, please?"]);
        var refused = await SaveAsync(owner, id, was, clashing);
        refused.StatusCode.ShouldBe(System.Net.HttpStatusCode.Conflict);
        JsonNode.Parse(await refused.Content.ReadAsStringAsync())!["clashes"]![0]!["place"]!.ToString().ShouldBe("items.what.wording");
    }

    private static Task<HttpResponseMessage> SaveAsync(HttpClient owner, string id, JsonNode was, JsonNode now) =>
        owner.PutAsync(
            $"/api/forms/{id}/content",
            new StringContent(
                new JsonObject { ["was"] = was.DeepClone(), ["now"] = now.DeepClone() }.ToJsonString(),
                System.Text.Encoding.UTF8,
                "application/json"
            )
        );

    private static string Text(FormContent form) => JsonSerializer.Serialize(form, Storage.Json.Options);
}
