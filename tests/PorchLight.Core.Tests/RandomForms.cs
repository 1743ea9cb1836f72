using System.Text.Json;
using System.Text.Json.Serialization.Metadata;
using CsCheck;
using NodaTime.Serialization.SystemTextJson;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Conditions;
using PorchLight.Core.Forms;
using PorchLight.Core.Screening;
using static PorchLight.Core.Tests.Sample;

namespace PorchLight.Core.Tests;

/// <summary>Random answers, conditions, forms and screenings over the questions of <see cref="Sample"/>.</summary>
internal static class RandomForms
{
    private static readonly Question[] Questions = [Budget, Decides, Width, Wanted, Extras, Words];

    public static Gen<Answer> AnswerTo(Question question) =>
        question.Kind switch
        {
            YesNoKind => Gen.Bool.Select(yes => (Answer)new YesNoAnswer(yes)),
            ChoiceKind { Several: false } choice => Pick(choice.Options.ToArray()).Select(option => (Answer)ChoiceAnswer.Of(option.Key)),
            ChoiceKind choice => Gen.Int[1, (1 << choice.Options.Count) - 1]
                .Select(bits =>
                    (Answer)new ChoiceAnswer([.. choice.Options.Where((_, index) => (bits >> index & 1) == 1).Select(option => option.Key)])
                ),
            NumberKind => Gen.Int[0, 40].Select(halves => (Answer)new NumberAnswer(halves / 2m)),
            DateKind => Gen.Int[-20, 60].Select(days => (Answer)new DateAnswer(Today.PlusDays(days))),
            _ => Pick("mural", "sign", "other").Select(text => (Answer)new TextAnswer(text)),
        };

    public static Gen<Dictionary<string, Answer?>> Answers { get; } =
        Gen.Select(
            Gen.Select(Some(Budget), Some(Decides), Some(Width)),
            Gen.Select(Some(Wanted), Some(Extras), Some(Words)),
            (first, second) =>
                Given(
                    ("budget", first.Item1),
                    ("decides", first.Item2),
                    ("width", first.Item3),
                    ("wanted", second.Item1),
                    ("extras", second.Item2),
                    ("words", second.Item3)
                )
        );

    /// <summary>Conditions that look only at the first so many questions.</summary>
    public static Gen<Condition> ConditionOn(int questions, int depth = 2)
    {
        var leaf = Gen.Int[0, questions - 1].SelectMany(index => Leaf(Questions[index]));
        if (depth == 0)
            return leaf;
        var part = ConditionOn(questions, depth - 1);
        return Gen.Frequency(
            (3, leaf),
            (1, part.Array[0, 3].Select(parts => (Condition)new AllCondition(parts))),
            (1, part.Array[0, 3].Select(parts => (Condition)new AnyCondition(parts))),
            (1, part.Select(one => (Condition)new NotCondition(one)))
        );
    }

    /// <summary>Three pages of two questions each, with random conditions and forward routes.</summary>
    public static Gen<FormContent> Form { get; } =
        Gen.Select(
            Asked(Decides, 1),
            Asked(Extras, 4),
            Asked(Words, 5),
            Rules(2, "p2", "p3", "end"),
            Rules(4, "p3", "end"),
            Shown(2),
            (decides, extras, words, firstRules, secondRules, shown) =>
                Sample.Form(
                    new Page("p1", "One", [Budget, decides]) { Routes = firstRules },
                    new Page("p2", "Two", [Width, Wanted]) { Routes = secondRules, ShownOnlyWhen = shown },
                    new Page("p3", "Three", [extras, words])
                )
        );

    /// <summary>The same with rows on the third page, whose second question may depend on the first and on answers before.</summary>
    public static Gen<FormContent> FormWithRows { get; } =
        Gen.Select(
            Form,
            ConditionOn(4),
            Gen.Bool,
            (form, when, required) =>
                form with
                {
                    Pages = [.. form.Pages.Take(2), form.Pages[2] with { Items = [.. form.Pages[2].Items, Rows(when, required)] }],
                }
        );

    /// <summary>Answers to <see cref="FormWithRows"/>, also to what it will not ask.</summary>
    public static Gen<Dictionary<string, Answer?>> AnswersWithRows { get; } =
        Gen.Select(
            Answers,
            Gen.Select(
                Gen.Int[0, 9],
                Gen.Bool,
                Gen.Int[0, 3],
                (wide, gilded, cells) =>
                    new AnswerRow(
                        new Dictionary<string, Answer?>
                        {
                            ["wide"] = (cells & 1) == 0 ? new NumberAnswer(wide) : null,
                            ["gilded"] = (cells & 2) == 0 ? new YesNoAnswer(gilded) : null,
                        }
                    )
            ).Array[0, 3],
            (answers, rows) => new Dictionary<string, Answer?>(answers) { ["rows"] = rows.Length == 0 ? null : new RowsAnswer(rows) }
        );

