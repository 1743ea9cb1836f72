using NodaTime;
using PorchLight.Core.Forms;

namespace PorchLight.Core.Screening;

/// <summary>
/// Splits the answers to a question into the classes a set of conditions can tell apart, one example a class.
/// </summary>
internal static class AnswerClasses
{
    /// <summary>
    /// One example state for each class of answers, blank and off the route included; or null when there are more than
    /// <paramref name="limit"/>.
    /// </summary>
    public static IReadOnlyList<AnswerState>? Of(Question question, IEnumerable<Condition> conditions, LocalDate today, int limit)
    {
        var comparisons = conditions.SelectMany(condition => condition.Comparisons())
            .Where(comparison => comparison.Of is AnswerTo of && of.Question == question.Key).ToList();
        var examples = Examples(question, comparisons, today, limit);
        return examples is null || examples.Count + 2 > limit
            ? null
            : [.. examples.Select(AnswerState.Of), AnswerState.Blank, AnswerState.OffRoute];
    }

    private static List<Answer>? Examples(Question question, List<Comparison> comparisons, LocalDate today, int limit) =>
        question.Kind switch
        {
            YesNoKind => [new YesNoAnswer(true), new YesNoAnswer(false)],
            ChoiceKind { Several: false } choice => [.. choice.Options.Select(option => ChoiceAnswer.Of(option.Key))],
            ChoiceKind choice => Subsets(choice, limit),
            NumberKind kind => [.. Around(Thresholds(comparisons, null)).Where(n => !(n < kind.Min) && !(n > kind.Max)).Select(n => new NumberAnswer(n))],
            MoneyKind kind => [.. Around(Thresholds(comparisons, kind.Currency)).Where(n => !(n < kind.Min) && !(n > kind.Max))
                .Select(n => new MoneyAnswer(n, kind.Currency))],
            DateKind => [.. Days(comparisons, today).Select(day => new DateAnswer(day))],
            EmailKind or ShortTextKind or LongTextKind => [.. Texts(comparisons).Select(text => new TextAnswer(text))],
            PhoneKind => [new PhoneAnswer("+353 1 555 0100", "+35315550100")],
            PersonNameKind => [new PersonNameAnswer("Anyone", "")],
            AddressKind => [new AddressAnswer(null, null, "Anywhere", null, null, null)],
            _ => null,
        };

    private static List<Answer>? Subsets(ChoiceKind choice, int limit) => choice.Options.Count > 20 || 1L << choice.Options.Count > limit
        ? null
        : [.. Enumerable.Range(1, (1 << choice.Options.Count) - 1)
            .Select(bits => new ChoiceAnswer([.. choice.Options.Where((_, index) => (bits >> index & 1) == 1).Select(option => option.Key)]))];

    private static IEnumerable<decimal> Thresholds(IEnumerable<Comparison> comparisons, string? currency) => comparisons.SelectMany(comparison => comparison switch
    {
        NumberIs c when c.Currency == currency => [c.Value],
        NumberBetween c when c.Currency == currency => [c.Low, c.High],
        _ => Array.Empty<decimal>(),
    });

    // Every threshold itself and a number on each side of it: no comparison can tell two numbers of one gap apart.
    private static IEnumerable<decimal> Around(IEnumerable<decimal> thresholds)
    {
        var sorted = thresholds.Distinct().Order().ToList();
        if (sorted.Count == 0)
            return [1m];
        return sorted.Zip(sorted.Skip(1), (low, high) => (low + high) / 2)
            .Concat(sorted).Append(sorted[0] - 1).Append(sorted[^1] + 1).Order();
    }

    private static IEnumerable<LocalDate> Days(IEnumerable<Comparison> comparisons, LocalDate today)
    {
        var days = comparisons.SelectMany(comparison => comparison switch
        {
            Before c => [c.Date],
            After c => [c.Date],
            DateBetween c => [c.From, c.To],
            WithinNextDays c => [today, today.PlusDays(c.Days)],
            _ => Array.Empty<LocalDate>(),
        });
        return days.SelectMany(day => new[] { day.PlusDays(-1), day, day.PlusDays(1) }).Append(today).Distinct().Order();
    }

    private static IEnumerable<string> Texts(IEnumerable<Comparison> comparisons)
    {
        var compared = comparisons.SelectMany(comparison => comparison switch
        {
            Is c => [c.Value],
            IsNot c => [c.Value],
            IsOneOf c => c.Values,
            _ => Array.Empty<string>(),
        }).ToList();
        return compared.Append("anything else" + string.Concat(compared));
    }
}
