using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;

namespace PorchLight.Core.Conditions;

/// <summary>Judges conditions by three-valued logic (Kleene's strong logic, as in SQL).</summary>
public static class Conditions
{
    /// <summary>
    /// Whether the condition holds. Knowing more never turns true into false or false into true; it only settles what
    /// was unknown.
    /// </summary>
    /// <param name="condition">The condition.</param>
    /// <param name="known">What is known.</param>
    public static Truth Evaluate(this Condition condition, IKnownAnswers known) =>
        condition switch
        {
            AllCondition all => all.Parts.Aggregate(Truth.True, (truth, part) => truth.And(part.Evaluate(known))),
            AnyCondition any => any.Parts.Aggregate(Truth.False, (truth, part) => truth.Or(part.Evaluate(known))),
            NotCondition not => not.Part.Evaluate(known).Not(),
            FitCondition fit => known.Fit is { } verdict ? (verdict == fit.Fit).ToTruth() : Truth.Unknown,
            NumberCondition { Of: PointsSoFar } points => known.Points is { } score
                ? Band.Exactly(score).Compare(points.Relation, points.Value)
                : Truth.Unknown,
            NumberBetweenCondition { Of: PointsSoFar } points => known.Points is { } score
                ? (score >= points.Low && score <= points.High).ToTruth()
                : Truth.Unknown,
            ComparisonCondition comparison => Compare(comparison, known),
            _ => throw new ArgumentOutOfRangeException(nameof(condition), condition, "A condition of an unknown kind."),
        };

    /// <summary>Whether the condition holds for certain; an absent condition always does.</summary>
    /// <param name="condition">The condition, or null.</param>
    /// <param name="known">What is known by now; what is not, makes the outcome unknown where it matters.</param>
    public static Truth EvaluateOrTrue(this Condition? condition, IKnownAnswers known) => condition?.Evaluate(known) ?? Truth.True;

    /// <summary>Every comparison in the tree, from left to right.</summary>
    /// <param name="condition">The condition; of an empty "all" or "any" there are none.</param>
    public static IEnumerable<ComparisonCondition> Comparisons(this Condition condition) =>
        condition switch
        {
            AllCondition all => all.Parts.SelectMany(Comparisons),
            AnyCondition any => any.Parts.SelectMany(Comparisons),
            NotCondition not => not.Part.Comparisons(),
            ComparisonCondition comparison => [comparison],
            _ => [],
        };

    /// <summary>The keys of the questions the condition looks at, each once.</summary>
    /// <param name="condition">The condition; the keys come in the order they are first met.</param>
    public static IEnumerable<string> QuestionsUsed(this Condition condition) =>
        condition.Comparisons().Select(comparison => comparison.Of).OfType<AnswerTo>().Select(of => of.Question).Distinct();

