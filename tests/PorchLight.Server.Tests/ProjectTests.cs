using System.Net;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Forms;
using PorchLight.Core.Projects;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

/// <summary>A project: its title, stage and owner of the work, a second one by hand, and what is to do for it.</summary>
public sealed class ProjectTests
{
    [Fact]
    public async Task Two_people_change_the_title_and_the_stage_at_the_same_time_and_both_are_kept()
    {
        await using var app = new TestApp();
        await app.SendAsync(Answers());
        var (owner, path) = (app.Owner(), await ProjectPathAsync(app));
        var was = Head("A wall to paint", "new");
        (await (await owner.PutAsync(path, Body(new { was, now = Head(" ", "new") }))).PlacesAsync()).ShouldBe(["title"]);
        (await (await owner.PutAsync(path, Body(new { was, now = Head("A wall", "unheard") }))).PlacesAsync()).ShouldBe(["stage"]);
        (await owner.PutAsync(path, Body(new { was, now = Head(" The long wall ", "new") }))).EnsureSuccessStatusCode();
        (await app.Member().PutAsync(path, Body(new { was, now = Head("A wall to paint", "talking") }))).EnsureSuccessStatusCode();
        var project = (await ClientAsync(app)).GetProperty("projects")[0];
        (project.Text("title"), project.GetProperty("stage").Text("name")).ShouldBe(("The long wall", "In talks"));
        var clash = await owner.PutAsync(path, Body(new { was, now = Head("A wall to paint", "offered") }));
        clash.StatusCode.ShouldBe(HttpStatusCode.Conflict);
    }

    [Fact]
    public async Task A_stage_that_closes_closes_the_project_and_a_closed_one_is_joined_by_no_inquiry()
    {
        await using var app = new TestApp();
        await app.SendAsync(Answers());
        var path = await ProjectPathAsync(app);
        await MoveAsync(app, path, "new", "finished");
        (await ClientAsync(app)).GetProperty("projects")[0].GetProperty("open").GetBoolean().ShouldBeFalse();
        await app.SendAsync(Answers());
        (await ClientAsync(app)).GetProperty("projects").GetArrayLength().ShouldBe(2);
        await MoveAsync(app, path, "finished", "under-way");
        (await app.AskAsync(db => db.Projects.CountAsync(one => one.Closed == null))).ShouldBe(2);
        var said = (await ClientAsync(app)).GetProperty("timeline").EnumerateArray().Select(entry => entry.Text("sentence")).ToList();
        said.ShouldContain("Maren Tolliver closed a project: Finished.");
        said.ShouldContain("Maren Tolliver opened a project again: On the wall.");
    }

    [Fact]
    public async Task Winning_the_work_is_a_change_of_standing()
    {
        await using var app = new TestApp();
        await app.SendAsync(Answers());
        var path = await ProjectPathAsync(app);
        (await app.Owner().GetAsync("/api/clients/leads").JsonAsync()).GetProperty("leads").GetInt32().ShouldBe(1);
        await MoveAsync(app, path, "new", "talking");
        (await ClientAsync(app)).Text("standing").ShouldBe("lead");
        await MoveAsync(app, path, "talking", "booked");
        (await ClientAsync(app)).Text("standing").ShouldBe("active");
        (await app.Owner().GetAsync("/api/clients/leads").JsonAsync()).GetProperty("leads").GetInt32().ShouldBe(0);
    }

