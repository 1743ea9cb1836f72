using PorchLight.Core.Answers;
using PorchLight.Core.Conditions;
using PorchLight.Core.Forms;
using static PorchLight.Core.Ready.ReadyParts;

namespace PorchLight.Core.Ready;

/// <summary>Ready forms for work in the studio: design, websites, words, drawings, rooms.</summary>
internal static class ReadyStudioForms
{
    public static IReadOnlyList<ReadyFormOffer> All { get; } =
    [
        new(
            "branding",
            "Graphic design and branding",
            "New or renewed, what is needed, who else is asked; price comparisons count against it.",
            "A new look for you",
            Branding
        ),
        new(
            "website",
            "Websites",
            "What the site must do, what is there already, who writes the words; shops are asked about their goods.",
            "Your new website",
            Website
        ),
        new(
            "words",
            "Writing and editing",
            "What is to be written, for whom, how long; texts that are there already can be sent along.",
            "Words for you",
            Words
        ),
        new(
            "illustration",
            "Illustration",
            "The use, the number of drawings and the rights; every drawing in a list of its own.",
            "Drawings for you",
            Illustration
        ),
        new(
            "interiors",
            "Interior design",
            "The rooms with their sizes, owned or rented, and when work can start.",
            "Your rooms, anew",
            Interiors
        ),
    ];

    private static ReadyForm Branding(ReadyFormRequest request)
    {
        var parts = new ReadyParts(request);
        return parts.Form(
            $"Tell us who you are and what you need. Our work starts at {parts.Starts}.",
            [
                You(new Question("web", "Your website, if there is one", new WebAddressKind())),
                new Page(
                    "work",
                    "What you need",
                    [
                        Choice(
                            "state",
                            "Where do you stand?",
                            ("new", "We begin"),
                            ("renew", "We are there, and want to look new"),
                            ("add", "We only need something added")
                        ),
                        new Question(
                            "needs",
                            "What do you need?",
                            new ChoiceKind(
                                [
                                    new Option("name", "A name"),
                                    new Option("logo", "A logo"),
                                    new Option("print", "Things in print"),
                                    new Option("signs", "Signs or packaging"),
                                    new Option("rules", "Rules for how it is used"),
                                ],
                                Several: true
                            )
                        )
                        {
                            Required = true,
                        },
                        new Question("old", "Show us what you have", new FilesKind(AtMost: 5))
                        {
                            AskedOnlyWhen = new IsNotCondition(Of("state"), "new"),
                        },
                        What("Who are your customers, and what should they think of you?"),
                    ]
                ),
                new Page(
                    "money",
                    "Budget and decision",
                    [
                        parts.Budget("What have you set aside for it?"),
                        Decides("Do you decide about it?"),
                        Choice(
                            "others",
                            "Do you ask others, too?",
                            ("no", "No, only you"),
                            ("few", "One or two others"),
                            ("many", "We compare several offers")
                        ),
                        Wanted("When must it be there?"),
                        Found(),
                    ]
                ),
            ],
            parts.BudgetAndDecisionSignals(
                Points("compares", -20, "Compares several offers", new IsCondition(Of("others"), "many")),
                Points("rules", 10, "Wants rules for its use, so it is meant to last", new IncludesCondition(Of("needs"), "rules"))
            )
        );
    }

    private static ReadyForm Website(ReadyFormRequest request)
    {
        var parts = new ReadyParts(request);
        var sells = new IncludesCondition(Of("does"), "shop");
        return parts.Form(
            "What must the site do for you? Three pages, about four minutes.",
            [
                You(new Question("web", "Your website now, if there is one", new WebAddressKind())),
                new Page(
                    "site",
                    "The site",
                    [
                        new Question(
                            "does",
                            "What must it do?",
                            new ChoiceKind(
                                [
                                    new Option("show", "Show what you do"),
                                    new Option("ask", "Bring inquiries"),
                                    new Option("book", "Take bookings"),
                                    new Option("shop", "Sell things"),
                                    new Option("unsure", "I don't know yet", Unsure: true) { NoneOfThese = true },
                                ],
                                Several: true
                            )
                        )
                        {
                            Required = true,
                        },
                        new Question("goods", "How many things do you sell?", new NumberKind(Min: 1, Whole: true))
                        {
                            AskedOnlyWhen = sells,
                            Required = true,
                        },
                        Choice("texts", "Who writes the words?", ("we", "We have them"), ("you", "You, please"), ("together", "Together")),
                        What("What would make it a success in a year?"),
                    ]
                ),
                new Page(
                    "money",
                    "Budget and time",
                    [
                        parts.Budget("What have you set aside for it?"),
                        Decides("Do you decide about it?"),
                        Wanted("When should it be online?"),
                        Found(),
                    ]
                ),
            ],
            parts.BudgetAndDecisionSignals(
                Points("shop-large", 10, "A shop with more than fifty things", new NumberCondition(Of("goods"), NumberRelation.Over, 50)),
                Points("no-aim", -10, "Does not know yet what it must do", new DoesNotKnowCondition(Of("does"))),
                Flag("too-soon", "Online within three weeks", new WithinNextDaysCondition(Of("wanted"), 21))
            )
        );
    }

