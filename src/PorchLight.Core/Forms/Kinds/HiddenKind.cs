using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Conditions;
using PorchLight.Core.Fields;

namespace PorchLight.Core.Forms;

/// <summary>A value the address or the page around the form tells, unseen: a campaign tag, the page they came from.</summary>
/// <param name="Parameter">The name in the address ("utm_source"); null for the page they came from.</param>
[QuestionKindName("hidden", "Unseen, from the link")]
public sealed record HiddenKind(string? Parameter) : QuestionKind
{
    private const int Longest = 500;

    /// <inheritdoc/>
    public override string Describe() => Parameter is { } name ? $"Unseen, from “{name}” in the link" : "Unseen, the page they came from";

    /// <inheritdoc/>
    public override KindUses Uses() => KindUses.MayBeRequired;

    /// <inheritdoc/>
    public override bool FitsField(FieldKind field) => field is FieldKind.Text or FieldKind.LongText;

    /// <inheritdoc/>
    public override PlainControl? PlainControl() => new PlainUnseen();

    internal override Type AnswerType => typeof(TextAnswer);

    internal override string MissingSentence() => "Please answer this.";

    internal override IEnumerable<string> Faults() => [];

    // Nobody sees it, so that nobody could put it right: what does not fit is shortened or left out.
    internal override Answer? Normalise(Answer answer, NormaliseContext context) =>
        answer is TextAnswer { Text: var given } && TextParts.Clean(given) is { Length: > 0 } text
            ? new TextAnswer(UnicodeText.Start(text, Longest))
            : null;

    internal override string? Check(Answer answer, LocalDate today) => null;

    internal override Answer? StartsWith(IReadOnlyDictionary<string, string> parameters, string? cameFrom) =>
        Prefilling.Read(this, Parameter is { } name ? parameters.GetValueOrDefault(name) : cameFrom);

    internal override Answer? Read(string text) => new TextAnswer(text);

    internal override IEnumerable<Answer>? Examples(IReadOnlyList<ComparisonCondition> comparisons, AnswerContext known) =>
        comparisons.Texts().Select(text => new TextAnswer(text));
}
