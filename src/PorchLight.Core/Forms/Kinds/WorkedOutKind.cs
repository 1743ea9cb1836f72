using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Conditions;
using PorchLight.Core.Fields;

namespace PorchLight.Core.Forms;

/// <summary>A value the program works out from earlier answers. Nobody types it; it stands beside the answers like one.</summary>
/// <param name="Value">How it is worked out.</param>
/// <param name="Shown">Whether the lead sees it.</param>
/// <param name="Unit">Shown behind a number ("m²"), or null.</param>
[QuestionKindName("workedOut", "A worked-out value")]
public sealed record WorkedOutKind(Calculation Value, bool Shown = true, string? Unit = null) : QuestionKind
{
    /// <summary>How a value is worked out until somebody chooses it.</summary>
    public static readonly Calculation Open = new FixedValue(new TextAnswer(""));

    /// <inheritdoc/>
    public override string Describe() => Shown ? "Worked out from the answers" : "Worked out from the answers, unseen";

    /// <inheritdoc/>
    public override KindUses Uses() => KindUses.InRows | KindUses.MayBeRequired;

    /// <inheritdoc/>
    public override bool FitsField(FieldKind field) =>
        field is FieldKind.Text or FieldKind.LongText || field is FieldKind.Number && Value.GivesNumber();

    /// <inheritdoc/>
    public override PlainControl? PlainControl() => null;

    internal override string MissingSentence() => "Please answer this.";

    internal override IEnumerable<string> Faults() => Value.Faults();

    // Nobody answers it; whatever a browser sends in its place counts for nothing.
    internal override Answer? Normalise(Answer answer, NormaliseContext context) => null;

    internal override string? Check(Answer answer, LocalDate today) => null;

    internal override Answer? Read(string text) => null;

    internal override IEnumerable<Answer>? Examples(IReadOnlyList<ComparisonCondition> comparisons, AnswerContext known) =>
        CalculationClasses.Of(Value, comparisons, known);

    internal override string? UnitOfAnswers() => Unit;
}
