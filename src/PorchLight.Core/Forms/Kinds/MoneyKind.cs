using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Conditions;
using PorchLight.Core.Fields;

namespace PorchLight.Core.Forms;

/// <summary>An amount of money in one currency.</summary>
/// <param name="Currency">The ISO 4217 code.</param>
/// <param name="Min">The smallest allowed, or null.</param>
/// <param name="Max">The largest allowed, or null.</param>
[QuestionKindName("money", "An amount of money")]
public sealed record MoneyKind(string Currency, decimal? Min = null, decimal? Max = null) : QuestionKind<MoneyAnswer>
{
    /// <inheritdoc/>
    public override string Describe() => $"Amount in {Currency}";

    /// <inheritdoc/>
    public override KindUses Uses() => KindUses.All;

    /// <inheritdoc/>
    public override bool FitsField(FieldKind field) => field is FieldKind.Money;

    /// <inheritdoc/>
    public override PlainControl? PlainControl() => new PlainLine("number", AnyStep: true);

    internal override string MissingSentence() => "Please answer this.";

    internal override IEnumerable<string> Faults() => NumberLimits.Faults(Min, Max);

    internal override Answer? Normalise(MoneyAnswer answer, NormaliseContext context) => answer;

    internal override string? Check(MoneyAnswer answer, LocalDate today) =>
        answer.Currency == Currency ? NumberLimits.Outside(answer.Amount, Min, Max) : $"Please give the amount in {Currency}.";

    internal override Answer? Read(string text) => TextParts.Number(text) is { } amount ? new MoneyAnswer(amount, Currency) : null;

    internal override IEnumerable<Answer>? Examples(IReadOnlyList<ComparisonCondition> comparisons, AnswerContext known) =>
        comparisons.Numbers(Currency, Min, Max, whole: false).Select(amount => new MoneyAnswer(amount, Currency));
}
