using NodaTime;
using PorchLight.Core.Screening;

namespace PorchLight.Core.Forms;

/// <summary>All that a condition may look at. Pure: what is known is handed in.</summary>
/// <param name="Form">The version that is answered.</param>
/// <param name="Answers">The state of each question by key; a missing key counts as not asked yet.</param>
/// <param name="Today">The day of the submission in the business's zone.</param>
public sealed record Known(FormContent Form, IReadOnlyDictionary<string, AnswerState> Answers, LocalDate Today)
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

    /// <summary>The state of a question.</summary>
    public AnswerState Of(string question) => Answers.GetValueOrDefault(question);

    /// <summary>The states of each row of a question, none when it has none.</summary>
    public IReadOnlyList<IReadOnlyDictionary<string, AnswerState>> RowsOf(string question) => Rows.GetValueOrDefault(question) ?? [];

    /// <summary>The same with the answers of one row beside the others.</summary>
    /// <param name="row">The states of the row's questions.</param>
    public Known InRow(IReadOnlyDictionary<string, AnswerState> row)
    {
        var answers = new Dictionary<string, AnswerState>(Answers);
        foreach (var (key, state) in row)
            answers[key] = state;
        return this with { Answers = answers };
    }
}

/// <summary>Judges conditions by three-valued logic (Kleene's strong logic, as in SQL).</summary>
public static class Conditions
{
    /// <summary>
    /// Whether the condition holds. Knowing more never turns true into false or false into true; it only settles what
    /// was unknown.
    /// </summary>
    public static Truth Evaluate(this Condition condition, Known known) => condition switch
    {
        All all => all.Parts.Aggregate(Truth.True, (truth, part) => truth.And(part.Evaluate(known))),
        Any any => any.Parts.Aggregate(Truth.False, (truth, part) => truth.Or(part.Evaluate(known))),
        Not not => not.Part.Evaluate(known).Not(),
        FitIs fit => known.Fit is { } verdict ? (verdict == fit.Fit).ToTruth() : Truth.Unknown,
        NumberIs { Of: PointsSoFar } points => known.Points is { } score
            ? Band.Exactly(score).Compare(points.Relation, points.Value)
            : Truth.Unknown,
        NumberBetween { Of: PointsSoFar } points => known.Points is { } score
            ? (score >= points.Low && score <= points.High).ToTruth()
            : Truth.Unknown,
        Comparison comparison => Compare(comparison, known),
        _ => throw new ArgumentOutOfRangeException(nameof(condition), condition, "A condition of an unknown kind."),
    };

    /// <summary>Whether the condition holds for certain; an absent condition always does.</summary>
    public static Truth EvaluateOrTrue(this Condition? condition, Known known) => condition?.Evaluate(known) ?? Truth.True;

    /// <summary>Every comparison in the tree, from left to right.</summary>
    public static IEnumerable<Comparison> Comparisons(this Condition condition) => condition switch
    {
        All all => all.Parts.SelectMany(Comparisons),
        Any any => any.Parts.SelectMany(Comparisons),
        Not not => not.Part.Comparisons(),
        Comparison comparison => [comparison],
        _ => [],
    };

    /// <summary>The keys of the questions the condition looks at, each once.</summary>
    public static IEnumerable<string> QuestionsUsed(this Condition condition) =>
        condition.Comparisons().Select(comparison => comparison.Of).OfType<AnswerTo>().Select(of => of.Question).Distinct();

    private static Truth Compare(Comparison comparison, Known known)
    {
        var state = comparison.Of switch
        {
            AnswerTo of => known.Of(of.Question),
            ValueOnFile of => AnswerState.OfNullable(known.OnFile.GetValueOrDefault(of.Field)),
            _ => AnswerState.NotAskedYet,
        };
        var question = comparison.Of is AnswerTo answered ? known.Form.FindQuestion(answered.Question) : null;

        return (comparison, state) switch
        {
            (IsAnswered or IsBlank, { Status: AnswerStatus.NotAskedYet }) => Truth.Unknown,
            (IsAnswered, _) => (state.Status == AnswerStatus.Answered).ToTruth(),
            (IsBlank, _) => (state.Status == AnswerStatus.Blank).ToTruth(),
            (_, { Answer: null }) => Truth.Unknown,
            (Is c, { Answer: { } a }) => IsEqual(a, c.Value),
            (IsNot c, { Answer: { } a }) => IsEqual(a, c.Value).Not(),
            (IsOneOf c, { Answer: { } a }) => c.Values.Aggregate(Truth.False, (truth, value) => truth.Or(IsEqual(a, value))),
            (Includes c, { Answer: ChoiceAnswer a }) => a.Keys.Contains(c.Value).ToTruth(),
            (IncludesNoneOf c, { Answer: ChoiceAnswer a }) => (!a.Keys.Intersect(c.Values).Any()).ToTruth(),
            (DoesNotKnow, { Answer: ChoiceAnswer a }) => ChoosesUnsure(a, question).ToTruth(),
            (NumberIs c, { Answer: { } a }) => CompareNumber(a, question, c.Currency, band => band.Compare(c.Relation, c.Value)),
            (NumberBetween c, { Answer: { } a }) => CompareNumber(a, question, c.Currency,
                band => band.Compare(NumberRelation.AtLeast, c.Low).And(band.Compare(NumberRelation.AtMost, c.High))),
            (DateBetween c, { Answer: { } a }) => Within(a, c.From, c.To),
            (Before c, { Answer: { } a }) => Within(a, LocalDate.MinIsoValue, c.Date.PlusDays(-1)),
            (After c, { Answer: { } a }) => Within(a, c.Date.PlusDays(1), LocalDate.MaxIsoValue),
            (WithinNextDays c, { Answer: { } a }) => Within(a, known.Today, known.Today.PlusDays(c.Days)),
            _ => Truth.Unknown,
        };
    }

    // A range of days is like a band: true or false only when all of its days agree.
    private static Truth Within(Answer answer, LocalDate first, LocalDate last) => answer switch
    {
        DateAnswer day => (day.Date >= first && day.Date <= last).ToTruth(),
        DateRangeAnswer range => range.From >= first && range.To <= last ? Truth.True
            : range.To < first || range.From > last ? Truth.False : Truth.Unknown,
        _ => Truth.Unknown,
    };

    private static Truth IsEqual(Answer answer, string value) => answer switch
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
        return band is null || band.Currency != currency ? Truth.Unknown : compare(band.OverTerm());
    }
}
