using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Conditions;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using static PorchLight.Core.Tests.Sample;

namespace PorchLight.Core.Tests.Forms;

public sealed class CalculationTests
{
    private static readonly Question From = new("from", "From?", new DateKind());
    private static readonly Question To = new("to", "To?", new DateKind());

    // Common practice, no source: a stay from Monday to Wednesday has two nights; a crew that comes from Monday to
    // Wednesday works three days.
    [Theory]
    [InlineData(SpanUnit.Days, 3)]
    [InlineData(SpanUnit.Nights, 2)]
    [InlineData(SpanUnit.Weeks, 0)]
    public void Between_Monday_and_Wednesday_are_three_days_two_nights_and_no_whole_week(SpanUnit spell, int expected) =>
        Work(new TimeBetween("from", "to", spell), ("from", Day(2027, 5, 3)), ("to", Day(2027, 5, 5))).ShouldBe(new NumberAnswer(expected));

    [Fact]
    public void Time_between_is_unknown_backwards_and_known_within_one_range()
    {
        Work(new TimeBetween("from", "to", SpanUnit.Days), ("from", Day(2027, 5, 5)), ("to", Day(2027, 5, 3))).ShouldBeNull();
        Work(new TimeBetween("from", "to", SpanUnit.Nights), ("from", Day(2027, 5, 3)), ("to", Day(2027, 6, 5)))
            .ShouldBe(new NumberAnswer(33), "over the end of a month");
        Work(
                new TimeBetween("from", null, SpanUnit.Weeks),
                ("from", new DateRangeAnswer(new LocalDate(2028, 2, 21), new LocalDate(2028, 3, 6)))
            )
            .ShouldBe(new NumberAnswer(2), "14 nights over a leap day");
    }

    [Fact]
    public void Days_until_count_from_the_day_of_asking() =>
        Work(new DaysUntil("from"), ("from", Day(2026, 12, 25))).ShouldBe(new NumberAnswer(32), "23 November to 25 December");

    [Theory]
    [InlineData(16, 2)]
    [InlineData(17, 3)]
    [InlineData(23, 3)]
    [InlineData(0, 0)]
    public void People_shared_out_over_tables_of_eight_need_whole_tables(int people, int tables) =>
        Work(new DivideAndRoundUp(new CopiedAnswer("width"), 8), ("width", new NumberAnswer(people))).ShouldBe(new NumberAnswer(tables));

    public static TheoryData<Answer, Arithmetic, Answer, Answer?> TwoTogether { get; } =
        new()
        {
            { new NumberAnswer(3), Arithmetic.Plus, new NumberAnswer(4.5m), new NumberAnswer(7.5m) },
            { new NumberAnswer(3), Arithmetic.Minus, new NumberAnswer(4), new NumberAnswer(-1) },
            { new NumberAnswer(3), Arithmetic.Times, new NumberAnswer(4), new NumberAnswer(12) },
            { new NumberAnswer(3), Arithmetic.DividedBy, new NumberAnswer(4), new NumberAnswer(0.75m) },
            { new NumberAnswer(3), Arithmetic.DividedBy, new NumberAnswer(0), null },
            { new NumberAnswer(decimal.MaxValue), Arithmetic.Times, new NumberAnswer(4), null },
            { new MoneyAnswer(900, "EUR"), Arithmetic.Plus, new MoneyAnswer(100, "EUR"), new MoneyAnswer(1000, "EUR") },
            { new MoneyAnswer(900, "EUR"), Arithmetic.Minus, new MoneyAnswer(100, "GBP"), null },
            { new MoneyAnswer(900, "EUR"), Arithmetic.DividedBy, new MoneyAnswer(300, "EUR"), new NumberAnswer(3) },
            { new MoneyAnswer(900, "EUR"), Arithmetic.Times, new MoneyAnswer(300, "EUR"), null },
            { new MoneyAnswer(900, "EUR"), Arithmetic.Plus, new NumberAnswer(1), null },
            { new MoneyAnswer(900, "EUR"), Arithmetic.Times, new NumberAnswer(3), new MoneyAnswer(2700, "EUR") },
            { new MoneyAnswer(900, "EUR"), Arithmetic.DividedBy, new NumberAnswer(4), new MoneyAnswer(225, "EUR") },
            { new NumberAnswer(3), Arithmetic.Times, new MoneyAnswer(900, "EUR"), new MoneyAnswer(2700, "EUR") },
            { new NumberAnswer(3), Arithmetic.DividedBy, new MoneyAnswer(900, "EUR"), null },
            { new NumberAnswer(3), Arithmetic.Plus, new TextAnswer("4"), null },
        };

