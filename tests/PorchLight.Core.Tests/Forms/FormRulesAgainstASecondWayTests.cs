using CsCheck;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Conditions;
using PorchLight.Core.Forms;
using static PorchLight.Core.Tests.Sample;

namespace PorchLight.Core.Tests.Forms;

public sealed class FormRulesAgainstASecondWayTests
{
    [Fact]
    public void Conditions_are_as_true_as_value_by_value() =>
        Gen.Select(OddForms.Forms, OddForms.Answers, OddForms.Conditions, Gen.Int[0, 3])
            .Sample(
                (form, given, condition, page) =>
                {
                    var route = Routes.Trace(Known(form), given, page == 3 ? null : form.Pages[page].Key);
                    var known = route.Know(Known(form));
                    condition
                        .Evaluate(known)
                        .ShouldBe(
                            NaiveTruth.Of(condition, known) switch
                            {
                                true => Truth.True,
                                false => Truth.False,
                                null => Truth.Unknown,
                            }
                        );
                }
            );

    [Fact]
    public void Bands_with_instalments_and_open_ends_compare_as_their_values_do() =>
        Gen.Select(Gen.Int[-3, 3], Gen.Int[-3, 3], Gen.Int[0, 15], Gen.Int[0, 3], Gen.Int[-4, 12])
            .Sample(
                (low, high, ends, times, threshold) =>
                {
                    var band = new Band(
                        (ends & 1) == 0 ? new Bound(Math.Min(low, high), (ends & 2) != 0) : null,
                        (ends & 4) == 0 ? new Bound(Math.Max(low, high), (ends & 8) != 0) : null,
                        null,
                        times == 0 ? null : times
                    );
                    if (band.IsEmpty)
                        return;
                    var question = new Question("q", "?", new ChoiceKind([new Option("o", "O", band)]));
                    var known = Known(OnePage(question), ("q", AnswerState.Of(ChoiceAnswer.Of("o"))));
                    foreach (
                        var condition in Enum.GetValues<NumberRelation>()
                            .Select(relation => (Condition)new NumberCondition(Of(question), relation, threshold))
                            .Append(new NumberBetweenCondition(Of(question), threshold, low))
                    )
                        condition
                            .Evaluate(known)
                            .ShouldBe(
                                NaiveTruth.Of(condition, known) switch
                                {
                                    true => Truth.True,
                                    false => Truth.False,
                                    null => Truth.Unknown,
                                },
                                $"{condition} of {band}"
                            );
                }
            );

    [Fact]
    public void A_route_is_the_one_of_a_form_filled_in_on_paper() =>
        Gen.Select(OddForms.Forms, OddForms.Answers, Gen.Int[0, 3])
            .Sample(
                (form, given, page) =>
                {
                    var open = page == 3 ? null : form.Pages[page].Key;
                    var route = Routes.Trace(Known(form), given, open);
                    var walk = new NaiveWalk(form, Today, given, open);
                    route.Pages.ShouldBe(walk.Pages);
                    route.SendOff.ShouldBe(walk.SendOff);
                    foreach (var question in form.Questions)
                        (question.Key, State: route.Answers[question.Key].Status, route.Answers[question.Key].Answer).ShouldBe(
                            (question.Key, walk.State(question.Key).Status, walk.State(question.Key).Answer)
                        );
                }
            );
}
