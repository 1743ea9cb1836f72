using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Calendar;
using PorchLight.Core.Conditions;
using PorchLight.Core.Forms;
using PorchLight.Core.Screening;

namespace PorchLight.Core.Tests;

/// <summary>A small form and a small business that the tests share.</summary>
internal static class Sample
{
    public static readonly LocalDate Today = new(2026, 11, 23);

    public static Question Budget { get; } =
        new(
            "budget",
            "What have you set aside?",
            new ChoiceKind([
                new Option("small", "Under 1,500", new Band(null, new Bound(1500, Open: true), "EUR")),
                new Option("middle", "4,000 to 9,000", new Band(new Bound(4000), new Bound(9000), "EUR")),
                new Option("large", "More than 9,000", new Band(new Bound(9000, Open: true), null, "EUR")),
                new Option("unsure", "I don't know yet", Unsure: true),
            ])
        );

    public static Question Decides { get; } = new("decides", "Do you decide?", new YesNoKind());

    public static Question Width { get; } = new("width", "How wide is it?", new NumberKind(0, 100, "m"));

    public static Question Wanted { get; } = new("wanted", "When?", new DateKind());

    public static Question Extras { get; } =
        new(
            "extras",
            "Anything else?",
            new ChoiceKind(
                [new Option("gilding", "Gilding"), new Option("lighting", "Lighting"), new Option("none", "Nothing")],
                Several: true
            )
        );

    public static Question Words { get; } = new("words", "In your words?", new LongTextKind());

    public static FormContent Form(params Page[] pages) => new("A form", "", pages, [], new SendOff("end", "Thank you", "Thank you."));

    public static FormContent OnePage(params Question[] questions) => Form(new Page("one", "One", questions));

    public static FormContent Everything { get; } = OnePage(Budget, Decides, Width, Wanted, Extras, Words);

    public static AnswerContext Known(FormContent form, params (string Key, AnswerState State)[] answers) =>
        new(form, answers.ToDictionary(answer => answer.Key, answer => answer.State), Today);

    public static Dictionary<string, Answer?> Given(params (string Key, Answer? Answer)[] answers) =>
        answers.ToDictionary(answer => answer.Key, answer => answer.Answer);

    /// <summary>What the program knows around a filling-in, when nothing special is.</summary>
    public static NormaliseContext Around { get; } = new("IE", 1, Instant.FromUtc(2026, 11, 23, 10, 0), Today);

    public static Dictionary<string, Answer?> Tidy(FormContent form, IReadOnlyDictionary<string, Answer?> given) =>
        AnswerNormaliser.Normalise(form, given, Around);

    /// <summary>What is wrong with one tidied answer, today.</summary>
    public static string? Check(Question question, Answer? answer) => AnswerLimits.Check(question, answer, Today, question.Required);

    public static ScreeningRules Rules(params Signal[] signals) => new(20, 50, 10, 2, signals);

    public static Signal Points(string key, int points, Condition when) => new(key, key, when, new PointsEffect(points));

    public static AnswerTo Of(Question question) => new(question.Key);

    /// <summary>Monday to Friday, nine to five, in Dublin.</summary>
    public static BusinessCalendar Dublin(params LocalDate[] closed) =>
        Week("Europe/Dublin", new OpenSpan(new LocalTime(9, 0), new LocalTime(17, 0)), closed);

    public static BusinessCalendar Week(string zone, OpenSpan span, params LocalDate[] closed) =>
        new(DateTimeZoneProviders.Tzdb[zone], [.. Enumerable.Range(1, 5).Select(day => new DayHours((IsoDayOfWeek)day, [span]))], closed);

    public static Instant At(this BusinessCalendar calendar, int year, int month, int day, int hour = 0, int minute = 0) =>
        calendar.ToInstant(new LocalDateTime(year, month, day, hour, minute));
}
