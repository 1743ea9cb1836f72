using System.Text.RegularExpressions;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Conditions;
using PorchLight.Core.Fields;

namespace PorchLight.Core.Forms;

/// <summary>A signature, drawn or typed.</summary>
/// <param name="Statement">What is signed.</param>
/// <param name="ForOthers">Whether somebody may sign as an authorised representative.</param>
[QuestionKindName("signature", "A signature")]
public sealed partial record SignatureKind(string Statement, bool ForOthers = false) : QuestionKind<SignatureAnswer>
{
    private const int LongestName = 200;
    private const int MostStrokes = 60_000;

    /// <inheritdoc/>
    public override string Describe() => "Signature";

    /// <inheritdoc/>
    public override KindUses Uses() => KindUses.MayBeRequired;

    /// <inheritdoc/>
    public override bool FitsField(FieldKind field) => false;

    /// <inheritdoc/>
    public override PlainControl? PlainControl() => null;

    internal override string MissingSentence() => "Please sign here.";

    internal override IEnumerable<string> Faults() => [];

    // To sign for somebody who is not named is not to sign for oneself: the blank stays, and is asked about.
    internal override Answer? Normalise(SignatureAnswer answer, NormaliseContext context)
    {
        var name = TextParts.Clean(answer.Name);
        return name.Length == 0 && answer.Strokes is null && TextParts.Part(answer.OnBehalfOf) is null
            ? null
            : new SignatureAnswer(
                name,
                answer.Strokes is { Length: > 0 } ? answer.Strokes : null,
                answer.OnBehalfOf is null ? null : TextParts.Clean(answer.OnBehalfOf),
                context.Today
            );
    }

    internal override string? Check(SignatureAnswer answer, LocalDate today) =>
        answer.Name.Length == 0
            ? "Please write your name, too; a drawn line alone does not say who signed."
            : TextLength.TooLong(answer.Name, LongestName)
                ?? TextLength.MoreThanALine(answer.Name)
                ?? (
                    answer.Strokes is { } strokes && (strokes.Length > MostStrokes || !Strokes().IsMatch(strokes))
                        ? "The drawn signature cannot be read. Please draw it again."
                        : null
                )
                ?? (
                    answer.OnBehalfOf switch
                    {
                        null => null,
                        _ when !ForOthers => "Please sign for yourself.",
                        "" => "Please write whom you sign for, or choose that you sign for yourself.",
                        var other => TextLength.TooLong(other, LongestName),
                    }
                );

    internal override Answer? Read(string text) => null;

    internal override IEnumerable<Answer>? Examples(IReadOnlyList<ComparisonCondition> comparisons, AnswerContext known) =>
        [new SignatureAnswer("Anyone")];

    [GeneratedRegex(@"^(?:[ML]\d{1,3} \d{1,3})+\z", RegexOptions.CultureInvariant)]
    private static partial Regex Strokes();
}
