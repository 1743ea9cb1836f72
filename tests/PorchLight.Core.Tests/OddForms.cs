using CsCheck;
using PorchLight.Core.Answers;
using PorchLight.Core.Conditions;
using PorchLight.Core.Forms;
using PorchLight.Core.Screening;
using static PorchLight.Core.Tests.RandomForms;
using static PorchLight.Core.Tests.Sample;

namespace PorchLight.Core.Tests;

/// <summary>Random forms with limits, rows and worked-out values, for the rules that have to see through them.</summary>
internal static class OddForms
{
    private static readonly string[] Options = ["a", "b", "c", "d", "none"];

    public static Question People { get; } = new("people", "How many?", new NumberKind(2, 9, Whole: true));

    public static Question Flag { get; } = new("flag", "Is it so?", new YesNoKind());

    public static Question Day { get; } = new("day", "Which day?", new DateKind(new DateLimits(FromDays: 0, ToDays: 12)));

    public static Question Stay { get; } = new("stay", "From when to when?", new DateRangeKind(new DateLimits(FromDays: 0, ToDays: 9)));

    public static Question Many { get; } =
        new(
            "many",
            "Which ones?",
            new ChoiceKind(
                [.. Options.Select(key => new Option(key, key.ToUpperInvariant()) { NoneOfThese = key == "none" })],
                Several: true
            )
            {
                AtLeast = 2,
                AtMost = 4,
            }
        );

    public static Question Taste { get; } = new("taste", "How much?", new ScaleKind(1, 4));

    public static Question Walls { get; } =
        new(
            "walls",
            "Which walls?",
            new ListKind(
                [
                    new Question("wide", "How wide?", new NumberKind(1, 6, Whole: true)),
                    new Question("outside", "Outside?", new YesNoKind()),
                ],
                "wall",
                Most: 4
            )
        );

    private static readonly Gen<Question> Repeated = Pick(
        Value("repeated", new CopiedAnswer("budget")),
        Value(
            "repeated",
            new IfElse(
                new IsCondition(new AnswerTo("flag"), "yes"),
                new CopiedAnswer("budget"),
                new FixedValue(new BandAnswer("nothing", Band.Exactly(0, "EUR")))
            )
        ),
        Value(
            "repeated",
            new IfElse(new IsCondition(new AnswerTo("flag"), "no"), new FixedValue(new NumberAnswer(3)), new CopiedAnswer("people"))
        )
    );

    private static readonly Gen<Question> Counted = Pick(
        Value("counted", new DivideAndRoundUp(new CopiedAnswer("people"), 3)),
        Value("counted", new ArithmeticOfTwo(new CopiedAnswer("people"), Arithmetic.Times, new FixedValue(new NumberAnswer(2)))),
        Value("counted", new ArithmeticOfTwo(new FixedValue(new NumberAnswer(12)), Arithmetic.DividedBy, new CopiedAnswer("people"))),
        Value("counted", new ArithmeticOfTwo(new CopiedAnswer("people"), Arithmetic.Minus, new CopiedAnswer("taste"))),
        Value("counted", new DaysUntil("day")),
        Value("counted", new TimeBetween("stay", null, SpanUnit.Nights)),
        Value(
            "counted",
            new IfElse(
                new NumberCondition(new AnswerTo("people"), NumberRelation.Over, 4),
                new FixedValue(new NumberAnswer(9)),
                new FixedValue(new NumberAnswer(2))
            )
        )
    );

    private static readonly Gen<Question> Summed = Pick(
        Value("summed", new CountRows("walls")),
        Value("summed", new CountRows("walls", new IsCondition(new AnswerTo("outside"), "yes"))),
        Value(
            "summed",
            new CountRows(
                "walls",
                new AnyCondition([new IsCondition(new AnswerTo("outside"), "yes"), new IsCondition(new AnswerTo("flag"), "yes")])
            )
        ),
        Value("summed", new ArithmeticOfTwo(new CountRows("walls"), Arithmetic.Plus, new CopiedAnswer("people"))),
        Value("summed", new OverRows("walls", "wide", Total.Sum))
    );

