using PorchLight.Core.Answers;
using PorchLight.Core.Conditions;
using PorchLight.Core.Fields;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Forms;
using PorchLight.Core.Messages;
using PorchLight.Core.Screening;

namespace PorchLight.Server.Demo;

/// <summary>The mural form of the demo business, its screening, and what follows an inquiry. Everything here is made up.</summary>
internal static class DemoForm
{
    /// <summary>The key of the send-off for whoever fits.</summary>
    public const string ComeIn = "come-in";

    private const string Euro = "EUR";

    public static FormContent Wall { get; } =
        new(
            "A wall to paint",
            "Tell us about your wall. Two short pages, about three minutes. We paint indoors and out; we do not do spray work or canvases.",
            [
                new Page(
                    "you",
                    "You and the place",
                    [
                        new Question("name", "What is your name?", new PersonNameKind())
                        {
                            Required = true,
                            LandsIn = new SetField("client.name"),
                        },
                        new Question("email", "Your e-mail address", new EmailKind())
                        {
                            Required = true,
                            LandsIn = new SetField("client.email"),
                            Help = "Our answer goes here.",
                        },
                        new Question("phone", "Your phone number", new PhoneKind())
                        {
                            LandsIn = new SetField("client.phone"),
                            Help = "Only if you would rather talk than write.",
                        },
                        new Question("place", "Where is the wall?", new ShortTextKind(120))
                        {
                            Required = true,
                            LandsIn = new SetField("project.place"),
                            Help = "The town is enough for now.",
                        },
                    ]
                ),
                new Page(
                    "wall",
                    "The wall",
                    [
                        new Question("what", "What would you like painted?", new LongTextKind(4000))
                        {
                            Required = true,
                            LandsIn = new SetField("project.what"),
                            Help = "What should people feel when they pass it?",
                        },
                        new Question(
                            "budget",
                            "What have you set aside for it?",
                            new ChoiceKind([
                                new Option("under-1500", "Under 1,500", new Band(new Bound(0), new Bound(1500, Open: true), Euro)),
                                new Option("1500-4000", "1,500 to 4,000", new Band(new Bound(1500), new Bound(4000, Open: true), Euro)),
                                new Option("4000-9000", "4,000 to 9,000", new Band(new Bound(4000), new Bound(9000), Euro)),
                                new Option("over-9000", "More than 9,000", new Band(new Bound(9000, Open: true), null, Euro)),
                                new Option("unsure", "I don't know yet", Unsure: true),
                            ])
                        )
                        {
                            Required = true,
                            LandsIn = new SetField("project.budget"),
                            Help = "In euro. A guess is fine; it tells us which paints and how many days.",
                        },
                        new Question(
                            "decides",
                            "Do you decide about it?",
                            new ChoiceKind([
                                new Option("me", "Yes, I decide"),
                                new Option("together", "Together with others"),
                                new Option("someone-else", "No, someone else decides"),
                            ])
                        )
                        {
                            Required = true,
                            LandsIn = new SetField("project.decides"),
                        },
                        new Question("wanted", "When should it be finished?", new DateKind(new DateLimits(FromDays: 0)))
                        {
                            LandsIn = new SetField("project.wanted"),
                        },
                        new Question(
                            "found",
                            "How did you find us?",
                            new ChoiceKind([new Option("other", "Some other way")]) { From = OptionList.Sources }
                        ),
                    ]
                ),
            ],
            [
                new SendOff(ComeIn, "Come in, the lamp is on", "Your wall sounds like one for us. We answer {promise}.")
                {
                    When = new FitCondition(Fit.ComeIn),
                    NextSteps =
                    [
                        "We read your answers, all of them.",
                        "You hear from Maren {promise}, with two or three questions.",
                        "If you like, we talk for half an hour and look at the wall together.",
                    ],
                    OffersCall = true,
                },
                new SendOff(
                    "not-now",
                    "This one is not for us, and here is who may help",
                    "Thank you for telling us about your wall. At this size we would not do it justice, and we would rather say so today than keep you waiting.\n\nWe have kept your answers, in case things change."
                )
                {
                    When = new FitCondition(Fit.NotNow),
                    TurnsAway = true,
                    WaysForward =
                    [
                        new WayForward(
                            "Paint it with us",
                            "Four times a year we run a community painting workshop. Your own people paint, we bring the paint and the plan."
                        ),
                        new WayForward(
                            "Ask the art college",
                            "The second-year students take on small walls each spring, for the price of the materials."
                        ),
                    ],
                },
            ],
            new SendOff(
                "talk-first",
                "Thank you, we will look at this properly",
                "There is something here we want to understand before we promise anything. A person reads your answers, not a machine, and we answer {promise}."
            )
            {
                NextSteps = ["We read your answers.", "You hear from us {promise}."],
            }
        );

