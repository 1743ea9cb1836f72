using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Conditions;
using PorchLight.Core.Fields;

namespace PorchLight.Core.Forms;

/// <summary>One line of a list the business keeps, found by typing a few letters.</summary>
/// <param name="List">The identifier of the list.</param>
/// <param name="Show">The columns that are shown, in order; the first one is what a line is called.</param>
[QuestionKindName("lookUp", "Something from one of your lists")]
public sealed record LookUpKind(Guid List, IReadOnlyList<string> Show) : QuestionKind<LookUpAnswer>
{
    /// <inheritdoc/>
    public override string Describe() => "One line of a list, found by typing";

    /// <inheritdoc/>
    public override KindUses Uses() => KindUses.MayBeRequired;

    /// <inheritdoc/>
    public override bool FitsField(FieldKind field) => field is FieldKind.Text or FieldKind.LongText;

    /// <inheritdoc/>
    public override PlainControl? PlainControl() => null;

    internal override string MissingSentence() => "Please type a few letters and choose from the list.";

    internal override IEnumerable<string> Faults() => [];

    internal override Answer? Normalise(LookUpAnswer answer, NormaliseContext context) =>
        new LookUpAnswer(answer.Key, context.Lines.GetValueOrDefault((List, answer.Key)));

    internal override string? Check(LookUpAnswer answer, LocalDate today) =>
        answer.Columns is null ? "This is not on the list any more. Please type a few letters and choose again." : null;

    internal override Answer? Read(string text) => new LookUpAnswer(text);

    internal override IEnumerable<Answer>? Examples(IReadOnlyList<ComparisonCondition> comparisons, AnswerContext known) =>
        [new LookUpAnswer("any")];
}
