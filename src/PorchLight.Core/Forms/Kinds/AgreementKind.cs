using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Conditions;

namespace PorchLight.Core.Forms;

/// <summary>A box to tick under a statement, which is kept word for word as it was agreed to.</summary>
/// <param name="Statement">What is agreed to.</param>
public abstract record AgreementKind(string Statement) : QuestionKind<ConsentAnswer>
{
    /// <inheritdoc/>
    public override PlainControl? PlainControl() => new PlainTick(Statement);

    internal override IEnumerable<string> Faults() => [];

    internal override Answer? Normalise(ConsentAnswer answer, NormaliseContext context) =>
        new ConsentAnswer(Statement, context.Version, context.At);

    internal override string? Check(ConsentAnswer answer, LocalDate today) => null;

    internal override Answer? Read(string text) => null;

    internal override Answer? ReadPosted(PostedAnswer posted) => posted.One() is null ? null : new ConsentAnswer();

    internal override IEnumerable<Answer>? Examples(IReadOnlyList<ComparisonCondition> comparisons, AnswerContext known) =>
        [new ConsentAnswer()];
}