    // Worked by hand.
    [Theory]
    [MemberData(nameof(TwoTogether))]
    public void Two_numbers_come_together_with_their_currency_and_to_nothing_where_that_means_nothing(
        Answer first,
        Arithmetic how,
        Answer second,
        Answer? together
    )
    {
        Work(new ArithmeticOfTwo(new FixedValue(first), how, new FixedValue(second))).ShouldBe(together);
        Work(new ArithmeticOfTwo(new CopiedAnswer("width"), how, new FixedValue(second))).ShouldBeNull("the first is not known");
        Work(new ArithmeticOfTwo(new CopiedAnswer("width"), how, new FixedValue(second)), ("width", first)).ShouldBe(together);
    }

    [Fact]
    public void Otherwise_is_taken_on_false_and_on_unknown_alike()
    {
        var price = new IfElse(
            new NumberCondition(Of(Width), NumberRelation.Over, 10),
            new FixedValue(new TextAnswer("large")),
            new FixedValue(new TextAnswer("small"))
        );
        Work(price, ("width", new NumberAnswer(11))).ShouldBe(new TextAnswer("large"));
        Work(price, ("width", new NumberAnswer(10))).ShouldBe(new TextAnswer("small"));
        Work(price).ShouldBe(new TextAnswer("small"));
    }

    [Fact]
    public void Joined_text_holds_earlier_answers() =>
        Work(new JoinedText("{answer:width|?} wide, from {answer:from}"), ("width", new NumberAnswer(3.5m)), ("from", Day(2027, 5, 3)))
            .ShouldBe(new TextAnswer("3.5 m wide, from 3 May 2027"));

    [Fact]
    public void Amounts_of_rows_sum_to_an_amount_and_blank_ones_count_as_nothing()
    {
        var fees = new Question(
            "fees",
            "Fees",
            new ListKind([new Question("fee", "Fee", new MoneyKind("EUR")), new Question("note", "Note", new ShortTextKind())], "fee")
        );
        var form = OnePage(fees, new Question("sum", "Sum", new WorkedOutKind(new OverRows("fees", "fee", Total.Sum))));
        Sum(new MoneyAnswer(0.1m, "EUR"), null, new MoneyAnswer(0.2m, "EUR")).ShouldBe(new MoneyAnswer(0.3m, "EUR"));
        Sum().ShouldBe(new MoneyAnswer(0, "EUR"), "a list left blank sums to nothing");
        Sum(new MoneyAnswer(decimal.MaxValue, "EUR"), new MoneyAnswer(decimal.MaxValue, "EUR"))
            .ShouldBeNull("too large is unknown, not wrong");

        Answer? Sum(params MoneyAnswer?[] amounts)
        {
            var rows = amounts
                .Select(amount => new AnswerRow(new Dictionary<string, Answer?> { ["fee"] = amount, ["note"] = new TextAnswer("x") }))
                .ToList();
            return Routes.Trace(Known(form), Given(("fees", rows.Count == 0 ? null : new RowsAnswer(rows)))).Answers["sum"].Answer;
        }
    }

    [Fact]
    public void A_sum_nobody_has_filled_in_has_the_currency_it_would_have_been_in_also_through_a_worked_out_value()
    {
        var fees = new Question(
            "fees",
            "Fees",
            new ListKind(
                [new Question("fee", "Fee", new MoneyKind("EUR")), new Question("net", "Net", new WorkedOutKind(new CopiedAnswer("fee")))],
                "fee"
            )
        );
        var form = OnePage(fees, new Question("sum", "Sum", new WorkedOutKind(new OverRows("fees", "net", Total.Sum))));
        Routes.Trace(Known(form), Given()).Answers["sum"].Answer.ShouldBe(new MoneyAnswer(0, "EUR"));
    }

    [Fact]
    public void A_choice_that_is_repeated_keeps_its_options()
    {
        var again = new Question(
            "again",
            "Again",
            new WorkedOutKind(
                new IfElse(new IsCondition(Of(Decides), "yes"), new CopiedAnswer("budget"), new FixedValue(new TextAnswer("none")))
            )
        );
        var form = OnePage(Decides, Budget, again);
        Condition[] conditions = [new DoesNotKnowCondition(Of(again)), new NumberCondition(Of(again), NumberRelation.AtLeast, 4000, "EUR")];
        Truths("unsure").ShouldBe([Truth.True, Truth.Unknown]);
        Truths("middle").ShouldBe([Truth.False, Truth.True]);
        Wordings.Fill("about {answer:again}", Said("middle")).ShouldBe("about 4,000 to 9,000");

        AnswerContext Said(string option) =>
            Routes.Trace(Known(form), Given(("decides", new YesNoAnswer(true)), ("budget", ChoiceAnswer.Of(option)))).Know(Known(form));

        IEnumerable<Truth> Truths(string option) => conditions.Select(condition => condition.Evaluate(Said(option)));
    }

