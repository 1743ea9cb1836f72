using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Conditions;

namespace PorchLight.Core.Forms;

/// <summary>A form, the answers to it so far, and all else that conditions, wordings and worked-out values may look at.</summary>
/// <param name="Form">The version that is answered.</param>
/// <param name="Answers">The state of each question by key; a missing key counts as not asked yet.</param>
/// <param name="Today">The day of the submission in the business's zone.</param>
public sealed record AnswerContext(FormContent Form, IReadOnlyDictionary<string, AnswerState> Answers, LocalDate Today) : IKnownAnswers
{
    /// <summary>Values on file by field key, as they were at the instant of the submission; a missing key counts as blank.</summary>
    public IReadOnlyDictionary<string, Answer> OnFile { get; init; } = new Dictionary<string, Answer>();

    /// <summary>Known values by name ("business"), for wordings.</summary>
    public IReadOnlyDictionary<string, string> Values { get; init; } = new Dictionary<string, string>();

    /// <summary>The verdict, once there is one.</summary>
    public Fit? Fit { get; init; }

    /// <summary>The score, once there is one.</summary>
    public int? Points { get; init; }

    /// <summary>
    /// The state of every question of every row, by the key of the question with the rows; filled by
    /// <see cref="Routes.Trace"/>.
    /// </summary>
    public IReadOnlyDictionary<string, IReadOnlyList<IReadOnlyDictionary<string, AnswerState>>> Rows { get; init; } =
        new Dictionary<string, IReadOnlyList<IReadOnlyDictionary<string, AnswerState>>>();

    /// <summary>
    /// The question whose options and rows an answer speaks of: the one asked, or for a worked-out value that repeats an
    /// answer the one whose answer it repeats. Null when the form has no such question.
    /// </summary>
    /// <param name="question">The key of the question.</param>
    public Question? Behind(string question) => new BehindValues(this).Find(question);

    Option? IKnownAnswers.OptionOf(string question, string option) => Behind(question)?.FindOption(option);

    /// <summary>The state of a question.</summary>
    /// <param name="question">The key; one the form does not have counts as not asked yet.</param>
    public AnswerState Of(string question) => Answers.GetValueOrDefault(question);

    /// <summary>The states of each row of a question, none when it has none.</summary>
    /// <param name="question">The key of the question with rows.</param>
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
/// Finds the questions behind worked-out values. Values may look at each other in many ways; each is followed once, so that it
/// costs no more than there are values.
/// </summary>
internal sealed class BehindValues(AnswerContext known) : IKnownAnswers
{
    private readonly Dictionary<string, Question?> _found = [];

    LocalDate IKnownAnswers.Today => known.Today;

    IReadOnlyDictionary<string, Answer> IKnownAnswers.OnFile => known.OnFile;

    Fit? IKnownAnswers.Fit => known.Fit;

    int? IKnownAnswers.Points => known.Points;

    AnswerState IKnownAnswers.Of(string question) => known.Of(question);

    Option? IKnownAnswers.OptionOf(string question, string option) => Find(question)?.FindOption(option);

    public Question? Find(string question)
    {
        var asked = known.Form.FindQuestion(question);
        if (asked?.Kind is not WorkedOutKind worked)
            return asked;
        if (_found.TryGetValue(question, out var before))
            return before;
        // A form that is still being built may go round in a circle; one that is published cannot.
        _found[question] = asked;
        var behind = worked.Value.Repeats(this) is { } key ? Find(key) : null;
        return _found[question] = behind?.Kind is ChoiceKind or RowsKind ? behind : asked;
    }
}
