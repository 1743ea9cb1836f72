using PorchLight.Core.Answers;
using PorchLight.Core.Conditions;
using PorchLight.Core.Forms;

namespace PorchLight.Browser.Tests;

/// <summary>What lives only in the browser, when answers of the server come in another order than they were asked for.</summary>
public sealed class OvertakenAnswersTests
{
    private static readonly FormContent Asked = new(
        "An order",
        "",
        [
            new Page(
                "one",
                "One",
                [
                    new Question("more", "Is there more?", new YesNoKind()),
                    new Question("what", "What else is there?", new ShortTextKind())
                    {
                        AskedOnlyWhen = new IsCondition(new AnswerTo("more"), "yes"),
                    },
                ]
            ),
        ],
        [],
        new SendOff("end", "Thank you", "That was all.")
    );

    [Fact]
    public async Task A_form_shows_what_follows_from_the_last_answer_whichever_is_heard_of_last()
    {
        await using var app = new BrowserApp();
        using var lead = new Visitor();
        lead.CanHoldBack();
        lead.Open(await app.OpenFormAsync(Asked));
        lead.Sees("Is there more?");
        lead.Choose("Yes");
        lead.Sees("What else is there?");
        lead.HoldsBack("POST", "/evaluate");
        lead.Choose("No");
        lead.HasHeldBack(1);
        lead.Choose("Yes");
        lead.HasHeldBack(2);
        lead.LetsThrough(1);
        lead.LetsThrough(0);
        // Something that is asked behind both: by then each would have been drawn.
        lead.Type("What else is there?", "A gate");
        lead.HasHeldBack(3);
        lead.Text.ShouldContain("What else is there?");
        lead.LetsThrough(2);
        lead.Press("Send");
        lead.HasHeldBack(4);
        lead.LetsThrough(3);
        lead.Sees("That was all.");
        app.Ask(db => db.Submissions.Single()).Answers.ByQuestion["what"].ShouldBe(new TextAnswer("A gate"));
    }

    [Fact]
    public async Task What_is_typed_outlives_an_answer_that_was_asked_for_before_it_and_comes_after_it_was_saved()
    {
        await using var app = new BrowserApp();
        using var owner = new Visitor();
        owner.CanHoldBack();
        owner.ComeIn(app, "/follow-through");
        owner.Follow("After a mural inquiry");
        var stored = app.Ask(db => db.FollowThroughs.ToList())
            .Single(one => owner.Browser.Url.Contains(one.Id.ToString(), StringComparison.Ordinal));
        var content = app.Ask(db =>
            db.FollowThroughVersions.Single(one => one.FollowThroughId == stored.Id && one.Number == stored.Number)
        ).Content;
        owner.Click($"//button[contains(., '{content.Steps[0].Name}')][@aria-pressed]");
        owner.Sees("What it does");
        owner.HoldsBack("GET", $"/api/follow-throughs/{stored.Id}");
        // Somebody else names another step: this window asks for the whole anew, and does not hear the answer yet.
        app.Write(db =>
            db.FollowThroughs.Single(one => one.Id == stored.Id).Draft = content with
            {
                Steps = [.. content.Steps.SkipLast(1), content.Steps[^1] with { Name = "Named elsewhere" }],
            }
        );
        owner.HasHeldBack(1);
        owner.Type("What you call it", "Named here");
        owner.Wait("it is stored", () => Steps()[0] == "Named here");
        owner.LetsThrough(0);
        owner.Sees("Named elsewhere");
        owner.Field("What you call it").GetDomProperty("value").ShouldBe("Named here");
        owner.Type("What you call it", "Named here twice");
        owner.Wait("both are stored", () => Steps() is ["Named here twice", .., "Named elsewhere"]);

        List<string> Steps() =>
            [.. app.Ask(db => db.FollowThroughs.Single(one => one.Id == stored.Id)).Draft!.Steps.Select(step => step.Name)];
    }
}
