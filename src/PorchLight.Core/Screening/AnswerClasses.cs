using NodaTime;
using PorchLight.Core.Forms;

namespace PorchLight.Core.Screening;

/// <summary>
/// Splits the answers to a question into the classes a set of comparisons can tell apart, one example a class: an answer
/// the question allows, as far as there is one.
/// </summary>
internal static class AnswerClasses
{
    /// <summary>
    /// One example state for each class of answers, blank and off the route included; or null when there are more than
    /// <paramref name="limit"/>, or when they cannot be told.
    /// </summary>
    /// <param name="question">A question, or a worked-out value, which is split like one.</param>
    /// <param name="known">The form and the day.</param>
    /// <param name="conditions">What looks at it.</param>
    /// <param name="limit">How many there may be.</param>
    public static IReadOnlyList<AnswerState>? Of(Question question, AnswerContext known, IEnumerable<Condition> conditions, int limit)
    {
        var comparisons = conditions
            .SelectMany(condition => condition.Comparisons())
            .Where(comparison => comparison.Of is AnswerTo of && of.Question == question.Key)
            .ToList();
        return Examples(question, comparisons, known)?.Take(limit).ToList() is { } examples && examples.Count + 2 <= limit
            ? [.. examples.Select(AnswerState.Of), AnswerState.Blank, AnswerState.OffRoute]
            : null;
    }

    /// <summary>One example for each class of answers; null when they cannot be told.</summary>
    public static IEnumerable<Answer>? Examples(Question question, IReadOnlyList<ComparisonCondition> comparisons, AnswerContext known) =>
        question.Kind switch
        {
            YesNoKind => [new YesNoAnswer(true), new YesNoAnswer(false)],
            ChoiceKind { Several: false } choice => choice.Options.Select(option => new ChoiceAnswer([option.Key], OwnWords(option))),
            ChoiceKind choice => Choices(choice, comparisons),
            NumberKind kind => Numbers(comparisons, null, kind.Min, kind.Max, kind.Whole).Select(number => new NumberAnswer(number)),
            ScaleKind kind => Enumerable.Range(kind.Low, Math.Max(0, kind.High - kind.Low + 1)).Select(step => new NumberAnswer(step)),
            MoneyKind kind => Numbers(comparisons, kind.Currency, kind.Min, kind.Max, whole: false)
                .Select(amount => new MoneyAnswer(amount, kind.Currency)),
            DateKind kind => Days(comparisons, kind.Limits, known.Today).Select(day => new DateAnswer(day)),
            DateRangeKind kind => Days(comparisons, kind.Limits, known.Today).ToList() is var days
                ? days.SelectMany((from, index) => days.Skip(index).Select(to => new DateRangeAnswer(from, to)))
                : null,
            ShortTextKind or LongTextKind or HiddenKind or WebAddressKind => Texts(comparisons).Select(text => new TextAnswer(text)),
            EmailKind => Texts(comparisons).Select(text => new TextAnswer(text)).Append(new TextAnswer("someone@example.com")),
            PhoneKind => [new PhoneAnswer("+353 1 555 0100", "+35315550100")],
            PersonNameKind => [new PersonNameAnswer("Anyone", "")],
            AddressKind => [new AddressAnswer(null, null, "Anywhere", null, null, null)],
            LookUpKind => [new LookUpAnswer("any")],
            FilesKind => [new FilesAnswer([])],
            RowsKind => [new RowsAnswer([])],
            ConsentKind or AdvertisingKind => [new ConsentAnswer()],
            SignatureKind => [new SignatureAnswer("Anyone")],
            WorkedOutKind worked => WorkedOut(worked.Value, comparisons, known, 0),
            _ => throw new ArgumentOutOfRangeException(nameof(question), question.Kind, "A question of an unknown kind."),
        };

