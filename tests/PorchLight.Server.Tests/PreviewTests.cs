using System.Net;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Answers;
using PorchLight.Core.Forms;
using PorchLight.Core.Ready;
using static PorchLight.Testing.Requests;

namespace PorchLight.Server.Tests;

/// <summary>The owner looks at her working copy as a lead would see it.</summary>
public sealed class PreviewTests
{
    [Fact]
    public async Task An_unpublished_form_can_be_looked_at_and_answered_to_its_end_and_nothing_is_kept()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        var id = (
            await owner
                .PostAsync(
                    "/api/forms",
                    Body(
                        new
                        {
                            title = "A gate to paint",
                            startingPrice = 900m,
                            ready = "any",
                        }
                    )
                )
                .JsonAsync()
        ).Text("id");
        var (link, looker) = await LookAsync(app, owner, id);

        (await app.CreateClient().GetAsync($"/public/forms/{link}")).StatusCode.ShouldBe(HttpStatusCode.NotFound, "nobody else sees it");
        var shown = await looker.GetAsync($"/public/forms/{link}").JsonAsync();
        (shown.Text("title"), shown.Text("welcome"), shown.GetProperty("onlyLooking").GetBoolean()).ShouldBe(
            ("A gate to paint", "open", true)
        );
        var form = shown.GetProperty("form");
        form.GetProperty("version").GetInt32().ShouldBe(0);

        var sent = await looker.PostAsync(
            $"/public/forms/{link}/send",
            Body(
                new
                {
                    version = 0,
                    sendKey = Guid.NewGuid(),
                    answers = ReadyAnswers(),
                    cameFrom = (string?)null,
                }
            )
        );
        sent.StatusCode.ShouldBe(HttpStatusCode.OK, await sent.Content.ReadAsStringAsync());
        (
            await app.AskAsync(async db =>
                (await db.Submissions.CountAsync(), await db.Clients.CountAsync(), await db.OutgoingMail.CountAsync())
            )
        ).ShouldBe((0, 0, 0));
        (
            await looker.PutAsync(
                $"/public/forms/{link}/unfinished-form",
                Body(
                    new
                    {
                        version = 0,
                        page = form.GetProperty("pages")[0].Text("key"),
                        sendKey = Guid.NewGuid(),
                        revision = 0,
                        answers = ReadyAnswers(),
                    }
                )
            )
        ).StatusCode.ShouldBe(HttpStatusCode.Conflict);
    }

    [Fact]
    public async Task A_dark_and_a_private_form_are_open_for_a_look_and_show_what_is_not_published_yet()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        await app.ChangeFormAsync(settings => settings with { Admission = Admission.PersonalLink });
        await app.ChangeAsync(db => db.Forms.ExecuteUpdateAsync(form => form.SetProperty(one => one.LightOn, false)));
        var id = (await app.AskAsync(db => db.Forms.FirstAsync())).Id.ToString();
        (await app.SaveContentAsync(owner, id, content => content with { Title = "A wall, reworded" })).EnsureSuccessStatusCode();
        var (link, looker) = await LookAsync(app, owner, id);
        (await looker.GetAsync($"/public/forms/{link}").JsonAsync()).Text("title").ShouldBe("A wall, reworded");
        (await app.CreateClient().GetAsync($"/public/forms/{link}").JsonAsync()).Text("welcome").ShouldBe("onlyByLink");
    }

    [Fact]
    public async Task A_ticket_is_good_for_its_own_form_and_for_a_day()
    {
        await using var app = new TestApp();
        var owner = app.Owner();
        var id = (
            await owner
                .PostAsync(
                    "/api/forms",
                    Body(
                        new
                        {
                            title = "A gate to paint",
                            startingPrice = 900m,
                            ready = "any",
                        }
                    )
                )
                .JsonAsync()
        ).Text("id");
        var other = (
            await owner
                .PostAsync(
                    "/api/forms",
                    Body(
                        new
                        {
                            title = "A door to paint",
                            startingPrice = 900m,
                            ready = "any",
                        }
                    )
                )
                .JsonAsync()
        ).Text("id");
        var (link, looker) = await LookAsync(app, owner, id);
        var (otherLink, _) = await LookAsync(app, owner, other);
        (await looker.GetAsync($"/public/forms/{otherLink}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        app.Time.Advance(TimeSpan.FromHours(25));
        (await looker.GetAsync($"/public/forms/{link}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    private static async Task<(string Link, HttpClient Looker)> LookAsync(TestApp app, HttpClient owner, string id)
    {
        // The redirect ends at the page itself, whose address holds the ticket.
        var address = (await owner.GetAsync($"/api/forms/{id}/look")).RequestMessage!.RequestUri!;
        var looker = app.CreateClient();
        looker.DefaultRequestHeaders.Add("Preview-Ticket", Uri.UnescapeDataString(address.Query["?look=".Length..]));
        return (address.AbsolutePath["/f/".Length..], looker);
    }

    private static Dictionary<string, Answer?> ReadyAnswers() =>
        ReadyForms
            .Inquiry("A gate", 900, "EUR")
            .Content.Questions.Select(question =>
                (
                    question.Key,
                    Answer: (Answer?)(
                        question.Kind switch
                        {
                            EmailKind => new TextAnswer("noor@gates.example"),
                            PersonNameKind => new PersonNameAnswer("Noor", "Ambler"),
                            ShortTextKind or LongTextKind => new TextAnswer("A gate"),
                            ChoiceKind choice => ChoiceAnswer.Of(choice.Options[0].Key),
                            ConsentKind => new ConsentAnswer(),
                            YesNoKind => new YesNoAnswer(true),
                            _ => null,
                        }
                    )
                )
            )
            .ToDictionary(one => one.Key, one => one.Answer);
}
