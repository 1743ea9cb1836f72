using PorchLight.Core.Answers;
using PorchLight.Core.Conditions;
using PorchLight.Core.Forms;
using static PorchLight.Core.Ready.ReadyParts;

namespace PorchLight.Core.Ready;

/// <summary>Ready forms for work on a certain day: a wedding, a shoot, an event.</summary>
internal static class ReadyOccasionForms
{
    public static IReadOnlyList<ReadyFormOffer> All { get; } =
    [
        new(
            "photography",
            "Photography",
            "Asks for the day and place of an occasion, or for the use of commercial pictures; a day that is close counts against it.",
            "Pictures of your day",
            Photography
        ),
        new(
            "flowers",
            "Flowers and styling",
            "For weddings and events: guests, tables, the look, and who else works on it.",
            "Flowers for your day",
            Flowers
        ),
        new(
            "film",
            "Film and video",
            "What the film is for, how long it should be and where it will be shown; rights and places are asked only where they matter.",
            "A film with us",
            Film
        ),
        new(
            "music",
            "Music and performance",
            "The occasion, the room, the hours and what is there already; private parties and companies are asked different things.",
            "Music for your evening",
            Music
        ),
    ];

    private static ReadyForm Photography(ReadyFormRequest request)
    {
        var parts = new ReadyParts(request);
        var isWork = new IsCondition(Of("sort"), "work");
        return parts.Form(
            $"Tell us about the day. Our work starts at {parts.Starts}; three minutes, and you’ll know whether we’re a good fit.",
            [
                You(),
                new Page(
                    "day",
                    "What we are photographing",
                    [
                        Choice(
                            "sort",
                            "What is it?",
                            ("wedding", "A wedding"),
                            ("family", "A family or a portrait"),
                            ("work", "Something for a business")
                        ),
                        new Question("date", "On which day?", new DateKind(new DateLimits(FromDays: 0)))
                        {
                            AskedOnlyWhen = new NotCondition(isWork),
                            Required = true,
                            LandsIn = new Fields.SetField("project.wanted"),
                        },
                        Place("Where?") with
                        {
                            AskedOnlyWhen = new NotCondition(isWork),
                        },
                        new Question(
                            "use",
                            "Where will the pictures be used?",
                            new ChoiceKind(
                                [
                                    new Option("web", "On a website"),
                                    new Option("print", "In print"),
                                    new Option("campaign", "In advertising that is paid for"),
                                    new Option("other", "Somewhere else") { OwnWords = true },
                                ],
                                Several: true
                            )
                        )
                        {
                            AskedOnlyWhen = isWork,
                            RequiredWhen = isWork,
                        },
                        What("Tell us a little about it"),
                    ]
                ),
                new Page(
                    "money",
                    "Budget",
                    [parts.Budget("What have you set aside for the pictures?"), Decides("Do you decide about it?"), Found()]
                ),
            ],
            parts.BudgetAndDecisionSignals(
                Points("close", -20, "The day is less than three weeks off", new WithinNextDaysCondition(Of("date"), 20)),
                Points("campaign", 15, "Pictures for paid advertising", new IncludesCondition(Of("use"), "campaign"))
            )
        );
    }

    private static ReadyForm Flowers(ReadyFormRequest request)
    {
        var parts = new ReadyParts(request);
        return parts.Form(
            "A few questions about your day, so that we can say something sensible about it.",
            [
                You(),
                new Page(
                    "day",
                    "Your day",
                    [
                        Choice(
                            "occasion",
                            "What is it?",
                            ("wedding", "A wedding"),
                            ("party", "A party or an anniversary"),
                            ("farewell", "A farewell")
                        ),
                        Wanted("When is it?") with
                        {
                            Required = true,
                        },
                        Place("Where does it take place?"),
                        new Question("guests", "How many guests do you expect?", new NumberKind(Min: 1, Whole: true))
                        {
                            AskedOnlyWhen = new IsNotCondition(Of("occasion"), "farewell"),
                        },
                    ]
                ),
                new Page(
                    "look",
                    "How it should look",
                    [
                        What("Colours, flowers, a mood: what do you have in mind?"),
                        new Question(
                            "tables",
                            "About how many tables",
                            new WorkedOutKind(new DivideAndRoundUp(new CopiedAnswer("guests"), 8))
                        )
                        {
                            Help = "For eight people a table.",
                        },
                        new Question("pictures", "Show us what you like", new FilesKind(AtMost: 4, Groups: [FileGroup.Picture])),
                        new Question("planner", "Does someone plan the day for you?", new YesNoKind()),
                        parts.Budget("What have you set aside for flowers?"),
                        Found(),
                    ]
                )
                {
                    ShownOnlyWhen = new IsNotCondition(Of("occasion"), "farewell"),
                },
                new Page(
                    "farewell",
                    "Your farewell",
                    [
                        new Passage("sorry", "We are sorry for your loss. Tell us what you would like; we’ll ring you today."),
                        new Question("wish", "What do you wish for?", new LongTextKind()),
                    ]
                )
                {
                    ShownOnlyWhen = new IsCondition(Of("occasion"), "farewell"),
                },
            ],
            [
                .. parts.BudgetSignals(),
                Points("planner", 10, "Someone plans the day", new IsCondition(Of("planner"), "yes")),
                Points("many", 15, "More than 60 guests", new NumberCondition(Of("guests"), NumberRelation.Over, 60)),
                Points("close", -15, "The day is less than two weeks off", new WithinNextDaysCondition(Of("wanted"), 13)),
            ],
            new SendOff("farewell-end", "Thank you", "We’ll ring you today, and take our time.")
            {
                When = new IsCondition(Of("occasion"), "farewell"),
                OffersCall = true,
            }
        );
    }