    private static Truth Compare(ComparisonCondition comparison, IKnownAnswers known)
    {
        var state = comparison.Of switch
        {
            AnswerTo of => known.Of(of.Question),
            ValueOnFile of => AnswerState.OfNullable(known.OnFile.GetValueOrDefault(of.Field)),
            _ => AnswerState.NotAskedYet,
        };

        return (comparison, state) switch
        {
            (IsAnsweredCondition or IsBlankCondition, { Status: AnswerStatus.NotAskedYet }) => Truth.Unknown,
            (IsAnsweredCondition, _) => (state.Status == AnswerStatus.Answered).ToTruth(),
            (IsBlankCondition, _) => (state.Status == AnswerStatus.Blank).ToTruth(),
            (_, { Answer: null }) => Truth.Unknown,
            (IsCondition c, { Answer: { } a }) => IsEqual(a, c.Value),
            (IsNotCondition c, { Answer: { } a }) => IsEqual(a, c.Value).Not(),
            (IsOneOfCondition c, { Answer: { } a }) => c.Values.Aggregate(Truth.False, (truth, value) => truth.Or(IsEqual(a, value))),
            (IncludesCondition c, { Answer: ChoiceAnswer a }) => a.Keys.Contains(c.Value).ToTruth(),
            (IncludesCondition c, { Answer: TextsAnswer a }) => a.Texts.Any(text => IsSameWord(text, c.Value)).ToTruth(),
            (IncludesNoneOfCondition c, { Answer: TextsAnswer a }) => (
                !a.Texts.Any(text => c.Values.Any(value => IsSameWord(text, value)))
            ).ToTruth(),
            (IncludesNoneOfCondition c, { Answer: ChoiceAnswer a }) => (!a.Keys.Intersect(c.Values).Any()).ToTruth(),
            (DoesNotKnowCondition, { Answer: ChoiceAnswer a }) => a.Keys.Any(key => Option(key) is { Unsure: true }).ToTruth(),
            (NumberCondition c, { Answer: { } a }) => CompareNumber(a, Option, c.Currency, band => band.Compare(c.Relation, c.Value)),
            (NumberBetweenCondition c, { Answer: { } a }) => CompareNumber(
                a,
                Option,
                c.Currency,
                band =>
                    c.Low > c.High
                        ? Truth.False
                        : band.Compare(NumberRelation.AtLeast, c.Low).And(band.Compare(NumberRelation.AtMost, c.High))
            ),
            (DateBetweenCondition c, { Answer: { } a }) => Within(a, day => day >= c.From, day => day <= c.To, c.From <= c.To),
            (BeforeCondition c, { Answer: { } a }) => Within(a, _ => true, day => day < c.Date),
            (AfterCondition c, { Answer: { } a }) => Within(a, day => day > c.Date, _ => true),
            (WithinNextDaysCondition c, { Answer: { } a }) => Within(
                a,
                day => day >= known.Today,
                day => Period.DaysBetween(known.Today, day) <= c.Days,
                c.Days >= 0
            ),
            _ => Truth.Unknown,
        };

        Option? Option(string key) => comparison.Of is AnswerTo of ? known.OptionOf(of.Question, key) : null;
    }

    // A range of days is like a band: true or false only when all of its days agree. Between ends the wrong way round lies no day.
    private static Truth Within(Answer answer, Func<LocalDate, bool> notTooEarly, Func<LocalDate, bool> notTooLate, bool any = true) =>
        answer switch
        {
            DateAnswer day => (any && notTooEarly(day.Date) && notTooLate(day.Date)).ToTruth(),
            DateRangeAnswer range when range.From <= range.To => any && notTooEarly(range.From) && notTooLate(range.To) ? Truth.True
            : !any || !notTooEarly(range.To) || !notTooLate(range.From) ? Truth.False
            : Truth.Unknown,
            _ => Truth.Unknown,
        };

    private static Truth IsEqual(Answer answer, string value) =>
        answer switch
        {
            ChoiceAnswer { Keys: [var key] } => (key == value).ToTruth(),
            YesNoAnswer yesNo => ((yesNo.Yes ? "yes" : "no") == value).ToTruth(),
            TextAnswer text => IsSameWord(text.Text, value).ToTruth(),
            _ => Truth.Unknown,
        };

    private static bool IsSameWord(string a, string b) => string.Equals(a.Trim(), b.Trim(), StringComparison.OrdinalIgnoreCase);

    private static Truth CompareNumber(Answer answer, Func<string, Option?> find, string? currency, Func<Band, Truth> compare)
    {
        var band = answer switch
        {
            NumberAnswer number => Band.Exactly(number.Value),
            MoneyAnswer money => Band.Exactly(money.Amount, money.Currency),
            BandAnswer landed => landed.Band,
            ChoiceAnswer { Keys: [var key] } => find(key) is { Unsure: false } option ? option.Band : null,
            _ => null,
        };
        return band is null || band.Currency != currency || band.OverTerm() is not { } whole ? Truth.Unknown : compare(whole);
    }
}
