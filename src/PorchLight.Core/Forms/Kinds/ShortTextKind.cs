using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Conditions;
using PorchLight.Core.Fields;

namespace PorchLight.Core.Forms;

/// <summary>One line of text.</summary>
/// <param name="MaxLength">In UTF-16 code units, at least 1.</param>
/// <param name="MinLength">In UTF-16 code units; 0 for none.</param>
[QuestionKindName("shortText", "A line of text")]
public sealed record ShortTextKind(int MaxLength = 200, int MinLength = 0) : QuestionKind<TextAnswer>
{
    /// <inheritdoc/>
    public override string Describe() => "One line of text";

    /// <inheritdoc/>
    public override KindUses Uses() => KindUses.All;

    /// <inheritdoc/>
    public override bool FitsField(FieldKind field) => field is FieldKind.Text or FieldKind.LongText;

    /// <inheritdoc/>
    public override PlainControl? PlainControl() => new PlainLine();

    internal override string MissingSentence() => "Please answer this.";

    internal override IEnumerable<string> Faults() =>
        MinLength < 0 || MaxLength < 1 || MinLength > MaxLength ? ["The shortest and the longest answer do not go together."] : [];

    internal override Answer? Normalise(TextAnswer answer, NormaliseContext context) =>
        TextParts.Clean(answer.Text) is { Length: > 0 } text ? new TextAnswer(text) : null;

    internal override string? Check(TextAnswer answer, LocalDate today) =>
        TextLength.Outside(answer.Text, MinLength, MaxLength) ?? TextLength.MoreThanALine(answer.Text);

    internal override Answer? Read(string text) => new TextAnswer(text);

    internal override IEnumerable<Answer>? Examples(IReadOnlyList<ComparisonCondition> comparisons, AnswerContext known) =>
        comparisons.Texts().Select(text => new TextAnswer(text));
}
