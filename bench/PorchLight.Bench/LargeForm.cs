using PorchLight.Core.Answers;
using PorchLight.Core.Conditions;
using PorchLight.Core.Forms;

namespace PorchLight.Bench;

/// <summary>A form of sixty questions on six pages, most of them depending on others, with twenty rows of five questions.</summary>
internal static class LargeForm
{
    private const int Pages = 6;
    private const int Each = 10;
    private const int Rows = 20;

    public static FormContent Content { get; } =
        new(
            "A large form",
            "",
            [.. Enumerable.Range(0, Pages).Select(Page)],
            [],
            new SendOff("end", "Thank you, {answer:q0-0|you}", "Thank you.")
        )
        {
            Rules = [new CountMatchesRowsRule("q0-1", "signs")],
        };

    public static string LastPage => $"p{Pages - 1}";

    /// <summary>Everything answered.</summary>
    public static Dictionary<string, Answer?> Answers { get; } =
        Content.Questions.ToDictionary(
            question => question.Key,
            question =>
                (Answer?)(
                    question.Kind switch
                    {
                        ShortTextKind => new TextAnswer("Bread and gulls"),
                        NumberKind => new NumberAnswer(Rows),
                        ChoiceKind => ChoiceAnswer.Of("b"),
                        RowsKind => new RowsAnswer([
                            .. Enumerable
                                .Range(0, Rows)
                                .Select(index => new AnswerRow(
                                    new Dictionary<string, Answer?>
                                    {
                                        ["says"] = new TextAnswer($"Sign {index}"),
                                        ["wide"] = new NumberAnswer(240),
                                        ["high"] = new NumberAnswer(60),
                                        ["finish"] = ChoiceAnswer.Of(index % 2 == 0 ? "gilded" : "painted"),
                                        ["leaf"] = ChoiceAnswer.Of("gold"),
                                    }
                                )),
                        ]),
                        _ => null,
                    }
                )
        );

    private static Page Page(int page) =>
        new($"p{page}", $"Page {page + 1}", [.. Enumerable.Range(0, Each).Select(index => Ask(page, index))]);

    private static Question Ask(int page, int index)
    {
        var key = $"q{page}-{index}";
        var earlier =
            page == 0
                ? null
                : new AnyCondition([
                    new IsCondition(new AnswerTo($"q{page - 1}-2"), "b"),
                    new NumberCondition(new AnswerTo($"q{page - 1}-1"), NumberRelation.Over, 5),
                ]);
        return (page, index) switch
        {
            (Pages - 1, 5) => new Question(
                "signs",
                "Which signs?",
                new ListKind(
                    [
                        new Question("says", "What?", new ShortTextKind()) { Required = true },
                        new Question("wide", "Width", new NumberKind(1, 999, "cm")) { Required = true },
                        new Question("high", "Height", new NumberKind(1, 999, "cm")) { Required = true },
                        new Question("finish", "Finish", new ChoiceKind([new Option("gilded", "Gilded"), new Option("painted", "Painted")]))
                        {
                            Required = true,
                        },
                        new Question("leaf", "Leaf", new ChoiceKind([new Option("gold", "Gold"), new Option("silver", "Silver")]))
                        {
                            AskedOnlyWhen = new IsCondition(new AnswerTo("finish"), "gilded"),
                            Required = true,
                        },
                    ],
                    "sign",
                    1,
                    50
                )
            )
            {
                Required = true,
            },
            (Pages - 1, 8) => new Question(
                key,
                "Area",
                new WorkedOutKind(new AreaOfRows("signs", "wide", "high", LengthUnit.Centimetres), Unit: "m²")
            ),
            (Pages - 1, 9) => new Question(
                key,
                "Gilded",
                new WorkedOutKind(new CountRows("signs", new IsCondition(new AnswerTo("finish"), "gilded")))
            ),
            (_, 1) => new Question(key, "How many?", new NumberKind(0, 99)) { AskedOnlyWhen = earlier, Required = true },
            (_, 2) => new Question(key, "Which?", new ChoiceKind([new Option("a", "One"), new Option("b", "Two")])) { Required = true },
            _ => new Question(key, $"What about this, {{answer:q{Math.Max(0, page - 1)}-0|you}}?", new ShortTextKind())
            {
                AskedOnlyWhen = earlier,
                RequiredWhen = earlier,
            },
        };
    }
}