    [Fact]
    public async Task Another_project_begins_with_what_is_known_of_the_person_and_nothing_of_the_first()
    {
        await using var app = new TestApp();
        await app.SendAsync(Answers());
        var client = (await ClientAsync(app)).Text("id");
        var send = Body(new { title = "The gate", service = "Window gilding" });
        (
            await (await app.Owner().PostAsync($"/api/clients/{client}/projects", Body(new { title = "", service = "" }))).PlacesAsync()
        ).ShouldBe(["title"]);
        (
            await (await app.Owner().PostAsync($"/api/clients/{client}/projects", Body(new { title = "X", service = "Ice" }))).PlacesAsync()
        ).ShouldBe(["service"]);
        (await app.Member().PostAsync($"/api/clients/{client}/projects", send)).EnsureSuccessStatusCode();
        var projects = (await ClientAsync(app)).GetProperty("projects").EnumerateArray().ToList();
        projects.Count.ShouldBe(2);
        var gate = projects.Single(project => project.Text("title") == "The gate");
        (gate.Text("service"), gate.Text("serviceKey"), gate.Text("looksAfterName")).ShouldBe(("Window gilding", "gilding", "Sunil Abara"));
        gate.GetProperty("fields")
            .EnumerateArray()
            .Where(field => field.Text("words").Length > 0)
            .Select(field => field.GetProperty("field").Text("key"))
            .ShouldBe(["project.service"]);
        projects
            .Single(project => project.Text("title") != "The gate")
            .GetProperty("fields")
            .EnumerateArray()
            .Count(field => field.Text("words").Length > 0)
            .ShouldBeGreaterThan(1);
    }

    [Fact]
    public async Task A_project_is_about_what_its_form_asks_about_and_an_inquiry_joins_what_was_begun_by_hand_for_it()
    {
        await using var app = new TestApp();
        await app.ChangeAsync(async db => (await db.Forms.SingleAsync()).Service = "mural");
        await app.SendAsync(Answers());
        var first = (await ClientAsync(app)).GetProperty("projects")[0];
        first.Text("service").ShouldBe("A mural");
        var history = await app.Owner()
            .GetAsync($"/api/clients/{(await ClientAsync(app)).Text("id")}/values/project.service?project={first.Text("id")}")
            .JsonAsync();
        history[0].Text("source").ShouldBe("Tilda Brackenridge in “A wall to paint”");
        history[0].GetProperty("asked").ValueKind.ShouldBe(JsonValueKind.Null);
        await MoveAsync(app, await ProjectPathAsync(app), "new", "finished");
        await app.Owner()
            .PostAsync(
                $"/api/clients/{(await ClientAsync(app)).Text("id")}/projects",
                Body(new { title = "The back wall", service = "A mural" })
            );
        await app.SendAsync(Answers());
        (await app.AskAsync(db => db.Projects.CountAsync())).ShouldBe(2, "it joins the one that is open");
    }

    [Fact]
    public async Task A_service_that_is_called_something_else_is_called_so_in_the_records_and_a_stage_in_use_stays()
    {
        await using var app = new TestApp();
        await app.ChangeAsync(async db => (await db.Forms.SingleAsync()).Service = "mural");
        await app.SendAsync(Answers());
        var owner = app.Owner();
        var lists = (await owner.GetAsync("/api/settings").JsonAsync()).GetProperty("lists");
        var was = lists.Deserialize<BusinessLists>(Storage.Json.Options)!;
        var renamed = was with
        {
            Services = [.. was.Services.Select(one => one.Key == "mural" ? one with { Name = "A painted wall" } : one)],
        };
        (await owner.PutAsync("/api/settings/lists", Body(new { was, now = renamed }))).EnsureSuccessStatusCode();
        (await ClientAsync(app)).GetProperty("projects")[0].Text("service").ShouldBe("A painted wall");
        (await ClientAsync(app)).GetProperty("projects")[0].Text("serviceKey").ShouldBe("mural");
        await StaysAsync(
            [.. was.Stages.Where(stage => stage.Key != "new")],
            "One project stands in “New”. Move it to another stage first."
        );
        await StaysAsync(
            [.. was.Stages.Select(stage => stage.Key == "new" ? stage with { Kind = StageKind.Done } : stage)],
            "There are projects in “New”, so whether it closes them cannot change. Make another stage, and move them there."
        );

        async Task StaysAsync(IReadOnlyList<Stage> stages, string sentence)
        {
            var answer = await owner.PutAsync("/api/settings/lists", Body(new { was = renamed, now = renamed with { Stages = stages } }));
            var finding = (await answer.JsonAsync()).GetProperty("findings").EnumerateArray().Single();
            (finding.Text("place"), finding.Text("sentence")).ShouldBe(("stages", sentence));
        }
    }

