using System.Text.Json;
using CsCheck;
using PorchLight.Core.Answers;
using PorchLight.Core.Conditions;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Core.Screening;
using PorchLight.Core.Workbench;
using static PorchLight.Core.Tests.Sample;

namespace PorchLight.Core.Tests.Workbench;

public sealed class ScreeningDifferencesTests
{
    private static readonly FormContent TwoAlike = OnePage(
        new Question("size", "How large?", new ChoiceKind([new Option("s", "Small"), new Option("xs", "Small")]))
    );

    private static readonly FieldCatalogue Fields = new(BuiltInFields.All);

    private static Signal Asks(string option) => Points("small", 5, new IsCondition(new AnswerTo("size"), option));

    [Fact]
    public void Another_option_that_is_called_the_same_is_a_difference() =>
        ScreeningDifferences
            .Say(Rules(Asks("s")), Rules(Asks("xs")), TwoAlike, Fields)
            .ShouldHaveSingleItem()
            .ShouldContain("reads the same");

    [Fact]
    public void Another_order_is_a_difference()
    {
        var (one, other) = (Asks("s"), Asks("xs") with { Key = "other" });
        ScreeningDifferences.Say(Rules(one, other), Rules(other, one), TwoAlike, Fields).ShouldBe(["The signals are in another order."]);
    }

    [Fact]
    public void Any_two_screenings_differ_in_words_exactly_when_they_are_stored_otherwise()
    {
        // A second way to tell: as they are stored.
        var condition = Gen.Int[0, 2]
            .Select(which =>
                which switch
                {
                    0 => (Condition)new IsCondition(new AnswerTo("size"), "s"),
                    1 => new IsCondition(new AnswerTo("size"), "xs"),
                    _ => new IsAnsweredCondition(new AnswerTo("size")),
                }
            );
        var effect = Gen.Int[0, 3]
            .Select(which =>
                which switch
                {
                    0 => (SignalEffect)new PointsEffect(5),
                    1 => new PointsEffect(-5),
                    2 => new FlagEffect(),
                    _ => new DealBreakerEffect(),
                }
            );
        var signal = Gen.Select(Gen.Int[0, 2], condition, effect, Gen.Bool, Gen.Int[0, 1])
            .Select(one => new Signal($"s{one.Item1}", $"Says {one.Item5}", one.Item2, one.Item3) { IsOff = one.Item4 });
        var rules = Gen.Select(signal.List[0, 3], Gen.Int[0, 1], Gen.Int[1, 2])
            .Select(one => new ScreeningRules(one.Item2, 50, 10, one.Item3, [.. one.Item1.DistinctBy(two => two.Key)]));
        Gen.Select(rules, rules)
            .Sample(
                (one, other) =>
                    ScreeningDifferences.Say(one, other, TwoAlike, Fields).Count
                    == 0
                    == (JsonSerializer.Serialize(one) == JsonSerializer.Serialize(other))
            );
    }
}
