using PorchLight.Core.Answers;
using PorchLight.Core.Conditions;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Core.Screening;

namespace PorchLight.Server.Demo;

/// <summary>
/// The form for community painting workshops: who paints, how old they are on the day, what it costs about. Everything
/// here is made up.
/// </summary>
internal static class DemoWorkshop
{
    private const string Euro = "EUR";

    public static FormContent Form(DemoFiles files) =>
        new(
            "Painting workshop",
            "Your people paint a wall, we bring the paint and the plan.",
            [
                new Page(
                    "kind-page",
                    "What you have in mind",
                    [
                        new Question(
                            "kind",
                            "What would you like to do together?",
                            new ChoiceKind([
                                new Option("wall", "Paint a wall by brush") { Explanation = "Half a day or a day, for 6 to 30 people" },
                                new Option("boards", "Paint boards to hang up") { Explanation = "Indoors, whatever the weather" },
                                new Option("spray", "Spray a wall"),
                            ])
                        )
                        {
                            Required = true,
                        },
                        new Question("day", "Which day?", new DateKind(new DateLimits(FromDays: 14, ToDays: 365)))
                        {
                            Required = true,
                            Width = ItemWidth.Half,
                            Help = "From two weeks ahead.",
                            LandsIn = new SetField("project.wanted"),
                            AskedOnlyWhen = NotSpray,
                        },
                        new Question("heads", "How many will paint?", new NumberKind(1, 60, Whole: true))
                        {
                            Required = true,
                            Width = ItemWidth.Half,
                            AskedOnlyWhen = NotSpray,
                        },
                    ]
                )
                {
                    Routes = [new RouteRule(new IsCondition(new AnswerTo("kind"), "spray"), "no-spray")],
                },
                new Page(
                    "people-page",
                    "Who paints",
                    [
                        new Picture("people-at-work", files.Workshop, "Three people paint a landscape on a long wall"),
                        new Question(
                            "painters",
                            "Who paints with you?",
                            new PeopleKind(
                                "painter",
                                "born",
                                [
                                    new Question("age", "Age on the day", new WorkedOutKind(new AgeOn("born", "day"), Unit: "years"))
                                    {
                                        Width = ItemWidth.Half,
                                    },
                                ],
                                "painter",
                                Least: 1,
                                Most: 60
                            )
                        )
                        {
                            Required = true,
                            LandsIn = new AppendToNotes(RecordScope.Project),
                            Help =
                                "Birth dates tell us how old everyone is on the day; under ten paints for half, with a grown-up beside them.",
                        },
                        new Question(
                            "young",
                            "Under ten on the day",
                            new WorkedOutKind(new CountRows("painters", new NumberCondition(new AnswerTo("age"), NumberRelation.Under, 10)))
                        )
                        {
                            Width = ItemWidth.Third,
                        },
                        new Question("tables", "Paint tables", new WorkedOutKind(new DivideAndRoundUp(new CountRows("painters"), 6)))
                        {
                            Width = ItemWidth.Third,
                            Help = "One for every six.",
                        },
                        new Question("price", "What it comes to, about", new WorkedOutKind(Price())) { Width = ItemWidth.Third },
                        new Question("minder", "Who minds the youngest?", new ShortTextKind(120))
                        {
                            AskedOnlyWhen = new NumberCondition(new AnswerTo("young"), NumberRelation.AtLeast, 1),
                            Required = true,
                            Help = "A grown-up who paints along.",
                        },
                    ]
                ),
                new Page(
                    "you",
                    "You and the place",
                    [
                        new Question("name", "What is your name?", new PersonNameKind())
                        {
                            Required = true,
                            LandsIn = new SetField(BuiltInFields.Name.Key),
                        },
                        new Question("email", "Your e-mail address", new EmailKind())
                        {
                            Required = true,
                            LandsIn = new SetField(BuiltInFields.Email.Key),
                            Width = ItemWidth.Half,
                        },
                        new Question("phone", "A phone number for the day", new PhoneKind())
                        {
                            Required = true,
                            LandsIn = new SetField(BuiltInFields.Phone.Key),
                            Width = ItemWidth.Half,
                        },
                        new Question("where", "Where will it be?", new AddressKind())
                        {
                            Required = true,
                            LandsIn = new AppendToNotes(RecordScope.Project),
                        },
                        new Question("joy", "How much have your people painted before?", new ScaleKind(1, 5, "Not at all", "All the time")),
                        new Divider("line"),
                        new Download("bring", files.WhatToBring, "What to bring, as a page to print"),
                        new Question(
                            "keep",
                            "Names and birth dates",
                            new ConsentKind("I may give you these names and birth dates, and you delete them a month after the workshop.")
                        )
                        {
                            Required = true,
                        },
                        new Question("news", "News from us", new AdvertisingKind("You may tell me about open workshops."))
                        {
                            LandsIn = new SetField(BuiltInFields.MayAdvertise.Key),
                        },
                    ]
                ),
            ],
            [
                new SendOff(
                    "no-spray",
                    "Spray cans are not our thing",
                    "We paint by brush only, so for this one we are the wrong door. Nothing of what you answered was kept with a name."
                )
                {
                    TurnsAway = true,
                    WaysForward = [new WayForward("Ask your youth centre", "Many of them have someone who teaches spraying safely.")],
                },
                new SendOff(
                    "too-few",
                    "Come to an open Saturday instead",
                    "A workshop of your own starts at six painters. On the first Saturday of a month we paint with whoever comes; you would be very welcome there."
                )
                {
                    When = new AllCondition([
                        new FitCondition(Fit.NotNow),
                        new NumberCondition(new AnswerTo("heads"), NumberRelation.Under, 6),
                    ]),
                    TurnsAway = true,
                },
                new SendOff(
                    "full",
                    "That day is too soon for us",
                    "We cannot prepare your workshop properly by then. Please write to us with another day; your answers are kept."
                )
                {
                    When = new FitCondition(Fit.NotNow),
                    TurnsAway = true,
                },
                new SendOff(
                    "come-in",
                    "We would love to paint with you, {answer:name|all of you}",
                    "On {answer:day|your day}, with {answer:heads|all} painters. We answer {promise}."
                )
                {
                    When = new FitCondition(Fit.ComeIn),
                    OffersCall = true,
                    Download = new FileLink(files.WhatToBring, "What to bring"),
                    NextSteps = ["We check the day and the place.", "You hear from us {promise}."],
                },
            ],
            new SendOff("talk-first", "Thank you, we will look at this properly", "A person reads your answers, and we answer {promise}.")
        )
        {
            Cover = new Cover(
                "Four walls a year are painted by the people who walk past them. We bring the plan and the paint.",
                "Plan our workshop"
            )
            {
                Picture = files.Workshop,
                PictureAlt = "Three people paint a landscape on a long wall",
            },
            Rules = [new CountMatchesRowsRule("heads", "painters")],
        };

