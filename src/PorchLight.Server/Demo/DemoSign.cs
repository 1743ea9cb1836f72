using PorchLight.Core.Answers;
using PorchLight.Core.Conditions;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Core.Screening;

namespace PorchLight.Server.Demo;

/// <summary>The form for shopfront signs: several signs with their sizes, finish and gilding. Everything here is made up.</summary>
internal static class DemoSign
{
    private const string Euro = "EUR";

    public static FormContent Form(DemoFiles files, Guid walls) =>
        new(
            "A sign for your front",
            "Tell us about each sign once; we work out the rest.",
            [
                new Page(
                    "signs-page",
                    "Your signs",
                    [
                        new Question(
                            "signs",
                            "Which signs do you need?",
                            new ListKind(
                                [
                                    new Question("says", "What should it say?", new ShortTextKind(80))
                                    {
                                        Required = true,
                                        Placeholder = "Marigold & Daughter",
                                    },
                                    new Question("wide", "Width", new NumberKind(10, 1500, "cm"))
                                    {
                                        Required = true,
                                        Width = ItemWidth.Third,
                                    },
                                    new Question("high", "Height", new NumberKind(5, 600, "cm"))
                                    {
                                        Required = true,
                                        Width = ItemWidth.Third,
                                    },
                                    new Question("alike", "How many alike?", new NumberKind(1, 50, Whole: true))
                                    {
                                        Width = ItemWidth.Third,
                                        Help = "Leave it blank for one.",
                                    },
                                    new Question(
                                        "finish",
                                        "Finish",
                                        new ChoiceKind([
                                            new Option("painted", "Painted")
                                            {
                                                Explanation = "Enamel by brush, lasts about ten years",
                                                Picture = files.Painted,
                                            },
                                            new Option("gilded", "Gilded")
                                            {
                                                Explanation = "Loose leaf on size, lasts about thirty",
                                                Picture = files.Gilded,
                                            },
                                        ])
                                    )
                                    {
                                        Required = true,
                                    },
                                    new Question(
                                        "leaf",
                                        "Which leaf?",
                                        new ChoiceKind([
                                            new Option("gold", "23 carat gold"),
                                            new Option("silver", "Silver"),
                                            new Option("unsure", "I don't know yet", Unsure: true),
                                        ])
                                        {
                                            DropDown = true,
                                        }
                                    )
                                    {
                                        AskedOnlyWhen = new IsCondition(new AnswerTo("finish"), "gilded"),
                                        Required = true,
                                        Width = ItemWidth.Half,
                                    },
                                ],
                                "sign",
                                Least: 1,
                                Most: 12
                            )
                        )
                        {
                            Required = true,
                            LandsIn = new AppendToNotes(RecordScope.Project),
                        },
                        new Question(
                            "area",
                            "Area of all signs",
                            new WorkedOutKind(new AreaOfRows("signs", "wide", "high", LengthUnit.Centimetres, "alike"), Unit: "m²")
                        )
                        {
                            Width = ItemWidth.Half,
                        },
                        new Question("guide", "Where this usually lands", new WorkedOutKind(Guide()))
                        {
                            Width = ItemWidth.Half,
                            Help = "A rough guide, no promise.",
                        },
                        new Question(
                            "gilded-signs",
                            "Gilded signs",
                            new WorkedOutKind(new CountRows("signs", new IsCondition(new AnswerTo("finish"), "gilded")), Shown: false)
                        ),
                    ]
                ),
                new Page(
                    "front",
                    "Your front",
                    [
                        new Question(
                            "work",
                            "Which of our works comes closest?",
                            new ChoiceKind([new Option("unsure", "I don't know yet", Unsure: true)]) { From = OptionList.Services }
                        )
                        {
                            Required = true,
                            Prefill = new FromAddress("work"),
                        },
                        new Question(
                            "trade",
                            "What do you sell behind it?",
                            new ChoiceKind([
                                new Option("food", "Food and drink"),
                                new Option("bikes", "Bikes and repairs"),
                                new Option("care", "Health and care"),
                                new Option("other", "Something else") { OwnWords = true },
                            ])
                        )
                        {
                            Required = true,
                        },
                        new Question("rented", "Do you rent the shopfront?", new YesNoKind()) { Required = true },
                        new Question(
                            "landlord",
                            "Has your landlord agreed?",
                            new ChoiceKind([new Option("yes", "Yes"), new Option("asked", "We have asked"), new Option("no", "Not yet")])
                        )
                        {
                            AskedOnlyWhen = new IsCondition(new AnswerTo("rented"), "yes"),
                            RequiredWhen = new IsCondition(new AnswerTo("rented"), "yes"),
                            Help = "We may not paint before they have.",
                        },
                        new Question(
                            "colour",
                            "Is there a colour you have in mind?",
                            new LookUpKind(files.Colours, ["Colour", "Code", "Finish"])
                        )
                        {
                            Help = "Type a few letters: ochre, slate, green …",
                        },
                        new Question("when", "When do you need it?", new DateRangeKind(new DateLimits(FromDays: 7), OrMonth: true))
                        {
                            Required = true,
                            Help = "Most signs take us three to five weeks.",
                        },
                        new Question("photos", "Photos of your front", new FilesKind(4, Groups: [FileGroup.Picture]))
                        {
                            Help = "Straight on, and one from across the street.",
                        },
                    ]
                ),
                new Page(
                    "you",
                    "You",
                    [
                        new Question("name", "What is your name?", new PersonNameKind())
                        {
                            Required = true,
                            LandsIn = new SetField(BuiltInFields.Name.Key),
                        },
                        new Question("email", "Your e-mail address, {answer:name|please}", new EmailKind())
                        {
                            Required = true,
                            LandsIn = new SetField(BuiltInFields.Email.Key),
                            Width = ItemWidth.Half,
                        },
                        new Question("phone", "Your phone number", new PhoneKind())
                        {
                            LandsIn = new SetField(BuiltInFields.Phone.Key),
                            Width = ItemWidth.Half,
                        },
                        new Question("site", "Your website", new WebAddressKind()) { Placeholder = "www.example.com" },
                        new Question(
                            "keep",
                            "Your answers",
                            new ConsentKind("You may keep these answers and photos to prepare an offer for me.")
                        )
                        {
                            Required = true,
                        },
                        new Question(
                            "news",
                            "News from us",
                            new AdvertisingKind("You may write to me twice a year about new work and workshops.")
                        )
                        {
                            LandsIn = new SetField(BuiltInFields.MayAdvertise.Key),
                        },
                        new Question("tag", "Campaign", new HiddenKind("utm_campaign")),
                    ]
                ),
            ],
            [
                new SendOff(
                    "come-in",
                    "Lovely, {answer:name|thank you}: this sounds like a sign for us",
                    "We have {answer:area|your sizes} on paper now, and answer {promise} with a first sketch of how we would go about it.\n\nThis is how it looks when Maren does it:"
                )
                {
                    Video = files.Lettering,
                    When = new FitCondition(Fit.ComeIn),
                    NextSteps = ["We read your answers and look at your photos.", "You hear from us {promise}."],
                    OffersCall = true,
                },
                new SendOff(
                    "too-soon",
                    "We would not make it in time",
                    "Signs that last take us three weeks at least, and yours is wanted sooner. We would rather say so now than let you open without one."
                )
                {
                    When = new FitCondition(Fit.NotNow),
                    TurnsAway = true,
                    WaysForward =
                    [
                        new WayForward(
                            "Vinyl until then",
                            "A print shop near you can cut letters in vinyl within two days. We paint over them gladly later on."
                        ),
                    ],
                },
            ],
            new SendOff(
                "talk-first",
                "Thank you {answer:name|very much}. We will look at this properly",
                "A person reads your answers, and we answer {promise}."
            )
            {
                NextSteps = ["We read your answers.", "You hear from us {promise}."],
            }
        )
        {
            Cover = new Cover(
                "Hand-painted letters on shopfronts, doors and windows, all over the east coast.\n\nThree short pages, about four minutes. Sizes may be guesses.",
                "Tell us about your front"
            )
            {
                Picture = files.Shopfronts,
                PictureAlt = "Two painted shopfronts, a bakery and a bike shop, with a ladder between them",
                ShowsOwner = true,
            },
            NotForUs = new NotForUs(
                "We do not print, plot or light signs. Is it a whole wall you are thinking of?",
                walls,
                "Tell us about your wall"
            ),
            Review = true,
        };

