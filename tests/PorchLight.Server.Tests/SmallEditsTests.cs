using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

/// <summary>Edits that are small enough to be forgotten: each is made and seen again.</summary>
public sealed class SmallEditsTests
{
    [Fact]
    public async Task A_signature_of_ones_own_is_kept_beside_the_shared_one()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        (
            await owner.PutAsync(
                "/api/library/signatures/mine",
                Body(new { was = new { text = "" }, now = new { text = "Maren, in paint" } })
            )
        ).EnsureSuccessStatusCode();
        (await owner.GetAsync("/api/library/signatures").JsonAsync()).GetProperty("mine").Text("text").ShouldBe("Maren, in paint");
        (await app.Member().GetAsync("/api/library/signatures").JsonAsync()).GetProperty("mine").Text("text").ShouldBeEmpty();
    }

    [Fact]
    public async Task What_is_said_while_the_light_is_off_holds_at_once()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        var (form, note) = await app.AskAsync(db =>
            db.Forms.Select(one => new ValueTuple<Core.Common.Id<Forms.Form>, string>(one.Id, one.AwayNote)).FirstAsync()
        );
        (
            await owner.PutAsync(
                $"/api/forms/{form}/away-note",
                Body(new { was = new { words = note }, now = new { words = "Back in May." } })
            )
        ).EnsureSuccessStatusCode();
        (await owner.GetAsync($"/api/forms/{form}").JsonAsync()).Text("awayNote").ShouldBe("Back in May.");
    }

    [Fact]
    public async Task Copied_questions_have_keys_of_their_own_and_are_not_added_yet()
    {
        await using var app = new TestApp();
        var form = await app.AskAsync(db => db.Forms.Select(one => one.Id).FirstAsync());
        var content = await app.ContentAsync(form.ToString());
        var copies = await (
            await app.Owner().PostAsync("/api/forms/copied-items", Body(new { items = content.Pages[0].Items.Take(2), form = content }))
        ).JsonAsync();
        var taken = content.Questions.Select(question => question.Key).ToHashSet();
        var keys = copies.GetProperty("items").EnumerateArray().Select(item => item.Text("key")).ToList();
        keys.Count.ShouldBe(2);
        keys.ShouldAllBe(key => !taken.Contains(key));
        (await app.ContentAsync(form.ToString())).Questions.Count().ShouldBe(content.Questions.Count());
    }

    [Fact]
    public async Task A_plan_table_is_changed_in_place_and_a_change_over_somebody_elses_is_refused()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        var id = await app.AskAsync(db => db.FollowThroughs.Select(one => one.Id).FirstAsync());
        var path = $"/api/follow-throughs/{id}/plan-table";
        var was = (await owner.GetAsync(path).JsonAsync()).GetProperty("lines");
        var now = was.EnumerateArray().Select(line => line.Deserialize<Dictionary<string, object?>>(Storage.Json.Options)!).ToList();
        now[^1]["step"] = "The last word";
        (await owner.PutAsync(path, Body(new { was, now }))).EnsureSuccessStatusCode();
        (await owner.GetAsync(path).JsonAsync()).GetProperty("lines").EnumerateArray().Last().Text("step").ShouldBe("The last word");
        ((int)(await owner.PutAsync(path, Body(new { was, now }))).StatusCode).ShouldBe(409);
    }
}