    /// <summary>JSON as the browser and the database have it, as far as these answers need it.</summary>
    public static JsonSerializerOptions Wire { get; } =
        new JsonSerializerOptions(JsonSerializerDefaults.Web)
        {
            AllowOutOfOrderMetadataProperties = true,
            TypeInfoResolver = new DefaultJsonTypeInfoResolver().WithAddedModifier(Kinds.Describe),
        }.ConfigureForNodaTime(NodaTime.DateTimeZoneProviders.Tzdb);

    private static Question Rows(Condition when, bool required) =>
        new(
            "rows",
            "Which?",
            new ListKind(
                [
                    new Question("wide", "How wide?", new NumberKind(1, 8)) { Required = required },
                    new Question("gilded", "Gilded?", new YesNoKind())
                    {
                        AskedOnlyWhen = new AnyCondition([new NumberCondition(new AnswerTo("wide"), NumberRelation.Over, 4), when]),
                        Required = required,
                    },
                    new Question(
                        "twice",
                        "Twice",
                        new WorkedOutKind(
                            new IfElse(
                                new IsCondition(new AnswerTo("gilded"), "yes"),
                                new CopiedAnswer("wide"),
                                new FixedValue(new NumberAnswer(0))
                            )
                        )
                    ),
                ],
                "one"
            )
        );

    public static Gen<ScreeningRules> Screening { get; } =
        Gen.Select(
            Gen.Select(
                ConditionOn(6),
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
            ).Array[1, 6],
            Gen.Int[-10, 20],
            (signals, start) => new ScreeningRules(start, 30, 0, 2, signals)
        );

    public static Gen<T> Pick<T>(params T[] values) => Gen.Int[0, values.Length - 1].Select(index => values[index]);

    private static Gen<Answer?> Some(Question question) =>
        Gen.Frequency((3, AnswerTo(question).Select(answer => (Answer?)answer)), (1, Gen.Const((Answer?)null)));

    private static Gen<Question> Asked(Question question, int earlier) =>
        Gen.Frequency((1, Gen.Const(question)), (2, ConditionOn(earlier).Select(when => question with { AskedOnlyWhen = when })));

    private static Gen<Condition?> Shown(int earlier) =>
        Gen.Frequency((1, Gen.Const((Condition?)null)), (1, ConditionOn(earlier).Select(when => (Condition?)when)));

    private static Gen<RouteRule[]> Rules(int earlier, params string[] targets) =>
        Gen.Select(ConditionOn(earlier), Pick(targets), (when, to) => new RouteRule(when, to)).Array[0, 2];

    private static Gen<Condition> Leaf(Question question) =>
        question.Kind switch
        {
            YesNoKind => Pick<Condition>(
                new IsCondition(Of(question), "yes"),
                new IsBlankCondition(Of(question)),
                new IsAnsweredCondition(Of(question))
            ),
            ChoiceKind { Several: false } choice => Pick<Condition>(
                new IsCondition(Of(question), choice.Options[0].Key),
                new DoesNotKnowCondition(Of(question)),
                new NumberCondition(Of(question), NumberRelation.AtLeast, 4000, "EUR"),
                new NumberBetweenCondition(Of(question), 1000, 6000, "EUR"),
                new IsNotCondition(Of(question), choice.Options[1].Key)
            ),
            ChoiceKind choice => Pick<Condition>(
                new IncludesCondition(Of(question), choice.Options[0].Key),
                new IncludesNoneOfCondition(Of(question), [choice.Options[1].Key])
            ),
            NumberKind => Gen.Select(
                Gen.Enum<NumberRelation>(),
                Gen.Int[1, 18],
                (relation, value) => (Condition)new NumberCondition(Of(question), relation, value)
            ),
            DateKind => Gen.Int[0, 40]
                .SelectMany(days =>
                    Pick<Condition>(
                        new WithinNextDaysCondition(Of(question), days),
                        new BeforeCondition(Of(question), Today.PlusDays(days)),
                        new AfterCondition(Of(question), Today.PlusDays(days)),
                        new DateBetweenCondition(Of(question), Today, Today.PlusDays(days))
                    )
                ),
            _ => Pick<Condition>(
                new IsCondition(Of(question), "mural"),
                new IsOneOfCondition(Of(question), ["sign", "mural"]),
                new IsBlankCondition(Of(question))
            ),
        };
}
