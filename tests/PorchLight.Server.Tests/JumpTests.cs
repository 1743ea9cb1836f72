using System.Text.Json;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

/// <summary>What is called so comes before who ever wrote it.</summary>
public sealed class JumpTests
{
    [Fact]
    public async Task What_is_called_so_comes_first_by_its_kind_and_then_who_wrote_it()
    {
        await using var app = new TestApp();
        await app.SendAsync(Answers());
        await app.WorkAsync();
        var owner = app.Owner();
        var walls = await JumpAsync("wall");
        Names(walls, "forms").ShouldBe(["A wall to paint"]);
        Names(walls, "clients").ShouldBeEmpty("nobody is called so");
        Names(walls, "wrote").ShouldBe(["Tilda Brackenridge"], "she wrote of one");

        var tilda = await JumpAsync("BRACKEN");
        Names(tilda, "clients").ShouldBe(["Tilda Brackenridge"]);
        Names(tilda, "wrote").ShouldBeEmpty("once is enough");
        Names(await JumpAsync("ackenri"), "clients").ShouldBe(["Tilda Brackenridge"]);
        foreach (var odd in new[] { "", " ", "%", "_", "\\", "\"", "\0", "a\" OR b" })
            Names(await JumpAsync(odd), "clients").ShouldBeEmpty(odd);

        Task<JsonElement> JumpAsync(string words) => owner.PostAsync("/api/jump", Body(new { words })).JsonAsync();
    }

    private static IEnumerable<string> Names(JsonElement view, string kind) =>
        view.GetProperty(kind).EnumerateArray().Select(one => one.Text("name"));
}
