using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Answers;
using PorchLight.Core.Conditions;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Core.Screening;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

/// <summary>What an inquiry is about, and what is known of who sends it.</summary>
public sealed class ProjectAssignmentTests
{
    private static readonly FormContent Site = new(
        "Site and access",
        "",
        [
            new Page(
                "one",
                "One",
                [
                    new Question("email", "Mail?", new EmailKind()) { LandsIn = new SetField(BuiltInFields.Email.Key) },
                    new Question("key", "Who has the key?", new ShortTextKind()),
                ]
            ),
        ],
        [],
        new SendOff("end", "Thanks", "Thanks.")
    );

    [Fact]
    public async Task A_second_wall_is_a_second_project_or_more_about_the_first_as_the_form_says()
    {
        await using var app = new TestApp();
        await app.SendAsync(Answers());
        await app.SendAsync(Answers());
        (await ProjectsAsync(app)).ShouldBe(1);
        await app.ChangeFormAsync(settings => settings with { About = ProjectAssignment.NewWork });
        await app.SendAsync(Answers());
        (await ProjectsAsync(app)).ShouldBe(2);
    }

    [Fact]
    public async Task A_form_about_the_work_in_hand_joins_it_whichever_form_it_came_by()
    {
        await using var app = new TestApp();
        await app.SendAsync(Answers());
        var link = await app.MakeQuickFormAsync(
            Site,
            new FormSettings { About = ProjectAssignment.WorkInHand, Guard = new SpamGuard(LeastSeconds: 0) }
        );
        (
            await app.SendAsync(link, new() { ["email"] = new TextAnswer("tilda@bakes.example"), ["key"] = new TextAnswer("The baker") })
        ).EnsureSuccessStatusCode();
        (await ProjectsAsync(app)).ShouldBe(1);
        (await app.AskAsync(db => db.Inquiries.Select(inquiry => inquiry.ProjectId).Distinct().CountAsync())).ShouldBe(1);
    }

    [Fact]
    public async Task A_form_that_sorts_nothing_speaks_of_no_fit_anywhere()
    {
        await using var app = new TestApp();
        var link = await app.MakeQuickFormAsync(Site);
        (await app.SendAsync(link, new() { ["email"] = new TextAnswer("tilda@bakes.example") })).EnsureSuccessStatusCode();
        var owner = app.Owner();
        var row = (await owner.WholeListAsync("/api/inquiries")).GetProperty("rows")[0];
        row.GetProperty("fit").ValueKind.ShouldBe(JsonValueKind.Null);
        var view = await owner.GetAsync($"/api/inquiries/{row.Text("id")}").JsonAsync();
        view.GetProperty("fit").ValueKind.ShouldBe(JsonValueKind.Null);
        view.GetProperty("timeline")
            .EnumerateArray()
            .Select(entry => entry.Text("sentence"))
            .ShouldContain("tilda@bakes.example sent “Site and access”.");
    }

    [Fact]
    public async Task A_signal_sees_what_is_on_file_of_the_client_and_the_way_through_the_form_does_not()
    {
        await using var app = new TestApp();
        await app.SendAsync(Answers());
        var known = new IsAnsweredCondition(new ValueOnFile("client.phone"));
        var screening = new ScreeningRules(0, 10, 0, 1, [new Signal("known", "Their phone is on file", known, new PointsEffect(20))]);
        var link = await app.MakeQuickFormAsync(
            Site with
            {
                Pages =
                [
                    .. Site.Pages,
                    new Page("two", "Only for whom we know", [new Question("more", "More?", new ShortTextKind()) { Required = true }])
                    {
                        ShownOnlyWhen = known,
                    },
                ],
            },
            screening: screening
        );
        foreach (var (email, fit) in new[] { ("tilda@bakes.example", Fit.ComeIn), ("stranger@bakes.example", Fit.TalkFirst) })
        {
            (await app.SendAsync(link, new() { ["email"] = new TextAnswer(email) })).EnsureSuccessStatusCode();
            (await app.AskAsync(db => db.Inquiries.OrderBy(inquiry => inquiry.Id).LastAsync())).Fit.ShouldBe(
                fit,
                "nobody can find out by typing an address what we know: the page stays hidden"
            );
        }
    }

    [Fact]
    public async Task What_would_change_a_fit_counts_what_was_on_file_then_and_not_what_came_later()
    {
        await using var app = new TestApp();
        await app.SendAsync(Answers());
        var soon = new Question("soon", "Is it soon?", new YesNoKind());
        var link = await app.MakeQuickFormAsync(
            Site with
            {
                Pages = [.. Site.Pages, new Page("two", "When", [soon])],
            },
            screening: new ScreeningRules(
                0,
                30,
                0,
                1,
                [
                    new Signal(
                        "known",
                        "Their phone is on file",
                        new IsAnsweredCondition(new ValueOnFile("client.phone")),
                        new PointsEffect(20)
                    ),
                    new Signal("soon", "It is soon", new IsCondition(new AnswerTo("soon"), "yes"), new PointsEffect(10)),
                ]
            )
        );
        (await ChangeAsync("tilda@bakes.example")).ShouldBe("It would become Come in if “Is it soon?” were “Yes”.");
        (await ChangeAsync("stranger@bakes.example")).ShouldBeNull("without the phone it is not enough");
        var stranger = await app.AskAsync(db => db.Inquiries.OrderBy(inquiry => inquiry.Id).LastAsync());
        var later = Answers();
        later["email"] = new TextAnswer("stranger@bakes.example");
        app.Time.Advance(TimeSpan.FromMinutes(1));
        (await app.SendAsync(later)).EnsureSuccessStatusCode();
        (await FindAsync(stranger)).ShouldBeNull("the phone came later");

        async Task<string?> ChangeAsync(string email)
        {
            (
                await app.SendAsync(link, new() { ["email"] = new TextAnswer(email), ["soon"] = new YesNoAnswer(false) })
            ).EnsureSuccessStatusCode();
            return await FindAsync(await app.AskAsync(db => db.Inquiries.OrderBy(inquiry => inquiry.Id).LastAsync()));
        }

        async Task<string?> FindAsync(Server.Inquiries.Inquiry inquiry) =>
            (await app.Owner().GetAsync($"/api/inquiries/{inquiry.Id}/what-would-change").JsonAsync()).GetProperty("sentence").GetString();
    }

    private static Task<int> ProjectsAsync(TestApp app) => app.AskAsync(db => db.Projects.CountAsync());
}
