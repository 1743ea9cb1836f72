using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Records;
using PorchLight.Server.Demo;
using PorchLight.Server.Forms;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

/// <summary>The made-up months of the demo: all of them by <c>./test server demo --long</c>, else their beginning.</summary>
public sealed class DemoHistoryTests
{
    [Fact]
    public async Task It_is_the_same_every_time_and_has_enough_of_everything_to_look_at()
    {
        await using var app = new TestApp();
        var calendar = (await app.AskAsync(db => db.BusinessAsync())).Calendar;
        var now = Instant.FromDateTimeOffset(TestClock.Written);
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
        await using var app = new TestApp { Time = new(TestClock.Written), SeedData = SeedData.DemoWithPeople };
        var now = Instant.FromDateTimeOffset(TestClock.Written);
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
        await FiguresAgreeWithTheExportAsync(app, byKind[DemoFormKind.Wall]);
        await FollowThroughsAreInUseAsync(app, now, isLong);
    }

    /// <summary>People are on the follow-throughs of the demo, nods wait, some have lapsed, and one has failed with its reason.</summary>
    private static async Task FollowThroughsAreInUseAsync(TestApp app, Instant now, bool isLong)
    {
        var owner = await app.AskAsync(db => db.Users.SingleAsync(user => user.Email == DemoBusiness.OwnerMail));
        await new DemoFollowThroughs(app.Services.GetRequiredService<IServiceScopeFactory>()).PlayAsync(owner, now);
        await app.WorkAsync();
        var runs = await app.AskAsync(db => db.Runs.Where(run => run.Active).ToListAsync());
        runs.Count.ShouldBeInRange(isLong ? 36 : 12, 41);
        runs.Count(run => run.State.Current?.Status == StepStatus.Waiting).ShouldBeInRange(isLong ? 10 : 4, 14);
        runs.Select(run => run.FollowThroughId).Distinct().Count().ShouldBeGreaterThan(isLong ? 5 : 3);
        runs.Single(run => run.Failure is not null).Failure.ShouldBe("What it starts is not there any more. Change the step.");
        if (isLong)
            (
                await app.AskAsync(db => db.Events.CountAsync(logged => logged.Kind == DomainEvents.KindOf<StepLapsed>()))
            ).ShouldBeGreaterThan(0);
        runs.Where(run => run.Failure is null).ShouldAllBe(run => run.NextMoment == null || run.NextMoment > now);
    }

    /// <summary>What the screening of murals says of its history is what one counts in the table that is saved.</summary>
    private static async Task FiguresAgreeWithTheExportAsync(TestApp app, Core.Common.Id<Form> form)
    {
        var owner = app.Owner();
        var query = Uri.EscapeDataString($$"""{"forms":["{{form}}"]}""");
        var lines = Rfc4180.Read(await owner.GetStringAsync($"/api/inquiries.csv?query={query}"));
        var (fit, outcome, points) = (lines[0].IndexOf("Fit"), lines[0].IndexOf("Outcome"), lines[0].IndexOf("Points"));
        // A number under zero stands behind a mark that keeps spreadsheets from running it.
        var saved = lines.Skip(1).Select(line => (Fit: line[fit], Outcome: line[outcome], Points: line[points].TrimStart('\''))).ToList();

        var rules = (await owner.GetAsync($"/api/forms/{form}/screening").JsonAsync()).GetProperty("rules");
        var report = await owner.PostAsync($"/api/forms/{form}/screening/sort-again", Body(new { rules })).JsonAsync();
        report
            .GetProperty("sorted")
            .EnumerateArray()
            .Select(row => (row.GetProperty("now").Text("words"), row.Text("outcome"), row.GetProperty("score").GetRawText()))
            .ShouldBe(saved, ignoreOrder: true, "by the screening in force everyone stays where they are");
        foreach (var share in report.GetProperty("shares").EnumerateArray())
        {
            var of = saved
                .Where(one => one.Fit == share.GetProperty("fit").Text("words") && one.Outcome is "booked" or "not booked")
                .Where(one => one.Fit == share.GetProperty("fit").Text("words"))
                .ToList();
            share.Text("words").ShouldEndWith(of.Count == 0 ? "nobody decided yet" : $", of {of.Count}");
            if (of.Count > 0)
                share
                    .Text("words")
                    .ShouldStartWith(
                        $"{Math.Round(100.0 * of.Count(one => one.Outcome == "booked") / of.Count, MidpointRounding.AwayFromZero)} % booked"
                    );
        }
    }
}