    [Fact]
    public async Task A_task_stands_on_today_when_it_is_due_and_in_the_timeline_when_it_is_done()
    {
        await using var app = new TestApp();
        await app.SendAsync(Answers());
        var (owner, client) = (app.Owner(), (await ClientAsync(app)).Text("id"));
        var path = $"/api/clients/{client}/tasks";
        (await (await owner.PostAsync(path, Task("", false, null))).PlacesAsync()).ShouldBe(["title"]);
        (await (await owner.PostAsync(path, Task("Opening", true, null))).PlacesAsync()).ShouldBe(["on"]);
        var today = app.Time.GetUtcNow().ToString("yyyy-MM-dd", null);
        (await owner.PostAsync(path, Task("Order the gold leaf", false, today))).EnsureSuccessStatusCode();
        (await owner.PostAsync(path, Task("Opening", true, today))).EnsureSuccessStatusCode();
        (await owner.PostAsync(path, Task("Look at the plaster", false, null))).EnsureSuccessStatusCode();
        (await owner.PostAsync(path, Task("Later", false, "2099-01-01"))).EnsureSuccessStatusCode();
        (await DueAsync()).ShouldBe(["Order the gold leaf", "Opening"]);
        await app.PassTimeAsync(Duration.FromDays(1));
        (await DueAsync()).ShouldBe(["Order the gold leaf"], "a day passes, a task stays");
        var task = (await ClientAsync(app)).GetProperty("tasks").EnumerateArray().First(one => one.Text("title") == "Order the gold leaf");
        task.GetProperty("isOverdue").GetBoolean().ShouldBeTrue();
        object Words(bool isDone) =>
            new
            {
                title = "Order the gold leaf",
                on = today,
                @for = (Guid?)null,
                isDone,
            };
        (await owner.PutAsync($"{path}/{task.Text("id")}", Body(new { was = Words(false), now = Words(true) }))).EnsureSuccessStatusCode();
        (await DueAsync()).ShouldBeEmpty();
        (await ClientAsync(app)).GetProperty("timeline")[0].Text("sentence").ShouldBe("Maren Tolliver did “Order the gold leaf”.");
        (await owner.PutAsync($"{path}/{task.Text("id")}", Body(new { was = Words(true), now = Words(false) }))).EnsureSuccessStatusCode();
        (await DueAsync()).ShouldBe(["Order the gold leaf"]);
        (await owner.DeleteAsync($"{path}/{task.Text("id")}")).EnsureSuccessStatusCode();
        (await DueAsync()).ShouldBeEmpty();

        async Task<List<string>> DueAsync() =>
            [.. (await owner.GetAsync("/api/today").JsonAsync()).GetProperty("tasks").EnumerateArray().Select(one => one.Text("title"))];

        static HttpContent Task(string title, bool isDate, string? on) =>
            Body(
                new
                {
                    projectId = (Guid?)null,
                    title,
                    isDate,
                    on,
                    @for = (Guid?)null,
                }
            );
    }

    [Fact]
    public async Task Another_of_the_people_becomes_the_main_contact_and_taken_back_everything_is_as_before()
    {
        await using var app = new TestApp();
        await app.SendAsync(Answers());
        await app.SendAsync(Answers("robin@pell.example"));
        var owner = app.Owner();
        var id = await app.AskAsync(db => db.Clients.Where(one => one.Email == "tilda@bakes.example").Select(one => one.Id).SingleAsync());
        var before = await ValuesAsync(app, id);
        await WriteAsync([Person("Robin", "robin@pell.example"), Person("Ada", "ada@bakes.example")]);
        var people = await PeopleAsync();
        var taken = await owner.PutAsync($"/api/clients/{id}/main-contact", Body(new { people, person = 0 }));
        taken.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity, "that address is another client's");
        (await ValuesAsync(app, id)).Count.ShouldBe(before.Count + 1, "nothing is half done");