    private static WithinNextDaysCondition InAHurry => new(new AnswerTo("day"), 21);

    public static ScreeningRules Screening { get; } =
        new(
            40,
            50,
            0,
            2,
            [
                new Signal(
                    "few",
                    "Fewer than six painters",
                    new NumberCondition(new AnswerTo("heads"), NumberRelation.Under, 6),
                    new DealBreakerEffect()
                ),
                Points("group", 20, "A group of ten or more", new NumberCondition(new AnswerTo("heads"), NumberRelation.AtLeast, 10)),
                Points(
                    "young",
                    -5,
                    "More than five children under ten",
                    new NumberCondition(new AnswerTo("young"), NumberRelation.Over, 5)
                ),
                new Signal("hurry", "Within three weeks", InAHurry, new FlagEffect()),
                new Signal(
                    "crowd-in-a-hurry",
                    "More than 24 painters within three weeks",
                    new AllCondition([InAHurry, new NumberCondition(new AnswerTo("heads"), NumberRelation.Over, 24)]),
                    new DealBreakerEffect()
                ),
            ]
        );

    private static IsNotCondition NotSpray { get; } = new(new AnswerTo("kind"), "spray");

    private static IfElse Price() =>
        new(
            new NumberCondition(new AnswerTo("heads"), NumberRelation.AtMost, 12),
            Band("420 to 600 euro", 420, 600),
            new IfElse(
                new NumberCondition(new AnswerTo("heads"), NumberRelation.AtMost, 24),
                Band("600 to 980 euro", 600, 980),
                Band("980 euro and up", 980, null)
            )
        );

    private static FixedValue Band(string label, decimal low, decimal? high) =>
        new(new BandAnswer(label, new Band(new Bound(low), high is { } top ? new Bound(top) : null, Euro)));

    private static Signal Points(string key, int points, string sentence, Condition when) =>
        new(key, sentence, when, new PointsEffect(points));
}
