using System.Net;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Messages;
using PorchLight.Server.FollowThrough;
using PorchLight.Server.Records;
using PorchLight.Server.Work;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

/// <summary>A person's nod: taken back in time, given to one of two, and told beforehand what it does not do.</summary>
public sealed class NodTests
{
    [Fact]
    public async Task For_ten_seconds_a_nod_can_be_taken_back_and_nothing_has_gone()
    {
        await using var app = new TestApp { Settings = { ["PorchLight:SecondsToTakeBack"] = "10" } };
        await RunTests.OthersAreOffAsync(app);
        var (client, project, inquiry) = await RunTests.SomebodyAsync(app);
        var run = await RunTests.StartAsync(
            app,
            RunTests.Content(RunTests.Mail("word") with { NeedsNod = true }),
            new EventContext(client, project, inquiry)
        );
        await app.WorkAsync();
        var owner = app.Owner();
        var seen = (await owner.GetAsync($"/api/nods/{run}/word").JsonAsync()).GetProperty("draft");
        var sent = await owner.PostAsync($"/api/nods/{run}/word/send", Body(new { seen, now = false })).JsonAsync();
        sent.GetProperty("takeBackSeconds").GetInt32().ShouldBe(10);
        await app.PassTimeAsync(Duration.FromSeconds(9));
        (await RunTests.SubjectsAsync(app)).ShouldBeEmpty();
        (await owner.PostAsync($"/api/nods/{run}/word/take-nod-back", Body(new { }))).EnsureSuccessStatusCode();
        await app.PassTimeAsync(Duration.FromMinutes(1));
        (await RunTests.SubjectsAsync(app)).ShouldBeEmpty();
        (await owner.PostAsync($"/api/nods/{run}/word/send", Body(new { seen, now = false }))).EnsureSuccessStatusCode();
        await app.PassTimeAsync(Duration.FromSeconds(10));
        (await RunTests.SubjectsAsync(app)).ShouldBe(["word"]);
        (await owner.PostAsync($"/api/nods/{run}/word/take-nod-back", Body(new { }))).StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await app.AskAsync(db => db.OutgoingMail.SingleAsync())).Automatic.ShouldBeFalse("a person nodded");
    }

    [Fact]
    public async Task One_of_two_steps_for_a_person_goes_and_the_other_is_skipped_and_both_come_back()
    {
        await using var app = new TestApp { Settings = { ["PorchLight:SecondsToTakeBack"] = "10" } };
        var (owner, first, second) = await TwoWaitAsync(app);
        var seen = (await owner.GetAsync($"/api/nods/{first}/offer").JsonAsync()).GetProperty("draft");
        var press = new
        {
            seen,
            now = false,
            instead = new[] { new { runId = second, step = "reminder" } },
        };
        (await owner.PostAsync($"/api/nods/{first}/offer/send", Body(press))).EnsureSuccessStatusCode();
        (await WaitingAsync(owner)).ShouldBe([]);
        (await owner.PostAsync($"/api/nods/{first}/offer/take-nod-back", Body(new { press.instead }))).EnsureSuccessStatusCode();
        (await WaitingAsync(owner)).ShouldBe(["offer", "reminder"], ignoreOrder: true);

        (await owner.PostAsync($"/api/nods/{first}/offer/send", Body(press))).EnsureSuccessStatusCode();
        await app.PassTimeAsync(Duration.FromSeconds(10));
        (await RunTests.SubjectsAsync(app)).ShouldBe(["offer"]);
        (await WaitingAsync(owner)).ShouldBe([]);
    }

    [Fact]
    public async Task Two_months_in_which_the_program_did_not_run_are_not_days_of_a_nod()
    {
        var folder = Directory.CreateTempSubdirectory("porch-light-test-").FullName;
        ReadyFolder.Of(SeedData.Demo, TestClock.Written).CopyTo(folder);
        Id<Run> run;
        await using (var app = new TestApp { Folder = folder, Time = new(TestClock.Written) })
        {
            await RunTests.OthersAreOffAsync(app);
            var (client, project, inquiry) = await RunTests.SomebodyAsync(app);
            run = await RunTests.StartAsync(
                app,
                RunTests.Content(RunTests.Mail("word") with { NeedsNod = true }),
                new EventContext(client, project, inquiry)
            );
            await app.WorkAsync();
            await app.PassTimeAsync(Duration.FromDays(10));
        }

        await using (var app = new TestApp { Folder = folder, Time = new(TestClock.Written.AddDays(70)) })
        {
            await app.Services.GetRequiredService<DueWork>().LookAfterStartAsync(CancellationToken.None);
            await app.WorkAsync();
            (await StatusAsync(app)).ShouldBe(StepStatus.Waiting);
            await app.PassTimeAsync(Duration.FromDays(3));
            (await StatusAsync(app)).ShouldBe(StepStatus.Waiting, "thirteen of its days");
            await app.PassTimeAsync(Duration.FromDays(2));
            (await StatusAsync(app)).ShouldBe(StepStatus.Lapsed);
        }

        Directory.Delete(folder, recursive: true);

        async Task<StepStatus> StatusAsync(TestApp app) => (await RunTests.StateAsync(app, run)).Steps[0].Status;
    }

    [Fact]
    public async Task Where_the_other_step_has_gone_meanwhile_neither_is_sent()
    {
        await using var app = new TestApp();
        var (owner, first, second) = await TwoWaitAsync(app);
        (await owner.PostAsync($"/api/nods/{second}/reminder/skip", null)).EnsureSuccessStatusCode();
        var seen = (await owner.GetAsync($"/api/nods/{first}/offer").JsonAsync()).GetProperty("draft");
        var refused = await owner.PostAsync(
            $"/api/nods/{first}/offer/send",
            Body(
                new
                {
                    seen,
                    now = false,
                    instead = new[] { new { runId = second, step = "reminder" } },
                }
            )
        );
        (refused.StatusCode, await refused.SentenceAsync()).ShouldBe(
            (HttpStatusCode.Conflict, "The other step does not wait any more. Look at what is here now, and send again.")
        );
        await app.WorkAsync();
        (await RunTests.SubjectsAsync(app)).ShouldBeEmpty();
        (await WaitingAsync(owner)).ShouldBe(["offer"]);
    }

    [Fact]
    public async Task A_step_that_advertises_says_beforehand_that_the_person_has_not_permitted_it()
    {
        await using var app = new TestApp();
        await RunTests.OthersAreOffAsync(app);
        var (client, project, inquiry) = await RunTests.SomebodyAsync(app);
        var about = new EventContext(client, project, inquiry);
        var news = new SendMessage(new MessageTemplate("News", [new TextPart("text", "A word.")])) { IsAdvertising = true };
        var run = await RunTests.StartAsync(
            app,
            RunTests.Content(RunTests.Step("news", news) with { NeedsNod = true, Schedule = RunTests.AtOnce }),
            about
        );
        await app.WorkAsync();
        var owner = app.Owner();
        (await owner.GetAsync($"/api/nods/{run}/news").JsonAsync())
            .Text("notPermitted")
            .ShouldBe(
                "They have not permitted advertising, so this message does not go to them. With your nod only what comes after it goes on."
            );
        await ConsentTests.PermitAsync(owner, about, "client.mayAdvertise");
        (await owner.GetAsync($"/api/nods/{run}/news").JsonAsync()).Text("notPermitted").ShouldBe(null);
    }

    private static async Task<(HttpClient Owner, Guid Offer, Guid Reminder)> TwoWaitAsync(TestApp app)
    {
        await RunTests.OthersAreOffAsync(app);
        var (client, project, inquiry) = await RunTests.SomebodyAsync(app);
        var about = new EventContext(client, project, inquiry);
        var offer = await RunTests.StartAsync(app, Beside("offer"), about);
        var reminder = await RunTests.StartAsync(app, Beside("reminder"), about);
        await app.WorkAsync();
        var owner = app.Owner();
        (await WaitingAsync(owner)).ShouldBe(["offer", "reminder"], ignoreOrder: true);
        return (owner, offer.Value, reminder.Value);
    }

    private static FollowThroughContent Beside(string step) =>
        RunTests.Content(RunTests.Mail(step) with { NeedsNod = true }) with
        {
            SideBySide = true,
        };

    private static async Task<List<string>> WaitingAsync(HttpClient owner) =>
        [
            .. (await owner.GetAsync("/api/today").JsonAsync())
                .GetProperty("nods")
                .EnumerateArray()
                .Where(nod => nod.GetProperty("goes").ValueKind == System.Text.Json.JsonValueKind.Null)
                .Select(nod => nod.Text("step")!),
        ];
}
