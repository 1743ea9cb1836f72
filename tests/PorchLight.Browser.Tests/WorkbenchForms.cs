using PorchLight.Core.Answers;
using PorchLight.Core.Brand;
using PorchLight.Core.Conditions;
using PorchLight.Core.Forms;

namespace PorchLight.Browser.Tests;

/// <summary>Forms to be built on: one in which every member that a form can have is filled in.</summary>
internal static class WorkbenchForms
{
    /// <summary>Every kind of question, content, condition, worked-out value and check, and a send-off that holds all it can.</summary>
    /// <param name="everyKind">A form that asks in every way.</param>
    /// <param name="picture">A stored picture.</param>
    /// <param name="video">A stored video.</param>
    /// <param name="sister">Another form.</param>
    public static FormContent Everything(FormContent everyKind, Guid picture, Guid video, Guid sister)
    {
        var (radio, number, date) = (new AnswerTo("radio"), new AnswerTo("number"), new AnswerTo("day"));
        Condition[] conditions =
        [
            new AllCondition([
                new IsCondition(radio, "a"),
                new AnyCondition([new IsNotCondition(radio, "a"), new NotCondition(new IsOneOfCondition(radio, ["a"]))]),
            ]),
            new IncludesCondition(new AnswerTo("several"), "x"),
            new IncludesNoneOfCondition(new AnswerTo("several"), ["x"]),
            new DoesNotKnowCondition(radio),
            new NumberCondition(number, NumberRelation.Over, 3),
            new NumberBetweenCondition(new AnswerTo("money"), 1, 5, "EUR"),
            new DateBetweenCondition(date, new NodaTime.LocalDate(2027, 1, 1), new NodaTime.LocalDate(2027, 2, 1)),
            new BeforeCondition(date, new NodaTime.LocalDate(2027, 1, 1)),
            new AfterCondition(date, new NodaTime.LocalDate(2027, 1, 1)),
            new WithinNextDaysCondition(date, 20),
            new IsAnsweredCondition(number),
            new IsBlankCondition(new ValueOnFile("project.what")),
        ];
        Calculation[] values =
        [
            new CopiedAnswer("number"),
            new FixedValue(new NumberAnswer(3)),
            new AgeOn("day", "day"),
            new TimeBetween("day", "day", SpanUnit.Nights),
            new DaysUntil("day"),
            new CountRows("signs", new IsAnsweredCondition(number)),
            new OverRows("signs", "wide", Total.Sum),
            new AreaOfRows("signs", "wide", "wide", LengthUnit.Metres, "wide"),
            new DivideAndRoundUp(new CopiedAnswer("number"), 8),
            new ArithmeticOfTwo(new CopiedAnswer("number"), Arithmetic.Times, new CopiedAnswer("number")),
            new JoinedText("{answer:short|nothing} and more"),
            new IfElse(new IsAnsweredCondition(number), new FixedValue(new TextAnswer("a")), new FixedValue(new TextAnswer("b"))),
        ];
        return everyKind with
        {
            Cover = new Cover("Welcome.")
            {
                Picture = picture,
                PictureAlt = "A wall",
                Video = video,
                ShowsOwner = true,
            },
            NotForUs = new NotForUs("No canvases.", sister, "Another form"),
            Look = new FormLook { Accent = "#8a3b1e" },
            Rules =
            [
                new EndNotBeforeStartRule("day", "range"),
                new CountMatchesRowsRule("number", "signs"),
                new NeverRule(new IsAnsweredCondition(number), "short", "Please look again."),
            ],
            Pages =
            [
                .. everyKind.Pages,
                new Page(
                    "conditions",
                    "Conditions",
                    [
                        .. conditions.Select(
                            (condition, index) =>
                                new Question($"asked-{index}", $"Asked {index}?", new ShortTextKind())
                                {
                                    AskedOnlyWhen = condition,
                                    RequiredWhen = index == 0 ? condition : null,
                                    Prefill = index switch
                                    {
                                        0 => new FromAddress("word"),
                                        1 => new FromRecord("project.what"),
                                        _ => null,
                                    },
                                }
                        ),
                        new Question(
                            "banded",
                            "In bands",
                            new ChoiceKind([new Option("x", "X", new Band(new Bound(1), new Bound(5), "EUR", 12))], true)
                        ),
                        .. values.Select((value, index) => new Question($"value-{index}", $"Value {index}", new WorkedOutKind(value))),
                    ]
                )
                {
                    ShownOnlyWhen = new IsAnsweredCondition(number),
                    Routes = [new RouteRule(new IsAnsweredCondition(number), "full")],
                },
            ],
            SendOffs =
            [
                new SendOff("full", "Everything", "All of it, {promise}.")
                {
                    When = new AllCondition([
                        new FitCondition(Fit.ComeIn),
                        new NumberCondition(new PointsSoFar(), NumberRelation.AtLeast, 3),
                    ]),
                    NextSteps = ["One."],
                    WaysForward = [new WayForward("Elsewhere", "They paint, too.", "https://example.com")],
                    Video = video,
                    Button = new LinkButton("On", "https://example.com"),
                    Download = new FileLink(picture, "A picture"),
                    Redirect = "https://example.com",
                },
            ],
        };
    }
}
