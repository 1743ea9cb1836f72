using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Conditions;
using PorchLight.Core.Fields;

namespace PorchLight.Core.Forms;

/// <summary>A number.</summary>
/// <param name="Min">The smallest allowed, or null.</param>
/// <param name="Max">The largest allowed, or null.</param>
/// <param name="Unit">Shown behind the number ("m"), or null.</param>
/// <param name="Whole">Whether only whole numbers make sense.</param>
[QuestionKindName("number", "A number")]
public sealed record NumberKind(decimal? Min = null, decimal? Max = null, string? Unit = null, bool Whole = false)
    : QuestionKind<NumberAnswer>
{
    /// <inheritdoc/>
    public override string Describe() => Unit is null ? "Number" : $"Number, in {Unit}";

    /// <inheritdoc/>
    public override KindUses Uses() => KindUses.All;

    /// <inheritdoc/>
    public override bool FitsField(FieldKind field) => field is FieldKind.Number;

    /// <inheritdoc/>
    public override PlainControl? PlainControl() => new PlainLine("number", AnyStep: !Whole);

    internal override string MissingSentence() => "Please answer this.";

    internal override IEnumerable<string> Faults() => NumberLimits.Faults(Min, Max);

    internal override Answer? Normalise(NumberAnswer answer, NormaliseContext context) => answer;

    internal override string? Check(NumberAnswer answer, LocalDate today) =>
        Whole && answer.Value != decimal.Truncate(answer.Value)
            ? "Please give a whole number."
            : NumberLimits.Outside(answer.Value, Min, Max);

    internal override Answer? Read(string text) => TextParts.Number(text) is { } number ? new NumberAnswer(number) : null;

    internal override IEnumerable<Answer>? Examples(IReadOnlyList<ComparisonCondition> comparisons, AnswerContext known) =>
        comparisons.Numbers(null, Min, Max, Whole).Select(number => new NumberAnswer(number));

    internal override string? UnitOfAnswers() => Unit;
}