    /// <summary>
    /// A condition on the first so many of: people, flag, budget, day, stay, many, taste, walls, repeated, counted,
    /// summed.
    /// </summary>
    public static Gen<Condition> On(int first) =>
        Gen.Int[0, first - 1]
            .SelectMany(index =>
                index switch
                {
                    0 or 9 or 10 => Number(
                        index == 0 ? "people"
                        : index == 9 ? "counted"
                        : "summed"
                    ),
                    1 => Pick<Condition>(
                        new IsCondition(new AnswerTo("flag"), "yes"),
                        new IsNotCondition(new AnswerTo("flag"), "yes"),
                        new IsBlankCondition(new AnswerTo("flag"))
                    ),
                    2 => Money("budget"),
                    3 => Gen.Select(Gen.Int[-2, 14], Gen.Int[-2, 14], (from, days) => (from, days))
                        .SelectMany(pair =>
                            Pick<Condition>(
                                new WithinNextDaysCondition(new AnswerTo("day"), pair.days),
                                new BeforeCondition(new AnswerTo("day"), Today.PlusDays(pair.from)),
                                new AfterCondition(new AnswerTo("day"), Today.PlusDays(pair.from)),
                                new DateBetweenCondition(new AnswerTo("day"), Today.PlusDays(pair.from), Today.PlusDays(pair.days))
                            )
                        ),
                    4 => Gen.Select(Gen.Int[-1, 10], Gen.Int[-1, 10], (from, to) => (from, to))
                        .SelectMany(pair =>
                            Pick<Condition>(
                                new DateBetweenCondition(new AnswerTo("stay"), Today.PlusDays(pair.from), Today.PlusDays(pair.to)),
                                new AfterCondition(new AnswerTo("stay"), Today.PlusDays(pair.from))
                            )
                        ),
                    5 => Pick(Options).Select(key => (Condition)new IncludesCondition(new AnswerTo("many"), key)),
                    6 => Number("taste"),
                    7 => Pick<Condition>(new IsAnsweredCondition(new AnswerTo("walls")), new IsBlankCondition(new AnswerTo("walls"))),
                    _ => Gen.Bool.SelectMany(money => money ? Money("repeated") : Number("repeated")),
                }
            );

    private static Gen<Condition> Tree(int first) =>
        Gen.Frequency(
            (4, On(first)),
            (1, On(first).Array[0, 3].Select(parts => (Condition)new AllCondition(parts))),
            (1, On(first).Array[0, 3].Select(parts => (Condition)new AnyCondition(parts))),
            (1, On(first).Select(part => (Condition)new NotCondition(part)))
        );

    /// <summary>Conditions over every question and worked-out value.</summary>
    public static Gen<Condition> Conditions { get; } = Tree(11);

    /// <summary>Two pages and a third with worked-out values; the first leads on by a rule now and then.</summary>
    public static Gen<FormContent> Forms { get; } =
        Gen.Select(
            Gen.Select(Repeated, Counted, Summed, (repeated, counted, summed) => (repeated, counted, summed)),
            Maybe(Tree(2)),
            Maybe(Tree(3)),
            Gen.Select(Tree(3), Pick("two", "three", "end"), (when, to) => new RouteRule(when, to)).Array[0, 1],
            Maybe(Tree(8)),
            (values, budget, many, rules, repeated) =>
                Form(
                    new Page("one", "One", [People, Flag, Budget with { AskedOnlyWhen = budget }]) { Routes = rules },
                    new Page("two", "Two", [Day, Stay, Many with { AskedOnlyWhen = many }, Taste, Walls]),
                    new Page("three", "Three", [values.repeated with { AskedOnlyWhen = repeated }, values.counted, values.summed])
                )
        );

    public static Gen<ScreeningRules> Screening(int most) =>
        Gen.Select(
            Gen.Select(
                Conditions,
                Gen.Int[-40, 40],
                Gen.Int[0, 9],
                (when, points, kind) =>
                    new Signal(
                        "s",
                        "s",
                        when,
                        kind == 0 ? new DealBreakerEffect()
                            : kind < 3 ? new FlagEffect()
                            : new PointsEffect(points)
                    )
            ).Array[1, most],
            Gen.Int[-10, 20],
            (signals, start) => new ScreeningRules(start, 30, 0, 2, signals)
        );