    private static ReadyForm Words(ReadyFormRequest request)
    {
        var parts = new ReadyParts(request);
        var isThere = new IsCondition(Of("state"), "edit");
        return parts.Form(
            "What is to be read, and by whom?",
            [
                You(),
                new Page(
                    "words",
                    "The words",
                    [
                        Choice(
                            "sort",
                            "What is it?",
                            ("web", "Pages of a website"),
                            ("book", "A book or a long text"),
                            ("talk", "A talk"),
                            ("other", "Something else")
                        ),
                        Choice(
                            "state",
                            "Where does it stand?",
                            ("new", "It is still to be written"),
                            ("edit", "It is there, and needs an editor")
                        ),
                        new Question("text", "Send it along", new FilesKind(AtMost: 3, Groups: [FileGroup.Document]))
                        {
                            AskedOnlyWhen = isThere,
                            RequiredWhen = isThere,
                        },
                        new Question("length", "About how many words?", new NumberKind(Min: 1, Whole: true, Unit: "words"))
                        {
                            Width = ItemWidth.Half,
                        },
                        What("Who reads it, and what should they do then?"),
                    ]
                ),
                new Page(
                    "money",
                    "Budget and time",
                    [
                        parts.Budget("What have you set aside for it?"),
                        Decides("Do you decide about it?"),
                        Wanted("When must it be there?"),
                        Found(),
                    ]
                ),
            ],
            parts.BudgetAndDecisionSignals(
                Points("book", 10, "A long text", new NumberCondition(Of("length"), NumberRelation.AtLeast, 20000)),
                Points("rush", -15, "Wanted within a week", new WithinNextDaysCondition(Of("wanted"), 7))
            )
        );
    }

    private static ReadyForm Illustration(ReadyFormRequest request)
    {
        var parts = new ReadyParts(request);
        return parts.Form(
            $"Which drawings do you need? Our work starts at {parts.Starts}.",
            [
                You(),
                new Page(
                    "drawings",
                    "The drawings",
                    [
                        new Question(
                            "list",
                            "What is to be drawn?",
                            new ListKind(
                                [
                                    new Question("motif", "What should be seen?", new ShortTextKind()) { Required = true },
                                    new Question(
                                        "size",
                                        "How large?",
                                        new ChoiceKind([
                                            new Option("spot", "A small one"),
                                            new Option("half", "Half a page"),
                                            new Option("full", "A whole page"),
                                        ])
                                    )
                                    {
                                        Required = true,
                                    },
                                ],
                                "drawing",
                                Least: 1,
                                Most: 40
                            )
                        )
                        {
                            Required = true,
                        },
                        new Question("count", "Drawings in all", new WorkedOutKind(new CountRows("list"))),
                        new Question(
                            "full",
                            "Whole pages",
                            new WorkedOutKind(new CountRows("list", new IsCondition(Of("size"), "full")), Shown: false)
                        ),
                        Choice(
                            "use",
                            "Where will they be seen?",
                            ("book", "In a book"),
                            ("press", "In a paper or magazine"),
                            ("goods", "On things that are sold"),
                            ("wall", "At home or at work")
                        ),
                        new Question("copies", "How many copies are printed?", new NumberKind(Min: 1, Whole: true))
                        {
                            AskedOnlyWhen = new IsOneOfCondition(Of("use"), ["book", "press", "goods"]),
                        },
                        What("Tell us about the story behind it"),
                    ]
                ),
                new Page(
                    "money",
                    "Budget and time",
                    [parts.Budget("What have you set aside for all of them?"), Wanted("When must they be there?"), Found()]
                ),
            ],
            [
                .. parts.BudgetSignals(),
                Points("many", 10, "Five drawings or more", new NumberCondition(Of("count"), NumberRelation.AtLeast, 5)),
                Points("whole-pages", 10, "Whole pages among them", new NumberCondition(Of("full"), NumberRelation.AtLeast, 1)),
                Points("goods", 10, "Drawings on things that are sold", new IsCondition(Of("use"), "goods")),
                Points("rush", -15, "Wanted within two weeks", new WithinNextDaysCondition(Of("wanted"), 14)),
            ]
        );
    }

    private static ReadyForm Interiors(ReadyFormRequest request)
    {
        var parts = new ReadyParts(request);
        return parts.Form(
            "Tell us about your rooms; a first visit is worth it for both of us when this fits.",
            [
                You(new Question("address", "Where are the rooms?", new AddressKind()) { Required = true }),
                new Page(
                    "rooms",
                    "The rooms",
                    [
                        new Question(
                            "list",
                            "Which rooms?",
                            new ListKind(
                                [
                                    new Question("room", "Which one?", new ShortTextKind()) { Required = true },
                                    new Question("wide", "Width", new NumberKind(Min: 0.5m, Max: 100, Unit: "m"))
                                    {
                                        Width = ItemWidth.Half,
                                    },
                                    new Question("long", "Length", new NumberKind(Min: 0.5m, Max: 100, Unit: "m"))
                                    {
                                        Width = ItemWidth.Half,
                                    },
                                ],
                                "room",
                                Least: 1,
                                Most: 20
                            )
                        )
                        {
                            Required = true,
                        },
                        new Question(
                            "area",
                            "All rooms together",
                            new WorkedOutKind(new AreaOfRows("list", "wide", "long", LengthUnit.Metres), Unit: "m²")
                        ),
                        Choice("tenure", "Do you own or rent?", ("own", "We own"), ("rent", "We rent"), ("buying", "We are about to buy")),
                        new Question("landlord", "Has your landlord agreed to changes?", new YesNoKind())
                        {
                            AskedOnlyWhen = new IsCondition(Of("tenure"), "rent"),
                            Required = true,
                        },
                        What("How do you live there, and what should be different?"),
                    ]
                ),
                new Page(
                    "money",
                    "Budget and time",
                    [
                        parts.Budget("What have you set aside for it, without furniture?"),
                        Decides("Do you decide about it?"),
                        Wanted("When would you like to move in?"),
                        Found(),
                    ]
                ),
            ],
            parts.BudgetAndDecisionSignals(
                Points("large", 15, "More than 60 square metres", new NumberCondition(Of("area"), NumberRelation.Over, 60)),
                Flag("landlord", "The landlord has not agreed", new IsCondition(Of("landlord"), "no"))
            )
        );
    }
}
