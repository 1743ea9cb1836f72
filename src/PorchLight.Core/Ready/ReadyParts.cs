using System.Globalization;
using PorchLight.Core.Answers;
using PorchLight.Core.Conditions;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Core.Screening;

namespace PorchLight.Core.Ready;

/// <summary>What ready forms are made of: the questions, signals and send-offs most of them share.</summary>
internal sealed class ReadyParts(ReadyFormRequest request)
{
    private const decimal SmallShare = 0.5m;
    private const decimal LargeShare = 2.5m;

    private readonly decimal _small = request.StartingPrice * SmallShare;

    /// <summary>Where the work starts in price, with its currency.</summary>
    public string Starts => $"{Say(request.StartingPrice)} {request.Currency}";

    /// <summary>The first page of most forms: name, mail, phone.</summary>
    public static Page You(params Item[] more) =>
        new(
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
                .. more,
            ]
        );

    public static Question What(string wording) =>
        new("what", wording, new LongTextKind(4000)) { Required = true, LandsIn = new SetField("project.what") };

    public static Question Place(string wording) =>
        new("place", wording, new ShortTextKind()) { Required = true, LandsIn = new SetField("project.place") };

    public static Question Found() =>
        new("found", "How did you find us?", new ShortTextKind(120)) { LandsIn = new SetField(BuiltInFields.Source.Key) };

    public static Question Wanted(string wording) =>
        new("wanted", wording, new DateKind(new DateLimits(FromDays: 0))) { LandsIn = new SetField("project.wanted") };

    public static Question Decides(string wording) =>
        new(
            "decides",
            wording,
            new ChoiceKind([
                new Option("me", "Yes, I decide"),
                new Option("together", "Together with others"),
                new Option("someone-else", "No, someone else decides"),
            ])
        )
        {
            Required = true,
            LandsIn = new SetField("project.decides"),
        };

    /// <summary>One of several answers, each with a key and its words.</summary>
    public static Question Choice(string key, string wording, params (string Key, string Label)[] options) =>
        new(key, wording, new ChoiceKind([.. options.Select(option => new Option(option.Key, option.Label))])) { Required = true };

    /// <summary>A budget in bands around the starting price: under half of it, under it, up to two and a half times it, more.</summary>
    public Question Budget(string wording)
    {
        var (start, large, currency) = (request.StartingPrice, request.StartingPrice * LargeShare, request.Currency);
        return new Question(
            "budget",
            wording,
            new ChoiceKind([
                new Option("small", $"Under {Say(_small)}", new Band(new Bound(0), new Bound(_small, Open: true), currency)),
                new Option("tight", $"{Say(_small)} to {Say(start)}", new Band(new Bound(_small), new Bound(start, Open: true), currency)),
                new Option("fits", $"{Say(start)} to {Say(large)}", new Band(new Bound(start), new Bound(large), currency)),
                new Option("ample", $"More than {Say(large)}", new Band(new Bound(large, Open: true), null, currency)),
                new Option("unsure", "I don't know yet", Unsure: true),
            ])
        )
        {
            Required = true,
            LandsIn = new SetField("project.budget"),
            Help = $"In {currency}. A guess is fine.",
        };
    }

    public IReadOnlyList<Signal> BudgetSignals() =>
        [
            Points(
                "budget-fits",
                30,
                "Budget at or above where our work starts",
                new NumberCondition(Of("budget"), NumberRelation.AtLeast, request.StartingPrice, request.Currency)
            ),
            Points(
                "budget-small",
                -45,
                "Budget under half of where our work starts",
                new NumberCondition(Of("budget"), NumberRelation.Under, _small, request.Currency)
            ),
            Points("budget-unsure", -5, "Does not know the budget yet", new DoesNotKnowCondition(Of("budget"))),
        ];

    public IReadOnlyList<Signal> BudgetAndDecisionSignals(params Signal[] more) =>
        [
            .. BudgetSignals(),
            Points("decides", 20, "Decides about it", new IsCondition(Of("decides"), "me")),
            Points("does-not-decide", -15, "Someone else decides", new IsCondition(Of("decides"), "someone-else")),
            .. more,
        ];

    /// <summary>A form that asks some in, sends some off kindly, and looks properly at the rest.</summary>
    /// <param name="intro">The lines under the title.</param>
    /// <param name="pages">Its pages.</param>
    /// <param name="signals">What its answers tell about fit.</param>
    /// <param name="ends">Ends of its own, tried before the others.</param>
    public ReadyForm Form(string intro, IReadOnlyList<Page> pages, IReadOnlyList<Signal> signals, params SendOff[] ends) =>
        new(
            new FormContent(
                request.Title,
                intro,
                pages,
                [
                    .. ends,
                    new SendOff("come-in", "Thank you, this sounds like work for us", "We have your answers and will reply {promise}.")
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
            new ScreeningRules(20, 50, 0, 2, signals),
            form => [FormFollowThroughs.AfterAnInquiry(form, request.Title), FormFollowThroughs.AfterAKindNo(form, request.Title)]
        );

    public static AnswerTo Of(string question) => new(question);

    public static Signal Points(string key, int points, string sentence, Condition when) =>
        new(key, sentence, when, new PointsEffect(points));

    public static Signal Flag(string key, string sentence, Condition when) => new(key, sentence, when, new FlagEffect());

    private static string Say(decimal amount) => amount.ToString("#,##0.##", CultureInfo.InvariantCulture);
}
