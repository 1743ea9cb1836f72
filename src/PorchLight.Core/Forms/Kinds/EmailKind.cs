using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Conditions;
using PorchLight.Core.Fields;

namespace PorchLight.Core.Forms;

/// <summary>An e-mail address.</summary>
[QuestionKindName("email", "An e-mail address")]
public sealed record EmailKind : QuestionKind<TextAnswer>
{
    /// <inheritdoc/>
    public override string Describe() => "E-mail address";

    /// <inheritdoc/>
    public override KindUses Uses() => KindUses.All & ~KindUses.InWhatIfs;

    /// <inheritdoc/>
    public override bool FitsField(FieldKind field) => field is FieldKind.Email;

    /// <inheritdoc/>
    public override PlainControl? PlainControl() => new PlainLine("email");

    internal override string MissingSentence() => "Please give your e-mail address, so that we can answer you.";

    internal override IEnumerable<string> Faults() => [];

    internal override Answer? Normalise(TextAnswer answer, NormaliseContext context) =>
        TextParts.Clean(answer.Text) is { Length: > 0 } text ? new TextAnswer(text) : null;

    internal override string? Check(TextAnswer answer, LocalDate today) => EmailAddress.Check(answer.Text);

    internal override string? Doubt(TextAnswer answer, LocalDate today, bool aboutTheWork) =>
        EmailAddress.Check(answer.Text) is null && !answer.Text[(answer.Text.IndexOf('@') + 1)..].Contains('.')
            ? "Is that complete? Most addresses end in something like .com or .ie."
            : null;

    internal override Answer? Read(string text) => new TextAnswer(text);

    internal override IEnumerable<Answer>? Examples(IReadOnlyList<ComparisonCondition> comparisons, AnswerContext known) =>
        comparisons.Texts().Append("someone@example.com").Select(text => new TextAnswer(text));
}
