using System.Globalization;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Conditions;
using PorchLight.Core.Fields;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Forms;
using PorchLight.Core.Messages;
using PorchLight.Core.Screening;

namespace PorchLight.Core.Ready;

/// <summary>A form to start from, with its screening and what follows an inquiry through it.</summary>
/// <param name="Content">Pages, questions and send-offs.</param>
/// <param name="Screening">What the answers tell about fit.</param>
/// <param name="FollowThroughs">For the form with the given identifier.</param>
public sealed record ReadyForm(
    FormContent Content,
    ScreeningRules Screening,
    Func<Guid, IReadOnlyList<FollowThroughContent>> FollowThroughs
);

/// <summary>The ready forms. Every word of them can be changed.</summary>
public static class ReadyForms
{
    private const decimal SmallShare = 0.5m;
    private const decimal LargeShare = 2.5m;
    private const int LongestTitle = 120;
    private const decimal HighestPrice = 100_000_000;

    /// <summary>What has to be put right before a form can be made: a title in at most 120 characters, and a price.</summary>
    /// <param name="title">The form's title, without blanks around it.</param>
    /// <param name="startingPrice">Where the work starts in price; above 0, at most 100 million.</param>
    public static IReadOnlyList<Finding> Check(string title, decimal startingPrice) =>
        [
            .. title.Length is > 0 and <= LongestTitle
                ? Array.Empty<Finding>()
                : [new Finding("title", $"Please give the form a title of at most {LongestTitle} characters.")],
            .. startingPrice is > 0 and <= HighestPrice
                ? Array.Empty<Finding>()
                : [new Finding("startingPrice", "Please say where your work starts in price; the budget question is built around it.")],
        ];

