using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Answers;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Server.Storage;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

/// <summary>What helps to build a form, over the API.</summary>
public sealed class WorkbenchTests
{
    [Fact]
    public async Task Pasted_lines_become_questions_with_keys_that_are_free_and_places_that_are_free()
    {
        await using var app = new TestApp();
        var form = await app.AskAsync(db => db.Forms.OrderBy(form => form.Id).FirstAsync());
        var questions = (
            await (
                await app.Owner()
                    .PostAsync(
                        "/api/forms/typed-questions",
                        Body(new { text = "1. Budget\n2. How many walls?\n3. Who decides?", form = form.Draft })
                    )
            ).Content.ReadFromJsonAsync<IReadOnlyList<Question>>(Json.Options)
        )!;
        questions.Select(question => question.Wording).ShouldBe(["Budget", "How many walls?", "Who decides?"]);
        questions
            .Select(question => question.Key)
            .ShouldBe(["budget-2", "how-many-walls", "who-decides"], "the form asks for a budget already");
        questions[0].Kind.ShouldBeOfType<ChoiceKind>().Options[0].Band!.Currency.ShouldBe("EUR");
        questions.ShouldAllBe(question => question.LandsIn == null);
        (await app.AskAsync(db => db.Forms.SingleAsync(one => one.Id == form.Id))).DraftRevision.ShouldBe(form.DraftRevision);

        (
            await app.Owner()
                .PostAsync(
                    "/api/forms/typed-questions",
                    Body(new { text = string.Concat(Enumerable.Repeat("Name\n", 300)), form = form.Draft })
                )
        ).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
    }

    [Fact]
    public async Task Pasted_answers_become_options_and_a_changed_kind_says_what_it_loses()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        var options = (
            await (
                await owner.PostAsync(
                    "/api/forms/typed-options",
                    Body(
                        new
                        {
                            text = "Under 500\n500 or more",
                            money = true,
                            taken = Array.Empty<string>(),
                        }
                    )
                )
            ).Content.ReadFromJsonAsync<IReadOnlyList<Option>>(Json.Options)
        )!;
        options[0].Band.ShouldBe(new Band(null, new Bound(500, Open: true), "EUR"));

        var changed = await owner
            .PostAsync(
                "/api/forms/changed-kind",
                Body(
                    new
                    {
                        question = new Question("q", "Which?", new ChoiceKind(options)) { LandsIn = new SetField("project.budget") },
                        kind = (QuestionKind)new YesNoKind(),
                    }
                )
            )
            .JsonAsync();
        changed.GetProperty("question").GetProperty("kind").GetProperty("kind").GetString().ShouldBe("yesNo");
        changed
            .GetProperty("lost")
            .EnumerateArray()
            .Select(sentence => sentence.GetString())
            .ShouldBe([
                "Its answers to choose from are gone.",
                "This kind of answer cannot be kept in the field “Budget”. Choose another field, or let it land in the notes.",
            ]);
    }

    [Fact]
    public async Task A_version_that_is_brought_back_follows_the_lists_of_the_business_again()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        var form = await app.AskAsync(db => db.Forms.OrderBy(form => form.Id).FirstAsync());
        var asks = new Question("work", "What is it about?", new ChoiceKind([]) { From = OptionList.Services });
        await app.ChangeAsync(async db =>
        {
            (await db.BusinessAsync()).Lists = new BusinessLists([new Service("mural", "A mural"), new Service("sign", "A sign")], []);
            var mine = await db.Forms.SingleAsync(one => one.Id == form.Id);
            mine.Draft = mine.Draft with
            {
                Pages = [mine.Draft.Pages[0] with { Items = [.. mine.Draft.Pages[0].Items, asks] }, mine.Draft.Pages[1]],
            };
            mine.DraftRevision++;
        });
        (await owner.PostAsync($"/api/forms/{form.Id}/publish", null)).EnsureSuccessStatusCode();
        await app.ChangeAsync(async db => (await db.Forms.SingleAsync(one => one.Id == form.Id)).Draft = form.Draft);
        var revision = (await owner.GetFromJsonAsync<JsonElement>($"/api/forms/{form.Id}")).GetProperty("revision").GetInt32();
        (await owner.PostAsync($"/api/forms/{form.Id}/versions/2/bring-back", Body(new { revision }))).EnsureSuccessStatusCode();
        (await app.AskAsync(db => db.Forms.SingleAsync(one => one.Id == form.Id))).Draft.FindQuestion("work")!.Options.ShouldBeEmpty();
    }

    [Fact]
    public async Task Versions_are_listed_with_their_answers_and_compared_with_each_other_and_the_working_copy()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        (await app.SendAsync(Answers())).EnsureSuccessStatusCode();
        var form = await app.AskAsync(db => db.Forms.OrderBy(form => form.Id).FirstAsync());
        await app.ChangeAsync(async db =>
        {
            var mine = await db.Forms.SingleAsync(one => one.Id == form.Id);
            (mine.Draft, mine.DraftRevision) = (mine.Draft with { Title = "Your wall" }, mine.DraftRevision + 1);
        });

        (await SentencesAsync(1, 0)).ShouldBe(["The title is now “Your wall”."]);
        (await SentencesAsync(1, 1)).ShouldBeEmpty();
        (await owner.PostAsync($"/api/forms/{form.Id}/publish", null)).EnsureSuccessStatusCode();
        (await SentencesAsync(2, 0)).ShouldBeEmpty();
        (await SentencesAsync(2, 1)).ShouldBe(["The title is now “A wall to paint”."]);

        var versions = (await owner.GetFromJsonAsync<JsonElement>($"/api/forms/{form.Id}/versions")).EnumerateArray().ToList();
        versions
            .Select(version => (version.GetProperty("number").GetInt32(), version.GetProperty("answers").GetInt32()))
            .ShouldBe([(2, 0), (1, 1)]);
        (await owner.GetFromJsonAsync<FormContent>($"/api/forms/{form.Id}/versions/1", Json.Options))!.Title.ShouldBe("A wall to paint");
        (await owner.GetAsync($"/api/forms/{form.Id}/versions/3")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await owner.GetAsync($"/api/forms/{form.Id}/versions/0")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await owner.GetAsync($"/api/forms/{form.Id}/differences?from=1&to=9")).StatusCode.ShouldBe(HttpStatusCode.NotFound);

        // Brought back, twice; and not over what was changed since it was looked at.
        var back = $"/api/forms/{form.Id}/versions/1/bring-back";
        var revision = (await owner.GetFromJsonAsync<JsonElement>($"/api/forms/{form.Id}")).GetProperty("revision").GetInt32();
        (await owner.PostAsync(back, Body(new { revision = revision - 1 }))).StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await owner.PostAsync(back, Body(new { revision }))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await owner.PostAsync(back, Body(new { revision }))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await SentencesAsync(1, 0)).ShouldBeEmpty();
        var working = await owner.GetFromJsonAsync<JsonElement>($"/api/forms/{form.Id}");
        (working.GetProperty("revision").GetInt32(), working.GetProperty("unpublishedChanges").GetBoolean()).ShouldBe((revision + 1, true));
        (await owner.PostAsync($"/api/forms/{form.Id}/versions/7/bring-back", Body(new { revision }))).StatusCode.ShouldBe(
            HttpStatusCode.NotFound
        );

        async Task<List<string?>> SentencesAsync(int from, int to) =>
            [
                .. (await owner.GetFromJsonAsync<JsonElement>($"/api/forms/{form.Id}/differences?from={from}&to={to}"))
                    .EnumerateArray()
                    .Select(one => one.GetProperty("sentence").GetString()),
            ];
    }
}