    private static ReadyForm Film(ReadyFormRequest request)
    {
        var parts = new ReadyParts(request);
        return parts.Form(
            $"What should the film do for you? Our films start at {parts.Starts}.",
            [
                You(),
                new Page(
                    "film",
                    "The film",
                    [
                        Choice(
                            "purpose",
                            "What is it for?",
                            ("about", "To show who you are"),
                            ("product", "To show what you sell"),
                            ("event", "To keep an event"),
                            ("other", "Something else")
                        ),
                        What("What should people do or feel when they have seen it?"),
                        new Question("minutes", "About how long should it be?", new NumberKind(Min: 0, Unit: "minutes"))
                        {
                            Width = ItemWidth.Half,
                        },
                        new Question("day", "On which day is the event?", new DateKind(new DateLimits(FromDays: 0)))
                        {
                            AskedOnlyWhen = new IsCondition(Of("purpose"), "event"),
                            Required = true,
                        },
                        Place("Where shall we film?"),
                        new Question("script", "Is there a script, or an idea on paper?", new YesNoKind()),
                        new Question("paper", "Show it to us", new FilesKind(AtMost: 3))
                        {
                            AskedOnlyWhen = new IsCondition(Of("script"), "yes"),
                        },
                    ]
                ),
                new Page(
                    "money",
                    "Budget and time",
                    [
                        parts.Budget("What have you set aside for the film?"),
                        Decides("Do you decide about it?"),
                        Wanted("When should it be ready?"),
                        Found(),
                    ]
                ),
            ],
            parts.BudgetAndDecisionSignals(
                Points("long", -10, "Longer than 15 minutes", new NumberCondition(Of("minutes"), NumberRelation.Over, 15)),
                Points("script", 10, "There is an idea on paper", new IsCondition(Of("script"), "yes")),
                Flag("too-soon", "Wanted within two weeks", new WithinNextDaysCondition(Of("wanted"), 14))
            )
        );
    }

    private static ReadyForm Music(ReadyFormRequest request)
    {
        var parts = new ReadyParts(request);
        var isCompany = new IsCondition(Of("host"), "company");
        return parts.Form(
            "Tell us about the evening; we’ll tell you whether the date is free.",
            [
                You(),
                new Page(
                    "evening",
                    "The evening",
                    [
                        Choice(
                            "host",
                            "Who invites?",
                            ("private", "You, privately"),
                            ("company", "A company or an association"),
                            ("venue", "A venue")
                        ),
                        new Question("company", "What is it called?", new ShortTextKind()) { AskedOnlyWhen = isCompany, Required = true },
                        Wanted("On which day?") with
                        {
                            Required = true,
                        },
                        Place("Where is it?"),
                        new Question("hours", "How many hours of music?", new NumberKind(Min: 0.5m, Max: 12, Unit: "hours"))
                        {
                            Required = true,
                            Width = ItemWidth.Half,
                        },
                        Choice("room", "Inside or outside?", ("inside", "Inside"), ("outside", "Outside"), ("both", "Both")),
                        new Question("roof", "Is there a roof if it rains?", new YesNoKind())
                        {
                            AskedOnlyWhen = new IsOneOfCondition(Of("room"), ["outside", "both"]),
                            Required = true,
                        },
                        What("What would you like to hear?"),
                    ]
                ),
                new Page("money", "Budget", [parts.Budget("What have you set aside for the music?"), Found()]),
            ],
            [
                .. parts.BudgetSignals(),
                Points("company", 10, "A company invites", isCompany),
                Points("no-roof", -25, "Outside without a roof", new IsCondition(Of("roof"), "no")),
                Points("short", -10, "Less than two hours", new NumberCondition(Of("hours"), NumberRelation.Under, 2)),
                Points("soon", 10, "In the next ninety days", new WithinNextDaysCondition(Of("wanted"), 90)),
            ]
        );
    }
}
