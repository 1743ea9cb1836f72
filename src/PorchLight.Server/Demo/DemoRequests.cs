using PorchLight.Core.Answers;
using PorchLight.Core.Conditions;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Core.Screening;

namespace PorchLight.Server.Demo;

/// <summary>The forms the demo business sends to clients it works for already. Everything here is made up.</summary>
internal static class DemoRequests
{
    /// <summary>They sort nobody out: whoever answers is a client.</summary>
    public static ScreeningRules NoScreening { get; } = new(0, 0, 0, 1, []);

    public static FormContent Site { get; } =
        new(
            "Site and access",
            "So that we stand at the right wall, on the right day, with the right ladder.",
            [
                new Page(
                    "place-page",
                    "The place",
                    [
                        new Question("address", "Where exactly is it?", new AddressKind())
                        {
                            Required = true,
                            LandsIn = new AppendToNotes(RecordScope.Project),
                        },
                        new Question("days", "On which days may we work there?", new DateRangeKind(new DateLimits(FromDays: 1)))
                        {
                            Required = true,
                        },
                        new Question("power", "Is there power within 20 metres?", new YesNoKind())
                        {
                            Required = true,
                            Width = ItemWidth.Half,
                        },
                        new Question("water", "Is there water?", new YesNoKind()) { Required = true, Width = ItemWidth.Half },
                        new Question(
                            "beware",
                            "What should we know about?",
                            new ChoiceKind(
                                [
                                    new Option("wires", "Overhead wires"),
                                    new Option("traffic", "Traffic close by"),
                                    new Option("dog", "A dog"),
                                    new Option("ivy", "Ivy or damp"),
                                    new Option("other", "Something else") { OwnWords = true },
                                    new Option("none", "None of these") { NoneOfThese = true },
                                ],
                                Several: true
                            )
                            {
                                AtMost = 4,
                            }
                        )
                        {
                            Required = true,
                        },
                        new Question(
                            "photos",
                            "Photos of the wall and the way to it",
                            new FilesKind(6, Groups: [FileGroup.Picture, FileGroup.Document])
                        ),
                    ]
                ),
                new Page(
                    "people-page",
                    "Who lets us in",
                    [
                        new Question("name", "Your name", new PersonNameKind())
                        {
                            Required = true,
                            LandsIn = new SetField(BuiltInFields.Name.Key),
                            Prefill = new FromRecord(BuiltInFields.Name.Key),
                        },
                        new Question("email", "Your e-mail address", new EmailKind())
                        {
                            Required = true,
                            LandsIn = new SetField(BuiltInFields.Email.Key),
                            Prefill = new FromRecord(BuiltInFields.Email.Key),
                            Width = ItemWidth.Half,
                        },
                        new Question("phone", "A phone number on the day", new PhoneKind())
                        {
                            Required = true,
                            LandsIn = new SetField(BuiltInFields.Phone.Key),
                            Prefill = new FromRecord(BuiltInFields.Phone.Key),
                            Width = ItemWidth.Half,
                        },
                        new Passage("why", "We may only paint what someone who may say so has allowed."),
                        new Question(
                            "leave",
                            "Leave to paint",
                            new SignatureKind(
                                "The wall may be painted as agreed. I own it, or I may say this for whoever does.",
                                ForOthers: true
                            )
                        )
                        {
                            Required = true,
                        },
                    ]
                ),
            ],
            [],
            new SendOff(
                "end",
                "Thank you, {answer:name|that helps}",
                "We come {answer:days|as agreed}. Should something change, a short mail is enough."
            )
        )
        {
            Review = true,
        };

    public static FormContent HowDidItGo { get; } =
        new(
            "How did it go?",
            "Two minutes, and honest words help us most.",
            [
                new Page(
                    "how",
                    "The work and us",
                    [
                        new Question(
                            "again",
                            "How likely is it that you would send a friend to us?",
                            new ScaleKind(0, 10, "Not at all", "I already have")
                        )
                        {
                            Required = true,
                        },
                        new Question("best", "What was best?", new LongTextKind(1500)),
                        new Question("better", "What should we do better next time?", new LongTextKind(1500))
                        {
                            RequiredWhen = new NumberCondition(new AnswerTo("again"), NumberRelation.AtMost, 6),
                            Help = "We read every word, and nobody else does.",
                        },
                        new Question("quote", "May we quote you?", new YesNoKind())
                        {
                            AskedOnlyWhen = new NumberCondition(new AnswerTo("again"), NumberRelation.AtLeast, 9),
                        },
                        new Question("quote-as", "As whom?", new ShortTextKind(120))
                        {
                            AskedOnlyWhen = new IsCondition(new AnswerTo("quote"), "yes"),
                            Required = true,
                            Placeholder = "Tilda, bakery in Howth",
                        },
                    ]
                ),
            ],
            [
                new SendOff(
                    "sorry",
                    "Thank you for telling us",
                    "That was not good enough, and we would like to put it right. Maren reads this today."
                )
                {
                    When = new NumberCondition(new AnswerTo("again"), NumberRelation.AtMost, 6),
                },
            ],
            new SendOff("end", "Thank you", "That made our day.")
            {
                Button = new LinkButton("See what we painted since", "https://ochrewren.example/walls"),
            }
        );
}
