using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Brand;
using PorchLight.Core.Forms;
using static PorchLight.Core.Tests.Sample;

namespace PorchLight.Core.Tests.Forms;

public sealed class FormAdmissionTests
{
    private static readonly Instant Now = Instant.FromUtc(2026, 11, 23, 10, 0);
    private static readonly LinkState Good = new(null, Now, CodeTyped: false);

    /// <summary>Every combination, against the sentence of product and rules: what stands in the way first is said first.</summary>
    [Fact]
    public void Whoever_may_come_in_is_told_first_what_concerns_their_own_link()
    {
        foreach (var admission in Enum.GetValues<Admission>())
        foreach (var light in Enum.GetValues<LightState>())
        foreach (var used in new Instant?[] { null, Now - Duration.FromDays(1) })
        foreach (var old in new[] { false, true })
        foreach (var typed in new[] { false, true })
        {
            var link = new LinkState(used, old ? Now - Duration.Epsilon : Now, typed);
            var expected =
                used is not null ? AccessState.LinkUsed
                : old ? AccessState.LinkRanOut
                : admission == Admission.PersonalLinkAndCode && !typed ? AccessState.CodeNeeded
                : light != LightState.On ? AccessState.LightOff
                : AccessState.Open;
            FormAdmission.Judge(admission, light, link, Now).ShouldBe(expected);
        }
    }

    [Fact]
    public void A_private_form_does_not_even_say_whether_its_light_is_on()
    {
        foreach (var light in Enum.GetValues<LightState>())
        {
            FormAdmission.Judge(Admission.PersonalLink, light, null, Now).ShouldBe(AccessState.OnlyByLink);
            FormAdmission.Judge(Admission.PersonalLinkAndCode, light, null, Now).ShouldBe(AccessState.OnlyByLink);
        }

        FormAdmission.Judge(Admission.Anyone, LightState.On, null, Now).ShouldBe(AccessState.Open);
        FormAdmission.Judge(Admission.Anyone, LightState.Full, null, Now).ShouldBe(AccessState.LightOff);
    }

    [Fact]
    public void Every_state_but_open_has_a_sentence_that_says_what_to_do()
    {
        var business = new BusinessCard("Ochre & Wren", "Wren", "hello@ochrewren.example", "IE", "EUR", "Europe/Dublin", "");
        foreach (var state in Enum.GetValues<AccessState>())
        {
            var sentence = FormAdmission.Say(
                state,
                new FormSettings { FirstDay = Today },
                LightState.NotYetOpen,
                "We are away.",
                business,
                Good with
                {
                    Used = Now,
                },
                Now,
                DateTimeZone.Utc
            );
            (sentence.Length == 0).ShouldBe(state == AccessState.Open);
        }
    }

    [Fact]
    public void Who_names_a_month_means_all_of_it()
    {
        var question = new Question("when", "When?", new DateRangeKind(OrMonth: true));
        var stored = AnswerNormaliser.Normalise(
            OnePage(question),
            new Dictionary<string, Answer?> { ["when"] = new DateRangeAnswer(new(2028, 2, 10), new(2028, 2, 10), Roughly: true) },
            new NormaliseContext("IE", 1, Now, Today)
        );
        stored["when"].ShouldBe(new DateRangeAnswer(new(2028, 2, 1), new(2028, 2, 29), Roughly: true));
    }

    [Fact]
    public void Months_are_offered_as_far_as_one_of_their_days_is_allowed()
    {
        new DateRangeKind(new DateLimits(FromDays: 20, ToDays: 40), OrMonth: true)
            .Months(Today)
            .ShouldBe([new YearMonth(2026, 12), new YearMonth(2027, 1)]);
        new DateRangeKind(OrMonth: true).Months(Today).Count.ShouldBe(24);
        new DateRangeKind(OrMonth: true).Months(LocalDate.MaxIsoValue).ShouldBe([LocalDate.MaxIsoValue.ToYearMonth()]);
        new DateRangeKind().Months(Today).ShouldBeEmpty();
    }

    [Fact]
    public void None_of_these_takes_the_others_back_and_they_take_it_back()
    {
        var choice = new ChoiceKind(
            [new Option("a", "A"), new Option("b", "B"), new Option("none", "None of these") { NoneOfThese = true }],
            Several: true
        );
        choice
            .Options.Select(choice.NotWith)
            .ShouldBe([
                ["none"],
                ["none"],
                ["a", "b"],
            ]);
        (choice with { Several = false }).NotWith(choice.Options[0]).ShouldBe(["b", "none"]);
        foreach (
            var (one, other) in choice
                .Options.SelectMany(one => choice.Options.Select(other => (one, other)))
                .Where(pair => pair.one != pair.other)
        )
        {
            var question = new Question("q", "Which?", choice);
            var taken = AnswerLimits.Check(question, ChoiceAnswer.Of(one.Key, other.Key), Today, required: false) is null;
            taken.ShouldBe(!choice.NotWith(one).Contains(other.Key), "what is offered together is taken together");
        }
    }

    [Fact]
    public void Whoever_is_faster_than_people_hears_how_long_to_wait()
    {
        new SpamGuard(3).Judge(new SpamContext(false, Duration.FromMilliseconds(700), false))!.RetryAfter.ShouldBe(3);
        new SpamGuard(3).Judge(new SpamContext(false, Duration.FromMilliseconds(2_500), false))!.RetryAfter.ShouldBe(1);
        new SpamGuard(3).Judge(new SpamContext(false, null, false))!.RetryAfter.ShouldBeNull("without a ticket no waiting helps");
        new SpamGuard(3).Judge(new SpamContext(true, Duration.FromMinutes(1), false))!.RetryAfter.ShouldBeNull();
    }
}
