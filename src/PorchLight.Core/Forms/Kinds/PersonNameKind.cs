using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Conditions;
using PorchLight.Core.Fields;

namespace PorchLight.Core.Forms;

/// <summary>A person's name.</summary>
[QuestionKindName("personName", "A name")]
public sealed record PersonNameKind : QuestionKind<PersonNameAnswer>
{
    private const int LongestPart = 100;

    /// <inheritdoc/>
    public override string Describe() => "A person's name";

    /// <inheritdoc/>
    public override KindUses Uses() => KindUses.All & ~KindUses.InWhatIfs;

    /// <inheritdoc/>
    public override bool FitsField(FieldKind field) => field is FieldKind.PersonName;

    /// <inheritdoc/>
    public override PlainControl? PlainControl() =>
        new PlainParts([
            new PlainPart("First name", "given", FilledInAs: "given-name", NeededWhenRequired: true),
            new PlainPart("Family name", "family", FilledInAs: "family-name"),
        ]);

    internal override string MissingSentence() => "Please tell us your name.";

    internal override IEnumerable<string> Faults() => [];

    internal override Answer? Normalise(PersonNameAnswer answer, NormaliseContext context) =>
        (TextParts.Clean(answer.Given), TextParts.Clean(answer.Family)) is var (given, family) && given.Length + family.Length > 0
            ? new PersonNameAnswer(given, family)
            : null;

    internal override string? Check(PersonNameAnswer answer, LocalDate today) =>
        TextLength.TooLong(answer.Given, LongestPart)
        ?? TextLength.TooLong(answer.Family, LongestPart)
        ?? (answer.Given.Length == 0 ? "Please tell us your first name, so that we know what to call you." : null)
        ?? (answer.Full.Any(char.IsControl) ? "Please write your name in one line." : null);

    internal override Answer? Read(string text)
    {
        var parts = text.Split(' ', 2, StringSplitOptions.TrimEntries);
        return new PersonNameAnswer(parts[0], parts.Length > 1 ? parts[1] : "");
    }

    internal override Answer? ReadPosted(PostedAnswer posted) =>
        (posted.One("given"), posted.One("family")) is var (given, family) && (given ?? family) is not null
            ? new PersonNameAnswer(given ?? "", family ?? "")
            : base.ReadPosted(posted);

    internal override IEnumerable<Answer>? Examples(IReadOnlyList<ComparisonCondition> comparisons, AnswerContext known) =>
        [new PersonNameAnswer("Anyone", "")];
}
