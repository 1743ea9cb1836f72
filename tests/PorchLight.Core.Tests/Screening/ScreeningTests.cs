using CsCheck;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Conditions;
using PorchLight.Core.Forms;
using PorchLight.Core.Screening;
using static PorchLight.Core.Tests.Sample;

namespace PorchLight.Core.Tests.Screening;

public sealed class ScreeningTests
{
    private static readonly Signal BigBudget = Points("big", 30, new NumberCondition(Of(Budget), NumberRelation.AtLeast, 4000, "EUR"));
    private static readonly Signal DecidesIt = Points("decides", 20, new IsCondition(Of(Decides), "yes"));
    private static readonly Signal Hurry = Points("hurry", -10, new WithinNextDaysCondition(Of(Wanted), 28));

    [Fact]
    public void The_score_is_the_base_and_the_points_of_the_true_signals()
    {
        var verdict = Judge(
            Rules(BigBudget, DecidesIt, Hurry),
            ("budget", ChoiceAnswer.Of("middle")),
            ("decides", new YesNoAnswer(true)),
            ("wanted", new DateAnswer(Today))
        );
        (verdict.Fit, verdict.Score, verdict.OverComeIn, verdict.OverFloor).ShouldBe((Fit.ComeIn, 60, 10, 50));
        verdict.Contributions.Select(one => (one.Signal, one.Points)).ShouldBe([("big", 30), ("decides", 20), ("hurry", -10)]);
    }

    [Theory]
    [InlineData(30, Fit.ComeIn)]
    [InlineData(29, Fit.TalkFirst)]
    [InlineData(-10, Fit.TalkFirst)]
    [InlineData(-11, Fit.NotNow)]
    public void Thresholds_include_their_own_value(int points, Fit fit) =>
        Judge(Rules(Points("p", points, new AllCondition([]))), []).Fit.ShouldBe(fit);

    [Fact]
    public void Unknown_counts_for_nothing_and_is_kept_apart_from_false()
    {
        var verdict = Judge(Rules(BigBudget, DecidesIt), ("budget", ChoiceAnswer.Of("unsure")), ("decides", new YesNoAnswer(false)));
        verdict.Score.ShouldBe(20);
        verdict.Contributions.Select(one => (one.Signal, one.Truth)).ShouldBe([("big", Truth.Unknown), ("decides", Truth.False)]);
    }

    [Fact]
    public void A_deal_breaker_ends_it_unless_the_client_is_always_welcome()
    {
        var rules = Rules(
            Points("p", 80, new AllCondition([])),
            new Signal("broken", "Broken", new IsCondition(Of(Decides), "no"), new DealBreakerEffect())
        );
        var known = Sent(("decides", new YesNoAnswer(false)));
        Screener.Judge(rules, known).Fit.ShouldBe(Fit.NotNow);
        Screener.Judge(rules, known).Contributions[0].Signal.ShouldBe("broken", "what ends it is said first");
        Screener.Judge(rules, known, alwaysComeIn: true).Fit.ShouldBe(Fit.ComeIn);
    }

    [Fact]
    public void So_many_flags_as_the_limit_are_a_no_also_for_the_always_welcome()
    {
        Signal Flag(string key) => new(key, key, new IsCondition(Of(Decides), "no"), new FlagEffect());
        var known = Sent(("decides", new YesNoAnswer(false)));
        Screener.Judge(Rules(Points("p", 80, new AllCondition([])), Flag("a")), known).Fit.ShouldBe(Fit.ComeIn);
        Screener
            .Judge(Rules(Points("p", 80, new AllCondition([])), Flag("a"), Flag("b")), known, alwaysComeIn: true)
            .Fit.ShouldBe(Fit.NotNow);
    }

    [Fact]
    public void The_range_bounds_signals_on_one_question_together()
    {
        // The two budget signals exclude each other, so their points never add up.
        var small = Points("small", 25, new NumberCondition(Of(Budget), NumberRelation.Under, 1500, "EUR"));
        FitRanges
            .Of(Rules(BigBudget, small, DecidesIt), Sample.Known(Everything))
            .ShouldBe(new FitRange(20, 70, Fit.TalkFirst, Fit.ComeIn));
    }

    [Fact]
    public void The_range_closes_on_the_verdict_when_everything_is_known()
    {
        var known = Sent(("budget", ChoiceAnswer.Of("middle")), ("decides", new YesNoAnswer(true)));
        FitRanges.Of(Rules(BigBudget, DecidesIt), known).ShouldBe(new FitRange(70, 70, Fit.ComeIn, Fit.ComeIn));
    }

