using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Common;
using PorchLight.Core.FollowThrough;
using PorchLight.Server.FollowThrough;
using PorchLight.Server.Records;
using static PorchLight.Server.Tests.RunTests;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

/// <summary>What runs beside each other for one person, and what ends where another starts.</summary>
public sealed class RunsSideBySideTests
{
    private static readonly Schedule Later = new(Anchor.RunStart, 3, TimeUnit.Days);

    [Fact]
    public async Task One_journey_a_person_unless_both_may_run_side_by_side()
    {
        await using var app = new TestApp();
        await OthersAreOffAsync(app);
        var (client, project, inquiry) = await SomebodyAsync(app);
        var about = new EventContext(client, project, inquiry);
        var alone = await StartAsync(app, Content(Mail("a", Later)), about);
        var beside = await StartAsync(app, Content(Mail("b", Later)) with { SideBySide = true }, about);
        (await StateAsync(app, alone)).StoppedBy.ShouldBe(RunEnd.AnotherStarted);
        var other = await StartAsync(app, Content(Mail("c", Later)) with { SideBySide = true }, about);
        (await StateAsync(app, beside)).Status.ShouldBe(RunStatus.Active);
        await StartAsync(app, Content(Mail("d", Later)), about);
        (await StateAsync(app, beside)).StoppedBy.ShouldBe(RunEnd.AnotherStarted);
        (await StateAsync(app, other)).StoppedBy.ShouldBe(RunEnd.AnotherStarted);
    }

    [Fact]
    public async Task What_starting_another_is_said_to_end_is_what_it_ends()
    {
        await using var app = new TestApp();
        await OthersAreOffAsync(app);
        var (client, project, _) = await SomebodyAsync(app);
        var owner = app.Owner();
        (
            await owner.PostAsync($"/api/clients/{client}/projects", Body(new { title = "A second wall", service = "" }))
        ).EnsureSuccessStatusCode();
        var second = await app.AskAsync(db =>
            db.Projects.Where(one => one.ClientId == client && one.Id != project).Select(one => one.Id).SingleAsync()
        );
        await app.ChangeAsync(db =>
        {
            db.AddFollowThroughs(
                from name in new[] { "alone", "also alone", "beside", "also beside", "beside, too" }
                select Content(Mail("later", Later)) with
                {
                    Name = name,
                    SideBySide = name.Contains("beside"),
                    Starts = new ByHandStart(),
                }
            );
            return Task.CompletedTask;
        });
        var chance = new Random(20_261_128);
        var ended = 0;
        for (var round = 0; round < 30; round++)
        {
            var about = chance.Next(2) == 0 ? project : second;
            var offered = (await owner.GetAsync($"/api/clients/{client}/runs/startable?project={about}").JsonAsync())
                .EnumerateArray()
                .ToList();
            var chosen = offered[chance.Next(offered.Count)];
            var before = await UnderWayAsync(app, client);
            (
                await owner.PostAsync($"/api/clients/{client}/runs", Body(new { followThroughId = chosen.Text("id"), projectId = about }))
            ).EnsureSuccessStatusCode();
            var after = await UnderWayAsync(app, client);
            var over = before.Where(run => !after.ContainsKey(run.Key)).Select(run => run.Value).Distinct().Order().ToList();
            chosen
                .GetProperty("ends")
                .EnumerateArray()
                .Select(name => name.GetString()!)
                .Order()
                .ToList()
                .ShouldBe(over, customMessage: chosen.Text("name"));
            ended += over.Count;
        }

        ended.ShouldBeGreaterThan(10);
    }

    private static Task<Dictionary<Id<Run>, string>> UnderWayAsync(TestApp app, Id<Client> client) =>
        app.AskAsync(async db =>
            await db.RunsWithVersion()
                .Where(one => one.Run.ClientId == client && one.Run.Active)
                .ToDictionaryAsync(one => one.Run.Id, one => one.Version.Content.Name)
        );
}