        var handed = await owner.PutAsync($"/api/clients/{id}/main-contact", Body(new { people, person = 1 }));
        handed.EnsureSuccessStatusCode();
        var written = (await handed.JsonAsync()).EnumerateArray().ToList();
        var client = await owner.GetAsync($"/api/clients/{id}").JsonAsync();
        (client.Text("name"), client.Text("email")).ShouldBe(("Ada Ask", "ada@bakes.example"));
        client.GetProperty("people").EnumerateArray().Select(one => one.Text("name")).ShouldBe(["Robin Ask", "Tilda Brackenridge"]);
        client.GetProperty("timeline")[0].Text("sentence").ShouldBe("Maren Tolliver made Ada Ask the main contact.");
        (await owner.PutAsync($"/api/clients/{id}/main-contact", Body(new { people, person = 1 }))).StatusCode.ShouldBe(
            HttpStatusCode.Conflict,
            "pressed a second time it is not handed on once more"
        );

        var back = written.Select(one => new
        {
            field = one.Text("field"),
            was = one.GetProperty("now"),
            now = one.GetProperty("was"),
        });
        (await owner.PutAsync($"/api/clients/{id}/values", Body(back))).EnsureSuccessStatusCode();
        (
            await owner.PutAsync(
                $"/api/clients/{id}/values/client.people",
                Body(
                    new
                    {
                        projectId = (Guid?)null,
                        was = people,
                        now = (Answer?)null,
                    }
                )
            )
        ).EnsureSuccessStatusCode();
        (await ValuesAsync(app, id)).ShouldBe(before, ignoreOrder: true);

        static AnswerRow Person(string given, string email) =>
            new(new Dictionary<string, Answer?> { ["name"] = new PersonNameAnswer(given, "Ask"), ["email"] = new TextAnswer(email) });

        async Task WriteAsync(AnswerRow[] rows) =>
            (
                await owner.PutAsync(
                    $"/api/clients/{id}/values/client.people",
                    Body(
                        new
                        {
                            projectId = (Guid?)null,
                            was = (Answer?)null,
                            now = (Answer)new RowsAnswer(rows),
                        }
                    )
                )
            ).EnsureSuccessStatusCode();

        async Task<JsonElement> PeopleAsync() =>
            (await owner.GetAsync($"/api/clients/{id}").JsonAsync())
                .GetProperty("fields")
                .EnumerateArray()
                .Single(one => one.GetProperty("field").Text("key") == "client.people")
                .GetProperty("value");
    }

    private static async Task<Dictionary<string, string>> ValuesAsync(TestApp app, Core.Common.Id<Records.Client> id) =>
        await app.AskAsync(async db =>
            (await db.FieldValues.Where(value => value.ClientId == id && value.IsCurrent).ToListAsync()).ToDictionary(
                value => value.Field,
                value => JsonSerializer.Serialize(value.Value, Storage.Json.Options)
            )
        );

    private static object Head(string title, string stage, Guid? looksAfter = null) =>
        new
        {
            title,
            stage,
            looksAfter,
        };

    private static async Task MoveAsync(TestApp app, string path, string from, string to) =>
        (
            await app.Owner().PutAsync(path, Body(new { was = Head("A wall to paint", from), now = Head("A wall to paint", to) }))
        ).EnsureSuccessStatusCode();

    private static async Task<JsonElement> ClientAsync(TestApp app)
    {
        var id = await app.AskAsync(db => db.Clients.Select(client => client.Id).SingleAsync());
        return await app.Owner().GetAsync($"/api/clients/{id}").JsonAsync();
    }

    private static async Task<string> ProjectPathAsync(TestApp app)
    {
        var client = await ClientAsync(app);
        return $"/api/clients/{client.Text("id")}/projects/{client.GetProperty("projects")[0].Text("id")}";
    }
}
