using CsCheck;
using PorchLight.Core.Answers;
using PorchLight.Core.Conditions;
using PorchLight.Core.Forms;
using PorchLight.Core.Screening;
using PorchLight.Core.Tests.Forms;
using static PorchLight.Core.Tests.Sample;

namespace PorchLight.Core.Tests.Screening;

public sealed class ScreeningAgainstASecondWayTests
{
    [Fact]
    public void A_verdict_is_the_sum_by_hand() =>
        Gen.Select(OddForms.Forms, OddForms.Answers, OddForms.Screening(6))
            .Sample(
                (form, given, rules) =>
                {
                    var known = Routes.Trace(Known(form), given).Know(Known(form));
                    var verdict = Screener.Judge(rules, known);
                    (verdict.Fit, verdict.Score).ShouldBe(ByHand(rules, known));
                    Screener.Sort(rules, known).ShouldBe(ByHand(rules, known), "fit and score alone");
                    var off = rules with { Signals = [.. rules.Signals.Select((one, at) => one with { IsOff = at % 2 == 0 })] };
                    Screener
                        .Judge(off, known)
                        .Score.ShouldBe(
                            ByHand(rules with { Signals = [.. rules.Signals.Where((_, at) => at % 2 != 0)] }, known).Score,
                            "what is switched off counts for nothing"
                        );
                }
            );

    [Fact]
    public void However_it_is_filled_in_to_the_end_the_verdict_lies_in_the_range() =>
        Gen.Select(OddForms.Forms, OddForms.Answers, OddForms.Answers, OddForms.Screening(3), Gen.Int[0, 12])
            .Sample(
                (form, given, other, rules, answered) =>
                {
                    // Some answers are given already, on the page that is open or before it; the others are still to come.
                    var so = form
                        .Questions.Take(answered)
                        .ToDictionary(question => question.Key, question => given.GetValueOrDefault(question.Key));
                    var page = form
                        .Pages.First(one =>
                            one.Questions.Any(question => question.Key == form.Questions.ElementAtOrDefault(answered)?.Key)
                            || one.Key == "three"
                        )
                        .Key;
                    var soFar = Routes.Trace(Known(form), so, page);
                    if (!soFar.Pages.Contains(page))
                        return;
                    var range = FitRanges.Of(rules, soFar.Know(Known(form)));
                    var done = form.Questions.ToDictionary(
                        question => question.Key,
                        question =>
                            so.GetValueOrDefault(question.Key)
                            ?? (IsBehind(form, page, question) ? null : other.GetValueOrDefault(question.Key))
                    );
                    var (fit, score) = ByHand(rules, Routes.Trace(Known(form), done).Know(Known(form)));
                    score.ShouldBeInRange(range.LowScore, range.HighScore);
                    ((int)fit).ShouldBeInRange((int)range.WorstFit, (int)range.BestFit);
                }
            );

    [Fact]
    public void The_range_of_one_question_is_what_its_answers_reach_and_no_wider() =>
        Gen.Select(Gen.Int[0, 6], OddForms.Screening(4))
            .Sample(
                (index, rules) =>
                {
                    var question = new[]
                    {
                        OddForms.People,
                        OddForms.Flag,
                        Budget,
                        OddForms.Day,
                        OddForms.Stay,
                        OddForms.Many,
                        OddForms.Taste,
                    }[index];
                    if (!rules.Signals.All(signal => signal.When.QuestionsUsed().All(key => key == question.Key)))
                        return;
                    var form = OnePage(question);
                    var all = OddForms
                        .Domain(question)
                        .Select(AnswerState.OfNullable)
                        .Append(AnswerState.OffRoute)
                        .Select(state => ByHand(rules, Known(form, (question.Key, state))))
                        .ToList();
                    FitRanges
                        .Of(rules, Known(form))
                        .ShouldBe(
                            new FitRange(
                                all.Min(one => one.Score),
                                all.Max(one => one.Score),
                                all.Min(one => one.Fit),
                                all.Max(one => one.Fit)
                            )
                        );
                }
            );