    /// <summary>
    /// An inquiry about a piece of work, for any service: who, what, budget in bands around the starting price, who
    /// decides, by when, how they found the business.
    /// </summary>
    /// <param name="title">The form's title.</param>
    /// <param name="startingPrice">Where the work starts in price; above 0.</param>
    /// <param name="currency">ISO 4217 code.</param>
    public static ReadyForm Inquiry(string title, decimal startingPrice, string currency)
    {
        var (small, large) = (startingPrice * SmallShare, startingPrice * LargeShare);
        return new ReadyForm(
            new FormContent(
                title,
                "Tell us what you have in mind. Two short pages, about three minutes.",
                [
                    new Page(
                        "you",
                        "You",
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
                                Help = "Our answer goes here.",
                            },
                            new Question("phone", "Your phone number", new PhoneKind())
                            {
                                LandsIn = new SetField(BuiltInFields.Phone.Key),
                                Help = "Only if you would rather talk than write.",
                            },
                        ]
                    ),
                    new Page(
                        "work",
                        "What you have in mind",
                        [
                            new Question("what", "What can we do for you?", new LongTextKind(4000))
                            {
                                Required = true,
                                LandsIn = new SetField("project.what"),
                            },
                            new Question(
                                "budget",
                                "What have you set aside for it?",
                                new ChoiceKind([
                                    new Option(
                                        "small",
                                        $"Under {Say(small)}",
                                        new Band(new Bound(0), new Bound(small, Open: true), currency)
                                    ),
                                    new Option(
                                        "tight",
                                        $"{Say(small)} to {Say(startingPrice)}",
                                        new Band(new Bound(small), new Bound(startingPrice, Open: true), currency)
                                    ),
                                    new Option(
                                        "fits",
                                        $"{Say(startingPrice)} to {Say(large)}",
                                        new Band(new Bound(startingPrice), new Bound(large), currency)
                                    ),
                                    new Option("ample", $"More than {Say(large)}", new Band(new Bound(large, Open: true), null, currency)),
                                    new Option("unsure", "I don't know yet", Unsure: true),
                                ])
                            )
                            {
                                Required = true,
                                LandsIn = new SetField("project.budget"),
                                Help = $"In {currency}. A guess is fine.",
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
                            new Question("found", "How did you find us?", new ShortTextKind(120))
                            {
                                LandsIn = new SetField(BuiltInFields.Source.Key),
                            },
                        ]
                    ),
                ],
                [
                    new SendOff("come-in", "Thank you, this sounds like work for us", "We have your answers and answer {promise}.")
                    {
                        When = new FitCondition(Fit.ComeIn),
                        NextSteps = ["We read your answers, all of them.", "You hear from us {promise}."],
                        OffersCall = true,
                    },
                    new SendOff(
                        "not-now",
                        "Thank you for asking us",
                        "At this size we would not do it justice, and we would rather say so today than keep you waiting. We have kept your answers, in case things change."
                    )
                    {
                        When = new FitCondition(Fit.NotNow),
                        TurnsAway = true,
                    },
                ],
                new SendOff(
                    "talk-first",
                    "Thank you, we will look at this properly",
                    "A person reads your answers, and we answer {promise}."
                )
                {
                    NextSteps = ["We read your answers.", "You hear from us {promise}."],
                }
            ),
            new ScreeningRules(
                20,
                50,
                0,
                2,
                [
                    Points(
                        "budget-fits",
                        30,
                        "Budget at or above where our work starts",
                        new NumberCondition(Of("budget"), NumberRelation.AtLeast, startingPrice, currency)
                    ),
                    Points(
                        "budget-small",
                        -45,
                        "Budget under half of where our work starts",
                        new NumberCondition(Of("budget"), NumberRelation.Under, small, currency)
                    ),
                    Points("budget-unsure", -5, "Does not know the budget yet", new DoesNotKnowCondition(Of("budget"))),
                    Points("decides", 20, "Decides about it", new IsCondition(Of("decides"), "me")),
                    Points("does-not-decide", -15, "Somebody else decides", new IsCondition(Of("decides"), "someone-else")),
                ]
            ),
            form => [AfterAnInquiry(form, title), AfterAKindNo(form, title)]
        );
    }

    /// <summary>What every form owes whoever sends it: one mail at once, that the answers have arrived.</summary>
    /// <param name="form">The identifier of the form.</param>
    /// <param name="title">Its title.</param>
    public static FollowThroughContent Thanks(Guid form, string title) =>
        new(
            $"Thanks for “{title}”",
            new InquiryStart(form, []),
            [
                new Step(
                    "thanks",
                    "Thank you, your answers have arrived",
                    new SendMessage(
                        new MessageTemplate(
                            $"Thank you, {{firstName}}: {title}",
                            [
                                new TextPart(
                                    "opening",
                                    "Dear {firstName},\n\nthank you, your answers have arrived. Should we have anything to ask, or you anything to add, just answer this mail.\n\nWarmly\n{owner}\n{business}"
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

    private static FollowThroughContent AfterAnInquiry(Guid form, string title) =>
        new(
            $"After “{title}”",
            new InquiryStart(form, [Fit.ComeIn, Fit.TalkFirst]),
            [
                new Step(
                    "thanks",
                    "Thank you, and when we answer",
                    new SendMessage(
                        new MessageTemplate(
                            "Thank you for asking us, {firstName}",
                            [
                                new TextPart(
                                    "opening",
                                    "Dear {firstName},\n\nthank you for telling us what you have in mind. Your answers have arrived, and a person is going to read them. We answer {promise|as soon as we can}.\n\nWarmly\n{owner}\n{business}"
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
                            "About your plans, {firstName}",
                            [
                                new TextPart("opening", "Dear {firstName},\n\nI have been thinking about what you wrote."),
                                new GapPart("theirs", "one line about what they have in mind"),
                                new TextPart(
                                    "closing",
                                    "Shall we talk it through for half an hour? Tell me two times that suit you.\n\nWarmly\n{owner}\n{business}"
                                ),
                            ]
                        )
                    ),
                    new Schedule(Anchor.PreviousSettled, 1, TimeUnit.WorkingDays),
                    NeedsNod: true
                ),
                new Step(
                    "last",
                    "Last follow-up",
                    new SendMessage(
                        new MessageTemplate(
                            "Shall we go on?",
                            [
                                new TextPart(
                                    "opening",
                                    "Dear {firstName},\n\nI do not want to fill your letterbox, so this is my last note about it. Shall we go on, or let it rest? Either answer is a good one.\n\nWarmly\n{owner}\n{business}"
                                ),
                            ]
                        )
                    ),
                    new Schedule(Anchor.PreviousSettled, 7, TimeUnit.Days),
                    NeedsNod: true
                ),
            ],
            [StopOn.Replied, StopOn.Booked]
        );

    private static FollowThroughContent AfterAKindNo(Guid form, string title) =>
        new(
            $"After a kind no to “{title}”",
            new InquiryStart(form, [Fit.NotNow]),
            [
                new Step(
                    "kept",
                    "Thank you for asking",
                    new SendMessage(
                        new MessageTemplate(
                            "Thank you for asking us, {firstName}",
                            [
                                new TextPart(
                                    "opening",
                                    "Dear {firstName},\n\nthank you for asking us. As we said on the page, this one is not for us. We have kept your answers: should the plan grow, write to us and you need not start again.\n\nWarmly\n{owner}\n{business}"
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

    private static string Say(decimal amount) => amount.ToString("#,##0.##", CultureInfo.InvariantCulture);

    private static AnswerTo Of(string question) => new(question);

    private static Signal Points(string key, int points, string sentence, Condition when) =>
        new(key, sentence, when, new PointsEffect(points));
}
