using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Brand;
using PorchLight.Core.Common;
using PorchLight.Core.Conditions;
using PorchLight.Core.Fields;

namespace PorchLight.Core.Forms;

/// <summary>An address in parts.</summary>
[QuestionKindName("address", "An address")]
public sealed record AddressKind : QuestionKind<AddressAnswer>
{
    private const int LongestPart = 200;

    private static readonly string[] PartNames = ["street", "unit", "city", "region", "postalCode", "country"];

    /// <inheritdoc/>
    public override string Describe() => "Address in parts";

    /// <inheritdoc/>
    public override KindUses Uses() => KindUses.All & ~KindUses.InWhatIfs;

    /// <inheritdoc/>
    public override bool FitsField(FieldKind field) => field is FieldKind.Address;

    /// <inheritdoc/>
    public override PlainControl? PlainControl() => new PlainParts([.. PartNames.Select(part => new PlainPart(part, part))]);

    internal override string MissingSentence() => "Please answer this.";

    internal override IEnumerable<string> Faults() => [];

    internal override Answer? Normalise(AddressAnswer answer, NormaliseContext context)
    {
        var parts = new AddressAnswer(
            TextParts.Part(answer.Street),
            TextParts.Part(answer.Unit),
            TextParts.Part(answer.City),
            TextParts.Part(answer.Region),
            TextParts.Part(answer.PostalCode),
            TextParts.Part(answer.Country)
        );
        return parts.Parts.Any() ? parts : null;
    }

    internal override string? Check(AddressAnswer answer, LocalDate today) =>
        answer.Parts.Select(part => TextLength.TooLong(part, LongestPart)).FirstOrDefault(found => found is not null);

    internal override string? Doubt(AddressAnswer answer, LocalDate today, bool aboutTheWork) =>
        answer switch
        {
            { Street: not null, City: null, PostalCode: null } => "Is that the whole address? A town or a postal code helps us to find it.",
            { Country: { } country } when Locales.Countries.All(one => one.Code != Locales.ReadCountry(country)) =>
                $"We do not know a country called “{country}”. Is it spelt right?",
            _ => null,
        };

    // An address in one line lacks the parts that people leave out.
    internal override Answer? Read(string text) => null;

    internal override Answer? ReadPosted(PostedAnswer posted)
    {
        var address = new AddressAnswer(
            posted.One("street"),
            posted.One("unit"),
            posted.One("city"),
            posted.One("region"),
            posted.One("postalCode"),
            posted.One("country")
        );
        return address.Parts.Any() ? address : null;
    }

    internal override IEnumerable<Answer>? Examples(IReadOnlyList<ComparisonCondition> comparisons, AnswerContext known) =>
        [new AddressAnswer(null, null, "Anywhere", null, null, null)];
}
