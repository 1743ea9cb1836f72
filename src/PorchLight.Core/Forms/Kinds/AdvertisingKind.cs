using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Conditions;
using PorchLight.Core.Fields;

namespace PorchLight.Core.Forms;

/// <summary>Permission to send advertising. It is asked apart from every other agreement, and never required.</summary>
/// <param name="Statement">What is permitted.</param>
[QuestionKindName("advertising")]
public sealed record AdvertisingKind(string Statement) : QuestionKind<ConsentAnswer>
{
    /// <inheritdoc/>
    public override string Describe() => "Permission to advertise";

    /// <inheritdoc/>
    public override KindUses Uses() => KindUses.None;

    /// <inheritdoc/>
    public override bool FitsField(FieldKind field) => field is FieldKind.YesNo;

    /// <inheritdoc/>
    public override PlainControl? PlainControl() => new PlainTick(Statement);

    internal override string MissingSentence() => "Please answer this.";

    internal override IEnumerable<string> Faults() => [];

    internal override Answer? Normalise(ConsentAnswer answer, NormaliseContext context) =>
        new ConsentAnswer(Statement, context.Version, context.At);

    internal override string? Check(ConsentAnswer answer, LocalDate today) => null;

    internal override Answer? Read(string text) => null;

    internal override Answer? ReadPosted(PostedAnswer posted) => posted.One() is null ? null : new ConsentAnswer();

    internal override IEnumerable<Answer>? Examples(IReadOnlyList<ComparisonCondition> comparisons, AnswerContext known) =>
        [new ConsentAnswer()];
}
