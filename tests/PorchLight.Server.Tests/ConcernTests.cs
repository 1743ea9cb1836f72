using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Forms;
using PorchLight.Core.Records;
using PorchLight.Core.Screening;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

/// <summary>What an inquiry is about, and what is known of who sends it.</summary>
public sealed class ConcernTests
{
    private static readonly FormContent Site = new("Site and access", "",
        [new Page("one", "One", [new Question("email", "Mail?", new EmailKind()) { LandsIn = new SetField(BuiltInFields.Email.Key) }, new Question("key", "Who has the key?", new ShortTextKind())])],
        [], new SendOff("end", "Thanks", "Thanks."));

    [Fact]
    public async Task A_second_wall_is_a_second_project_or_more_about_the_first_as_the_form_says()
    {
        await using var house = new TestHouse();
        await house.SendAsync(Answers());
        await house.SendAsync(Answers());
        (await ProjectsAsync(house)).ShouldBe(1);
        await house.ChangeFormAsync(settings => settings with { About = Concern.NewWork });
        await house.SendAsync(Answers());
        (await ProjectsAsync(house)).ShouldBe(2);
    }

    [Fact]
    public async Task A_form_about_the_work_in_hand_joins_it_whichever_form_it_came_by()
    {
        await using var house = new TestHouse();
        await house.SendAsync(Answers());
        var link = await house.MakeQuickFormAsync(Site, new FormSettings { About = Concern.WorkInHand, Guard = new SpamGuard(LeastSeconds: 0) });
        (await house.SendAsync(link, new() { ["email"] = new TextAnswer("tilda@bakes.example"), ["key"] = new TextAnswer("The baker") })).EnsureSuccessStatusCode();
        (await ProjectsAsync(house)).ShouldBe(1);
        (await house.AskAsync(db => db.Inquiries.Select(inquiry => inquiry.ProjectId).Distinct().CountAsync())).ShouldBe(1);
    }

    [Fact]
    public async Task A_form_that_sorts_nothing_speaks_of_no_fit_anywhere()
    {
        await using var house = new TestHouse();
        var link = await house.MakeQuickFormAsync(Site);
        (await house.SendAsync(link, new() { ["email"] = new TextAnswer("tilda@bakes.example") })).EnsureSuccessStatusCode();
        var owner = house.Owner();
        var row = (await owner.GetAsync("/api/inquiries").JsonAsync())[0];
        row.GetProperty("fit").ValueKind.ShouldBe(JsonValueKind.Null);
        var view = await owner.GetAsync($"/api/inquiries/{row.Text("id")}").JsonAsync();
        view.GetProperty("fit").ValueKind.ShouldBe(JsonValueKind.Null);
        view.GetProperty("timeline").EnumerateArray().Select(entry => entry.Text("sentence")).ShouldContain("tilda@bakes.example sent “Site and access”.");
    }

    [Fact]
    public async Task A_signal_sees_what_is_on_file_of_the_client_and_the_way_through_the_form_does_not()
    {
        await using var house = new TestHouse();
        await house.SendAsync(Answers());
        var known = new IsAnswered(new ValueOnFile("client.phone"));
        var screening = new ScreeningRules(0, 10, 0, 1, [new Signal("known", "Their phone is on file", known, new PointsEffect(20))]);
        var link = await house.MakeQuickFormAsync(
            Site with { Pages = [.. Site.Pages, new Page("two", "Only for whom we know", [new Question("more", "More?", new ShortTextKind()) { Required = true }]) { ShownOnlyWhen = known }] }, screening: screening);
        foreach (var (email, fit) in new[] { ("tilda@bakes.example", Fit.ComeIn), ("stranger@bakes.example", Fit.TalkFirst) })
        {
            (await house.SendAsync(link, new() { ["email"] = new TextAnswer(email) })).EnsureSuccessStatusCode();
            (await house.AskAsync(db => db.Inquiries.OrderBy(inquiry => inquiry.Id).LastAsync())).Fit.ShouldBe(fit, "nobody can find out by typing an address what we know: the page stays hidden");
        }
    }

    private static Task<int> ProjectsAsync(TestHouse house) => house.AskAsync(db => db.Projects.CountAsync());
}