    [Fact]
    public void What_cannot_be_is_unknown()
    {
        Work(new AgeOn("from", "to"), ("from", Day(2027, 1, 1)), ("to", Day(2026, 1, 1))).ShouldBeNull("nobody is there before birth");
        var walls = new Question(
            "walls",
            "Walls",
            new ListKind([new Question("w", "W", new NumberKind()), new Question("h", "H", new NumberKind())], "wall")
        );
        var form = OnePage(walls, new Question("area", "Area", new WorkedOutKind(new AreaOfRows("walls", "w", "h", LengthUnit.Metres))));
        Area((2, 3), (1, 1)).ShouldBe(new NumberAnswer(7));
        Area((0, 3)).ShouldBeNull("nothing to paint");
        Area((-2, -3)).ShouldBeNull("no wall is narrower than nothing");
        Area().ShouldBeNull();

        Answer? Area(params (int Wide, int High)[] sides) =>
            Routes
                .Trace(
                    Known(form),
                    Given(
                        (
                            "walls",
                            sides.Length == 0
                                ? null
                                : new RowsAnswer([
                                    .. sides.Select(side => new AnswerRow(
                                        new Dictionary<string, Answer?>
                                        {
                                            ["w"] = new NumberAnswer(side.Wide),
                                            ["h"] = new NumberAnswer(side.High),
                                        }
                                    )),
                                ])
                        )
                    )
                )
                .Answers["area"]
                .Answer;
    }

    [Fact]
    public void A_form_that_goes_round_in_a_circle_while_it_is_built_is_answered_all_the_same()
    {
        var (one, two) = (
            new Question("one", "One", new WorkedOutKind(new CopiedAnswer("two"))),
            new Question("two", "Two", new WorkedOutKind(new CopiedAnswer("one")))
        );
        var form = OnePage(one, two);
        var known = Routes.Trace(Known(form), Given()).Know(Known(form));
        new DoesNotKnowCondition(Of(one)).Evaluate(known).ShouldBe(Truth.Unknown);
        known.IsGrounded(one).ShouldBeFalse();
        PorchLight.Core.Screening.FitRanges.Of(Rules(Points("p", 5, new IsAnsweredCondition(Of(one)))), Known(form)).HighScore.ShouldBe(25);
    }

    /// <summary>
    /// Each value looks at the two before it, in three places: whoever followed every way would take longer than the
    /// sun shines.
    /// </summary>
    [Fact]
    public void A_long_chain_of_values_that_look_at_each_other_is_followed_once()
    {
        Question Value(int n) =>
            new(
                $"v{n}",
                "Value",
                new WorkedOutKind(
                    new IfElse(
                        new NumberCondition(new AnswerTo(Before(n, 1)), NumberRelation.AtLeast, 0),
                        new CopiedAnswer(Before(n, 1)),
                        new CopiedAnswer(Before(n, 2))
                    )
                )
            );
        string Before(int n, int back) => n - back < 1 ? Width.Key : $"v{n - back}";
        var values = Enumerable.Range(1, 90).Select(Value).ToArray();
        var form = OnePage([Width, .. values]);
        var blank = Routes.Trace(Known(form), Given()).Know(Known(form));
        blank.IsGrounded(values[^1]).ShouldBeFalse("nothing was said");
        var said = Routes.Trace(Known(form), Given((Width.Key, new NumberAnswer(3)))).Know(Known(form));
        said.Of("v90").Answer.ShouldBe(new NumberAnswer(3));
        said.IsGrounded(values[^1]).ShouldBeTrue();
        PorchLight
            .Core.Screening.FitRanges.Of(
                Rules(Points("p", 5, new NumberCondition(new AnswerTo("v90"), NumberRelation.AtLeast, 1))),
                Known(form)
            )
            .HighScore.ShouldBe(25);
    }

    [Fact]
    public void A_calculation_may_only_look_back() =>
        FormStructure
            .Check(OnePage(new Question("sum", "Sum", new WorkedOutKind(new CopiedAnswer("width"))), Width), FieldCatalogue.BuiltIn)
            .ShouldHaveSingleItem()
            .Place.ShouldBe("sum");

    private static DateAnswer Day(int year, int month, int day) => new(new LocalDate(year, month, day));

    private static Answer? Work(Calculation calculation, params (string Key, Answer Answer)[] given) =>
        calculation.WorkOut(Known(OnePage(From, To, Width), [.. given.Select(one => (one.Key, AnswerState.Of(one.Answer)))]));
}
