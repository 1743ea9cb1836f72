using System.Net;
using System.Text;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Answers;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

public sealed class BadInputTests
{
    [Fact]
    public async Task An_unknown_form_says_so()
    {
        await using var app = new TestApp();
        var response = await app.CreateClient().GetAsync("/public/forms/invented");
        response.StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await response.SentenceAsync()).ShouldContain("no form at this address");
    }

    [Fact]
    public async Task A_form_whose_light_is_off_shows_its_away_note_and_takes_nothing()
    {
        await using var app = new TestApp();
        await app.ChangeAsync(db => db.Forms.ExecuteUpdateAsync(form => form.SetProperty(one => one.LightOn, false)));
        var shown = await app.CreateClient().GetAsync($"/public/forms/{await app.LinkAsync()}").JsonAsync();
        shown.Text("welcome").ShouldBe("lightOff");
        shown.GetProperty("form").ValueKind.ShouldBe(JsonValueKind.Null, "nothing of it is shown");
        var refused = await app.SendAsync(Answers());
        refused.StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await refused.SentenceAsync()).ShouldBe(shown.Text("note"));
    }

    [Fact]
    public async Task Missing_answers_are_named_one_by_one()
    {
        await using var app = new TestApp();
        var answers = Answers();
        answers.Remove("email");
        answers["what"] = new TextAnswer("   ");
        var refused = await app.SendAsync(answers);
        refused.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await refused.PlacesAsync()).ShouldBe(["email", "what"]);
        (await app.AskAsync(db => db.Submissions.CountAsync())).ShouldBe(0);
    }

    [Fact]
    public async Task Answers_of_the_wrong_kind_and_to_questions_that_are_not_asked_are_refused()
    {
        await using var app = new TestApp();
        var wrong = Answers();
        wrong["budget"] = new TextAnswer("lots");
        (await (await app.SendAsync(wrong)).PlacesAsync()).ShouldBe(["budget"]);
        var unknown = Answers();
        unknown["shoe-size"] = new NumberAnswer(43);
        (await (await app.SendAsync(unknown)).PlacesAsync()).ShouldBe(["shoe-size"]);
    }

    [Fact]
    public async Task Half_a_megabyte_in_a_field_gets_a_sentence_beside_it_and_five_a_sentence_for_all()
    {
        await using var app = new TestApp();
        app.Listen();
        var answers = Answers();
        answers["what"] = new TextAnswer(new string('w', 500_000));
        var longer = await app.SendAsync(answers);
        longer.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await longer.PlacesAsync()).ShouldBe(["what"]);
        answers["what"] = new TextAnswer(new string('w', 5_000_000));
        // A client that asks before it sends gets the answer; one that does not may find the line closed.
        var asking = new HttpRequestMessage(HttpMethod.Post, $"/public/forms/{await app.LinkAsync()}/send")
        {
            Content = Body(
                new
                {
                    version = 1,
                    sendKey = Guid.NewGuid(),
                    answers,
                    cameFrom = (string?)null,
                }
            ),
            Headers = { ExpectContinue = true },
        };
        var long5 = await app.CreateClient().SendAsync(asking);
        long5.StatusCode.ShouldBe(HttpStatusCode.RequestEntityTooLarge);
        (await long5.SentenceAsync()).ShouldContain("nothing you typed is lost");
    }

    [Theory]
    [InlineData("{")]
    [InlineData("[]")]
    [InlineData("null")]
    [InlineData("{\"version\":\"one\"}")]
    [InlineData("{\"version\":1,\"sendKey\":\"x\",\"answers\":{}}")]
    [InlineData("{\"version\":1,\"sendKey\":\"7f1f3f5e-0000-7000-8000-000000000000\",\"answers\":null,\"cameFrom\":null}")]
    public async Task An_unreadable_body_gets_a_sentence(string body)
    {
        await using var app = new TestApp();
        var refused = await PostAsync(app, body);
        refused.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await refused.SentenceAsync()).ShouldContain("could not be read");
    }

    [Theory]
    [InlineData("{\"kind\":\"choice\",\"keys\":7}")]
    [InlineData("{\"kind\":\"invented\"}")]
    [InlineData("{\"kind\":\"choice\"}")]
    [InlineData("\"4000\"")]
    public async Task An_unreadable_answer_is_named(string answer)
    {
        await using var app = new TestApp();
        var refused = await PostAsync(
            app,
            """{"version":1,"sendKey":"7f1f3f5e-0000-7000-8000-000000000000","cameFrom":null,"answers":{"budget":""" + answer + "}}"
        );
        refused.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await refused.PlacesAsync()).ShouldBe(["budget"]);
    }

    [Fact]
    public async Task An_answer_without_its_kind_gets_a_sentence()
    {
        await using var app = new TestApp();
        var refused = await PostAsync(
            app,
            """{"version":1,"sendKey":"7f1f3f5e-0000-7000-8000-000000000000","cameFrom":null,"answers":{"budget":{"keys":["unsure"]}}}"""
        );
        refused.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await refused.SentenceAsync()).ShouldContain("could not be read");
    }

    private static async Task<HttpResponseMessage> PostAsync(TestApp app, string body) =>
        await app.CreateClient()
            .PostAsync($"/public/forms/{await app.LinkAsync()}/send", new StringContent(body, Encoding.UTF8, "application/json"));
}
