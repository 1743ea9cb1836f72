using NodaTime;
using PorchLight.Core.Screening;

namespace PorchLight.Core.Forms;

/// <summary>All that a condition may look at. Pure: what is known is handed in.</summary>
/// <param name="Form">The version that is answered.</param>
/// <param name="Answers">The state of each question by key; a missing key counts as not asked yet.</param>
/// <param name="Today">The day of the submission in the business's zone.</param>
public sealed record AnswerContext(FormContent Form, IReadOnlyDictionary<string, AnswerState> Answers, LocalDate Today)
{
    /// <summary>Values on file by field key, as they were at the instant of the submission; a missing key counts as blank.</summary>
    public IReadOnlyDictionary<string, Answer> OnFile { get; init; } = new Dictionary<string, Answer>();

    /// <summary>Known values by name ("business"), for wordings.</summary>
    public IReadOnlyDictionary<string, string> Values { get; init; } = new Dictionary<string, string>();

    /// <summary>The verdict, once there is one.</summary>
    public Fit? Fit { get; init; }

    /// <summary>The score, once there is one.</summary>
    public int? Points { get; init; }

    /// <summary>The state of every question of every row, by the key of the question with the rows; filled by <see cref="Routes.Trace"/>.</summary>
    public IReadOnlyDictionary<string, IReadOnlyList<IReadOnlyDictionary<string, AnswerState>>> Rows { get; init; } =
        new Dictionary<string, IReadOnlyList<IReadOnlyDictionary<string, AnswerState>>>();

    /// <summary>
    /// The question whose options and rows an answer speaks of: the one asked, or for a worked-out value that repeats an
    /// answer the one whose answer it repeats. Null when the form has no such question.
    /// </summary>
    /// <param name="question">The key of the question.</param>
    public Question? Behind(string question) => Behind(question, new BehindSoFar());

    internal Question? Behind(string question, BehindSoFar found)
    {
        var asked = Form.FindQuestion(question);
        if (asked?.Kind is not WorkedOutKind worked)
            return asked;
        if (found.ByQuestion.TryGetValue(question, out var known))
            return known;
        // A form that is still being built may go round in a circle; one that is published cannot.
        found.ByQuestion[question] = asked;
        var behind = worked.Value.Repeats(this, found) is { } key ? Behind(key, found) : null;
        return found.ByQuestion[question] = behind?.Kind is ChoiceKind or RowsKind ? behind : asked;
    }

    /// <summary>The state of a question.</summary>
    public AnswerState Of(string question) => Answers.GetValueOrDefault(question);

    /// <summary>The states of each row of a question, none when it has none.</summary>
    public IReadOnlyList<IReadOnlyDictionary<string, AnswerState>> RowsOf(string question) => Rows.GetValueOrDefault(question) ?? [];

    /// <summary>The same with the answers of one row beside the others.</summary>
    /// <param name="row">The states of the row's questions.</param>
    public AnswerContext InRow(IReadOnlyDictionary<string, AnswerState> row)
    {
        var answers = new Dictionary<string, AnswerState>(Answers);
        foreach (var (key, state) in row)
            answers[key] = state;
        return this with { Answers = answers };
    }
}

/// <summary>
/// What has been found behind worked-out values while one condition is judged. Values may look at each other in many ways, and each
/// is followed once.
/// </summary>
internal sealed class BehindSoFar
{
    public Dictionary<string, Question?> ByQuestion => field ??= [];
}

/// <summary>Judges conditions by three-valued logic (Kleene's strong logic, as in SQL).</summary>
public static class Conditions
{
    /// <summary>
    /// Whether the condition holds. Knowing more never turns true into false or false into true; it only settles what
    /// was unknown.
    /// </summary>
    /// <param name="condition">The condition.</param>
    /// <param name="known">What is known.</param>
    public static Truth Evaluate(this Condition condition, AnswerContext known) => condition.Evaluate(known, new BehindSoFar());

    internal static Truth Evaluate(this Condition condition, AnswerContext known, BehindSoFar found) =>
        condition switch
        {
            AllCondition all => all.Parts.Aggregate(Truth.True, (truth, part) => truth.And(part.Evaluate(known, found))),
            AnyCondition any => any.Parts.Aggregate(Truth.False, (truth, part) => truth.Or(part.Evaluate(known, found))),
            NotCondition not => not.Part.Evaluate(known, found).Not(),
            FitCondition fit => known.Fit is { } verdict ? (verdict == fit.Fit).ToTruth() : Truth.Unknown,
            NumberCondition { Of: PointsSoFar } points => known.Points is { } score
                ? Band.Exactly(score).Compare(points.Relation, points.Value)
                : Truth.Unknown,
            NumberBetweenCondition { Of: PointsSoFar } points => known.Points is { } score
                ? (score >= points.Low && score <= points.High).ToTruth()
                : Truth.Unknown,
            ComparisonCondition comparison => Compare(comparison, known, found),
            _ => throw new ArgumentOutOfRangeException(nameof(condition), condition, "A condition of an unknown kind."),
        };

    /// <summary>Whether the condition holds for certain; an absent condition always does.</summary>
    public static Truth EvaluateOrTrue(this Condition? condition, AnswerContext known) => condition?.Evaluate(known) ?? Truth.True;

    /// <summary>Every comparison in the tree, from left to right.</summary>
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
    public static IEnumerable<string> QuestionsUsed(this Condition condition) =>
        condition.Comparisons().Select(comparison => comparison.Of).OfType<AnswerTo>().Select(of => of.Question).Distinct();

    private static Truth Compare(ComparisonCondition comparison, AnswerContext known, BehindSoFar found)
    {
        var state = comparison.Of switch
        {
            AnswerTo of => known.Of(of.Question),
            ValueOnFile of => AnswerState.OfNullable(known.OnFile.GetValueOrDefault(of.Field)),
            _ => AnswerState.NotAskedYet,
        };
        var question = comparison.Of is AnswerTo answered && state.Answer is ChoiceAnswer ? known.Behind(answered.Question, found) : null;

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
            (IncludesNoneOfCondition c, { Answer: ChoiceAnswer a }) => (!a.Keys.Intersect(c.Values).Any()).ToTruth(),
            (DoesNotKnowCondition, { Answer: ChoiceAnswer a }) => ChoosesUnsure(a, question).ToTruth(),
            (NumberCondition c, { Answer: { } a }) => CompareNumber(a, question, c.Currency, band => band.Compare(c.Relation, c.Value)),
            (NumberBetweenCondition c, { Answer: { } a }) => CompareNumber(
                a,
                question,
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
            TextAnswer text => string.Equals(text.Text.Trim(), value.Trim(), StringComparison.OrdinalIgnoreCase).ToTruth(),
            _ => Truth.Unknown,
        };

    private static bool ChoosesUnsure(ChoiceAnswer answer, Question? question) =>
        answer.Keys.Any(key => question?.FindOption(key) is { Unsure: true });

    private static Truth CompareNumber(Answer answer, Question? question, string? currency, Func<Band, Truth> compare)
    {
        var band = answer switch
        {
            NumberAnswer number => Band.Exactly(number.Value),
            MoneyAnswer money => Band.Exactly(money.Amount, money.Currency),
            BandAnswer landed => landed.Band,
            ChoiceAnswer { Keys: [var key] } => question?.FindOption(key) is { Unsure: false } option ? option.Band : null,
            _ => null,
        };
        return band is null || band.Currency != currency || band.OverTerm() is not { } whole ? Truth.Unknown : compare(whole);
    }
}
