using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Conditions;
using PorchLight.Core.Fields;

namespace PorchLight.Core.Forms;

/// <summary>Yes or no.</summary>
[QuestionKindName("yesNo", "Yes or no")]
public sealed record YesNoKind : QuestionKind<YesNoAnswer>
{
    /// <inheritdoc/>
    public override string Describe() => "Yes or no";

    /// <inheritdoc/>
    public override KindUses Uses() => KindUses.All;

    /// <inheritdoc/>
    public override bool FitsField(FieldKind field) => field is FieldKind.YesNo;

    /// <inheritdoc/>
    public override PlainControl? PlainControl() => new PlainChoices([new PlainChoice("yes", "Yes"), new PlainChoice("no", "No")]);

    internal override string MissingSentence() => "Please choose one.";

    internal override IEnumerable<string> Faults() => [];

    internal override Answer? Normalise(YesNoAnswer answer, NormaliseContext context) => answer;

    internal override string? Check(YesNoAnswer answer, LocalDate today) => null;

    internal override Answer? Read(string text) =>
        text switch
        {
            "yes" => new YesNoAnswer(true),
            "no" => new YesNoAnswer(false),
            _ => null,
        };

    internal override IEnumerable<Answer>? Examples(IReadOnlyList<ComparisonCondition> comparisons, AnswerContext known) =>
        [new YesNoAnswer(true), new YesNoAnswer(false)];
}