    /// <summary>Every answer a question allows, blank included.</summary>
    public static List<Answer?> Domain(Question question) =>
        question.Kind switch
        {
            NumberKind => [null, .. Enumerable.Range(2, 8).Select(number => new NumberAnswer(number))],
            YesNoKind => [null, new YesNoAnswer(true), new YesNoAnswer(false)],
            ChoiceKind { Several: false } choice => [null, .. choice.Options.Select(option => ChoiceAnswer.Of(option.Key))],
            DateKind => [null, .. Enumerable.Range(0, 13).Select(days => new DateAnswer(Today.PlusDays(days)))],
            DateRangeKind =>
            [
                null,
                .. Enumerable
                    .Range(0, 10)
                    .SelectMany(from =>
                        Enumerable.Range(from, 10 - from).Select(to => new DateRangeAnswer(Today.PlusDays(from), Today.PlusDays(to)))
                    ),
            ],
            ChoiceKind =>
            [
                null,
                ChoiceAnswer.Of("none"),
                .. Enumerable
                    .Range(1, 15)
                    .Select(bits => new ChoiceAnswer([.. Options.Take(4).Where((_, index) => (bits >> index & 1) == 1)]))
                    .Where(answer => answer.Keys.Count >= 2),
            ],
            ScaleKind => [null, .. Enumerable.Range(1, 4).Select(step => new NumberAnswer(step))],
            _ => [],
        };

    public static Gen<Dictionary<string, Answer?>> Answers { get; } =
        Gen.Select(
            Gen.Select(Some(People), Some(Flag), Some(Budget), Some(Day)),
            Gen.Select(Some(Stay), Some(Many), Some(Taste), Rows),
            (first, second) =>
                Given(
                    ("people", first.Item1),
                    ("flag", first.Item2),
                    ("budget", first.Item3),
                    ("day", first.Item4),
                    ("stay", second.Item1),
                    ("many", second.Item2),
                    ("taste", second.Item3),
                    ("walls", second.Item4)
                )
        );

    private static Gen<Answer?> Rows =>
        Gen.Select(
                Gen.Int[0, 6],
                Gen.Int[0, 2],
                (wide, outside) =>
                    new AnswerRow(
                        new Dictionary<string, Answer?>
                        {
                            ["wide"] = wide == 0 ? null : new NumberAnswer(wide),
                            ["outside"] = outside == 2 ? null : new YesNoAnswer(outside == 1),
                        }
                    )
            )
            .Where(row => !row.IsEmpty)
            .Array[0, 3]
            .Select(rows => rows.Length == 0 ? null : (Answer?)new RowsAnswer(rows));

    private static Gen<Answer?> Some(Question question) =>
        Domain(question) is var domain ? Gen.Int[0, domain.Count - 1].Select(index => domain[index]) : null!;

    private static Gen<Condition?> Maybe(Gen<Condition> condition) =>
        Gen.Frequency((2, Gen.Const((Condition?)null)), (1, condition.Select(one => (Condition?)one)));

    private static Gen<Condition> Number(string of) =>
        Gen.Select(
            Gen.Int[0, 3],
            Gen.Int[0, 11],
            Gen.Int[0, 11],
            (relation, low, high) =>
                relation == 3
                    ? (Condition)new NumberBetweenCondition(new AnswerTo(of), low, high)
                    : new NumberCondition(new AnswerTo(of), (NumberRelation)(relation + low % 2), low)
        );

    private static Gen<Condition> Money(string of) =>
        Pick<Condition>(
            new IsCondition(new AnswerTo(of), "small"),
            new IsOneOfCondition(new AnswerTo(of), ["middle", "unsure"]),
            new DoesNotKnowCondition(new AnswerTo(of)),
            new NumberCondition(new AnswerTo(of), NumberRelation.AtLeast, 4000, "EUR"),
            new NumberBetweenCondition(new AnswerTo(of), 9000, 1000, "EUR"),
            new NumberBetweenCondition(new AnswerTo(of), 1000, 9000, "EUR"),
            new NumberCondition(new AnswerTo(of), NumberRelation.Over, 9000, "USD")
        );

    private static Question Value(string key, Calculation value) => new(key, key, new WorkedOutKind(value));
}
