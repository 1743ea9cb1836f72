using System.Net;
using System.Net.Http.Json;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Conditions;
using PorchLight.Core.Inquiries;
using PorchLight.Core.Screening;
using PorchLight.Server.Forms;
using PorchLight.Server.Storage;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

/// <summary>How a form sorts: worked on, tried on past inquiries, put into force; and what people do about a fit.</summary>
public sealed class ScreeningTests
{
    [Fact]
    public async Task What_is_worked_on_sorts_nobody_until_it_is_put_into_force_and_past_inquiries_keep_their_fit()
    {
        await using var app = new TestApp();
        var (owner, form) = (app.Owner(), await MuralAsync(app));
        await app.SendAsync(Answers("first@bakes.example"));
        var was = await RulesAsync(owner, form);
        await SaveAsync(owner, form, was, was with { ComeInAt = 500 });
        await app.SendAsync(Answers("second@bakes.example"));

        var view = await owner.GetAsync($"/api/forms/{form}/screening").JsonAsync();
        view.GetProperty("changes")[0].GetString().ShouldBe("Come in begins at 500 instead of 50 points.");
        var seen = await RulesAsync(owner, form);
        for (var press = 0; press < 2; press++)
            (await owner.PostAsync($"/api/forms/{form}/screening/in-force", Body(new { seen }))).StatusCode.ShouldBe(HttpStatusCode.OK);
        await app.SendAsync(Answers("third@bakes.example"));

        var fits = await app.AskAsync(db =>
            db.Inquiries.OrderBy(one => one.Received)
                .ThenBy(one => one.Id)
                .Select(one => new
                {
                    one.Id,
                    one.Fit,
                    one.ScreeningVersion,
                })
                .ToListAsync()
        );
        fits.Select(one => (one.Fit, one.ScreeningVersion)).ShouldBe([(Fit.ComeIn, 1), (Fit.ComeIn, 1), (Fit.TalkFirst, 2)]);

        for (var press = 0; press < 2; press++)
            (await owner.PostAsync($"/api/inquiries/{fits[0].Id}/judge-again", null)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        var fit = (await owner.GetAsync($"/api/inquiries/{fits[0].Id}").JsonAsync()).GetProperty("fit");
        fit.GetProperty("fit").Text("words").ShouldBe("Talk first");
        fit.GetProperty("first").GetProperty("fit").Text("words").ShouldBe("Come in", "both are shown");
        fit.GetProperty("again").GetProperty("fit").Text("words").ShouldBe("Talk first");
        fit.GetProperty("canJudgeAgain").GetBoolean().ShouldBeFalse();
    }

    [Fact]
    public async Task Who_came_while_the_form_sorted_nobody_is_sorted_in_one_press_and_has_a_row_of_their_own_before()
    {
        await using var app = new TestApp();
        var (owner, form) = (app.Owner(), await MuralAsync(app));
        var was = await RulesAsync(owner, form);
        await PutAsync(owner, form, was, was with { Signals = [] });
        foreach (var lead in new[] { "one@bakes.example", "two@bakes.example" })
            await app.SendAsync(Answers(lead));
        (await app.AskAsync(db => db.Inquiries.CountAsync(one => one.Fit == null))).ShouldBe(2);
        var sort = $"/api/forms/{form}/screening/sort-unsorted";
        (await (await owner.PostAsync(sort, null)).SentenceAsync()).ShouldStartWith("This form sorts nobody yet.");

        await PutAsync(owner, form, was with { Signals = [] }, was);
        var report = await owner.PostAsync($"/api/forms/{form}/screening/sort-again", Body(new { rules = was })).JsonAsync();
        report.Text("movesWords").ShouldBe("2 would be sorted for the first time.");
        report
            .GetProperty("unsorted")
            .EnumerateArray()
            .Select(one => (one.Text("to"), one.GetProperty("count").GetInt32()))
            .ShouldBe([("comeIn", 2), ("talkFirst", 0), ("notNow", 0)]);

        (await owner.PostAsync(sort, null).JsonAsync()).GetProperty("count").GetInt32().ShouldBe(2);
        (await owner.PostAsync(sort, null).JsonAsync()).GetProperty("count").GetInt32().ShouldBe(0, "nobody is left");
        (await app.AskAsync(db => db.Inquiries.Select(one => one.Fit).ToListAsync())).ShouldBe([Fit.ComeIn, Fit.ComeIn]);
        (await app.AskAsync(db => db.Events.Select(one => one.What).ToListAsync())).OfType<JudgedAgain>().Count().ShouldBe(2);
    }

    private static async Task PutAsync(HttpClient owner, Id<Form> form, ScreeningRules was, ScreeningRules now)
    {
        await SaveAsync(owner, form, was, now);
        var seen = await RulesAsync(owner, form);
        (await owner.PostAsync($"/api/forms/{form}/screening/in-force", Body(new { seen }))).EnsureSuccessStatusCode();
    }

    [Fact]
    public async Task What_cannot_work_is_kept_named_and_not_put_into_force()
    {
        await using var app = new TestApp();
        var (owner, form) = (app.Owner(), await MuralAsync(app));
        var was = await RulesAsync(owner, form);
        var broken = was with
        {
            Floor = 80,
            Signals =
            [
                .. was.Signals,
                new Signal("gone", "Asked for nothing", new IsCondition(new AnswerTo("nothing"), "x"), new FlagEffect()),
                new Signal("much", "Far too much", new AllCondition([]), new PointsEffect(99_999)),
            ],
        };
        await SaveAsync(owner, form, was, broken);
        var seen = await RulesAsync(owner, form);
        seen.Signals.Select(signal => signal.Key).ShouldBe(broken.Signals.Select(signal => signal.Key), "nothing is lost");

        var refused = await owner.PostAsync($"/api/forms/{form}/screening/in-force", Body(new { seen }));
        refused.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await refused.PlacesAsync()).ShouldBe(["floor", "much", "gone"]);
        (await app.AskAsync(db => db.ScreeningVersions.CountAsync(version => version.FormId == form))).ShouldBe(1);

        (await owner.PostAsync($"/api/forms/{form}/screening/sort-again", Body(new { rules = broken }))).StatusCode.ShouldBe(
            HttpStatusCode.UnprocessableEntity
        );
        await owner.DeleteAsync($"/api/forms/{form}/screening");
        (await RulesAsync(owner, form)).Floor.ShouldBe(was.Floor, "the one in force is what is seen again");
    }

