using System.Globalization;
using System.Net;
using System.Text.Json;
using CsvHelper;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.FollowThrough;
using PorchLight.Server.FollowThrough;
using PorchLight.Server.Storage;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

/// <summary>Making, changing, rehearsing and putting into force, as the desk does it.</summary>
public sealed class FollowThroughDeskTests
{
    [Fact]
    public async Task A_ready_one_is_worked_on_put_into_force_and_starts_what_it_is_for()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        (await owner.PostAsync("/api/follow-throughs", Body(new { ready = "inquiry", name = " " }))).StatusCode.ShouldBe(
            HttpStatusCode.UnprocessableEntity
        );
        (await owner.PostAsync("/api/follow-throughs", Body(new { ready = "none", name = "A" }))).StatusCode.ShouldBe(
            HttpStatusCode.UnprocessableEntity
        );
        var path = await MakeAsync(owner, "proposal", "After an offer");
        (await RowAsync(owner, "After an offer")).GetProperty("isInForce").GetBoolean().ShouldBeFalse();
        (await SwitchAsync(owner, path, (false, false), (true, false))).StatusCode.ShouldBe(
            HttpStatusCode.UnprocessableEntity,
            "nothing is in force yet"
        );
        (await PutIntoForceAsync(owner, path)).EnsureSuccessStatusCode();
        (await PutIntoForceAsync(owner, path)).EnsureSuccessStatusCode();
        var row = await RowAsync(owner, "After an offer");
        (row.GetProperty("isOn").GetBoolean(), row.Text("starts")).ShouldBe((true, "a project reaches Offer made"));
        (await app.AskAsync(db => db.FollowThroughVersions.CountAsync(one => one.FollowThroughId == IdOf(path)))).ShouldBe(
            1,
            "pressed twice it is in force already"
        );

        var (client, project, _) = await RunTests.SomebodyAsync(app);
        (
            await owner.PutAsync(
                "/api/inquiries/stages",
                Body(
                    new
                    {
                        moves = new[]
                        {
                            new
                            {
                                inquiry = (await app.AskAsync(db => db.Inquiries.SingleAsync())).Id.Value,
                                stage = "offered",
                                until = (string?)null,
                                reason = (string?)null,
                            },
                        },
                    }
                )
            )
        ).EnsureSuccessStatusCode();
        var run = await app.AskAsync(db => db.Runs.SingleAsync(one => one.Active));
        (run.FollowThroughId, run.ClientId, run.ProjectId).ShouldBe((IdOf(path), client, project));

