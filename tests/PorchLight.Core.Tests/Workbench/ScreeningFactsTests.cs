using PorchLight.Core.Answers;
using PorchLight.Core.Conditions;
using PorchLight.Core.Fields;
using PorchLight.Core.Screening;
using PorchLight.Core.Workbench;
using static PorchLight.Core.Tests.Sample;

namespace PorchLight.Core.Tests.Workbench;

public sealed class ScreeningFactsTests
{
    [Fact]
    public void A_signal_reads_as_a_sentence_with_what_it_does()
    {
        var facts = Facts(Points("small", -25, new NumberCondition(Of(Budget), NumberRelation.Under, 1800, "EUR")));
        facts.Signals["small"].When.ShouldBe("“What have you set aside?” is under 1,800 EUR");
        facts.Signals["small"].Effect.ShouldBe("25 points off");
        facts.Signals["small"].Questions.ShouldBe(["budget"]);
    }

    [Theory]
    [InlineData(1, "1 point")]
    [InlineData(-1, "1 point off")]
    [InlineData(12, "12 points")]
    public void Points_are_said_as_one_says_them(int points, string words) => new PointsEffect(points).Say().ShouldBe(words);

    [Fact]
    public void The_scale_is_said_in_words() =>
        Facts()
            .Scale.ShouldBe(
                "Everyone starts with 20 points. Come in from 50 points, Not now under 10, Talk first between them. 2 flags are enough for Not now."
            );

    [Fact]
    public void What_cannot_work_is_named_beside_its_signal()
    {
        var facts = Facts(
            Points("gone", 5, new IsCondition(new AnswerTo("who"), "me")),
            Points("field", 5, new IsAnsweredCondition(new ValueOnFile("client.nothing"))),
            Points("size", 5, new NumberCondition(Of(Decides), NumberRelation.Over, 3)),
            Points("option", 5, new IsCondition(Of(Budget), "huge")),
            Points("itself", 5, new AnyCondition([new FitCondition(Fit.ComeIn)])),
            Points("fine", 5, new IsCondition(Of(Decides), "yes"))
        );
        facts
            .Findings.Select(finding => (finding.Place, finding.Sentence))
            .ShouldBe([
                ("gone", "It looks at a question that is gone. Choose another, or take the signal away."),
                ("field", "It looks at a field that is gone. Choose another, or take the signal away."),
                ("size", "“Do you decide?” cannot be compared like this any more. Choose another comparison."),
                ("option", "“What have you set aside?” does not offer that answer any more. Choose another."),
                ("itself", "A signal makes the fit, so it cannot look at it. Choose an answer."),
            ]);
    }

    [Fact]
    public void Thresholds_that_cross_and_points_out_of_range_are_named()
    {
        var rules = new ScreeningRules(
            20_000,
            10,
            50,
            0,
            [Points("much", 10_001, new AllCondition([])), new("much", "", new AllCondition([]), new FlagEffect())]
        );
        ScreeningFacts
            .Of(rules, Everything, FieldCatalogue.BuiltIn)
            .Findings.Select(finding => finding.Place)
            .ShouldBe(["base", "floor", "flagLimit", "much", "much", "much"]);
    }

    private static ScreeningFacts Facts(params Signal[] signals) => ScreeningFacts.Of(Rules(signals), Everything, FieldCatalogue.BuiltIn);
}
