using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Conditions;
using PorchLight.Core.Fields;

namespace PorchLight.Core.Forms;

/// <summary>The address of a page on the web. "ochrewren.example" is taken for "https://ochrewren.example".</summary>
[QuestionKindName("webAddress", "A web address")]
public sealed record WebAddressKind : QuestionKind<TextAnswer>
{
    private const int Longest = 2000;

    /// <inheritdoc/>
    public override string Describe() => "Web address";

    /// <inheritdoc/>
    public override KindUses Uses() => KindUses.All;

    /// <inheritdoc/>
    public override bool FitsField(FieldKind field) => field is FieldKind.WebAddress or FieldKind.Text or FieldKind.LongText;

    /// <inheritdoc/>
    public override PlainControl? PlainControl() => new PlainLine("url");

    internal override string MissingSentence() => "Please answer this.";

    internal override IEnumerable<string> Faults() => [];

    internal override Answer? Normalise(TextAnswer answer, NormaliseContext context) =>
        TextParts.Clean(answer.Text) is { Length: > 0 } text
            ? new TextAnswer(text.Contains("://", StringComparison.Ordinal) ? text : $"https://{text}")
            : null;

    internal override string? Check(TextAnswer answer, LocalDate today) =>
        TextLength.TooLong(answer.Text, Longest)
        ?? (IsWebPage(answer.Text) ? null : "This does not look like the address of a page on the web. It looks like www.example.com.");

    internal override Answer? Read(string text) => new TextAnswer(text);

    internal override IEnumerable<Answer>? Examples(IReadOnlyList<ComparisonCondition> comparisons, AnswerContext known) =>
        comparisons.Texts().Select(text => new TextAnswer(text));

    private static bool IsWebPage(string address) =>
        Uri.TryCreate(address, UriKind.Absolute, out var page)
        && page.Scheme is "http" or "https"
        && page.Host.Contains('.', StringComparison.Ordinal);
}
