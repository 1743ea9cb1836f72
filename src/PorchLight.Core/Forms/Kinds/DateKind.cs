using NodaTime;
using NodaTime.Text;
using PorchLight.Core.Answers;
using PorchLight.Core.Conditions;
using PorchLight.Core.Fields;

namespace PorchLight.Core.Forms;

/// <summary>A day.</summary>
/// <param name="Limits">Which days are allowed; null for all.</param>
[QuestionKindName("date", "A day")]
public sealed record DateKind(DateLimits? Limits = null) : QuestionKind<DateAnswer>
{
    /// <inheritdoc/>
    public override string Describe() => "Day";

    /// <inheritdoc/>
    public override KindUses Uses() => KindUses.All;

    /// <inheritdoc/>
    public override bool FitsField(FieldKind field) => field is FieldKind.Date;

    /// <inheritdoc/>
    public override PlainControl? PlainControl() => new PlainLine("date");

    internal override string MissingSentence() => "Please choose a day.";

    internal override IEnumerable<string> Faults() => Limits?.Faults() ?? [];

    internal override Answer? Normalise(DateAnswer answer, NormaliseContext context) => answer;

    internal override string? Check(DateAnswer answer, LocalDate today) => Limits?.Outside(answer.Date, answer.Date, today);

    internal override string? Doubt(DateAnswer answer, LocalDate today, bool aboutTheWork) =>
        Limits is null && aboutTheWork && answer.Date < today ? "This day has passed. Is the year right?" : null;

    internal override Answer? Read(string text) =>
        LocalDatePattern.Iso.Parse(text) is { Success: true } date ? new DateAnswer(date.Value) : null;

    internal override IEnumerable<Answer>? Examples(IReadOnlyList<ComparisonCondition> comparisons, AnswerContext known) =>
        comparisons.Days(Limits, known.Today).Select(day => new DateAnswer(day));
}