    public static ScreeningRules Screening { get; } =
        new(
            20,
            50,
            0,
            2,
            [
                Points(
                    "budget-fits",
                    30,
                    "Budget of 4,000 or more, where our murals start to be good",
                    new NumberCondition(Of("budget"), NumberRelation.AtLeast, 4000, Euro)
                ),
                Points(
                    "budget-small",
                    -45,
                    "Budget under 1,500, below where murals start",
                    new NumberCondition(Of("budget"), NumberRelation.Under, 1500, Euro)
                ),
                Points("budget-unsure", -5, "Does not know the budget yet", new DoesNotKnowCondition(Of("budget"))),
                Points("decides", 20, "Decides about it", new IsCondition(Of("decides"), "me")),
                Points("does-not-decide", -15, "Someone else decides", new IsCondition(Of("decides"), "someone-else")),
                Points("referral", 12, "Found us through a past client", new IsCondition(Of("found"), "past-client")),
                Points("hurry", -10, "Wants it within four weeks, our lead time is eight", new WithinNextDaysCondition(Of("wanted"), 28)),
            ]
        );

    /// <summary>What follows a mural inquiry that comes in or needs a talk: a thank-you, and three follow-ups that grow apart.</summary>
    public static FollowThroughContent AfterAnInquiry(Guid form) =>
        new(
            "After a mural inquiry",
            new InquiryStart(form, [Fit.ComeIn, Fit.TalkFirst]),
            [
                new Step(
                    "thanks",
                    "Thank you, and when we answer",
                    new SendMessage(
                        new MessageTemplate(
                            "Your wall: thank you, {firstName}",
                            [
                                new TextPart(
                                    "opening",
                                    "Dear {firstName},\n\nThank you for telling us about your wall. We have your answers, and a person will read them. We will reply {promise|as soon as we can}.\n\nWarmly\n{owner}\n{business}"
                                ),
                            ]
                        )
                    ),
                    new Schedule(Anchor.RunStart, 0, TimeUnit.Minutes, AtOnce: true),
                    NeedsNod: false
                ),
                new Step(
                    "first",
                    "First follow-up",
                    new SendMessage(
                        new MessageTemplate(
                            "About your wall, {firstName}",
                            [
                                new TextPart("opening", "Dear {firstName},\n\nI have been thinking about your wall."),
                                new GapPart("place", "one line about their place"),
                                new TextPart(
                                    "closing",
                                    "Shall we talk it through for half an hour? Tell me two times that suit you this week or next.\n\nWarmly\n{owner}\n{business}"
                                ),
                            ]
                        )
                    ),
                    new Schedule(Anchor.PreviousSettled, 1, TimeUnit.WorkingDays),
                    NeedsNod: true
                ),
                new Step(
                    "second",
                    "Second follow-up",
                    new SendMessage(
                        new MessageTemplate(
                            "Two walls like yours",
                            [
                                new TextPart("opening", "Dear {firstName},\n\nHere are two walls we painted that make me think of yours."),
                                new GapPart("walls", "two walls like theirs, a line each"),
                                new TextPart(
                                    "closing",
                                    "If you would like one of your own, a short answer is enough.\n\nWarmly\n{owner}\n{business}"
                                ),
                            ]
                        )
                    ),
                    new Schedule(Anchor.PreviousSettled, 4, TimeUnit.Days),
                    NeedsNod: true
                ),
                new Step(
                    "third",
                    "Last follow-up",
                    new SendMessage(
                        new MessageTemplate(
                            "Shall we keep a date free?",
                            [
                                new TextPart(
                                    "opening",
                                    "Dear {firstName},\n\nI don’t want to fill your inbox, so this is my last note about your wall. Shall we keep a date free for it, or leave it? Either answer is fine.\n\nWarmly\n{owner}\n{business}"
                                ),
                            ]
                        )
                    ),
                    new Schedule(Anchor.PreviousSettled, 9, TimeUnit.Days),
                    NeedsNod: true
                ),
            ],
            [StopOn.Replied, StopOn.Booked]
        );

    /// <summary>What follows a kind no: a word that the answers were kept, and nothing more.</summary>
    public static FollowThroughContent AfterAKindNo(Guid form) =>
        new(
            "After a kind no",
            new InquiryStart(form, [Fit.NotNow]),
            [
                new Step(
                    "kept",
                    "Thank you, and who may help",
                    new SendMessage(
                        new MessageTemplate(
                            "Your wall: thank you for asking, {firstName}",
                            [
                                new TextPart(
                                    "opening",
                                    "Dear {firstName},\n\nThank you for asking us about your wall. As we said on the page, this one isn’t for us; our painting workshop or the art college may be just right for it. We have kept your answers: if the plan grows, write to us and you won’t need to start again.\n\nWarmly\n{owner}\n{business}"
                                ),
                            ]
                        )
                    ),
                    new Schedule(Anchor.RunStart, 0, TimeUnit.Minutes, AtOnce: true),
                    NeedsNod: false
                ),
            ],
            [StopOn.Replied, StopOn.Booked]
        );

    private static AnswerTo Of(string question) => new(question);

    private static Signal Points(string key, int points, string sentence, Condition when) =>
        new(key, sentence, when, new PointsEffect(points));
}