    private static IEnumerable<Answer>? WorkedOut(
        Calculation calculation,
        IReadOnlyList<ComparisonCondition> comparisons,
        AnswerContext known,
        int depth
    ) =>
        calculation switch
        {
            // A form that is still being built may go round in a circle.
            _ when depth > 20 => null,
            CopiedAnswer c => known.Form.FindQuestion(c.Question) is { } question
                ? question.Kind is WorkedOutKind worked
                    ? WorkedOut(worked.Value, comparisons, known, depth + 1)
                    : Examples(question, comparisons, known)
                : [],
            FixedValue c => [c.Value],
            JoinedText => Texts(comparisons).Select(text => new TextAnswer(text)),
            OverRows => Numbers(comparisons, null, null, null, whole: false)
                .Select(Answer (number) => new NumberAnswer(number))
                .Concat(
                    Currencies(comparisons)
                        .SelectMany(currency =>
                            Numbers(comparisons, currency, null, null, whole: false).Select(amount => new MoneyAnswer(amount, currency))
                        )
                ),
            // Which question a chosen option belongs to hangs on which branch is taken; one class alone does not say that.
            IfElse c => MayRepeatAChoice(c, known, depth) ? null
            : WorkedOut(c.Then, comparisons, known, depth + 1) is { } then
            && WorkedOut(c.Otherwise, comparisons, known, depth + 1) is { } otherwise
                ? then.Concat(otherwise)
            : null,
            _ => Numbers(comparisons, null, null, null, whole: false).Select(number => new NumberAnswer(number)),
        };

    private static bool MayRepeatAChoice(Calculation calculation, AnswerContext known, int depth) =>
        depth > 20
        || calculation switch
        {
            CopiedAnswer c => known.Form.FindQuestion(c.Question)?.Kind switch
            {
                WorkedOutKind worked => MayRepeatAChoice(worked.Value, known, depth + 1),
                ChoiceKind => true,
                _ => false,
            },
            IfElse c => MayRepeatAChoice(c.Then, known, depth + 1) || MayRepeatAChoice(c.Otherwise, known, depth + 1),
            _ => false,
        };

    /// <summary>
    /// Options that no comparison tells apart stand for each other: each set of such groups once with one option of each,
    /// once with two where it is one group, and once filled up to as many as must be chosen.
    /// </summary>
    private static IEnumerable<Answer> Choices(ChoiceKind choice, IReadOnlyList<ComparisonCondition> comparisons)
    {
        var groups = choice
            .Options.GroupBy(option =>
                (
                    Sign(option),
                    option.Unsure,
                    option.NoneOfThese,
                    comparisons.Any(comparison => comparison is NumberCondition or NumberBetweenCondition) ? option.Band : null
                )
            )
            .Select(group => group.ToList())
            .ToList();
        return groups.Count > 12
            ? EachAlone()
            : Enumerable
                .Range(1, (1 << groups.Count) - 1)
                .SelectMany(bits => OfGroups([.. groups.Where((_, index) => (bits >> index & 1) == 1)]))
                .Select(options => new ChoiceAnswer(
                    [.. choice.Options.Where(options.Contains).Select(option => option.Key)],
                    options.Select(OwnWords).FirstOrDefault(words => words is not null)
                ));

        // More than anybody will walk through; whoever asks sees that there are more than the limit.
        IEnumerable<Answer> EachAlone() => Enumerable.Range(0, int.MaxValue).Select(_ => ChoiceAnswer.Of(choice.Options[0].Key));

        string Sign(Option option) =>
            string.Concat(
                comparisons.Select(comparison =>
                    comparison switch
                    {
                        IncludesCondition c => c.Value == option.Key,
                        IncludesNoneOfCondition c => c.Values.Contains(option.Key),
                        IsCondition c => c.Value == option.Key,
                        IsNotCondition c => c.Value == option.Key,
                        IsOneOfCondition c => c.Values.Contains(option.Key),
                        _ => false,
                    }
                        ? '1'
                        : '0'
                )
            );

        IEnumerable<List<Option>> OfGroups(List<List<Option>> chosen)
        {
            List<Option> one = [.. chosen.Select(group => group[0])];
            yield return one;
            if (chosen is [[_, var second, ..]])
                yield return [one[0], second];
            if (
                choice.AtLeast > one.Count
                && chosen.SelectMany(group => group.Skip(1)).ToList() is var more
                && one.Count + more.Count >= choice.AtLeast
            )
                yield return [.. one, .. more.Take(choice.AtLeast.Value - one.Count)];
        }
    }

