using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Conditions;
using PorchLight.Core.Forms;
using static PorchLight.Core.Tests.Sample;

namespace PorchLight.Core.Tests.Forms;

public sealed class ConditionTests
{
    private static readonly AnswerState Yes = AnswerState.Of(new YesNoAnswer(true));

    // Kleene, Introduction to Metamathematics (1952), section 64: the strong tables of the connectives.
    [Theory]
    [InlineData(Truth.True, Truth.True, Truth.True, Truth.True)]
    [InlineData(Truth.True, Truth.Unknown, Truth.Unknown, Truth.True)]
    [InlineData(Truth.True, Truth.False, Truth.False, Truth.True)]
    [InlineData(Truth.Unknown, Truth.Unknown, Truth.Unknown, Truth.Unknown)]
    [InlineData(Truth.Unknown, Truth.False, Truth.False, Truth.Unknown)]
    [InlineData(Truth.False, Truth.False, Truth.False, Truth.False)]
    public void And_and_or_follow_the_strong_tables_as_published(Truth a, Truth b, Truth and, Truth or)
    {
        a.And(b).ShouldBe(and);
        b.And(a).ShouldBe(and);
        a.Or(b).ShouldBe(or);
        b.Or(a).ShouldBe(or);
        a.And(b).Not().ShouldBe(a.Not().Or(b.Not()));
    }

    [Theory]
    [InlineData(NumberRelation.AtLeast, 4000, Truth.True)]
    [InlineData(NumberRelation.AtLeast, 6000, Truth.Unknown)]
    [InlineData(NumberRelation.Over, 9000, Truth.False)]
    [InlineData(NumberRelation.Over, 4000, Truth.Unknown)]
    [InlineData(NumberRelation.AtMost, 9000, Truth.True)]
    [InlineData(NumberRelation.Under, 9000, Truth.Unknown)]
    [InlineData(NumberRelation.Under, 4000, Truth.False)]
    [InlineData(NumberRelation.Under, 9000.01, Truth.True)]
    public void A_band_is_judged_only_as_far_as_all_of_it_agrees(NumberRelation relation, double value, Truth expected) =>
        Judge(new NumberCondition(Of(Budget), relation, (decimal)value, "EUR"), "budget", ChoiceAnswer.Of("middle")).ShouldBe(expected);

    [Theory]
    [InlineData("small", NumberRelation.Under, 1500, Truth.True)]
    [InlineData("small", NumberRelation.AtLeast, 1500, Truth.False)]
    [InlineData("small", NumberRelation.AtLeast, 0, Truth.Unknown)]
    [InlineData("large", NumberRelation.Over, 9000, Truth.True)]
    [InlineData("large", NumberRelation.AtMost, 9000, Truth.False)]
    [InlineData("large", NumberRelation.Over, 20000, Truth.Unknown)]
    [InlineData("unsure", NumberRelation.AtLeast, 0, Truth.Unknown)]
    public void Open_and_missing_ends_count_as_what_they_are(string option, NumberRelation relation, int value, Truth expected) =>
        Judge(new NumberCondition(Of(Budget), relation, value, "EUR"), "budget", ChoiceAnswer.Of(option)).ShouldBe(expected);

    [Fact]
    public void Another_currency_is_unknown() =>
        Judge(new NumberCondition(Of(Budget), NumberRelation.AtLeast, 1, "USD"), "budget", ChoiceAnswer.Of("middle"))
            .ShouldBe(Truth.Unknown);

    [Fact]
    public void Monthly_amounts_compare_over_their_whole_term()
    {
        var monthly = Budget with
        {
            Kind = new ChoiceKind([new Option("rate", "200 a month for a year", new Band(new Bound(200), new Bound(200), "EUR", 12))]),
        };
        var known = Known(OnePage(monthly), ("budget", AnswerState.Of(ChoiceAnswer.Of("rate"))));
        new NumberBetweenCondition(Of(monthly), 2400, 2400, "EUR").Evaluate(known).ShouldBe(Truth.True);
        new NumberCondition(Of(monthly), NumberRelation.Under, 2400, "EUR").Evaluate(known).ShouldBe(Truth.False);
    }

    [Theory]
    [InlineData(2.99, Truth.False)]
    [InlineData(3, Truth.True)]
    [InlineData(5, Truth.True)]
    [InlineData(5.01, Truth.False)]
    public void Between_includes_both_ends(double value, Truth expected) =>
        Judge(new NumberBetweenCondition(Of(Width), 3, 5), "width", new NumberAnswer((decimal)value)).ShouldBe(expected);

