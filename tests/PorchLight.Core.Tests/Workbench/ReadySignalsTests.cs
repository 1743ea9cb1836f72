using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Conditions;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Core.Ready;
using PorchLight.Core.Screening;
using PorchLight.Core.Workbench;
using static PorchLight.Core.Tests.Sample;

namespace PorchLight.Core.Tests.Workbench;

public sealed class ReadySignalsTests
{
    private static readonly Service Murals = new("mural", "Mural", 1800)
    {
        LeadWeeks = 8,
        BookingWeeks = 40,
        Area = ["Dublin", "Howth"],
    };

    private static readonly FormContent Form = OnePage(
        Budget,
        new Question("who", "Who decides about it?", new ChoiceKind([new Option("me", "I do"), new Option("board", "A committee")])),
        new Question("with", "Are you working with someone on it already?", new YesNoKind()),
        Wanted,
        new Question("permit", "Do you have the permission?", new YesNoKind()),
        new Question(
            "sort",
            "What is it about?",
            new ChoiceKind([new Option("mural", "Mural"), new Option("other", "Something else")]) { From = OptionList.Services }
        ),
        new Question(
            "why",
            "Why do you ask?",
            new ChoiceKind([new Option("plan", "We plan it"), new Option("look", "Only comparing offers")])
        ),
        new Question("place", "Where is it?", new ShortTextKind()) { LandsIn = new SetField("project.place") },
        new Question("found", "How did you find us?", new ChoiceKind([new Option("client", "Through a past client")]))
        {
            LandsIn = new SetField("client.source"),
        },
        new Question("before", "Have you worked with us before?", new YesNoKind())
    );

    [Fact]
    public void Each_of_the_twelve_is_offered_where_the_form_has_its_question() =>
        ReadySignals
            .For(Form, Rules(), Murals)
            .Select(ready => ready.Signal.Key)
            .ShouldBe([
                "no-budget",
                "under-start",
                "not-deciding",
                "has-somebody",
                "too-far-ahead",
                "inside-lead-time",
                "paper-missing",
                "not-what-we-do",
                "compares-prices",
                "outside-area",
                "referred",
                "worked-before",
            ]);

    // Common practice, no source: what such answers say, and which way.
    [Theory]
    [InlineData("no-budget", "budget", "unsure", true)]
    [InlineData("no-budget", "budget", "middle", false)]
    [InlineData("under-start", "budget", "small", true)]
    [InlineData("under-start", "budget", "large", false)]
    [InlineData("not-deciding", "who", "board", true)]
    [InlineData("not-deciding", "who", "me", false)]
    [InlineData("not-what-we-do", "sort", "other", true)]
    [InlineData("not-what-we-do", "sort", "mural", false)]
    [InlineData("compares-prices", "why", "look", true)]
    [InlineData("compares-prices", "why", "plan", false)]
    [InlineData("referred", "found", "client", true)]
    public void They_are_true_of_the_answers_they_speak_of(string signal, string question, string option, bool holds) =>
        Of(signal).When.Evaluate(Known(Form, (question, AnswerState.Of(ChoiceAnswer.Of(option))))).ShouldBe(holds.ToTruth());

    [Theory]
    [InlineData("inside-lead-time", 56, true)]
    [InlineData("inside-lead-time", 57, false)]
    [InlineData("too-far-ahead", 280, false)]
    [InlineData("too-far-ahead", 281, true)]
    public void Lead_time_and_booking_window_are_those_of_the_service(string signal, int days, bool holds) =>
        Of(signal).When.Evaluate(Known(Form, ("wanted", AnswerState.Of(new DateAnswer(Today.PlusDays(days)))))).ShouldBe(holds.ToTruth());

    [Theory]
    [InlineData("howth", false)]
    [InlineData("Cork", true)]
    public void The_area_is_that_of_the_service(string place, bool isOutside) =>
        Of("outside-area").When.Evaluate(Known(Form, ("place", AnswerState.Of(new TextAnswer(place))))).ShouldBe(isOutside.ToTruth());

    [Theory]
    [InlineData(false, 20, true)]
    [InlineData(false, 30, false)]
    [InlineData(true, 20, false)]
    public void A_missing_paper_counts_when_the_date_is_near_and_says_what_to_ask(bool has, int days, bool holds)
    {
        var signal = Of("paper-missing");
        signal
            .When.Evaluate(
                Known(
                    Form,
                    ("permit", AnswerState.Of(new YesNoAnswer(has))),
                    ("wanted", AnswerState.Of(new DateAnswer(Today.PlusDays(days))))
                )
            )
            .ShouldBe(holds.ToTruth());
        signal.Advice.ShouldNotBeNull();
    }

    [Fact]
    public void What_rests_on_settings_says_which_one_is_missing()
    {
        var waiting = ReadySignals.For(Form, Rules(), new Service("mural", "Mural")).Where(ready => ready.Needs is not null).ToList();
        waiting.Select(ready => ready.Signal.Key).ShouldBe(["under-start", "too-far-ahead", "inside-lead-time", "outside-area"]);
        waiting[0].Needs.ShouldBe("Say in your settings at which price “Mural” starts.");
        ReadySignals.For(Form, Rules(), null)[1].Needs.ShouldBe("Choose in the form's settings which service it asks about.");
    }

    [Fact]
    public void What_is_used_is_offered_again_only_when_its_setting_has_changed()
    {
        var rules = Rules([.. ReadySignals.For(Form, Rules(), Murals).Select(ready => ready.Signal)]);
        ReadySignals.For(Form, rules, Murals).ShouldBeEmpty();
        var renewed = ReadySignals.For(Form, rules, Murals with { StartsAt = 2400 }).ShouldHaveSingleItem();
        renewed.Renews.ShouldBe("The service starts at 2,400 EUR now.");
        renewed.Signal.When.ShouldBe(new NumberCondition(Sample.Of(Budget), NumberRelation.Under, 2400, "EUR"));
    }

    [Fact]
    public void Nothing_is_offered_that_could_not_be_put_into_force()
    {
        foreach (var ready in ReadyForms.All.Select(offer => offer.Make(new ReadyFormRequest(offer.Title, 900, "EUR"))))
        {
            var signals = ReadySignals
                .For(ready.Content, Rules(), Murals)
                .Where(one => one.Needs is null)
                .Select(one => one.Signal)
                .ToArray();
            ScreeningFacts.Of(Rules(signals), ready.Content, FieldCatalogue.BuiltIn).Findings.ShouldBeEmpty(ready.Content.Title);
        }
    }

    private static Signal Of(string key) => ReadySignals.For(Form, Rules(), Murals).Single(ready => ready.Signal.Key == key).Signal;
}
