using System.Net;
using Microsoft.AspNetCore.SignalR.Client;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Answers;
using PorchLight.Core.Conditions;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

public sealed class OwnerTests
{
    [Fact]
    public async Task An_edit_is_kept_apart_until_it_is_published_as_a_new_version()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        var id = await FormIdAsync(owner);
        var link = await app.LinkAsync();
        var saved = await app.SaveContentAsync(owner, id, content => content with { Title = "A wall of yours" }).JsonAsync();
        saved.GetProperty("revision").GetInt32().ShouldBe(2);
        (await owner.GetAsync($"/api/forms/{id}").JsonAsync()).GetProperty("unpublishedChanges").GetBoolean().ShouldBeTrue();
        (await app.CreateClient().GetAsync($"/public/forms/{link}").JsonAsync()).Text("title").ShouldBe("A wall to paint");

        (await owner.PostAsync($"/api/forms/{id}/publish", null)).EnsureSuccessStatusCode();
        (await owner.PostAsync($"/api/forms/{id}/publish", null)).EnsureSuccessStatusCode();
        var shown = await app.CreateClient().GetAsync($"/public/forms/{link}").JsonAsync();
        (shown.Text("title"), shown.GetProperty("form").GetProperty("version").GetInt32()).ShouldBe(("A wall of yours", 2));
    }

    [Fact]
    public async Task Who_goes_on_writing_after_publishing_clashes_with_nobody_over_a_blank_at_the_end()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        var id = await FormIdAsync(owner);
        (await app.SaveContentAsync(owner, id, content => content with { Title = "A wall " })).EnsureSuccessStatusCode();
        var written = await app.ContentAsync(id);
        (await owner.PostAsync($"/api/forms/{id}/publish", null)).EnsureSuccessStatusCode();
        (await app.CreateClient().GetAsync($"/public/forms/{await app.LinkAsync()}").JsonAsync()).Text("title").ShouldBe("A wall");
        (await app.SaveContentAsync(owner, id, content => content with { Title = "A wall of yours" }, written)).EnsureSuccessStatusCode();
    }

    [Fact]
    public async Task Two_edits_of_the_same_words_are_refused_with_both_versions_and_change_nothing()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        var id = await FormIdAsync(owner);
        var found = await app.ContentAsync(id);
        (await app.SaveContentAsync(owner, id, content => content with { Title = "First" }, found)).EnsureSuccessStatusCode();
        var stale = await app.SaveContentAsync(owner, id, content => content with { Title = "Second" }, found);
        stale.StatusCode.ShouldBe(HttpStatusCode.Conflict);
        var problem = await stale.JsonAsync();
        problem.Text("detail").ShouldContain("another window");
        var clash = problem.GetProperty("clashes").EnumerateArray().Single();
        (clash.Text("place"), clash.Text("theirs"), clash.Text("yours")).ShouldBe(("title", "First", "Second"));
        (await owner.GetAsync($"/api/forms/{id}").JsonAsync()).Text("title").ShouldBe("First");
    }

    [Fact]
    public async Task Two_edits_of_different_words_are_both_kept()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        var id = await FormIdAsync(owner);
        var found = await app.ContentAsync(id);
        (await app.SaveContentAsync(owner, id, content => content with { Title = "A wall of yours" }, found)).EnsureSuccessStatusCode();
        (
            await app.SaveContentAsync(owner, id, content => content.Reworded("what", "What shall we paint?"), found)
        ).EnsureSuccessStatusCode();
        var both = await app.ContentAsync(id);
        both.Title.ShouldBe("A wall of yours");
        both.FindQuestion("what")!.Wording.ShouldBe("What shall we paint?");
    }

    [Fact]
    public async Task A_form_that_cannot_work_is_not_published_and_the_places_are_named()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        var id = await FormIdAsync(owner);
        (await app.SaveContentAsync(owner, id, content => content.Reworded("what", "") with { Title = " " })).EnsureSuccessStatusCode();
        var refused = await owner.PostAsync($"/api/forms/{id}/publish", null);
        refused.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await refused.PlacesAsync()).ShouldBe(["title", "what"]);
    }

    [Fact]
    public async Task The_link_and_the_embed_code_lead_to_the_form_and_the_light_can_be_switched()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        var id = await FormIdAsync(owner);
        var form = await owner.GetAsync($"/api/forms/{id}").JsonAsync();
        var token = await app.LinkAsync();
        var sharing = form.GetProperty("sharing");
        sharing.Text("link").ShouldBe($"http://localhost/f/{token}");
        sharing
            .Text("inline")
            .ShouldBe(
                $"<div data-porch-light=\"{token}\" data-title=\"A wall to paint\"></div>\n<script src=\"http://localhost/embed.js\" async></script>"
            );
        (await owner.PostAsync($"/api/forms/{id}/light", Body(new { on = false }))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await owner.GetAsync("/api/forms").JsonAsync())[0].GetProperty("shines").GetBoolean().ShouldBeFalse();
    }

    [Fact]
    public async Task A_reply_goes_out_and_keeps_the_promise()
    {
        await using var app = new TestApp();
        await app.SendAsync(Answers());
        var owner = app.Owner();
        var id = (await owner.WholeListAsync("/api/inquiries")).GetProperty("rows")[0].Text("id");
        (await owner.PostAsync($"/api/inquiries/{id}/reply", Body(Written("Hello", " ")))).StatusCode.ShouldBe(
            HttpStatusCode.UnprocessableEntity
        );
        app.Time.Advance(TimeSpan.FromHours(3));
        (
            await owner.PostAsync($"/api/inquiries/{id}/reply", Body(Written("Hello\r\nBcc: x@y.example", "Dear Tilda")))
        ).EnsureSuccessStatusCode();
        await app.WorkAsync();
        (await app.AskAsync(db => db.PracticeMail.OrderBy(mail => mail.At).LastAsync())).Subject.ShouldBe("Hello Bcc: x@y.example");
        (await owner.GetAsync($"/api/inquiries/{id}").JsonAsync()).Text("promise").ShouldBe("Kept: first personal reply today 13:00.");
        (await owner.GetAsync("/api/today").JsonAsync()).Text("note").ShouldBe("Nobody is waiting for a first reply.");
    }

    [Fact]
    public async Task The_client_shows_each_value_with_where_it_came_from()
    {
        await using var app = new TestApp();
        await app.SendAsync(Answers());
        var owner = app.Owner();
        var row = (await owner.WholeListAsync("/api/clients")).GetProperty("rows")[0];
        (row.Text("name"), row.Text("standing")).ShouldBe(("Tilda Brackenridge", "lead"));
        var client = await owner.GetAsync($"/api/clients/{row.Text("id")}").JsonAsync();
        var budget = client
            .GetProperty("projects")[0]
            .GetProperty("fields")
            .EnumerateArray()
            .Single(value => value.GetProperty("field").Text("label") == "Budget");
        (budget.Text("words"), budget.Text("source"), budget.Text("at")).ShouldBe(
            ("4,000 to 9,000", "Tilda Brackenridge in “A wall to paint”", "today 10:00")
        );
    }

    [Fact]
    public async Task The_bell_rings_without_being_asked_and_is_quiet_once_seen()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        var news = Listen(app);
        var rang = new TaskCompletionSource<string[]>();
        news.On<string[]>("changed", rang.SetResult);
        await news.StartAsync();
        await app.SendAsync(Answers());
        (await rang.Task.WaitAsync(TimeSpan.FromSeconds(20))).ShouldBe(["followThrough", "forms", "inquiries", "messages", "records"]);
        await news.DisposeAsync();

        var bell = await owner.GetAsync("/api/bell").JsonAsync();
        bell.GetProperty("unseen").GetInt32().ShouldBe(1);
        bell.GetProperty("entries")[0].Text("sentence").ShouldBe("Tilda Brackenridge sent “A wall to paint”: Come in.");
        await owner.PostAsync("/api/bell/seen", null);
        (await owner.GetAsync("/api/bell").JsonAsync()).GetProperty("unseen").GetInt32().ShouldBe(0);
    }

    [Fact]
    public async Task What_would_change_the_fit_is_found_for_whoever_looks()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        var answers = Answers();
        answers["budget"] = ChoiceAnswer.Of("1500-4000");
        (await app.SendAsync(answers)).EnsureSuccessStatusCode();
        (await app.SendAsync(Answers())).EnsureSuccessStatusCode();
        var inquiries = await app.AskAsync(db => db.Inquiries.OrderBy(inquiry => inquiry.Id).ToListAsync());
        inquiries.Select(inquiry => inquiry.Fit).ShouldBe([Fit.TalkFirst, Fit.ComeIn]);
        (await owner.GetAsync($"/api/inquiries/{inquiries[0].Id}/what-would-change").JsonAsync())
            .Text("sentence")
            .ShouldStartWith("It would become Come in if “");
        (await owner.GetAsync($"/api/inquiries/{inquiries[1].Id}/what-would-change").JsonAsync())
            .GetProperty("sentence")
            .ValueKind.ShouldBe(System.Text.Json.JsonValueKind.Null);
        (await owner.GetAsync($"/api/inquiries/{Guid.NewGuid()}/what-would-change")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task A_single_change_is_told_to_other_windows_by_its_area()
    {
        await using var app = new TestApp();
        await using var news = Listen(app);
        var told = new TaskCompletionSource<string[]>();
        news.On<string[]>("changed", told.SetResult);
        await news.StartAsync();
        var form = (await app.Owner().GetAsync("/api/forms").JsonAsync())[0].Text("id");
        (await app.Owner().PostAsync($"/api/forms/{form}/light", Body(new { on = false }))).EnsureSuccessStatusCode();
        (await told.Task.WaitAsync(TimeSpan.FromSeconds(20))).ShouldBe(["forms"]);
    }

    [Fact]
    public async Task Many_changes_in_a_row_ring_the_first_and_the_last()
    {
        await using var app = new TestApp();
        await using var news = Listen(app);
        var (rings, ring) = (0, new SemaphoreSlim(0));
        news.On<string[]>(
            "changed",
            _ =>
            {
                Interlocked.Increment(ref rings);
                ring.Release();
            }
        );
        await news.StartAsync();
        for (var n = 0; n < 4; n++)
            await app.SendAsync(Answers());
        (await ring.WaitAsync(TimeSpan.FromSeconds(20))).ShouldBeTrue("the first is told at once");
        app.Time.Advance(TimeSpan.FromSeconds(1));
        (await ring.WaitAsync(TimeSpan.FromSeconds(20))).ShouldBeTrue("that there was more is told after a second");
        app.Time.Advance(TimeSpan.FromSeconds(2));
        await app.SendAsync(Answers());
        (await ring.WaitAsync(TimeSpan.FromSeconds(20))).ShouldBeTrue("what comes later is told at once again");
        await news.StopAsync();
        rings.ShouldBe(3);
    }

    [Fact]
    public async Task An_open_window_hears_nothing_more_once_its_person_signed_out()
    {
        await using var app = new TestApp();
        await using var news = Listen(app);
        var closed = new TaskCompletionSource();
        news.Closed += _ =>
        {
            closed.TrySetResult();
            return Task.CompletedTask;
        };
        await news.StartAsync();
        (await app.Owner().PostAsync("/api/sign-out", null)).EnsureSuccessStatusCode();
        await closed.Task.WaitAsync(TimeSpan.FromSeconds(20));
    }

    private static HubConnection Listen(TestApp app)
    {
        var handler = app.Server.CreateHandler();
        return new HubConnectionBuilder()
            .WithUrl(
                "http://localhost/changes",
                options =>
                {
                    options.HttpMessageHandlerFactory = _ => handler;
                    options.Transports = Microsoft.AspNetCore.Http.Connections.HttpTransportType.LongPolling;
                    options.Headers["Cookie"] = app.OwnerCookies;
                }
            )
            .Build();
    }

    [Fact]
    public async Task Evaluate_checks_a_page_only_when_it_is_left_and_names_the_next()
    {
        await using var app = new TestApp();
        var link = await app.LinkAsync();
        var stranger = app.CreateClient();
        async Task<System.Text.Json.JsonElement> Ask(bool leaving, Dictionary<string, Answer?> answers) =>
            await stranger
                .PostAsync(
                    $"/public/forms/{link}/evaluate",
                    Body(
                        new
                        {
                            version = 1,
                            page = "you",
                            leaving,
                            sendKey = Guid.NewGuid(),
                            answers,
                        }
                    )
                )
                .JsonAsync();
        (await Ask(false, [])).GetProperty("findings").GetArrayLength().ShouldBe(0);
        (await Ask(true, []))
            .GetProperty("findings")
            .EnumerateArray()
            .Select(finding => finding.Text("place"))
            .ShouldBe(["name", "email", "place"]);
        var left = await Ask(true, Answers());
        (left.GetProperty("findings").GetArrayLength(), left.Text("next")).ShouldBe((0, "wall"));
    }

    [Fact]
    public async Task The_demo_is_played_through_the_same_code_and_leaves_something_to_do()
    {
        await using var app = new TestApp { SeedData = SeedData.DemoWithPeople };
        var owner = app.Owner();
        var today = await owner.GetAsync("/api/today").JsonAsync();
        today.GetProperty("promised").GetArrayLength().ShouldBeGreaterThan(2);
        today.GetProperty("nods").GetArrayLength().ShouldBeGreaterThan(0);
        (await app.AskAsync(db => db.Inquiries.Select(inquiry => inquiry.Fit).Distinct().CountAsync())).ShouldBe(3);
    }

    [Theory]
    [InlineData("2026-11-24T02:44:00Z", "a Tuesday, by night: eleven days back is a Friday")]
    [InlineData("2026-11-22T23:59:00Z", "a Sunday")]
    [InlineData("2026-10-25T01:30:00Z", "when the clocks go back")]
    [InlineData("2027-01-02T12:00:00Z", "when eleven days back all is closed")]
    public async Task The_demo_can_be_made_at_any_hour_of_any_day(string when, string because)
    {
        await using var app = new TestApp
        {
            SeedData = SeedData.DemoWithPeople,
            FromScratch = true,
            Time = new(DateTimeOffset.Parse(when, System.Globalization.CultureInfo.InvariantCulture)),
        };
        (await app.AskAsync(db => db.Inquiries.CountAsync())).ShouldBe(8, because);
    }

    private static async Task<string> FormIdAsync(HttpClient owner) => (await owner.GetAsync("/api/forms").JsonAsync())[0].Text("id");
}