        (await SwitchAsync(owner, path, (true, false), (true, true))).EnsureSuccessStatusCode();
        (await RowAsync(owner, "After an offer")).GetProperty("isOn").GetBoolean().ShouldBeFalse("what is put away starts nothing");
        (await app.AskAsync(db => db.Runs.CountAsync(one => one.Active))).ShouldBe(1, "who is on it goes on");
    }

    [Fact]
    public async Task What_is_in_the_way_keeps_it_out_of_force_and_two_windows_do_not_overwrite_each_other()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        var path = await MakeAsync(owner, null, "Empty");
        var refused = await PutIntoForceAsync(owner, path);
        refused.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await refused.SentenceAsync()).ShouldBe("Add a first step.");
        (await owner.DeleteAsync(path + "/draft")).StatusCode.ShouldBe(
            HttpStatusCode.UnprocessableEntity,
            "there is nothing to go back to"
        );

        var was = await ContentAsync(owner, path);
        var now = was with { Steps = [RunTests.Mail("one")] };
        (await owner.PutAsync(path, Body(new { was, now }))).EnsureSuccessStatusCode();
        (await owner.PutAsync(path, Body(new { was, now = was with { Name = "From the other window" } }))).EnsureSuccessStatusCode();
        var merged = await ContentAsync(owner, path);
        (merged.Name, merged.Steps.Count).ShouldBe(("From the other window", 1));
        (await owner.PostAsync(path + "/in-force", Body(new { seen = was }))).StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await PutIntoForceAsync(owner, path)).EnsureSuccessStatusCode();

        (await owner.PutAsync(path, Body(new { was = merged, now = merged with { LapseAfterDays = 5 } }))).EnsureSuccessStatusCode();
        var view = await owner.GetAsync(path).JsonAsync();
        view.GetProperty("changes").EnumerateArray().Select(one => one.GetString()).ShouldBe(["A nod waits five days instead of 14."]);
        (await owner.DeleteAsync(path + "/draft")).EnsureSuccessStatusCode();
        (await ContentAsync(owner, path)).LapseAfterDays.ShouldBe(14);
        var copy = await owner.PostAsync(path + "/copies", null).JsonAsync();
        (await ContentAsync(owner, $"/api/follow-throughs/{copy.Text("id")}")).Name.ShouldBe("From the other window (copy)");
    }

    [Fact]
    public async Task People_stay_on_their_version_until_they_are_moved_seeing_what_changes_and_when()
    {
        await using var app = new TestApp { Time = new(TestClock.Written) };
        var owner = app.Owner();
        await RunTests.OthersAreOffAsync(app);
        var day = new Schedule(Anchor.PreviousSettled, 2, TimeUnit.Days);
        var path = await MakeAsync(owner, null, "Journey");
        await ChangeAsync(
            owner,
            path,
            was => was with { Starts = new ByHandStart(), Steps = [RunTests.Mail("one"), RunTests.Mail("two", day)] }
        );
        (await PutIntoForceAsync(owner, path)).EnsureSuccessStatusCode();
        var (client, project, _) = await RunTests.SomebodyAsync(app);
        (
            await owner.PostAsync(
                $"/api/clients/{client}/runs",
                Body(new { followThroughId = IdOf(path).Value, projectId = project.Value })
            )
        ).EnsureSuccessStatusCode();
        await app.WorkAsync();
        await ChangeAsync(
            owner,
            path,
            was => was with { Steps = [was.Steps[0], RunTests.Mail("between", day with { Amount = 1 }), .. was.Steps.Skip(1)] }
        );
        (await PutIntoForceAsync(owner, path)).EnsureSuccessStatusCode();

        var people = await owner.GetAsync(path + "/people").JsonAsync();
        var person = people.GetProperty("people")[0];
        (person.GetProperty("number").GetInt32(), person.Text("step"), person.Text("moved")).ShouldBe(
            (1, "two", "“between” tomorrow 10:00")
        );
        people.GetProperty("changes")[0].GetProperty("sentences")[0].GetString().ShouldBe("New: “between”, one day after the one before.");
        var runs = new[] { person.GetProperty("runId").GetGuid() };
        (await owner.PutAsync(path + "/people/version", Body(new { runs, to = 1 }))).StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await owner.PutAsync(path + "/people/version", Body(new { runs, to = 2 }))).EnsureSuccessStatusCode();
        (await owner.PutAsync(path + "/people/version", Body(new { runs, to = 2 })).JsonAsync())
            .GetProperty("moved")
            .GetInt32()
            .ShouldBe(0);
        var run = await app.AskAsync(db => db.Runs.SingleAsync(one => one.FollowThroughId == IdOf(path)));
        (run.FollowThroughNumber, run.State.Current!.Key).ShouldBe((2, "between"));
        run.State.Steps.Select(step => step.Status).ShouldBe([StepStatus.Done, StepStatus.Planned, StepStatus.Later]);
    }

    [Fact]
    public async Task A_rehearsal_shows_every_date_every_message_in_full_and_what_is_cancelled()
    {
        await using var app = new TestApp { Time = new(TestClock.Written) };
        var owner = app.Owner();
        var path = await MakeAsync(owner, "inquiry", "Journey");
        var (client, _, _) = await RunTests.SomebodyAsync(app);
        var silent = await RehearseAsync(
            owner,
            path,
            new
            {
                clientId = client.Value,
                start = "2026-12-04T16:40:00",
                assumed = Array.Empty<object>(),
                nods = "atOnce",
            }
        );
        silent.Text("with").ShouldBe("Tilda Brackenridge");
        var rows = silent.GetProperty("rows").EnumerateArray().ToList();
        rows.Select(row => row.Text("when"))
            .ShouldBe([
                "Friday 4 December, 16:40",
                "Monday 7 December, 09:00",
                "Thursday 10 December, 09:00",
                "Thursday 17 December, 09:00",
                "17 March 2027, 09:00",
            ]);
        rows[1].GetProperty("message").GetProperty("parts")[0].Text("text").ShouldStartWith("Dear Tilda,");
        silent.Text("ends").ShouldBe("Finishes 17 March 2027, 09:00.");

        var answers = await RehearseAsync(
            owner,
            path,
            new
            {
                clientId = (Guid?)null,
                start = "2026-12-04T16:40:00",
                assumed = new[] { new { act = "replies", day = 5 } },
                nods = "atOnce",
            }
        );
        answers.GetProperty("before").GetInt32().ShouldBe(2);
        answers.Text("ends").ShouldBe("Wednesday 9 December, 12:00: they answer. It ends; what is left is never sent.");
        answers
            .GetProperty("rows")
            .EnumerateArray()
            .Select(row => row.Text("status"))
            .ShouldBe(["done", "done", "cancelled", "cancelled", "cancelled"]);
        answers.GetProperty("rows")[0].GetProperty("message").Text("subject").ShouldBe("Thank you for asking us, Alex");
        (await app.AskAsync(db => db.Runs.CountAsync(run => run.FollowThroughId == IdOf(path)))).ShouldBe(0, "nothing of it is kept");
    }

    [Fact]
    public async Task A_plan_table_goes_out_as_CSV_and_comes_back_in_cell_by_cell()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        var path = await MakeAsync(owner, "proposal", "Journey");
        await ChangeAsync(
            owner,
            path,
            was => was with { Steps = [was.Steps[0] with { Name = "=1+1, \"quoted\"\nand more" }, .. was.Steps.Skip(1)] }
        );
        var file = await owner.GetStringAsync(path + "/plan-table/table.csv");
        using var csv = new CsvReader(new StringReader(file.TrimStart('\uFEFF')), CultureInfo.InvariantCulture);
        var rows = csv.GetRecords<dynamic>().Select(row => (IDictionary<string, object>)row).ToList();
        rows.Count.ShouldBe(4);
        rows[0]["Step"].ShouldBe("'=1+1, \"quoted\"\nand more", "what a spreadsheet would run is defused");
        rows.Select(row => row["Day"]).ShouldBe(["2", "5", "7", "8"]);
        rows[3]["What the client sees"].ShouldBe("nothing: a task: “Call … about the proposal”, to be done within one working day");
        rows[1]["Ends if"].ShouldBe("they reply, they book or the stage moves on");

        var before = await ContentAsync(owner, path);
        (await SendCsvAsync(owner, path, file)).EnsureSuccessStatusCode();
        (await owner.GetAsync(path).JsonAsync())
            .GetProperty("content")
            .Deserialize<FollowThroughContent>(Json.Options)
            .ShouldBeEquivalentTo(before, "as it went out it changes nothing");

        (await SendCsvAsync(owner, path, "day;step;who acts\n1;A guide;by itself\n3;A call;you\n")).EnsureSuccessStatusCode();
        var planned = await ContentAsync(owner, path);
        planned
            .Steps.Select(step => (step.Name, step.NeedsNod, (step.Action as Unwritten)?.What))
            .ShouldBe([("A guide", false, "A guide"), ("A call", true, "A call")]);
        (await PutIntoForceAsync(owner, path)).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity, "it is still to be written");
        var wrong = await SendCsvAsync(owner, path, "day,step\nsoon,A guide\n");
        wrong.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await wrong.SentenceAsync()).ShouldBe("Line 1: “soon” is not a day. Write a whole number; the start is day 0.");
        (await (await SendCsvAsync(owner, path, "name,when\na,b\n")).SentenceAsync()).ShouldContain("needs a column “Step”");
    }

    private static async Task<string> MakeAsync(HttpClient owner, string? ready, string name) =>
        $"/api/follow-throughs/{(await owner.PostAsync("/api/follow-throughs", Body(new { ready, name })).JsonAsync()).Text("id")}";

    private static PorchLight.Core.Common.Id<StoredFollowThrough> IdOf(string path) => new(Guid.Parse(path.Split('/')[^1]));

    private static async Task<FollowThroughContent> ContentAsync(HttpClient owner, string path) =>
        (await owner.GetAsync(path).JsonAsync()).GetProperty("content").Deserialize<FollowThroughContent>(Json.Options)!;

    private static async Task ChangeAsync(HttpClient owner, string path, Func<FollowThroughContent, FollowThroughContent> change)
    {
        var was = await ContentAsync(owner, path);
        (await owner.PutAsync(path, Body(new { was, now = change(was) }))).EnsureSuccessStatusCode();
    }

    private static async Task<HttpResponseMessage> PutIntoForceAsync(HttpClient owner, string path) =>
        await owner.PostAsync(path + "/in-force", Body(new { seen = await ContentAsync(owner, path) }));

    private static Task<HttpResponseMessage> SwitchAsync(
        HttpClient owner,
        string path,
        (bool On, bool Away) was,
        (bool On, bool Away) now
    ) =>
        owner.PutAsync(
            path + "/switch",
            Body(new { was = new { isOn = was.On, isArchived = was.Away }, now = new { isOn = now.On, isArchived = now.Away } })
        );

    private static async Task<JsonElement> RowAsync(HttpClient owner, string name) =>
        (await owner.GetAsync("/api/follow-throughs").JsonAsync()).EnumerateArray().Single(row => row.Text("name") == name);

    [Fact]
    public async Task It_is_rehearsed_with_everybody_who_is_offered_for_it()
    {
        await using var app = new TestApp { SeedData = SeedData.DemoWithPeople };
        var owner = app.Owner();
        foreach (var row in (await owner.GetAsync("/api/follow-throughs").JsonAsync()).EnumerateArray())
        {
            var path = $"/api/follow-throughs/{row.Text("id")}";
            foreach (var person in (await owner.GetAsync($"{path}/rehearse/people").JsonAsync()).EnumerateArray().Take(4))
            {
                var shown = await owner.PostAsync(
                    path + "/rehearse",
                    Body(
                        new
                        {
                            clientId = person.Text("id"),
                            start = (string?)null,
                            assumed = new[] { new { act = "replies", day = 2 } },
                            nods = "aDayLater",
                        }
                    )
                );
                var said = await shown.Content.ReadAsStringAsync();
                (shown.IsSuccessStatusCode || said.Contains("They have no project yet", StringComparison.Ordinal)).ShouldBeTrue(said);
            }
        }
    }

    private static async Task<JsonElement> RehearseAsync(HttpClient owner, string path, object body) =>
        await owner.PostAsync(path + "/rehearse", Body(body)).JsonAsync();

    private static Task<HttpResponseMessage> SendCsvAsync(HttpClient owner, string path, string text) =>
        owner.PutAsync(path + "/plan-table/table.csv", Body(new { text }));
}
