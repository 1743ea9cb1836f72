using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Conditions;
using PorchLight.Core.Fields;

namespace PorchLight.Core.Forms;

/// <summary>A phone number.</summary>
[QuestionKindName("phone", "A phone number")]
public sealed record PhoneKind : QuestionKind<PhoneAnswer>
{
    /// <inheritdoc/>
    public override string Describe() => "Phone number";

    /// <inheritdoc/>
    public override KindUses Uses() => KindUses.All & ~KindUses.InWhatIfs;

    /// <inheritdoc/>
    public override bool FitsField(FieldKind field) => field is FieldKind.Phone;

    /// <inheritdoc/>
    public override PlainControl? PlainControl() => new PlainLine("tel");

    internal override string MissingSentence() => "Please give a phone number.";

    internal override IEnumerable<string> Faults() => [];

    internal override Answer? Normalise(PhoneAnswer answer, NormaliseContext context) =>
        TextParts.Clean(answer.Typed) is { Length: > 0 } typed ? PhoneReader.Read(typed, context.Region) : null;

    internal override string? Check(PhoneAnswer answer, LocalDate today) =>
        TextLength.TooLong(answer.Typed, PhoneReader.Longest)
        ?? (
            answer.E164 is not null || answer.LocalOnly
                ? null
                : "This does not look like a phone number. Please check the digits; a number from another country starts with + and its code."
        );

    internal override string? Doubt(PhoneAnswer answer, LocalDate today, bool aboutTheWork) =>
        answer.LocalOnly ? "Is the area code missing? From elsewhere we cannot reach this number." : null;

    internal override Answer? Read(string text) => new PhoneAnswer(text);

    internal override IEnumerable<Answer>? Examples(IReadOnlyList<ComparisonCondition> comparisons, AnswerContext known) =>
        [new PhoneAnswer("+353 1 555 0100", "+35315550100")];
}
