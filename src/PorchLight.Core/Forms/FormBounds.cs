using NodaTime;
using PorchLight.Core.Common;

namespace PorchLight.Core.Forms;

/// <summary>Finds numbers, days and counts of a form that cannot be meant, before anybody meets them.</summary>
public static class FormBounds
{
    private const int FirstYear = 1800;
    private const int LastYear = 2400;

    /// <summary>The findings, in form order; the place is the key of a page, question or send-off.</summary>
    public static IEnumerable<Finding> Check(FormContent form) =>
        [
            .. form.Pages.SelectMany(page =>
                page.Items.SelectMany(CheckItem)
                    .Concat(CheckConditions([page.ShownOnlyWhen, .. page.Routes.Select(rule => rule.When)], page.Key))
            ),
            .. form.SendOffs.Append(form.DefaultSendOff).SelectMany(sendOff => CheckConditions([sendOff.When], sendOff.Key)),
            .. form.Rules.OfType<NeverRule>().SelectMany(rule => CheckConditions([rule.When], rule.At)),
        ];

    /// <summary>What cannot be meant in a condition, as sentences.</summary>
    public static IEnumerable<string> Check(Condition condition) =>
        condition
            .Comparisons()
            .Select(comparison =>
                comparison switch
                {
                    NumberCondition c => Number(c.Value),
                    NumberBetweenCondition c => Number(c.Low)
                        ?? Number(c.High)
                        ?? (
                            c.Low > c.High
                                ? "A condition here asks for a number between two that stand the wrong way round. Write the smaller one first."
                                : null
                        ),
                    DateBetweenCondition c => Day(c.From)
                        ?? Day(c.To)
                        ?? (
                            c.From > c.To
                                ? "A condition here asks for a day between two that stand the wrong way round. Write the earlier one first."
                                : null
                        ),
                    BeforeCondition c => Day(c.Date),
                    AfterCondition c => Day(c.Date),
                    WithinNextDaysCondition { Days: < 0 or > FormLimits.MostDays } =>
                        $"A condition here counts days ahead. Choose from 0 to {FormLimits.MostDays:N0} days.",
                    _ => null,
                }
            )
            .OfType<string>();

    private static IEnumerable<Finding> CheckItem(Item item) =>
        item is not Question question
            ? CheckConditions([item.OnlyWhen], item.Key)
            :
            [
                .. CheckConditions([question.AskedOnlyWhen, question.RequiredWhen], question.Key),
                .. CheckKind(question)
                    .Concat(question.Options.Select(option => option.Band).OfType<Band>().Select(Check))
                    .OfType<string>()
                    .Distinct()
                    .Select(sentence => new Finding(question.Key, sentence)),
                .. question.RowQuestions.SelectMany(CheckItem),
            ];

    private static IEnumerable<Finding> CheckConditions(IEnumerable<Condition?> conditions, string place) =>
        conditions.OfType<Condition>().SelectMany(Check).Distinct().Select(sentence => new Finding(place, sentence));

    private static IEnumerable<string?> CheckKind(Question question) =>
        question.Kind switch
        {
            ShortTextKind kind => Some(Length(kind.MinLength, kind.MaxLength)),
            LongTextKind kind => Some(Length(kind.MinLength, kind.MaxLength)),
            NumberKind kind => Some(Ends(kind.Min, kind.Max)),
            MoneyKind kind => Some(Ends(kind.Min, kind.Max)),
            DateKind kind => Limits(kind.Limits),
            DateRangeKind kind => Limits(kind.Limits),
            ChoiceKind { Several: true } kind => Some(
                kind.AtLeast < 0 || kind.AtMost < 1 || kind.AtLeast > kind.AtMost || kind.AtLeast > kind.Options.Count
                    ? "The least and the most that may be chosen do not go together."
                    : null
            ),
            FilesKind kind => Some(kind.AtMost < 1 || kind.MaxBytes < 1 ? "At least one file of some size must be allowed here." : null),
            WorkedOutKind kind => Check(kind.Value),
            _ => [],
        };

    private static IEnumerable<string?> Check(Calculation calculation) =>
        calculation switch
        {
            FixedValue { Value: NumberAnswer number } => Some(Number(number.Value)),
            FixedValue { Value: MoneyAnswer money } => Some(Number(money.Amount)),
            FixedValue { Value: BandAnswer band } => Some(Check(band.Band)),
            FixedValue { Value: DateAnswer day } => Some(Day(day.Date)),
            DivideAndRoundUp c => Some(
                    c.PerUnit <= 0 ? "Something here is shared out in units of nothing. Say how much goes into one." : Number(c.PerUnit)
                )
                .Concat(Check(c.Amount)),
            CountRows { Where: { } where } => Check(where),
            IfElse c => Check(c.If).Concat(Check(c.Then)).Concat(Check(c.Otherwise)),
            _ => [],
        };

    private static string?[] Some(params string?[] sentences) => sentences;

    private static string? Check(Band band) =>
        band.Instalments is < 1 or > FormLimits.MostInstalments
            ? $"One of the answers is paid in instalments: choose from 1 to {FormLimits.MostInstalments} months."
            : (band.Low is { } low ? Number(low.Value) : null) ?? (band.High is { } high ? Number(high.Value) : null);

    private static string? Length(int min, int max) =>
        min < 0 || max < 1 || min > max ? "The shortest and the longest answer do not go together." : null;

    private static string? Ends(decimal? min, decimal? max) =>
        (min is { } low ? Number(low) : null)
        ?? (max is { } high ? Number(high) : null)
        ?? (min > max ? "The smallest and the largest number do not go together." : null);

    private static string?[] Limits(DateLimits? limits) =>
        limits is null
            ? []
            : Some(
                limits.Earliest is { } first ? Day(first) : null,
                limits.Latest is { } last ? Day(last) : null,
                limits.Earliest > limits.Latest || limits.FromDays > limits.ToDays
                    ? "The first and the last day that are possible here do not go together."
                    : null,
                limits.FromDays is < -FormLimits.MostDays or > FormLimits.MostDays
                || limits.ToDays is < -FormLimits.MostDays or > FormLimits.MostDays
                    ? $"Days from today can be counted up to {FormLimits.MostDays:N0}, which is a hundred years."
                    : null
            );

    private static string? Number(decimal number) =>
        Math.Abs(number) > FormLimits.LargestNumber ? "A number here is larger than anything could be." : null;

    private static string? Day(LocalDate day) =>
        day.Year is < FirstYear or > LastYear
            ? $"A day here lies in the year {day.Year}. Choose one from {FirstYear} to {LastYear}."
            : null;
}
