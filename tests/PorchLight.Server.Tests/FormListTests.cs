using System.Net;
using System.Text;
using System.Text.Json.Nodes;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Forms;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

/// <summary>Forms are started, listed, copied, put away and carried in and out.</summary>
public sealed class FormListTests
{
    [Fact]
    public async Task Each_form_is_listed_with_its_service_its_answers_and_when_the_last_one_came()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        await app.ChangeAsync(async db => (await db.BusinessAsync()).Lists = new BusinessLists([new Service("mural", "A mural")], []));
        var id = (await owner.GetAsync("/api/forms").JsonAsync())[0].Text("id");
        (await owner.PutAsync($"/api/forms/{id}/service", Body(new { service = "mural" }))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await owner.PutAsync($"/api/forms/{id}/service", Body(new { service = "ship" }))).StatusCode.ShouldBe(
            HttpStatusCode.UnprocessableEntity
        );
        (await app.SendAsync(Answers())).EnsureSuccessStatusCode();
        app.Time.Advance(TimeSpan.FromHours(1));
        (await app.SendAsync(Answers("robin@bakes.example"))).EnsureSuccessStatusCode();
        var row = (await owner.GetAsync("/api/forms").JsonAsync())[0];
        (row.Text("service"), row.GetProperty("answers").GetInt32(), row.Text("lastAnswer")).ShouldBe(("A mural", 2, "today 11:00"));
    }

    [Fact]
    public async Task Several_lights_are_switched_at_once_and_none_when_one_cannot_be()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        var first = (await owner.GetAsync("/api/forms").JsonAsync())[0].Text("id");
        var second = await NewAsync(owner, "A gate", "any");
        var both = new { forms = new[] { first, second }, on = true };
        var refused = await owner.PutAsync("/api/forms/lights", Body(both));
        (await refused.SentenceAsync()).ShouldBe("Publish “A gate” first; until then there is nothing to show.");
        (await owner.PostAsync($"/api/forms/{second}/publish", null)).EnsureSuccessStatusCode();
        (await owner.PutAsync("/api/forms/lights", Body(both))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await ShiningAsync(owner)).ShouldBe([true, true]);
        (await owner.PutAsync("/api/forms/archive", Body(new { forms = new[] { second }, archived = true }))).EnsureSuccessStatusCode();
        (await ShiningAsync(owner)).ShouldBe([true, false], "what is put away takes no answers");
        (await owner.PutAsync("/api/forms/lights", Body(both))).EnsureSuccessStatusCode();
        (await ShiningAsync(owner)).ShouldBe([true, false], "and cannot be switched on");
        (await owner.PostAsync($"/api/forms/{second}/light", Body(new { on = true }))).StatusCode.ShouldBe(
            HttpStatusCode.UnprocessableEntity
        );
        (await owner.PutAsync("/api/forms/archive", Body(new { forms = new[] { second }, archived = false }))).EnsureSuccessStatusCode();
        (await ShiningAsync(owner)).ShouldBe([true, false], "and comes back dark");
    }

    [Fact]
    public async Task A_copy_has_everything_but_the_answers_and_its_own_link()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        (await app.SendAsync(Answers())).EnsureSuccessStatusCode();
        var id = (await owner.GetAsync("/api/forms").JsonAsync())[0].Text("id");
        var copy = (await owner.PostAsync($"/api/forms/{id}/copies", null).JsonAsync()).Text("id");
        var again = (await owner.PostAsync($"/api/forms/{id}/copies", null).JsonAsync()).Text("id");
        (await app.ContentAsync(again)).Title.ShouldBe("A wall to paint (copy 2)");
        var (original, copied) = (await app.ContentAsync(id), await app.ContentAsync(copy));
        DeepComparison.FirstDifference(original with { Title = "" }, copied with { Title = "" }).ShouldBeNull();
        await app.AskAsync(async db =>
        {
            var forms = await db.Forms.OrderBy(form => form.Id).ToListAsync();
            var (old, made) = (forms.Single(form => form.Id.ToString() == id), forms.Single(form => form.Id.ToString() == copy));
            made.LinkHash.ShouldNotBe(old.LinkHash);
            (made.LightOn, made.PublishedVersion, made.ScreeningVersion).ShouldBe((false, 0, 1));
            var rules = await db.ScreeningVersions.ToListAsync();
            DeepComparison
                .FirstDifference(
                    rules.Single(one => one.FormId == old.Id && one.Number == old.ScreeningVersion).Rules,
                    rules.Single(one => one.FormId == made.Id).Rules
                )
                .ShouldBeNull();
            var follow = (await db.FollowThroughVersions.ToListAsync()).Select(one => one.Content.Starts).OfType<InquiryStart>().ToList();
            follow.Count(one => one.Form == made.Id.Value).ShouldBe(follow.Count(one => one.Form == old.Id.Value));
            (await db.Submissions.CountAsync(one => one.FormId == made.Id)).ShouldBe(0);
            return 0;
        });
    }

    [Fact]
    public async Task A_blank_page_needs_a_title_only_and_every_ready_form_can_be_published_at_once()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        (
            await (
                await owner.PostAsync(
                    "/api/forms",
                    Body(
                        new
                        {
                            title = " ",
                            startingPrice = (decimal?)null,
                            ready = (string?)null,
                        }
                    )
                )
            ).PlacesAsync()
        ).ShouldBe(["title"]);
        var blank = await app.ContentAsync(await NewAsync(owner, "From nothing", null));
        (blank.Pages.Single().Items.Count, blank.DefaultSendOff.Title).ShouldBe((0, "Thank you"));
        var offered = await owner.GetAsync("/api/forms/ready").JsonAsync();
        offered.GetArrayLength().ShouldBeGreaterThanOrEqualTo(8);
        foreach (var key in offered.EnumerateArray().Select(one => one.Text("key")))
        {
            var id = await NewAsync(owner, $"A {key} form", key);
            (await owner.PostAsync($"/api/forms/{id}/publish", null)).StatusCode.ShouldBe(HttpStatusCode.OK, key);
        }

        (
            await owner.PostAsync(
                "/api/forms",
                Body(
                    new
                    {
                        title = "A",
                        startingPrice = 9,
                        ready = "gone",
                    }
                )
            )
        ).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
    }

    [Fact]
    public async Task A_form_saved_as_a_file_and_taken_in_again_is_an_equal_form()
    {
        await using var app = new TestApp { SeedData = SeedData.Demo };
        var owner = app.Owner();
        foreach (var form in await app.AskAsync(db => db.Forms.ToListAsync()))
        {
            var file = await owner.GetAsync($"/api/forms/{form.Id}/form.json");
            file.Content.Headers.ContentDisposition!.FileName.ShouldNotBeNull().ShouldEndWith(".json");
            var taken = await TakeInAsync(owner, await file.Content.ReadAsStringAsync());
            var id = (await taken.JsonAsync()).Text("id");
            DeepComparison.FirstDifference(form.Draft, await app.ContentAsync(id)).ShouldBeNull(form.Draft.Title);
        }
    }

    [Fact]
    public async Task A_file_that_does_not_fit_is_refused_with_the_place_and_the_reason_and_makes_nothing()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        var id = (await owner.GetAsync("/api/forms").JsonAsync())[0].Text("id");
        var text = await owner.GetStringAsync($"/api/forms/{id}/form.json");
        foreach (
            var (spoil, words) in new (Action<JsonNode> Spoil, string Words)[]
            {
                (form => form.AsObject().Remove("title"), "This is not a form we can read: “title” is missing."),
                (
                    form => form["pages"]![0]!["items"]![1]!["wording"] = 7,
                    "at pages[0].items[1].wording the value is of another kind than the schema says."
                ),
                (
                    form => form["pages"]![0]!["items"]![1]!["kind"]!["kind"] = "invented",
                    "at pages[0].items[1].kind there is no “invented”."
                ),
            }
        )
        {
            var form = JsonNode.Parse(text)!;
            spoil(form);
            var refused = await TakeInAsync(owner, form.ToJsonString());
            refused.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity, words);
            (await refused.SentenceAsync()).ShouldEndWith(words);
        }

        (await (await TakeInAsync(owner, "not a form")).SentenceAsync()).ShouldBe("This is not a form we can read: it is not JSON.");
        (await owner.GetAsync("/api/forms").JsonAsync()).GetArrayLength().ShouldBe(1);
    }

    [Fact]
    public async Task A_file_is_renamed_replaced_in_working_copies_and_deleted_only_while_nothing_shows_it()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        var (old, by) = (await UploadAsync(owner, "wall.png"), await UploadAsync(owner, "gate.png"));
        var id = (await owner.GetAsync("/api/forms").JsonAsync())[0].Text("id");
        (
            await app.SaveContentAsync(owner, id, content => content with { Cover = new Cover("Hello") { Picture = Guid.Parse(old) } })
        ).EnsureSuccessStatusCode();
        (await UsedAsync(owner, old)).ShouldBe(["“A wall to paint”"]);
        (await (await owner.DeleteAsync($"/api/files/{old}")).SentenceAsync()).ShouldBe("It is used in “A wall to paint”, so it stays.");
        (await owner.PutAsync($"/api/files/{old}/name", Body(new { name = "  " }))).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await owner.PutAsync($"/api/files/{old}/name", Body(new { name = "A wall in Howth" }))).StatusCode.ShouldBe(
            HttpStatusCode.NoContent
        );
        (await owner.PutAsync($"/api/files/{old}/replacement", Body(new { by }))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await app.ContentAsync(id)).Cover!.Picture.ShouldBe(Guid.Parse(by));
        (await UsedAsync(owner, old)).ShouldBeEmpty();
        (await owner.DeleteAsync($"/api/files/{old}")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await app.CreateClient().GetAsync($"/public/files/{old}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await app.CreateClient().GetAsync($"/public/files/{by}")).StatusCode.ShouldBe(HttpStatusCode.OK);
    }

    [Fact]
    public async Task A_list_goes_only_while_no_form_looks_something_up_in_it()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        var list = Guid.NewGuid();
        (
            await owner.PutAsync(
                $"/api/lists/{list}?name=Schools",
                new StringContent("Name,Town\nSt Ann,Howth\n", Encoding.UTF8, "text/csv")
            )
        ).EnsureSuccessStatusCode();
        (await owner.PutAsync($"/api/lists/{list}/name", Body(new { name = "All schools" }))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        var id = (await owner.GetAsync("/api/forms").JsonAsync())[0].Text("id");
        var asks = new Question("school", "Which school?", new LookUpKind(list, ["Name"]));
        (
            await app.SaveContentAsync(
                owner,
                id,
                content =>
                    content with
                    {
                        Pages = [content.Pages[0] with { Items = [.. content.Pages[0].Items, asks] }, .. content.Pages.Skip(1)],
                    }
            )
        ).EnsureSuccessStatusCode();
        (await (await owner.DeleteAsync($"/api/lists/{list}")).SentenceAsync()).ShouldBe(
            "“A wall to paint” looks something up in it, so it stays."
        );
        var unused = Guid.NewGuid();
        (
            await owner.PutAsync($"/api/lists/{unused}?name=Towns", new StringContent("Town\nHowth\n", Encoding.UTF8, "text/csv"))
        ).EnsureSuccessStatusCode();
        (await owner.DeleteAsync($"/api/lists/{unused}")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await owner.GetAsync("/api/lists").JsonAsync()).EnumerateArray().Select(one => one.Text("name")).ShouldBe(["All schools"]);
    }

    private static async Task<string> NewAsync(HttpClient owner, string title, string? ready) =>
        (
            await owner
                .PostAsync(
                    "/api/forms",
                    Body(
                        new
                        {
                            title,
                            startingPrice = ready is null ? (decimal?)null : 900m,
                            ready,
                        }
                    )
                )
                .JsonAsync()
        ).Text("id");

    private static Task<HttpResponseMessage> TakeInAsync(HttpClient owner, string text) =>
        owner.PostAsync("/api/forms/imported", new StringContent(text, Encoding.UTF8, "application/json"));

    private static async Task<string> UploadAsync(HttpClient owner, string name)
    {
        var pixel = Convert.FromBase64String(
            "iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg=="
        );
        return (await owner.PostAsync($"/api/files?name={name}", new ByteArrayContent(pixel)).JsonAsync()).Text("id");
    }

    private static async Task<IEnumerable<bool>> ShiningAsync(HttpClient owner) =>
        (await owner.GetAsync("/api/forms").JsonAsync()).EnumerateArray().Select(row => row.GetProperty("shines").GetBoolean());

    private static async Task<IEnumerable<string?>> UsedAsync(HttpClient owner, string file) =>
        (await owner.GetAsync("/api/files").JsonAsync())
            .EnumerateArray()
            .Single(one => one.Text("id") == file)
            .GetProperty("usedIn")
            .EnumerateArray()
            .Select(place => place.GetString());
}
