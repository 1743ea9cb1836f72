using System.Net;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Inquiries;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Tests.Crash;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

/// <summary>The inquiries as a list one works in, and the stages their projects stand in.</summary>
public sealed class InquiryListTests
{
    [Fact]
    public async Task The_list_is_grouped_by_what_they_need_filtered_searched_and_put_in_order()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        var people = await SendThreeAsync(app);
        await owner.PostAsync($"/api/inquiries/{people["Anna"]}/answered-elsewhere", null);

        var all = await FindAsync(owner, new InquiryQuery());
        Groups(all).ShouldBe([("Waiting for you", 2), ("Waiting for them", 1)]);
        Names(all)[^1].ShouldBe("Anna Ames");
        var anna = all.GetProperty("rows").EnumerateArray().Last();
        (anna.Text("budget"), anna.Text("stageName"), anna.Text("about")).ShouldBe(("4,000 to 9,000", "New", "Bread and gulls"));

        Names(await FindAsync(owner, new InquiryQuery { Order = InquiryOrder.Name })).ShouldBe(["Anna Ames", "Berit Bolt", "Cleo Crane"]);
        Names(await FindAsync(owner, new InquiryQuery { Order = InquiryOrder.Name, Backwards = true }))
            .ShouldBe(["Cleo Crane", "Berit Bolt", "Anna Ames"]);
        Names(await FindAsync(owner, new InquiryQuery { Order = InquiryOrder.Budget }))
            .ShouldBe(["Berit Bolt", "Anna Ames", "Cleo Crane"], "who named none comes last");
        Names(await FindAsync(owner, new InquiryQuery { Order = InquiryOrder.Score, Backwards = true }))[0].ShouldBe("Cleo Crane");
        Names(await FindAsync(owner, new InquiryQuery { Needs = [InquiryNeed.Theirs] })).ShouldBe(["Anna Ames"]);
        Names(await FindAsync(owner, new InquiryQuery { Fits = [Core.Conditions.Fit.TalkFirst] })).ShouldBe(["Cleo Crane"]);
        Names(await FindAsync(owner, new InquiryQuery { Words = "seagulls", Order = InquiryOrder.Name })).ShouldBe(["Berit Bolt"]);
        Names(await FindAsync(owner, new InquiryQuery { LookedAfterBy = [null], Words = "ames" })).ShouldBe(["Anna Ames"]);
        Names(await FindAsync(owner, new InquiryQuery { Services = ["A mural"] })).Count.ShouldBe(3, "the form is about murals");
        Names(await FindAsync(owner, new InquiryQuery { Stages = ["booked"] })).ShouldBeEmpty();
        (await owner.PostAsync("/api/inquiries/all-found", Body(new InquiryQuery { Words = "bolt" })).JsonAsync())
            .GetArrayLength()
            .ShouldBe(1);
        (await owner.PostAsync("/api/inquiries/found", Asked(new InquiryQuery { Words = new string('x', 400) }))).StatusCode.ShouldBe(
            HttpStatusCode.UnprocessableEntity
        );
    }

    [Fact]
    public async Task Projects_move_from_stage_to_stage_together_or_not_at_all_and_back_again()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        var people = await SendThreeAsync(app);
        var until = (await app.AskAsync(db => db.BusinessAsync()))
            .Calendar.Today(Instant.FromDateTimeOffset(app.Time.GetUtcNow()))
            .PlusDays(20);

        var gone = await MoveAsync(owner, (people["Anna"], "lost", null, "Plans changed"), (people["Berit"], "no-such-stage", null, null));
        gone.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await StagesAsync(app)).ShouldBe(["new", "new", "new"], "all or none");
        var past = await MoveAsync(owner, (people["Anna"], "parked", until.PlusDays(-30), null));
        (await past.PlacesAsync()).ShouldBe(["until"]);

        var unasked = await owner.PutAsync(
            "/api/inquiries/stages",
            Body(
                new
                {
                    moves = new[]
                    {
                        new
                        {
                            inquiry = people["Berit"],
                            stage = "parked",
                            until,
                            reason = (string?)null,
                        },
                    },
                }
            )
        );
        (await unasked.PlacesAsync()).ShouldBe(["answered"], "a first reply is still promised");

        var moved = await MoveAsync(
            owner,
            (people["Anna"], "lost", null, "Plans changed"),
            (people["Berit"], "parked", until, null),
            (people["Cleo"], "booked", null, null)
        );
        var back = (await moved.JsonAsync()).GetProperty("moves");
        (await StagesAsync(app)).ShouldBe(["lost", "parked", "booked"]);
        await app.AskAsync(async db =>
        {
            (await db.Projects.SingleAsync(project => project.Stage == "lost")).LostReason.ShouldBe("Plans changed");
            (await db.Projects.SingleAsync(project => project.Stage == "lost")).Closed.ShouldNotBeNull();
            (await db.Clients.SingleAsync(client => client.Name == "Cleo Crane")).Standing.ShouldBe(Core.Records.Standing.Active);
            await DataConsistency.ShouldBeSoundAsync(db, "after moving");
            return 0;
        });

        (await owner.PutAsync("/api/inquiries/stages", Body(new { moves = back }))).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await StagesAsync(app)).ShouldBe(["new", "new", "new"], "taken back");

        var moves = await (await MoveAsync(owner, (people["Anna"], "talking", null, null))).JsonAsync();
        await MoveAsync(app.Member(), (people["Anna"], "booked", null, null));
        var late = await owner.PutAsync("/api/inquiries/stages", Body(new { moves = moves.GetProperty("moves") }));
        (late.StatusCode, (await StagesAsync(app))[0]).ShouldBe(
            (HttpStatusCode.Conflict, "booked"),
            "nobody takes back unseen what another did"
        );
    }

    [Fact]
    public async Task What_is_parked_comes_back_by_itself_on_its_day()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        var people = await SendThreeAsync(app);
        await owner.PostAsync($"/api/inquiries/{people["Anna"]}/answered-elsewhere", null);
        var until = (await app.AskAsync(db => db.BusinessAsync()))
            .Calendar.Today(Instant.FromDateTimeOffset(app.Time.GetUtcNow()))
            .PlusDays(3);
        await MoveAsync(owner, (people["Anna"], "parked", until, null));
        Groups(await FindAsync(owner, new InquiryQuery())).ShouldContain(("Parked", 1));

        await app.PassTimeAsync(Duration.FromDays(2));
        (await StagesAsync(app))[0].ShouldBe("parked");
        await app.PassTimeAsync(Duration.FromDays(1));
        (await StagesAsync(app))[0].ShouldBe("new");
        var view = await owner.GetAsync($"/api/inquiries/{people["Anna"]}").JsonAsync();
        view.GetProperty("timeline").GetRawText().ShouldContain("was parked until today and is back: New.");
        (await owner.GetAsync("/api/bell").JsonAsync()).GetProperty("entries").GetRawText().ShouldContain("is back");
    }

    [Fact]
    public async Task A_view_is_kept_under_a_name_and_the_table_holds_what_the_list_shows()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        await SendThreeAsync(app);
        var query = new InquiryQuery { Words = "a", Order = InquiryOrder.Name };
        for (var press = 0; press < 2; press++)
            (await owner.PutAsync("/api/inquiries/views", Body(new { name = " By name ", query }))).StatusCode.ShouldBe(HttpStatusCode.OK);
        var view = (await owner.GetAsync("/api/inquiries/choices").JsonAsync())
            .GetProperty("views")
            .EnumerateArray()
            .ShouldHaveSingleItem();
        (view.Text("name"), view.GetProperty("query").Text("order")).ShouldBe(("By name", "name"));
        (await owner.PutAsync("/api/inquiries/views", Body(new { name = " ", query }))).StatusCode.ShouldBe(
            HttpStatusCode.UnprocessableEntity
        );

        var address = Uri.EscapeDataString("""{"order":"name"}""");
        var lines = Rfc4180.Read(await owner.GetStringAsync($"/api/inquiries.csv?query={address}"));
        lines.Count.ShouldBe(4);
        var line = lines[1];
        string Cell(string heading) => line[lines[0].IndexOf(heading)];
        (Cell("Name"), Cell("Fit"), Cell("Needs"), Cell("Stage"), Cell("Outcome"), Cell("Budget"), Cell("About")).ShouldBe(
            ("Anna Ames", "Come in", "Waiting for you", "New", "open", "4,000 to 9,000", "Bread and gulls")
        );
        (await owner.GetAsync("/api/inquiries.csv?query=nonsense")).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);

        await owner.DeleteAsync($"/api/inquiries/views/{view.Text("id")}");
        (await owner.GetAsync("/api/inquiries/choices").JsonAsync()).GetProperty("views").GetArrayLength().ShouldBe(0);
    }

    [Fact]
    public async Task A_quick_reply_goes_once_keeps_the_promise_and_moves_the_project_or_does_nothing_at_all()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        await SendThreeAsync(app);
        var anna = (await app.AskAsync(db => db.Inquiries.OrderBy(one => one.Received).FirstAsync())).Id;
        var path = $"/api/inquiries/{anna}/quick-replies";
        var view = await owner.GetAsync(path).JsonAsync();
        var replies = view.GetProperty("replies").EnumerateArray().ToDictionary(reply => reply.Text("kind"));
        replies["noForPrice"]
            .GetProperty("draft")
            .GetRawText()
            .ShouldContain("starts at 1,500 EUR with us", customMessage: "the service says so");
        view.GetProperty("colleagues")[0].Text("sentence").ShouldStartWith("Quill & Batten: ");

        var withGap = await owner.PostAsync(
            path,
            Body(
                new
                {
                    draft = replies["askBack"].GetProperty("draft"),
                    stage = "talking",
                    until = (string?)null,
                }
            )
        );
        withGap.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await withGap.PlacesAsync()).ShouldBe(["question"]);
        var past = await owner.PostAsync(
            path,
            Body(
                new
                {
                    draft = replies["comeBack"].GetProperty("draft"),
                    stage = "parked",
                    until = "2020-01-01",
                }
            )
        );
        (await past.PlacesAsync()).ShouldBe(["until"]);
        (await app.AskAsync(db => db.OutgoingMail.CountAsync(mail => !mail.Automatic))).ShouldBe(0, "nothing went");
        (await StagesAsync(app))[0].ShouldBe("new");

        var until = replies["comeBack"].Text("until");
        (
            await owner.PostAsync(
                path,
                Body(
                    new
                    {
                        draft = replies["comeBack"].GetProperty("draft"),
                        stage = "parked",
                        until,
                    }
                )
            )
        ).StatusCode.ShouldBe(HttpStatusCode.OK);
        await app.WorkAsync();
        (await app.MailToAsync("anna@leads.example")).ShouldContain("we will write to you again in the week of");
        await app.AskAsync(async db =>
        {
            var inquiry = await db.Inquiries.SingleAsync(one => one.Id == anna);
            (inquiry.PromiseStopped is not null, inquiry.Need).ShouldBe((true, InquiryNeed.Parked));
            (await db.Projects.SingleAsync(project => project.Id == inquiry.ProjectId)).ParkedUntil.ShouldNotBeNull();
            return 0;
        });
    }

    /// <summary>Anna with a middle budget, Berit with a large one who writes of seagulls, Cleo who does not know hers.</summary>
    private static async Task<Dictionary<string, Id<Inquiry>>> SendThreeAsync(TestApp app)
    {
        await app.ChangeAsync(async db => (await db.Forms.ToListAsync()).MinBy(form => form.Id.Value)!.Service = "mural");
        foreach (
            var (given, family, budget, what) in new[]
            {
                ("Anna", "Ames", "4000-9000", "Bread and gulls"),
                ("Berit", "Bolt", "over-9000", "Only seagulls"),
                ("Cleo", "Crane", "unsure", "A hall"),
            }
        )
        {
            var answers = Answers($"{given}@leads.example".ToLowerInvariant(), budget);
            answers["name"] = new PersonNameAnswer(given, family);
            answers["what"] = new TextAnswer(what);
            answers["phone"] = null;
            (await app.SendAsync(answers)).StatusCode.ShouldBe(HttpStatusCode.OK);
            app.Time.Advance(TimeSpan.FromMinutes(1));
        }

        return await app.AskAsync(async db =>
            (
                await db
                    .Inquiries.Join(
                        db.Clients,
                        inquiry => inquiry.ClientId,
                        client => client.Id,
                        (inquiry, client) => new { inquiry.Id, client.Name }
                    )
                    .ToListAsync()
            ).ToDictionary(one => one.Name.Split(' ')[0], one => one.Id)
        );
    }

    private static async Task<JsonElement> FindAsync(HttpClient owner, InquiryQuery query) =>
        await owner.FoundAsync("/api/inquiries", query);

    private static List<string> Names(JsonElement found) => [.. found.GetProperty("rows").EnumerateArray().Select(row => row.Text("name"))];

    private static List<(string, int)> Groups(JsonElement found) =>
        [.. found.GetProperty("groups").EnumerateArray().Select(group => (group.Text("words"), group.GetProperty("count").GetInt32()))];

    private static Task<HttpResponseMessage> MoveAsync(
        HttpClient owner,
        params (Id<Inquiry> Inquiry, string Stage, LocalDate? Until, string? Reason)[] moves
    ) =>
        owner.PutAsync(
            "/api/inquiries/stages",
            Body(
                new
                {
                    moves = moves.Select(move => new
                    {
                        inquiry = move.Inquiry,
                        stage = move.Stage,
                        until = move.Until,
                        reason = move.Reason,
                        answered = move.Stage == "parked" ? true : (bool?)null,
                    }),
                }
            )
        );

    /// <summary>The stages of Anna's, Berit's and Cleo's projects.</summary>
    private static Task<List<string>> StagesAsync(TestApp app) =>
        app.AskAsync(db =>
            db.Projects.Join(
                    db.Clients,
                    project => project.ClientId,
                    client => client.Id,
                    (project, client) => new { project.Stage, client.Name }
                )
                .OrderBy(one => one.Name)
                .Select(one => one.Stage)
                .ToListAsync()
        );
}
