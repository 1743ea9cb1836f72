using NodaTime;
using NodaTime.Text;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Conditions;
using PorchLight.Core.Fields;

namespace PorchLight.Core.Forms;

/// <summary>Two days, from and to.</summary>
/// <param name="Limits">Which days are allowed; null for all.</param>
/// <param name="OrMonth">Whether "some time in May" is an answer, too.</param>
[QuestionKindName("dateRange", "Days from … to")]
public sealed record DateRangeKind(DateLimits? Limits = null, bool OrMonth = false) : QuestionKind<DateRangeAnswer>
{
    private const int MostMonths = 24;

    /// <summary>
    /// The months that are offered where a month is an answer: two years from the first allowed one on, as far as any of their days
    /// is allowed; none where days are asked for.
    /// </summary>
    /// <param name="today">The day of asking.</param>
    public IReadOnlyList<YearMonth> Months(LocalDate today)
    {
        var (first, last) = Limits?.On(today) ?? (null, null);
        var start = (first ?? today).ToYearMonth();
        return
        [
            .. Enumerable
                .Range(0, OrMonth ? MostMonths : 0)
                .Select(DayArithmetic.MonthsAfter(start))
                .OfType<YearMonth>()
                .TakeWhile(month => last is not { } end || month <= end.ToYearMonth()),
        ];
    }

    /// <inheritdoc/>
    public override string Describe() => OrMonth ? "From one day to another, or a month" : "From one day to another";

    /// <inheritdoc/>
    public override KindUses Uses() => KindUses.All;

    /// <inheritdoc/>
    public override bool FitsField(FieldKind field) => field is FieldKind.LongText;

    /// <inheritdoc/>
    public override PlainControl? PlainControl() =>
        new PlainParts([
            new PlainPart("From", "from", "date"),
            new PlainPart("To", "to", "date"),
            .. OrMonth ? [new PlainPart("Or some time in", "month", "month")] : Array.Empty<PlainPart>(),
        ]);

    internal override string MissingSentence() =>
        OrMonth ? "Please choose the days, or a month." : "Please choose the first and the last day.";

    internal override IEnumerable<string> Faults() => Limits?.Faults() ?? [];

    // Who names a month means all of it, whichever of its days a browser sends for it.
    internal override Answer? Normalise(DateRangeAnswer answer, NormaliseContext context) =>
        answer.Roughly
            ? answer with
            {
                From = answer.From.With(DateAdjusters.StartOfMonth),
                To = DayArithmetic.EndOfMonth(answer.From),
            }
            : answer;

    internal override string? Check(DateRangeAnswer answer, LocalDate today) =>
        answer.To < answer.From ? "The last day is before the first one. Please change one of them."
        : answer.Roughly && !OrMonth ? "Please choose two days."
        : Limits?.Outside(answer.Roughly ? answer.To : answer.From, answer.Roughly ? answer.From : answer.To, today);

    internal override string? Doubt(DateRangeAnswer answer, LocalDate today, bool aboutTheWork) =>
        Limits is null && aboutTheWork && answer.To < today ? "These days have passed. Is the year right?" : null;

    // Two days do not stand in one text.
    internal override Answer? Read(string text) => null;

    internal override Answer? ReadPosted(PostedAnswer posted)
    {
        if (posted.One("month") is { } month)
        {
            if (YearMonthPattern.Iso.Parse(month) is { Success: true, Value: var whole })
                return new DateRangeAnswer(whole.OnDayOfMonth(1), DayArithmetic.EndOfMonth(whole.OnDayOfMonth(1)), Roughly: true);
            posted.Refuse();
        }

        var (from, to) = (posted.One("from"), posted.One("to"));
        if (from is null && to is null)
            return null;
        if (Day(from) is { } first && Day(to) is { } last)
            return new DateRangeAnswer(first, last);
        posted.Refuse();
        return null;
    }

    internal override IEnumerable<Answer>? Examples(IReadOnlyList<ComparisonCondition> comparisons, AnswerContext known)
    {
        var days = comparisons.Days(Limits, known.Today).ToList();
        return days.SelectMany((from, index) => days.Skip(index).Select(to => new DateRangeAnswer(from, to)));
    }

    private static LocalDate? Day(string? text) =>
        text is not null && LocalDatePattern.Iso.Parse(text) is { Success: true } day ? day.Value : null;
}
