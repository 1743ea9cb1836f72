using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Conditions;
using PorchLight.Core.Fields;

namespace PorchLight.Core.Forms;

/// <summary>A whole number on a scale, each step a button of its own.</summary>
/// <param name="Low">The first step.</param>
/// <param name="High">The last step; above <paramref name="Low"/>, at most 20 steps after it.</param>
/// <param name="LowLabel">What the first step means, or null.</param>
/// <param name="HighLabel">What the last step means, or null.</param>
[QuestionKindName("scale", "A scale")]
public sealed record ScaleKind(int Low, int High, string? LowLabel = null, string? HighLabel = null) : QuestionKind<NumberAnswer>
{
    private const int MostSteps = 20;

    /// <inheritdoc/>
    public override string Describe() => $"Scale from {Low} to {High}";

    /// <inheritdoc/>
    public override KindUses Uses() => KindUses.All;

    /// <inheritdoc/>
    public override bool FitsField(FieldKind field) => field is FieldKind.Number;

    /// <inheritdoc/>
    public override PlainControl? PlainControl() => new PlainLine("number");

    internal override string MissingSentence() => "Please choose one.";

    internal override IEnumerable<string> Faults() =>
        Low >= High || (long)High - Low > MostSteps ? [$"A scale needs at least two steps, and at most {MostSteps + 1}."] : [];

    internal override Answer? Normalise(NumberAnswer answer, NormaliseContext context) => answer;

    internal override string? Check(NumberAnswer answer, LocalDate today) =>
        answer.Value < Low || answer.Value > High || answer.Value != decimal.Truncate(answer.Value)
            ? "This step is not on the scale. Please choose again."
            : null;

    internal override Answer? Read(string text) => TextParts.Number(text) is { } number ? new NumberAnswer(number) : null;

    internal override IEnumerable<Answer>? Examples(IReadOnlyList<ComparisonCondition> comparisons, AnswerContext known) =>
        Enumerable.Range(Low, Math.Max(0, High - Low + 1)).Select(step => new NumberAnswer(step));
}
