using System.Net;
using System.Text.Json;
using PorchLight.Core.Fields;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

/// <summary>How the views of clients and projects are put together, once for the business.</summary>
public sealed class ArrangementTests
{
    [Fact]
    public async Task The_owner_arranges_the_view_and_what_stands_at_the_glance_is_what_fields_say_of_themselves()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        var was = await ReadAsync(owner, "client");
        var glance = was.AtAGlance;
        glance.ShouldContain("client.phone");
        var now = new Arrangement([
            .. was.Parts.Select(part =>
                part.Kind == PartKind.Glance
                    ? part with
                    {
                        Fields = ["client.born", .. glance.Where(key => key != "client.phone")],
                    }
                    : part with
                    {
                        Fields = [.. part.Fields.Where(key => key != "client.born")],
                    }
            ),
            new ArrangedPart("", PartKind.Fields, "How to reach them", true, ["client.phone"]),
        ]);
        (await app.Member().PutAsync("/api/arrangements/client", Body(new { was, now }))).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        (await owner.PutAsync("/api/arrangements/client", Body(new { was, now }))).EnsureSuccessStatusCode();
        var stored = await ReadAsync(app.Member(), "client");
        stored.AtAGlance[0].ShouldBe("client.born");
        stored.Parts[^1].Key.ShouldBe("how-to-reach-them");
        stored.Parts[^1].Fields.ShouldContain("client.phone");
        var fields = (await owner.GetAsync("/api/fields").JsonAsync())
            .EnumerateArray()
            .Select(one => one.GetProperty("field").Deserialize<Field>(Storage.Json.Options)!)
            .ToDictionary(field => field.Key);
        (fields["client.born"].AtAGlance, fields["client.phone"].AtAGlance).ShouldBe((true, false));

        var phone = fields["client.phone"];
        (
            await owner.PutAsync(
                "/api/fields/client.phone",
                Body(new { edit = new { was = phone, now = phone with { AtAGlance = true } }, losesValues = false })
            )
        ).EnsureSuccessStatusCode();
        (await ReadAsync(owner, "client")).AtAGlance[^1].ShouldBe("client.phone", "said at the field, it moves there");
    }

    [Fact]
    public async Task Two_people_arrange_different_parts_and_both_are_kept()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        var was = await ReadAsync(owner, "project");
        await KeepAsync(owner, "project", was, Titled(was, "notes", "Words"));
        await KeepAsync(owner, "project", was, Titled(was, "people", "Who"));
        (await ReadAsync(owner, "project"))
            .Parts.Select(part => part.Title)
            .ShouldBe(["On the way", "At a glance", "Who", "Words", "Tasks and dates", "More about it"]);
        var clash = await owner.PutAsync("/api/arrangements/project", Body(new { was, now = Titled(was, "people", "Whom") }));
        clash.StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (
            await (await owner.PutAsync("/api/arrangements/project", Body(new { was, now = Titled(was, "tasks", " ") }))).PlacesAsync()
        ).ShouldBe(["parts.tasks.title"]);
    }

    [Fact]
    public async Task A_service_has_an_arrangement_of_its_own_or_that_of_all()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        var was = await ReadAsync(owner, "project");
        await KeepAsync(owner, "project/mural", was, Titled(was, "notes", "About the wall"));
        (await OwnAsync("mural"))!.Parts.ShouldContain(part => part.Title == "About the wall");
        (await OwnAsync("gilding")).ShouldBeNull();
        (await ReadAsync(owner, "project")).Parts.ShouldNotContain(part => part.Title == "About the wall");
        (await owner.PutAsync("/api/arrangements/project/ice", Body(new { was, now = was }))).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await owner.DeleteAsync("/api/arrangements/project/mural")).EnsureSuccessStatusCode();
        (await OwnAsync("mural")).ShouldBeNull();

        async Task<Arrangement?> OwnAsync(string service) =>
            (await owner.GetAsync("/api/arrangements").JsonAsync())
                .GetProperty("services")
                .EnumerateArray()
                .Single(one => one.Text("service") == service)
                .GetProperty("own")
                .Deserialize<Arrangement>(Storage.Json.Options);
    }

    private static Arrangement Titled(Arrangement arrangement, string part, string title) =>
        new([.. arrangement.Parts.Select(one => one.Key == part ? one with { Title = title } : one)]);

    private static async Task KeepAsync(HttpClient owner, string which, Arrangement was, Arrangement now) =>
        (await owner.PutAsync($"/api/arrangements/{which}", Body(new { was, now }))).EnsureSuccessStatusCode();

    private static async Task<Arrangement> ReadAsync(HttpClient who, string which) =>
        (await who.GetAsync("/api/arrangements").JsonAsync()).GetProperty(which).Deserialize<Arrangement>(Storage.Json.Options)!;
}
