using PorchLight.Core.Common;
using PorchLight.Core.Conditions;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Core.Screening;

namespace PorchLight.Core.Workbench;

/// <summary>A signal in words.</summary>
/// <param name="When">When it is true, as a part of a sentence: "“Your budget” is under 1,500 EUR".</param>
/// <param name="Effect">What it does then: "25 points off".</param>
/// <param name="Questions">The keys of the questions it looks at.</param>
public sealed record SignalFacts(string When, string Effect, IReadOnlyList<string> Questions);

/// <summary>What whoever edits a screening has to know of it, beside what it says itself.</summary>
/// <param name="Signals">By the signal's key.</param>
/// <param name="Findings">What keeps it from being put into force; the place is a signal's key, or the name of a number.</param>
/// <param name="Scale">The thresholds in one sentence.</param>
public sealed record ScreeningFacts(IReadOnlyDictionary<string, SignalFacts> Signals, IReadOnlyList<Finding> Findings, string Scale)
{
    /// <summary>The facts of a screening as it stands, finished or not. Of two signals with one key the first counts.</summary>
    /// <param name="rules">The screening.</param>
    /// <param name="form">The form with the business's lists in it.</param>
    /// <param name="fields">The fields of the business.</param>
    public static ScreeningFacts Of(ScreeningRules rules, FormContent form, FieldCatalogue fields) =>
        new(
            rules
                .Signals.DistinctBy(signal => signal.Key)
                .ToDictionary(
                    signal => signal.Key,
                    signal => new SignalFacts(signal.When.Say(form, fields), signal.Effect.Say(), [.. signal.When.QuestionsUsed()])
                ),
            [.. rules.Check(), .. rules.Signals.SelectMany(signal => Check(signal, form, fields).Take(1))],
            Say(rules)
        );

    private static string Say(ScreeningRules rules) =>
        $"Everyone starts with {Points(rules.Base)}. {Fit.ComeIn.Say()} from {Points(rules.ComeInAt)}, {Fit.NotNow.Say()} under {rules.Floor:N0}, "
        + $"{Fit.TalkFirst.Say()} between them. {(rules.FlagLimit == 1 ? "One flag is" : $"{rules.FlagLimit} flags are")} enough for {Fit.NotNow.Say()}.";

    private static string Points(int points) => points is 1 or -1 ? $"{points} point" : $"{points:N0} points";

    private static IEnumerable<Finding> Check(Signal signal, FormContent form, FieldCatalogue fields)
    {
        if (LooksAtItself(signal.When))
            yield return new Finding(signal.Key, "A signal makes the fit, so it cannot look at it. Choose an answer.");
        foreach (var comparison in signal.When.Comparisons())
        {
            if (comparison.Of is ValueOnFile onFile)
            {
                if (fields.Find(onFile.Field) is not { } field)
                    yield return new Finding(signal.Key, "It looks at a field that is gone. Choose another, or take the signal away.");
                else if (!Comparisons.Of(field).Any(can => Is(comparison, can)))
                    yield return new Finding(signal.Key, $"“{field.Label}” cannot be compared like this. Choose another comparison.");
            }
            else if (comparison.Of is AnswerTo answer)
            {
                if (form.FindQuestion(answer.Question) is not { } question)
                    yield return new Finding(signal.Key, "It looks at a question that is gone. Choose another, or take the signal away.");
                else if (!Comparisons.Of(question, form).Any(can => Is(comparison, can)))
                    yield return new Finding(
                        signal.Key,
                        $"“{KnownValues.BeforeAnswers(question.Wording)}” cannot be compared like this any more. Choose another comparison."
                    );
                else if (ValuesOf(comparison).FirstOrDefault(value => IsGone(question, form, value)) is not null)
                    yield return new Finding(
                        signal.Key,
                        $"“{KnownValues.BeforeAnswers(question.Wording)}” does not offer that answer any more. Choose another."
                    );
            }
        }
    }

    private static bool LooksAtItself(Condition condition) =>
        condition switch
        {
            AllCondition all => all.Parts.Any(LooksAtItself),
            AnyCondition any => any.Parts.Any(LooksAtItself),
            NotCondition not => LooksAtItself(not.Part),
            FitCondition => true,
            ComparisonCondition comparison => comparison.Of is PointsSoFar,
            _ => false,
        };

    private static bool IsGone(Question question, FormContent form, string value) =>
        Comparisons.OptionsOf(question, form) is { Count: > 0 } options && options.All(option => option.Key != value);

    private static IEnumerable<string> ValuesOf(ComparisonCondition comparison) =>
        comparison switch
        {
            IsCondition c => [c.Value],
            IsNotCondition c => [c.Value],
            IsOneOfCondition c => c.Values,
            IncludesCondition c => [c.Value],
            IncludesNoneOfCondition c => c.Values,
            _ => [],
        };

    private static bool Is(ComparisonCondition comparison, Comparison can) =>
        can
        == comparison switch
        {
            IsCondition => Comparison.Is,
            IsNotCondition => Comparison.IsNot,
            IsOneOfCondition => Comparison.IsOneOf,
            IncludesCondition => Comparison.Includes,
            IncludesNoneOfCondition => Comparison.IncludesNoneOf,
            DoesNotKnowCondition => Comparison.DoesNotKnow,
            NumberCondition => Comparison.NumberIs,
            NumberBetweenCondition => Comparison.NumberBetween,
            BeforeCondition => Comparison.Before,
            AfterCondition => Comparison.After,
            DateBetweenCondition => Comparison.DateBetween,
            WithinNextDaysCondition => Comparison.WithinNextDays,
            IsAnsweredCondition => Comparison.IsAnswered,
            _ => Comparison.IsBlank,
        };
}
