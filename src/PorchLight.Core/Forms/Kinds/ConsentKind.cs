using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Conditions;
using PorchLight.Core.Fields;

namespace PorchLight.Core.Forms;

/// <summary>Agreement to something that has to be agreed to. What was agreed to is kept word for word.</summary>
/// <param name="Statement">What is agreed to.</param>
[QuestionKindName("consent")]
public sealed record ConsentKind(string Statement) : QuestionKind<ConsentAnswer>
{
    /// <inheritdoc/>
    public override string Describe() => "Agreement";

    /// <inheritdoc/>
    public override KindUses Uses() => KindUses.MayBeRequired;

    /// <inheritdoc/>
    public override bool FitsField(FieldKind field) => false;

    /// <inheritdoc/>
    public override PlainControl? PlainControl() => new PlainTick(Statement);

    internal override string MissingSentence() => "We need your agreement to this before we can go on.";

    internal override IEnumerable<string> Faults() => [];

    internal override Answer? Normalise(ConsentAnswer answer, NormaliseContext context) =>
        new ConsentAnswer(Statement, context.Version, context.At);

    internal override string? Check(ConsentAnswer answer, LocalDate today) => null;

    internal override Answer? Read(string text) => null;

    internal override Answer? ReadPosted(PostedAnswer posted) => posted.One() is null ? null : new ConsentAnswer();

    internal override IEnumerable<Answer>? Examples(IReadOnlyList<ComparisonCondition> comparisons, AnswerContext known) =>
        [new ConsentAnswer()];
}
