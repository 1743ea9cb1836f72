using System.Text.Json.Serialization;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Conditions;
using PorchLight.Core.Fields;

namespace PorchLight.Core.Forms;

/// <summary>A repeating group: the same questions for each row.</summary>
/// <param name="Least">How many rows there must be when it is answered at all.</param>
/// <param name="Most">How many rows there may be; at most 200.</param>
public abstract record RowsKind(int Least, int Most) : QuestionKind<RowsAnswer>
{
    /// <summary>What each row asks, in order.</summary>
    [JsonIgnore]
    public abstract IReadOnlyList<Question> Questions { get; }

    /// <summary>What one row is called: "sign".</summary>
    [JsonIgnore]
    public abstract string OneIsCalled { get; }

    /// <inheritdoc/>
    public override string Describe() =>
        $"A list, for each {OneIsCalled}: {string.Join(" / ", Questions.Select(question => question.Wording))}";

    /// <inheritdoc/>
    public override KindUses Uses() => KindUses.MayBeRequired | KindUses.InWhatIfs;

    /// <inheritdoc/>
    public override bool FitsField(FieldKind field) => field is FieldKind.LongText or FieldKind.Rows;

    /// <inheritdoc/>
    public override PlainControl? PlainControl() => new PlainRows(Questions, OneIsCalled);

    internal override string MissingSentence() => $"Please add at least one {OneIsCalled}.";

    internal override IEnumerable<string> Faults() =>
        new[]
        {
            Questions.Count == 0 ? "The rows ask nothing. Add a question to them." : null,
            Least < 0 || Most < 1 || Most > FormLimits.MostRows || Least > Most
                ? $"The number of rows must lie between 0 and {FormLimits.MostRows}, the least not above the most."
                : null,
        }.OfType<string>();

    // Empty rows stay, so that a row keeps its place; rows that are all empty are a blank on the route.
    internal override Answer? Normalise(RowsAnswer answer, NormaliseContext context) =>
        answer.Rows.Count == 0 ? null : new RowsAnswer([.. answer.Rows.Select(row => NormaliseRow(row, context))]);

    internal override string? Check(RowsAnswer answer, LocalDate today) =>
        answer.Rows.Count < Least
            ? $"Please add at least {Least}; there {(answer.Rows.Count == 1 ? "is" : "are")} {answer.Rows.Count} so far."
        : answer.Rows.Count > Most
            ? $"At most {Most} fit here; there are {answer.Rows.Count}. Please take some away, or tell us about the rest when we answer."
        : null;

    // A list begins with a row to write into.
    internal override Answer? StartsWith(IReadOnlyDictionary<string, string> parameters, string? cameFrom) =>
        new RowsAnswer([.. Enumerable.Repeat(new AnswerRow(new Dictionary<string, Answer?>()), Math.Max(1, Least))]);

    internal override Answer? Read(string text) => null;

    /// <summary>
    /// What may have been meant otherwise when rows are looked at together, each with its row and the question it stands beside.
    /// </summary>
    internal virtual IEnumerable<(int Row, string Cell, string Doubt)> DoubtsBetweenRows(
        IReadOnlyList<IReadOnlyDictionary<string, AnswerState>> rows
    ) => [];

    internal override Answer? ReadPosted(PostedAnswer posted)
    {
        var rows = posted.Rows(Questions);
        return rows.Count == 0 ? null : new RowsAnswer(rows);
    }

    internal override IEnumerable<Answer>? Examples(IReadOnlyList<ComparisonCondition> comparisons, AnswerContext known) =>
        [new RowsAnswer([])];

    private AnswerRow NormaliseRow(AnswerRow row, NormaliseContext context) =>
        new(
            Questions
                .Select(question => (question.Key, Answer: AnswerNormaliser.Normalise(question, row[question.Key], context)))
                .Where(cell => cell.Answer is not null)
                .ToDictionary(cell => cell.Key, cell => cell.Answer)
        );
}
