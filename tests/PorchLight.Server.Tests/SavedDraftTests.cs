using System.Net;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Forms;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

public sealed class SavedDraftTests
{
    [Fact]
    public async Task A_filling_in_comes_back_exactly_as_it_was_left_also_in_another_browser_and_after_a_new_version()
    {
        await using var app = new TestApp();
        var (link, key) = (await app.LinkAsync(), Guid.NewGuid());
        var answers = Answers();
        answers["budget"] = null;
        answers["what"] = new TextAnswer("  half a thou");
        var kept = await KeepAsync(app, link, key, answers).JsonAsync();
        kept.Text("link").ShouldBe($"http://localhost/f/{link}?later={kept.Text("token")}");
        kept.Text("until").ShouldBe("23 December 2026");

        var owner = app.Owner();
        var id = await app.AskAsync(db => db.Forms.Select(form => form.Id).SingleAsync());
        (await app.SaveContentAsync(owner, id.ToString(), content => content with { Title = "Another title" })).EnsureSuccessStatusCode();
        (await owner.PostAsync($"/api/forms/{id}/publish", null)).EnsureSuccessStatusCode();

        var back = await app.CreateClient().GetAsync($"/public/forms/{link}?later={kept.Text("token")}").JsonAsync();
        back.Text("title").ShouldBe("A wall to paint", "who is in the middle of it goes on with what they began");
        var left = back.GetProperty("form").GetProperty("kept");
        (left.GetProperty("version").GetInt32(), left.Text("page"), left.GetProperty("sendKey").GetGuid()).ShouldBe((1, "wall", key));
        JsonSerializer
            .Deserialize<Dictionary<string, Answer?>>(left.GetProperty("answers"), Storage.Json.Options)
            .ShouldBe(answers, "to the blank");
    }