    [Fact]
    public void Keys_are_compared_also_for_an_unsure_option()
    {
        Judge(new IsCondition(Of(Budget), "unsure"), "budget", ChoiceAnswer.Of("unsure")).ShouldBe(Truth.True);
        Judge(new IsNotCondition(Of(Budget), "middle"), "budget", ChoiceAnswer.Of("unsure")).ShouldBe(Truth.True);
        Judge(new IsOneOfCondition(Of(Budget), ["small", "middle"]), "budget", ChoiceAnswer.Of("unsure")).ShouldBe(Truth.False);
        Judge(new DoesNotKnowCondition(Of(Budget)), "budget", ChoiceAnswer.Of("unsure")).ShouldBe(Truth.True);
        Judge(new DoesNotKnowCondition(Of(Budget)), "budget", ChoiceAnswer.Of("small")).ShouldBe(Truth.False);
        Judge(new IsCondition(Of(Decides), "yes"), "decides", new YesNoAnswer(true)).ShouldBe(Truth.True);
        Judge(new IsCondition(Of(Words), "a MURAL "), "words", new TextAnswer("A mural")).ShouldBe(Truth.True);
    }

    [Fact]
    public void Several_choices_are_judged_as_a_set()
    {
        var chosen = ChoiceAnswer.Of("gilding", "lighting");
        Judge(new IncludesCondition(Of(Extras), "gilding"), "extras", chosen).ShouldBe(Truth.True);
        Judge(new IncludesCondition(Of(Extras), "none"), "extras", chosen).ShouldBe(Truth.False);
        Judge(new IncludesNoneOfCondition(Of(Extras), ["none"]), "extras", chosen).ShouldBe(Truth.True);
        Judge(new IncludesNoneOfCondition(Of(Extras), ["none", "gilding"]), "extras", chosen).ShouldBe(Truth.False);
    }

    [Theory]
    [InlineData(-1, Truth.False)]
    [InlineData(0, Truth.True)]
    [InlineData(28, Truth.True)]
    [InlineData(29, Truth.False)]
    public void Within_the_next_days_counts_today_and_the_last_day(int days, Truth expected) =>
        Judge(new WithinNextDaysCondition(Of(Wanted), 28), "wanted", new DateAnswer(Today.PlusDays(days))).ShouldBe(expected);

    [Fact]
    public void Before_and_after_are_strict_and_between_dates_is_not()
    {
        var day = new DateAnswer(new LocalDate(2027, 3, 1));
        Judge(new BeforeCondition(Of(Wanted), day.Date), "wanted", day).ShouldBe(Truth.False);
        Judge(new AfterCondition(Of(Wanted), day.Date), "wanted", day).ShouldBe(Truth.False);
        Judge(new DateBetweenCondition(Of(Wanted), day.Date, day.Date), "wanted", day).ShouldBe(Truth.True);
    }

    [Fact]
    public void Answered_and_blank_are_two_valued_once_asked()
    {
        foreach (
            var (state, answered, blank) in new[]
            {
                (AnswerState.NotAskedYet, Truth.Unknown, Truth.Unknown),
                (AnswerState.Blank, Truth.False, Truth.True),
                (Yes, Truth.True, Truth.False),
                (AnswerState.OffRoute, Truth.False, Truth.False),
            }
        )
        {
            var known = Known(Everything, ("decides", state));
            new IsAnsweredCondition(Of(Decides)).Evaluate(known).ShouldBe(answered);
            new IsBlankCondition(Of(Decides)).Evaluate(known).ShouldBe(blank);
        }
    }

    [Fact]
    public void Anything_else_about_a_question_without_an_answer_is_unknown()
    {
        foreach (var state in new[] { AnswerState.NotAskedYet, AnswerState.Blank, AnswerState.OffRoute })
            new IsCondition(Of(Decides), "yes").Evaluate(Known(Everything, ("decides", state))).ShouldBe(Truth.Unknown);
    }

    [Fact]
    public void A_value_on_file_is_judged_like_an_answer_and_an_empty_field_is_blank()
    {
        var known = Known(Everything) with
        {
            OnFile = new Dictionary<string, Answer>
            {
                ["project.budget"] = new BandAnswer("4,000 to 9,000", new Band(new Bound(4000), new Bound(9000), "EUR")),
            },
        };
        new NumberCondition(new ValueOnFile("project.budget"), NumberRelation.AtLeast, 4000, "EUR").Evaluate(known).ShouldBe(Truth.True);
        new IsBlankCondition(new ValueOnFile("client.phone")).Evaluate(known).ShouldBe(Truth.True);
    }

    [Fact]
    public void Fit_and_points_are_unknown_until_there_is_a_verdict()
    {
        var before = Known(Everything);
        var after = before with { Fit = Fit.ComeIn, Points = 62 };
        new FitCondition(Fit.ComeIn).Evaluate(before).ShouldBe(Truth.Unknown);
        new FitCondition(Fit.ComeIn).Evaluate(after).ShouldBe(Truth.True);
        new NumberCondition(new PointsSoFar(), NumberRelation.AtLeast, 62).Evaluate(before).ShouldBe(Truth.Unknown);
        new NumberCondition(new PointsSoFar(), NumberRelation.AtLeast, 62).Evaluate(after).ShouldBe(Truth.True);
        new NumberBetweenCondition(new PointsSoFar(), 0, 61).Evaluate(after).ShouldBe(Truth.False);
    }

    private static Truth Judge(Condition condition, string question, Answer answer) =>
        condition.Evaluate(Known(Everything, (question, AnswerState.Of(answer))));
}