    [Fact]
    public async Task Two_people_work_on_one_screening_and_neither_undoes_the_other_unseen()
    {
        await using var app = new TestApp();
        var (owner, member, form) = (app.Owner(), app.Member(), await MuralAsync(app));
        var was = await RulesAsync(owner, form);
        await SaveAsync(owner, form, was, With(was, "decides", 25));
        await SaveAsync(member, form, was, With(was, "referral", 20));
        var both = await RulesAsync(owner, form);
        both.Signals.Where(signal => signal.Key is "decides" or "referral")
            .Select(signal => signal.Effect)
            .ShouldBe([new PointsEffect(25), new PointsEffect(20)]);

        var clash = await owner.PutAsync($"/api/forms/{form}/screening", Body(new { was, now = With(was, "decides", 5) }));
        clash.StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await owner.PostAsync($"/api/forms/{form}/screening/in-force", Body(new { seen = was }))).StatusCode.ShouldBe(
            HttpStatusCode.Conflict,
            "what is put into force is what was seen"
        );

        static ScreeningRules With(ScreeningRules rules, string key, int points) =>
            rules with
            {
                Signals =
                [
                    .. rules.Signals.Select(signal => signal.Key == key ? signal with { Effect = new PointsEffect(points) } : signal),
                ],
            };
    }

    [Fact]
    public async Task Sorting_again_counts_moves_outcomes_and_calls_as_one_counts_them_by_hand()
    {
        await using var app = new TestApp();
        var (owner, form) = (app.Owner(), await MuralAsync(app));
        // Budgets and what became of them: booked, lost after a call, declined, open.
        (string Budget, string? Stage)[] sent =
        [
            ("4000-9000", "booked"),
            ("1500-4000", "finished"),
            ("1500-4000", "lost"),
            ("4000-9000", "declined"),
            ("over-9000", null),
        ];
        foreach (var (one, index) in sent.Select((one, index) => (one, index)))
        {
            await app.SendAsync(Answers($"lead{index}@bakes.example", one.Budget));
            var project = await app.AskAsync(async db =>
                (
                    await db
                        .Projects.Join(
                            db.Clients,
                            project => project.ClientId,
                            client => client.Id,
                            (project, client) => new { project, client.Email }
                        )
                        .SingleAsync(both => both.Email == $"lead{index}@bakes.example")
                ).project
            );
            var was = new
            {
                title = project.Title,
                stage = project.Stage,
                looksAfter = (Guid?)null,
            };
            foreach (
                var stage in one.Stage is null ? Array.Empty<string>()
                : one.Stage == "declined" ? ["declined"]
                : ["talking", one.Stage]
            )
            {
                var now = was with { stage = stage };
                (
                    await owner.PutAsync($"/api/clients/{project.ClientId}/projects/{project.Id}", Body(new { was, now }))
                ).StatusCode.ShouldBe(HttpStatusCode.OK);
                was = now;
            }
        }

        var rules = await RulesAsync(owner, form);
        // Nobody under 50 points: those with a middle budget are now turned away.
        var report = await owner
            .PostAsync($"/api/forms/{form}/screening/sort-again", Body(new { rules = rules with { Floor = 50 } }))
            .JsonAsync();
        var moves = report.GetProperty("moves").EnumerateArray().Where(move => move.GetProperty("count").GetInt32() > 0).ToList();
        moves
            .Select(move =>
                (move.Text("from"), move.Text("to"), move.GetProperty("count").GetInt32(), move.GetProperty("booked").GetInt32())
            )
            .ShouldBe([("comeIn", "comeIn", 3, 1), ("talkFirst", "notNow", 2, 1)]);
        report.Text("movesWords").ShouldBe("Nobody would move up, 2 down.");
        report.Text("turnedAway").ShouldBe("It would have turned away 1 of 2 booked.");
        report.Text("saved").ShouldBe("About 2 hours of first calls would not have been held.");
        report.Text("history").ShouldStartWith("Too little history to trust these numbers: 2 booked, 1 not booked.");
        report.Text("history").ShouldEndWith("1 you declined yourselves are left out: they could never be booked.");
        report.GetProperty("suggested").ValueKind.ShouldBe(System.Text.Json.JsonValueKind.Null);
        (await app.AskAsync(db => db.Inquiries.CountAsync(one => one.Fit == Fit.NotNow))).ShouldBe(0, "nothing of it is kept");

        (await owner.PutAsync("/api/settings/first-call", Body(new { minutes = 0 }))).StatusCode.ShouldBe(
            HttpStatusCode.UnprocessableEntity
        );
        await owner.PutAsync("/api/settings/first-call", Body(new { minutes = 15 }));
        (await owner.PostAsync($"/api/forms/{form}/screening/sort-again", Body(new { rules = rules with { Floor = 50 } })).JsonAsync())
            .Text("saved")
            .ShouldBe("30 minutes of first calls would not have been held.");
    }

    [Fact]
    public async Task A_person_sorts_otherwise_with_a_reason_beside_what_the_answers_say_and_takes_it_back()
    {
        await using var app = new TestApp();
        var (owner, member) = (app.Owner(), app.Member());
        await app.SendAsync(Answers());
        var inquiry = await app.AskAsync(db => db.Inquiries.SingleAsync());
        var path = $"/api/inquiries/{inquiry.Id}/fit";

        var nothingSaid = await owner.PutAsync(path, Body(Choice("notNow", " ", "comeIn")));
        nothingSaid.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await nothingSaid.PlacesAsync()).ShouldBe(["reason"]);

        for (var press = 0; press < 2; press++)
            (await owner.PutAsync(path, Body(Choice("notNow", "They haggled last time", "comeIn")))).StatusCode.ShouldBe(
                HttpStatusCode.NoContent
            );
        (await member.PutAsync(path, Body(Choice("talkFirst", "Let us see", "comeIn")))).StatusCode.ShouldBe(
            HttpStatusCode.Conflict,
            "what someone else did meanwhile is not undone unseen"
        );
        var view = await owner.GetAsync($"/api/inquiries/{inquiry.Id}").JsonAsync();
        var fit = view.GetProperty("fit");
        (fit.GetProperty("fit").Text("words"), fit.GetProperty("first").GetProperty("fit").Text("words"), fit.Text("reason")).ShouldBe(
            ("Not now", "Come in", "They haggled last time")
        );
        view.GetProperty("timeline")
            .EnumerateArray()
            .Count(entry => entry.Text("sentence") == "Maren Tolliver sorted it as Not now.")
            .ShouldBe(1);
        (await app.AskAsync(db => db.Inquiries.SingleAsync())).Fit.ShouldBe(Fit.NotNow, "lists show what the person chose");

        for (var press = 0; press < 2; press++)
            (await owner.DeleteAsync(path)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await app.AskAsync(db => db.Inquiries.SingleAsync())).Fit.ShouldBe(Fit.ComeIn);
        (await app.AskAsync(db => db.OverruledFits.CountAsync())).ShouldBe(0);

        static object Choice(string fit, string reason, string seen) =>
            new
            {
                fit,
                reason,
                seen,
            };
    }

    [Fact]
    public async Task The_fit_so_far_grows_certain_while_one_answers()
    {
        await using var app = new TestApp();
        var (owner, form) = (app.Owner(), await MuralAsync(app));
        var answers = new Dictionary<string, Answer?>();
        (await SoFarAsync()).ShouldStartWith("From Not now to Come in, ");
        foreach (var (key, answer) in Answers())
            answers[key] = answer;
        var late = await SoFarAsync();
        late.ShouldStartWith("Come in for certain, ");
        late.ShouldContain(" to ", customMessage: "when it is wanted, and how they found the studio, still add and take points");

        async Task<string> SoFarAsync() =>
            (await owner.PostAsync($"/api/forms/{form}/fit-so-far", Body(new { answers })).JsonAsync()).Text("words");
    }

    private static async Task<Id<Form>> MuralAsync(TestApp app) =>
        (await app.AskAsync(db => db.Forms.ToListAsync())).MinBy(form => form.Id.Value)!.Id;

    private static async Task<ScreeningRules> RulesAsync(HttpClient by, Id<Form> form) =>
        (await by.GetFromJsonAsync<ScreeningView>($"/api/forms/{form}/screening", Json.Options))!.Rules;

    private static async Task SaveAsync(HttpClient by, Id<Form> form, ScreeningRules was, ScreeningRules now) =>
        (await by.PutAsync($"/api/forms/{form}/screening", Body(new { was, now }))).StatusCode.ShouldBe(HttpStatusCode.OK);
}
