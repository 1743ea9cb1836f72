using System.Net;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Forms;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

public sealed class UnfinishedFormTests
{
    [Fact]
    public async Task A_filling_in_comes_back_exactly_as_it_was_left_also_in_another_browser_and_after_a_new_version()
    {
        await using var app = new TestApp { Time = new(TestClock.Written) };
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
    public async Task Who_left_at_the_door_is_written_to_once_and_only_when_they_were_told_so()
    {
        await using var app = new TestApp { Settings = { ["PorchLight:SecondsToTakeBack"] = "10" } };
        var (owner, link, told, untold) = (app.Owner(), await app.LinkAsync(), Guid.NewGuid(), Guid.NewGuid());
        var answers = Answers("left@leads.example");
        await KeepAsync(app, link, untold, answers);
        var row = (await owner.GetAsync("/api/unfinished-forms").JsonAsync()).EnumerateArray().ShouldHaveSingleItem();
        (row.Text("name"), row.Text("email"), row.GetProperty("canFollowUp").GetBoolean()).ShouldBe(
            ("Tilda Brackenridge", "left@leads.example", false)
        );
        row.Text("fit").ShouldStartWith("Come in for certain, ");
        var refused = await owner.PostAsync($"/api/unfinished-forms/{row.Text("id")}/follow-up", null);
        refused.StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await refused.SentenceAsync()).ShouldStartWith("They were not told that you may write to them.");

        await app.ChangeFormAsync(settings => settings with { FollowsUpUnfinished = true });
        (await app.CreateClient().GetAsync($"/public/forms/{link}").JsonAsync())
            .GetProperty("form")
            .GetProperty("followsUp")
            .GetBoolean()
            .ShouldBeTrue("the page says so before they agree");
        await KeepAsync(app, link, told, Answers("told@leads.example"));
        await app.CreateClient()
            .PostAsync(
                $"/public/forms/{link}/unfinished-form/mail",
                Body(
                    new
                    {
                        sendKey = told,
                        email = "told@leads.example",
                        agrees = true,
                    }
                )
            );
        await app.WorkAsync();
        (await app.MailToAsync("told@leads.example")).ShouldContain("We will write to you once more if you do not come back");
        var may = (await owner.GetAsync("/api/unfinished-forms").JsonAsync())
            .EnumerateArray()
            .Single(one => one.Text("email") == "told@leads.example");
        var door = $"/api/unfinished-forms/{may.Text("id")}";
        (await owner.PostAsync($"{door}/follow-up", null)).EnsureSuccessStatusCode();
        (await owner.PostAsync($"{door}/take-back", null)).EnsureSuccessStatusCode();
        for (var press = 0; press < 2; press++)
            (await owner.PostAsync($"{door}/follow-up", null)).EnsureSuccessStatusCode();
        (await app.AskAsync(db => db.OutgoingMail.CountAsync(mail => mail.To == "told@leads.example"))).ShouldBe(
            2,
            "the link, and once more"
        );
        await app.PassTimeAsync(Duration.FromSeconds(10));
        (await owner.PostAsync($"{door}/take-back", null)).StatusCode.ShouldBe(HttpStatusCode.Conflict, "it has gone");
        (await app.MailToAsync("told@leads.example")).ShouldContain($"/f/{link}?later=");

        (await app.SendAsync(Answers("told@leads.example"), told)).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await owner.GetAsync("/api/unfinished-forms").JsonAsync())
            .GetArrayLength()
            .ShouldBe(1, "what was sent stands among the inquiries");
        (await owner.PostAsync($"{door}/follow-up", null)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
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
        (await app.AskAsync(db => db.UnfinishedForms.SingleAsync())).Answers!.ByQuestion["what"].ShouldBe(new TextAnswer("Much more"));
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
                $"/public/forms/{link}/unfinished-form/mail",
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
        await using var app = new TestApp { Time = new(TestClock.Written) };
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
        (await app.AskAsync(db => db.UnfinishedForms.SingleAsync())).Answers.ShouldBeNull();
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
        (await app.AskAsync(db => db.UnfinishedForms.SingleAsync())).Answers.ShouldBeNull("what was sent is with the inquiry");
        (await stranger.GetAsync($"/public/forms/{link}?later=cut").JsonAsync()).Text("lost").ShouldStartWith("We cannot find the answers");
        (await (await KeepAsync(app, link, key, Answers())).SentenceAsync()).ShouldBe("These answers have been sent already. Thank you!");
    }

    internal static async Task<HttpResponseMessage> KeepAsync(
        TestApp app,
        string link,
        Guid sendKey,
        Dictionary<string, Answer?> answers,
        int revision = 0
    ) =>
        await app.CreateClient()
            .PutAsync(
                $"/public/forms/{link}/unfinished-form",
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