    [Fact]
    public async Task What_is_added_is_kept_and_a_window_left_behind_overwrites_nothing()
    {
        await using var app = new TestApp();
        var (link, key) = (await app.LinkAsync(), Guid.NewGuid());
        var first = await KeepAsync(app, link, key, Answers()).JsonAsync();
        var more = Answers();
        more["what"] = new TextAnswer("Much more");
        var second = await KeepAsync(app, link, key, more, revision: 1).JsonAsync();
        (second.Text("token"), second.GetProperty("revision").GetInt32()).ShouldBe((first.Text("token"), 2));
        var stale = await KeepAsync(app, link, key, Answers(), revision: 1);
        stale.StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await stale.SentenceAsync()).ShouldContain("another window");
        (await app.AskAsync(db => db.SavedDrafts.SingleAsync())).Answers!.ByQuestion["what"].ShouldBe(new TextAnswer("Much more"));
    }

    [Fact]
    public async Task The_link_is_mailed_only_to_who_gave_an_address_and_agreed_and_once()
    {
        await using var app = new TestApp();
        var (link, key) = (await app.LinkAsync(), Guid.NewGuid());
        var kept = await KeepAsync(app, link, key, Answers()).JsonAsync();
        var stranger = app.CreateClient();
        Task<HttpResponseMessage> MailAsync(string email, bool agrees) =>
            stranger.PostAsync(
                $"/public/forms/{link}/saved-draft/mail",
                Body(
                    new
                    {
                        sendKey = key,
                        email,
                        agrees,
                    }
                )
            );
        (await (await MailAsync("tilda", true)).PlacesAsync()).ShouldBe(["email"]);
        (await (await MailAsync("tilda@bakes.example", false)).PlacesAsync()).ShouldBe(["agrees"]);
        (await app.AskAsync(db => db.OutgoingMail.CountAsync())).ShouldBe(0);
        (await MailAsync("tilda@bakes.example", true)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await MailAsync("tilda@bakes.example", true)).StatusCode.ShouldBe(HttpStatusCode.NoContent, "a double click");
        (await app.MailToAsync("tilda@bakes.example")).ShouldContain(kept.Text("link"));
        (await app.AskAsync(db => db.OutgoingMail.CountAsync())).ShouldBe(1);
        (await app.AskAsync(db => db.Clients.CountAsync())).ShouldBe(0, "who has not sent is no client");
    }

    [Fact]
    public async Task After_its_days_the_draft_and_its_files_are_deleted_and_the_link_says_so_kindly()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        (
            await owner.PutAsync(
                "/api/settings/keeping",
                Body(
                    new
                    {
                        was = new { unfinishedDays = 30, clientMonths = (int?)null },
                        now = new { unfinishedDays = 7, clientMonths = (int?)null },
                    }
                )
            )
        ).EnsureSuccessStatusCode();
        var (link, key) = (
            await app.MakeQuickFormAsync(
                new FormContent(
                    "Photos",
                    "",
                    [new Page("wall", "One", [new Question("photos", "?", new FilesKind())])],
                    [],
                    new SendOff("end", "Thanks", "Thanks.")
                )
            ),
            Guid.NewGuid()
        );
        var file = (await (await UploadTests.UploadAsync(app, link, key, "plan.pdf", "%PDF-1.7"u8.ToArray())).JsonAsync())
            .GetProperty("id")
            .GetGuid();
        var kept = await KeepAsync(app, link, key, new() { ["photos"] = new FilesAnswer([new FileRef(file)]) }).JsonAsync();

        await app.PassTimeAsync(Duration.FromDays(6));
        UploadTests.Stored(app).Count.ShouldBe(1, "files wait as long as the draft");
        await app.PassTimeAsync(Duration.FromDays(2));
        UploadTests.Stored(app).ShouldBeEmpty();
        (await app.AskAsync(db => db.SavedDrafts.SingleAsync())).Answers.ShouldBeNull();
        var back = await app.CreateClient().GetAsync($"/public/forms/{link}?later={kept.Text("token")}").JsonAsync();
        back.Text("lost")
            .ShouldBe(
                "This link was good until 30 November 2026; the answers behind it are deleted, as we said. You can begin anew below."
            );
        back.GetProperty("form").GetProperty("kept").ValueKind.ShouldBe(JsonValueKind.Null);
        (await KeepAsync(app, link, key, [], revision: 1)).StatusCode.ShouldBe(HttpStatusCode.Conflict);
    }

    [Fact]
    public async Task A_link_whose_answers_were_sent_or_that_was_cut_short_says_so_kindly()
    {
        await using var app = new TestApp();
        var (link, key) = (await app.LinkAsync(), Guid.NewGuid());
        var kept = await KeepAsync(app, link, key, Answers()).JsonAsync();
        (await app.SendAsync(Answers(), key)).EnsureSuccessStatusCode();
        var stranger = app.CreateClient();
        (await stranger.GetAsync($"/public/forms/{link}?later={kept.Text("token")}").JsonAsync())
            .Text("lost")
            .ShouldStartWith("The answers behind this link have been sent already.");
        (await app.AskAsync(db => db.SavedDrafts.SingleAsync())).Answers.ShouldBeNull("what was sent is with the inquiry");
        (await stranger.GetAsync($"/public/forms/{link}?later=cut").JsonAsync()).Text("lost").ShouldStartWith("We cannot find the answers");
        (await (await KeepAsync(app, link, key, Answers())).SentenceAsync()).ShouldBe("These answers have been sent already. Thank you!");
    }

    private static async Task<HttpResponseMessage> KeepAsync(
        TestApp app,
        string link,
        Guid sendKey,
        Dictionary<string, Answer?> answers,
        int revision = 0
    ) =>
        await app.CreateClient()
            .PutAsync(
                $"/public/forms/{link}/saved-draft",
                Body(
                    new
                    {
                        version = 1,
                        page = "wall",
                        sendKey,
                        revision,
                        answers,
                    }
                )
            );
}
