using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Server.Demo;
using PorchLight.Server.Forms;

namespace PorchLight.Server.Tests;

/// <summary>The made-up months of the demo: all of them by <c>./test server demo --long</c>, else their beginning.</summary>
public sealed class DemoHistoryTests
{
    [Fact]
    public async Task It_is_the_same_every_time_and_has_enough_of_everything_to_look_at()
    {
        await using var app = new TestApp();
        var calendar = (await app.AskAsync(db => db.BusinessAsync())).Calendar;
        var now = Instant.FromDateTimeOffset(TestApp.Usual);
        var scenes = DemoHistory.Scenes(now, calendar);
        scenes
            .Select(scene => (scene.At, scene.Email))
            .ShouldBe(DemoHistory.Scenes(now, calendar).Select(scene => (scene.At, scene.Email)));
        scenes.Select(scene => scene.At).ShouldBeInOrder();
        var asks = scenes.OfType<DemoScene.Asks>().ToList();
        asks.Count.ShouldBeInRange(145, 155);
        asks.Select(ask => ask.Form).Distinct().Count().ShouldBe(3);
        (asks[^1].At - asks[0].At).TotalDays.ShouldBeInRange(500, 550);
        asks.GroupBy(ask => ask.Email).Count(client => client.Count() > 1).ShouldBeGreaterThan(10, "some come back");
        scenes.ShouldAllBe(scene => scene.Email.EndsWith(".example"), "only made-up addresses");
        foreach (var stage in new[] { "declined", "lost", "parked", "booked", "under-way", "finished" })
            scenes.OfType<DemoScene.Moves>().Count(move => move.Stage == stage).ShouldBeGreaterThan(5, stage);
        asks.GroupBy(ask => ((PhoneAnswer)ask.Answers["phone"]!).Typed)
            .Count(phone => phone.Select(ask => ask.Email).Distinct().Count() > 1)
            .ShouldBe(1, "two people of one number");
    }

    [Fact]
    public async Task Every_scene_of_it_is_taken_by_the_program_as_it_is()
    {
        var isLong = Environment.GetEnvironmentVariable("PORCH_LIGHT_CASES") == "20000";
        await using var app = new TestApp { SeedData = SeedData.DemoWithPeople };
        var now = Instant.FromDateTimeOffset(TestApp.Usual);
        var calendar = (await app.AskAsync(db => db.BusinessAsync())).Calendar;
        var forms = await app.AskAsync(async db => (await db.Forms.ToListAsync()).ToDictionary(form => form.Draft.Title, form => form.Id));
        var byKind = new Dictionary<DemoFormKind, Core.Common.Id<Form>>
        {
            [DemoFormKind.Wall] = forms["A wall to paint"],
            [DemoFormKind.Sign] = forms["A sign for your front"],
            [DemoFormKind.Workshop] = forms["Painting workshop"],
        };
        var before = await app.AskAsync(db => db.Inquiries.CountAsync());
        var scenes = DemoHistory.Scenes(now, calendar).Take(isLong ? int.MaxValue : 60).ToList();
        foreach (var scene in scenes)
        {
            await using var scope = app.Services.CreateAsyncScope();
            await scope.ServiceProvider.GetRequiredService<DemoHistoryPlayer>().PlayAsync(scene, byKind, now);
        }

        (await app.AskAsync(db => db.Inquiries.CountAsync())).ShouldBe(before + scenes.OfType<DemoScene.Asks>().Count());
        (await app.AskAsync(db => db.Projects.CountAsync(project => project.Stage == "finished" && project.Closed == null))).ShouldBe(0);
    }
}
