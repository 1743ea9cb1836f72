using System.Net;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.FollowThrough;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

/// <summary>What a lead says after they have sent, and what a person does about it outside of this program.</summary>
public sealed class IncomingWordTests
{
    [Fact]
    public async Task An_answer_stands_on_the_inquiry_with_its_words_and_today_says_that_they_wrote_back()
    {
        await using var app = new TestApp();
        var (owner, id) = await OneInquiryAsync(app);
        var mail = (await app.AskAsync(db => db.PracticeMail.SingleAsync())).Id;
        app.Time.Advance(TimeSpan.FromHours(1));
        (
            await owner.PostAsync($"/api/practice/mail/{mail}/answer", Body(new { text = "It can wait until May." }))
        ).EnsureSuccessStatusCode();

        var view = await ViewAsync(owner, id);
        view.GetProperty("timeline").EnumerateArray().Select(entry => entry.Text("words")).ShouldContain("It can wait until May.");
        view.Text("wroteBack").ShouldBe("today 11:00");
        var today = await owner.GetAsync("/api/today").JsonAsync();
        today.Text("note").ShouldBe("One person is waiting for a first reply. One person has written back.");
        today.GetProperty("promised")[0].Text("wroteBack").ShouldBe("today 11:00");

        (await owner.PostAsync($"/api/inquiries/{id}/reply", Body(Written("May", "May it is.")))).EnsureSuccessStatusCode();
        (await owner.GetAsync("/api/today").JsonAsync()).Text("note").ShouldBe("Nobody is waiting for a first reply.");
    }

    [Fact]
    public async Task A_word_after_the_first_reply_brings_them_back_to_today_until_they_are_answered()
    {
        await using var app = new TestApp();
        var (owner, id) = await OneInquiryAsync(app);
        (await owner.PostAsync($"/api/inquiries/{id}/reply", Body(Written("Your wall", "Gladly.")))).EnsureSuccessStatusCode();
        await app.WorkAsync();
        (
            await owner.PostAsync($"/api/inquiries/{id}/got-in-touch", Body(new { text = "She phoned about the scaffold." }))
        ).EnsureSuccessStatusCode();
        var row = (await owner.GetAsync("/api/today").JsonAsync()).GetProperty("promised")[0];
        (row.Text("group"), row.Text("wroteBack")).ShouldBe(("wroteBack", "today 10:00"));
        (await owner.PostAsync($"/api/inquiries/{id}/answered-elsewhere", null)).EnsureSuccessStatusCode();
        (await owner.GetAsync("/api/today").JsonAsync()).GetProperty("promised").GetArrayLength().ShouldBe(0);
        (await ViewAsync(owner, id))
            .GetProperty("timeline")
            .EnumerateArray()
            .Select(entry => entry.Text("sentence"))
            .ShouldContain("Maren Tolliver noted that Tilda Brackenridge got in touch.");
    }

    [Fact]
    public async Task Answered_elsewhere_keeps_the_promise_in_one_press()
    {
        await using var app = new TestApp();
        var (owner, id) = await OneInquiryAsync(app);
        app.Time.Advance(TimeSpan.FromHours(2));
        (await owner.PostAsync($"/api/inquiries/{id}/answered-elsewhere", null)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await ViewAsync(owner, id)).Text("promise").ShouldBe("Kept: first personal reply today 12:00.");
    }

    [Fact]
    public async Task That_they_phoned_stops_what_would_have_reminded_them()
    {
        await using var app = new TestApp();
        var (owner, id) = await OneInquiryAsync(app);
        (await owner.PostAsync($"/api/inquiries/{id}/got-in-touch", Body(new { text = "" }))).EnsureSuccessStatusCode();
        (await app.AskAsync(db => db.Runs.SingleAsync())).State.StoppedBy.ShouldBe(RunEnd.Replied);
        await app.PassTimeAsync(Duration.FromDays(30));
        (await app.AskAsync(db => db.PracticeMail.CountAsync())).ShouldBe(1, "only the thank-you that went at once");
    }

    [Fact]
    public async Task A_follow_through_can_be_stopped_by_hand()
    {
        await using var app = new TestApp();
        var (owner, id) = await OneInquiryAsync(app);
        (await ViewAsync(owner, id)).Text("running").ShouldNotBeEmpty();
        (await owner.PostAsync($"/api/inquiries/{id}/stop", null)).EnsureSuccessStatusCode();
        var view = await ViewAsync(owner, id);
        view.GetProperty("running").ValueKind.ShouldBe(JsonValueKind.Null);
        view.GetProperty("timeline")[0].Text("sentence").ShouldContain("stopped by hand");
    }

    [Fact]
    public async Task A_closed_inquiry_owes_and_sends_nothing_and_can_be_opened_again()
    {
        await using var app = new TestApp();
        var (owner, id) = await OneInquiryAsync(app);
        (await owner.PostAsync($"/api/inquiries/{id}/close", null)).EnsureSuccessStatusCode();
        (await owner.GetAsync("/api/today").JsonAsync()).GetProperty("promised").GetArrayLength().ShouldBe(0);
        (await app.AskAsync(db => db.Runs.SingleAsync())).State.StoppedBy.ShouldBe(RunEnd.Closed);
        (await app.AskAsync(db => db.Projects.SingleAsync())).Closed.ShouldNotBeNull();
        (await ViewAsync(owner, id)).Text("promise").ShouldBe("Closed today 10:00.");

        (await owner.PostAsync($"/api/inquiries/{id}/open-again", null)).EnsureSuccessStatusCode();
        (await owner.GetAsync("/api/today").JsonAsync()).GetProperty("promised").GetArrayLength().ShouldBe(1, "the promise holds again");
        (await app.AskAsync(db => db.Projects.SingleAsync())).Closed.ShouldBeNull();
    }

    private static async Task<(HttpClient Owner, string Id)> OneInquiryAsync(TestApp app)
    {
        (await app.SendAsync(Answers())).EnsureSuccessStatusCode();
        await app.WorkAsync();
        return (app.Owner(), (await app.AskAsync(db => db.Inquiries.SingleAsync())).Id.ToString());
    }

    private static Task<JsonElement> ViewAsync(HttpClient owner, string id) => owner.GetAsync($"/api/inquiries/{id}").JsonAsync();
}
