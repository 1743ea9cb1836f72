using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Conditions;
using PorchLight.Core.Forms;

namespace PorchLight.Core.Tests.Forms;

/// <summary>Conditions judged value by value: a range is true when each of many of its values is. Null is unknown.</summary>
internal static class NaiveTruth
{
    public static bool? Of(Condition condition, AnswerContext known)
    {
        switch (condition)
        {
            case AllCondition all:
                var every = all.Parts.Select(part => Of(part, known)).ToList();
                return every.Contains(false) ? false
                    : every.Contains(null) ? null
                    : true;
            case AnyCondition any:
                var some = any.Parts.Select(part => Of(part, known)).ToList();
                return some.Contains(true) ? true
                    : some.Contains(null) ? null
                    : false;
            case NotCondition not:
                return Of(not.Part, known) is { } truth ? !truth : null;
            case ComparisonCondition { Of: AnswerTo of } comparison:
                return One(comparison, known.Of(of.Question), Options(of.Question, known), known.Today);
            default:
                throw new InvalidOperationException();
        }
    }

    private static bool? One(ComparisonCondition comparison, AnswerState state, IReadOnlyList<Option> options, LocalDate today)
    {
        if (comparison is IsAnsweredCondition or IsBlankCondition)
            return state.Status == AnswerStatus.NotAskedYet ? null
                : comparison is IsAnsweredCondition ? state.Answer is not null
                : state.Status == AnswerStatus.Blank;
        if (state.Answer is not { } answer)
            return null;
        return comparison switch
        {
            IsCondition c => Word(answer) is { } word ? word == Plain(c.Value) : null,
            IsNotCondition c => Word(answer) is { } word ? word != Plain(c.Value) : null,
            IsOneOfCondition c => Word(answer) is { } word ? c.Values.Select(Plain).Contains(word) : null,
            IncludesCondition c => answer is ChoiceAnswer choice ? choice.Keys.Any(key => key == c.Value) : null,
            IncludesNoneOfCondition c => answer is ChoiceAnswer choice ? choice.Keys.All(key => !c.Values.Contains(key)) : null,
            DoesNotKnowCondition => answer is ChoiceAnswer choice
                ? options.Any(option => option.Unsure && choice.Keys.Contains(option.Key))
                : null,
            NumberCondition c => Numbers(answer, options, c.Currency, [c.Value])
                ?.Select(number =>
                    c.Relation switch
                    {
                        NumberRelation.Under => number < c.Value,
                        NumberRelation.AtMost => number <= c.Value,
                        NumberRelation.AtLeast => number >= c.Value,
                        _ => number > c.Value,
                    }
                )
                .ToList()
                is { } truths
                ? Agreed(truths)
                : null,
            NumberBetweenCondition c => Numbers(answer, options, c.Currency, [c.Low, c.High])
                ?.Select(number => number >= c.Low && number <= c.High)
                .ToList()
                is { } truths
                ? Agreed(truths)
                : null,
            DateBetweenCondition c => Days(answer)?.Select(day => day >= c.From && day <= c.To).ToList() is { } truths
                ? Agreed(truths)
                : null,
            BeforeCondition c => Days(answer)?.Select(day => day < c.Date).ToList() is { } truths ? Agreed(truths) : null,
            AfterCondition c => Days(answer)?.Select(day => day > c.Date).ToList() is { } truths ? Agreed(truths) : null,
            WithinNextDaysCondition c => Days(answer)
                ?.Select(day => Enumerable.Range(0, Math.Max(0, c.Days + 1)).Any(ahead => today.PlusDays(ahead) == day))
                .ToList()
                is { } truths
                ? Agreed(truths)
                : null,
            _ => null,
        };
    }

    private static bool? Agreed(List<bool> truths) =>
        truths.TrueForAll(truth => truth) ? true
        : truths.Exists(truth => truth) ? null
        : false;

    private static string? Word(Answer answer) =>
        answer switch
        {
            ChoiceAnswer { Keys.Count: 1 } choice => choice.Keys[0],
            YesNoAnswer yesNo => yesNo.Yes ? "yes" : "no",
            TextAnswer text => Plain(text.Text),
            _ => null,
        };

    private static string Plain(string text) => text.Trim().ToLowerInvariant();

    private static List<LocalDate>? Days(Answer answer) =>
        answer switch
        {
            DateAnswer day => [day.Date],
            DateRangeAnswer range => [.. Enumerable.Range(0, Period.DaysBetween(range.From, range.To) + 1).Select(range.From.PlusDays)],
            _ => null,
        };

    /// <summary>Numbers of the answer's range on every side of the thresholds; null when it is no number, or of another currency.</summary>
    private static List<decimal>? Numbers(Answer answer, IReadOnlyList<Option> options, string? currency, decimal[] thresholds)
    {
        var band = answer switch
        {
            NumberAnswer number => Band.Exactly(number.Value),
            MoneyAnswer money => Band.Exactly(money.Amount, money.Currency),
            BandAnswer landed => landed.Band,
            ChoiceAnswer { Keys: [var key] } when options.FirstOrDefault(option => option.Key == key) is { Unsure: false } option =>
                option.Band,
            _ => null,
        };
        if (band is null || band.Currency != currency)
            return null;
        var times = band.Instalments ?? 1;
        return
        [
            .. thresholds
                .SelectMany(threshold => new[] { threshold - 0.001m, threshold, threshold + 0.001m })
                .Concat(
                    new[] { band.Low?.Value, band.High?.Value }
                        .OfType<decimal>()
                        .SelectMany(end => new[] { end * times - 0.0001m, end * times, end * times + 0.0001m })
                )
                .Append(-1_000_000)
                .Append(1_000_000)
                .Where(number => band.Low is not { } low || number > low.Value * times || (number == low.Value * times && !low.Open))
                .Where(number => band.High is not { } high || number < high.Value * times || (number == high.Value * times && !high.Open)),
        ];
    }

    private static IReadOnlyList<Option> Options(string key, AnswerContext known)
    {
        if (known.Form.FindQuestion(key) is not { Kind: WorkedOutKind { Value: var value } })
            return known.Form.FindQuestion(key)?.Options ?? [];
        while (value is IfElse choice)
            value = Of(choice.If, known) == true ? choice.Then : choice.Otherwise;
        return value is CopiedAnswer repeated ? Options(repeated.Question, known) : [];
    }
}