    private static string? OwnWords(Option option) => option.OwnWords ? "something else" : null;

    private static IEnumerable<string> Currencies(IEnumerable<ComparisonCondition> comparisons) =>
        comparisons
            .Select(comparison =>
                comparison switch
                {
                    NumberCondition c => c.Currency,
                    NumberBetweenCondition c => c.Currency,
                    _ => null,
                }
            )
            .OfType<string>()
            .Distinct();

    /// <summary>
    /// Every threshold and every end itself, and a number on each side of it: no comparison can tell two numbers of one gap apart.
    /// </summary>
    private static IEnumerable<decimal> Numbers(
        IReadOnlyList<ComparisonCondition> comparisons,
        string? currency,
        decimal? min,
        decimal? max,
        bool whole
    )
    {
        var ends = Thresholds(comparisons, currency).Concat(new[] { min, max }.OfType<decimal>()).Distinct().Order().ToList();
        if (ends.Count == 0)
            return [1m];
        return ends.Zip(ends.Skip(1), (low, high) => whole ? decimal.Floor(low) + 1 : Shorter(low, high))
            .Concat(ends)
            .Append(Further(ends[0], -1))
            .Append(Further(ends[^1], 1))
            .Where(number => !(number < min) && !(number > max) && (!whole || number == decimal.Truncate(number)))
            .Distinct()
            .Order();

        decimal Further(decimal end, int step) =>
            Math.Abs(end) > decimal.MaxValue / 2 ? end
            : whole ? (step < 0 ? decimal.Ceiling(end) : decimal.Floor(end)) + step
            : end + step;

        // A whole number between the two reads better than the middle.
        static decimal Shorter(decimal low, decimal high) =>
            decimal.Floor(low) + 1 < high ? decimal.Floor(low) + 1 : low + (high - low) / 2;
    }

    private static IEnumerable<decimal> Thresholds(IEnumerable<ComparisonCondition> comparisons, string? currency) =>
        comparisons.SelectMany(comparison =>
            comparison switch
            {
                NumberCondition c when c.Currency == currency => [c.Value],
                NumberBetweenCondition c when c.Currency == currency => [c.Low, c.High],
                _ => Array.Empty<decimal>(),
            }
        );

    private static IEnumerable<LocalDate> Days(IEnumerable<ComparisonCondition> comparisons, DateLimits? limits, LocalDate today)
    {
        var (first, last) = limits?.On(today) ?? (null, null);
        var days = comparisons
            .SelectMany(comparison =>
                comparison switch
                {
                    BeforeCondition c => [c.Date],
                    AfterCondition c => [c.Date],
                    DateBetweenCondition c => [c.From, c.To],
                    WithinNextDaysCondition c => [today, DayArithmetic.Plus(today, c.Days)],
                    _ => Array.Empty<LocalDate>(),
                }
            )
            .Concat(new[] { first, last }.OfType<LocalDate>());
        return days.SelectMany(day => new[] { DayArithmetic.Plus(day, -1), day, DayArithmetic.Plus(day, 1) })
            .Append(today)
            .Distinct()
            .Order()
            .Where(day => !(day < first) && !(day > last));
    }

    private static IEnumerable<string> Texts(IEnumerable<ComparisonCondition> comparisons)
    {
        var compared = comparisons
            .SelectMany(comparison =>
                comparison switch
                {
                    IsCondition c => [c.Value],
                    IsNotCondition c => [c.Value],
                    IsOneOfCondition c => c.Values,
                    _ => Array.Empty<string>(),
                }
            )
            .ToList();
        return compared.Append(
            compared.Contains("anything else", StringComparer.OrdinalIgnoreCase)
                ? "anything else" + string.Concat(compared)
                : "anything else"
        );
    }
}