    [Fact]
    public void Beyond_the_limit_of_completions_the_range_is_wider_never_narrower()
    {
        var many = Extras with
        {
            Kind = new ChoiceKind([.. Enumerable.Range(0, 15).Select(n => new Option($"o{n}", $"Option {n}"))], Several: true),
        };
        var any = new AnyCondition([.. Enumerable.Range(0, 15).Select(n => new IncludesCondition(Of(many), $"o{n}"))]);
        var rules = Rules(Points("a", 30, any), Points("b", -30, any));
        FitRanges.Of(rules, Sample.Known(OnePage(many))).ShouldBe(new FitRange(-10, 50, Fit.NotNow, Fit.ComeIn));
    }

    [Fact]
    public void The_final_score_lies_in_every_earlier_range() =>
        Gen.Select(RandomForms.Form, RandomForms.Answers, RandomForms.Screening)
            .Sample(
                (form, given, rules) =>
                {
                    var known = Sample.Known(form);
                    var final = Screener.Judge(rules, known with { Answers = Routes.Trace(known, given).Answers });
                    foreach (var page in Routes.Trace(known, given).Pages)
                    {
                        var answered = new Dictionary<string, Answer?>();
                        // The page is filled in from the top, and the range is asked before each answer.
                        foreach (var question in form.Pages.TakeWhile(one => one.Key != page).SelectMany(one => one.Questions))
                            answered[question.Key] = given[question.Key];
                        foreach (var question in form.Pages.Single(one => one.Key == page).Questions)
                        {
                            var range = FitRanges.Of(rules, known with { Answers = Routes.Trace(known, answered, page).Answers });
                            final.Score.ShouldBeInRange(range.LowScore, range.HighScore);
                            ((int)final.Fit).ShouldBeInRange((int)range.WorstFit, (int)range.BestFit);
                            answered[question.Key] = given[question.Key];
                        }
                    }
                }
            );

    [Fact]
    public void What_would_change_it_is_the_smallest_change_to_the_best_fit()
    {
        var given = Given(("budget", ChoiceAnswer.Of("small")), ("decides", new YesNoAnswer(true)));
        var change = FitChanges.Find(Rules(BigBudget, DecidesIt), Sample.Known(Everything), given)!;
        change.Sentence.ShouldBe("It would become Come in if “What have you set aside?” were “4,000 to 9,000”.");
        change.Changes.Select(one => (one.Question, one.Words)).ShouldBe([("budget", "4,000 to 9,000")]);
    }

    [Fact]
    public void Two_answers_are_changed_only_when_one_is_not_enough()
    {
        var given = Given(("budget", ChoiceAnswer.Of("small")), ("decides", new YesNoAnswer(false)));
        var rules = new ScreeningRules(0, 50, 40, 2, [BigBudget, DecidesIt]);
        FitChanges.Find(rules, Sample.Known(Everything), given)!.Changes.Select(one => one.Question).ShouldBe(["budget", "decides"]);
        FitChanges
            .Find(rules, Sample.Known(Everything), Given(("budget", ChoiceAnswer.Of("middle")), ("decides", new YesNoAnswer(true))))
            .ShouldBeNull();
    }

    [Fact]
    public void A_change_that_is_named_really_gives_that_fit() =>
        Gen.Select(RandomForms.Form, RandomForms.Answers, RandomForms.Screening)
            .Sample(
                (form, given, rules) =>
                {
                    var known = Sample.Known(form);
                    if (FitChanges.Find(rules, known, given) is not { } found)
                        return;
                    var changed = new Dictionary<string, Answer?>(given);
                    foreach (var change in found.Changes)
                        changed[change.Question] = change.Answer;
                    Fit FitOf(Dictionary<string, Answer?> answers) =>
                        Screener.Judge(rules, known with { Answers = Routes.Trace(known, answers).Answers }).Fit;
                    FitOf(changed).ShouldBe(found.Fit);
                    ((int)found.Fit).ShouldBeGreaterThan((int)FitOf(given));
                }
            );

    private static AnswerContext Sent(params (string Key, Answer? Answer)[] given)
    {
        var known = Sample.Known(Everything);
        return known with { Answers = Routes.Trace(known, Given(given)).Answers };
    }

    private static Verdict Judge(ScreeningRules rules, params (string Key, Answer? Answer)[] given) => Screener.Judge(rules, Sent(given));
}