    public static ScreeningRules Screening { get; } =
        new(
            30,
            50,
            10,
            2,
            [
                Points(
                    "gilding",
                    25,
                    "Has gilding in it, our favourite work",
                    new NumberCondition(new AnswerTo("gilded-signs"), NumberRelation.AtLeast, 1)
                ),
                Points("size", 20, "More than a square metre in all", new NumberCondition(new AnswerTo("area"), NumberRelation.Over, 1)),
                Points("landlord", -15, "The landlord has not agreed yet", new IsCondition(new AnswerTo("landlord"), "no")),
                new Signal(
                    "hurry",
                    "Wanted within three weeks",
                    new WithinNextDaysCondition(new AnswerTo("when"), 21),
                    new DealBreakerEffect()
                ),
            ]
        );

    private static IfElse Guide() =>
        new(
            new NumberCondition(new AnswerTo("area"), NumberRelation.AtMost, 1),
            Band("350 to 700 euro", 350, 700),
            new IfElse(
                new NumberCondition(new AnswerTo("area"), NumberRelation.AtMost, 3),
                Band("700 to 1,600 euro", 700, 1600),
                new IfElse(
                    new NumberCondition(new AnswerTo("area"), NumberRelation.Over, 3),
                    Band("1,600 euro and up", 1600, null),
                    new CopiedAnswer("area")
                )
            )
        );

    private static FixedValue Band(string label, decimal low, decimal? high) =>
        new(new BandAnswer(label, new Band(new Bound(low), high is { } top ? new Bound(top) : null, Euro)));

    private static Signal Points(string key, int points, string sentence, Condition when) =>
        new(key, sentence, when, new PointsEffect(points));
}