    [Fact]
    public void What_would_change_it_is_what_trying_every_answer_finds() =>
        Gen.Select(OddForms.Forms, OddForms.Answers, OddForms.Screening(3), Gen.Int[0, 5])
            .Sample(
                (form, given, rules, rows) =>
                {
                    // Rows have more variants than can be tried; they stay as they are here, and are tried elsewhere.
                    if (rows > 0)
                        given["walls"] = null;
                    var found = FitChanges.Find(rules, Known(form), given);
                    var (fit, route) = Judge(given);
                    if (found is null && fit == Fit.ComeIn)
                        return;
                    var before = AnswerChecks.Check(Known(form), route);
                    if (found is not null)
                    {
                        var changed = found.Changes.Aggregate(
                            new Dictionary<string, Answer?>(given),
                            (answers, change) => new(answers) { [change.Question] = change.Answer }
                        );
                        Judge(changed).Fit.ShouldBe(found.Fit);
                        AnswerChecks.Check(Known(form), Judge(changed).Route).Except(before).ShouldBeEmpty(found.Sentence);
                        ((int)found.Fit).ShouldBeGreaterThan((int)fit);
                    }

                    if (found?.Changes.All(change => change.Question == "walls") == true)
                        return;
                    var questions = form
                        .Questions.Where(question => question.Key != "walls" && question.Kind is not WorkedOutKind)
                        .ToList();
                    var ones = questions.SelectMany(question => Others(question, given)).Select(Better).OfType<Fit>().ToList();
                    if (ones.Count > 0)
                        (found?.Changes.Count, found?.Fit).ShouldBe((1, ones.Max()), found?.Sentence ?? "nothing was found");
                    else if (found is not null)
                        found.Changes.Count.ShouldBe(2);

                    Fit? Better(Dictionary<string, Answer?> answers)
                    {
                        var (better, way) = Judge(answers);
                        return better > fit && !AnswerChecks.Check(Known(form), way).Except(before).Any() ? better : null;
                    }

                    (Fit Fit, Route Route) Judge(Dictionary<string, Answer?> answers)
                    {
                        var way = Routes.Trace(Known(form), answers);
                        return (ByHand(rules, way.Know(Known(form))).Fit, way);
                    }
                },
                iter: CsCheck.Check.Iter / 2
            );

    [Fact]
    public void Two_changes_are_what_trying_every_pair_finds() =>
        Gen.Select(OddForms.Answers, OddForms.Screening(2), Gen.Int[-30, 30])
            .Sample(
                (given, rules, more) =>
                {
                    var form = Form(
                        new Page("one", "One", [OddForms.Flag]),
                        new Page(
                            "two",
                            "Two",
                            [OddForms.People with { AskedOnlyWhen = new IsCondition(Of(OddForms.Flag), "yes") }, Budget, OddForms.Taste]
                        )
                    );
                    rules = rules with
                    {
                        Signals =
                        [
                            .. rules.Signals,
                            Points("p", more, new NumberCondition(Of(OddForms.People), NumberRelation.Over, 6)),
                            Points("t", 20, new NumberCondition(Of(OddForms.Taste), NumberRelation.AtLeast, 3)),
                        ],
                    };
                    given = form.Questions.ToDictionary(question => question.Key, question => given[question.Key]);
                    var fit = FitOf(given);
                    var ones = form.Questions.SelectMany(question => Others(question, given)).ToList();
                    var best =
                        ones.Select(FitOf).Where(better => better > fit).Cast<Fit?>().Max() is { } one ? (1, one)
                        : form
                            .Questions.SelectMany(first =>
                                form.Questions.Where(second => second != first)
                                    .SelectMany(second => Others(first, given).SelectMany(changed => Others(second, changed)))
                            )
                            .Select(FitOf)
                            .Where(better => better > fit)
                            .Cast<Fit?>()
                            .Max()
                            is { } two
                            ? (2, two)
                        : (0, fit);
                    var found = FitChanges.Find(rules, Known(form), given);
                    (found?.Changes.Count ?? 0, found?.Fit ?? fit).ShouldBe(best, found?.Sentence ?? "nothing was found");

                    Fit FitOf(Dictionary<string, Answer?> answers) =>
                        ByHand(rules, Routes.Trace(Known(form), answers).Know(Known(form))).Fit;
                },
                iter: CsCheck.Check.Iter / 4
            );

    private static IEnumerable<Dictionary<string, Answer?>> Others(Question question, Dictionary<string, Answer?> given) =>
        OddForms
            .Domain(question)
            .Where(answer => !Equals(answer, given.GetValueOrDefault(question.Key)))
            .Select(answer => new Dictionary<string, Answer?>(given) { [question.Key] = answer });

    private static bool IsBehind(FormContent form, string page, Question question) =>
        form.Pages.TakeWhile(one => one.Key != page).Any(one => one.Questions.Contains(question));

    internal static (Fit Fit, int Score) ByHand(ScreeningRules rules, AnswerContext known)
    {
        var score = rules.Base;
        var (flags, broken) = (0, false);
        foreach (var signal in rules.Signals.Where(signal => NaiveTruth.Of(signal.When, known) == true))
        {
            score += (signal.Effect as PointsEffect)?.Points ?? 0;
            flags += signal.Effect is FlagEffect ? 1 : 0;
            broken |= signal.Effect is DealBreakerEffect;
        }

        return (
            broken || flags >= rules.FlagLimit ? Fit.NotNow
            : score >= rules.ComeInAt ? Fit.ComeIn
            : score >= rules.Floor ? Fit.TalkFirst
            : Fit.NotNow,
            score
        );
    }
}
