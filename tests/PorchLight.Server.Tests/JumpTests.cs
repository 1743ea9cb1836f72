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
        var walls = await owner.GetAsync("/api/jump?words=wall").JsonAsync();
        Names(walls, "forms").ShouldBe(["A wall to paint"]);
        Names(walls, "clients").ShouldBeEmpty("nobody is called so");
        Names(walls, "wrote").ShouldBe(["Tilda Brackenridge"], "she wrote of one");

        var tilda = await owner.GetAsync("/api/jump?words=BRACKEN").JsonAsync();
        Names(tilda, "clients").ShouldBe(["Tilda Brackenridge"]);
        Names(tilda, "wrote").ShouldBeEmpty("once is enough");
        Names(await owner.GetAsync("/api/jump?words=ackenri").JsonAsync(), "clients").ShouldBe(["Tilda Brackenridge"]);
        foreach (var odd in new[] { "", "%20", "%25", "_", "%5C", "%22", "%00", "a%22%20OR%20b" })
            Names(await owner.GetAsync($"/api/jump?words={odd}").JsonAsync(), "clients").ShouldBeEmpty(odd);
    }

    private static IEnumerable<string> Names(JsonElement view, string kind) =>
        view.GetProperty(kind).EnumerateArray().Select(one => one.Text("name"));
}
