using PorchLight.Core.Answers;
using PorchLight.Core.Conditions;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;

namespace PorchLight.Core.Workbench;

/// <summary>What can be compared with an answer; each is named as its condition is in stored forms.</summary>
public enum Comparison
{
    /// <summary><see cref="IsCondition"/>.</summary>
    Is,

    /// <summary><see cref="IsNotCondition"/>.</summary>
    IsNot,

    /// <summary><see cref="IsOneOfCondition"/>.</summary>
    IsOneOf,

    /// <summary><see cref="IncludesCondition"/>.</summary>
    Includes,

    /// <summary><see cref="IncludesNoneOfCondition"/>.</summary>
    IncludesNoneOf,

    /// <summary><see cref="DoesNotKnowCondition"/>.</summary>
    DoesNotKnow,

    /// <summary><see cref="NumberCondition"/>.</summary>
    NumberIs,

    /// <summary><see cref="NumberBetweenCondition"/>.</summary>
    NumberBetween,

    /// <summary><see cref="BeforeCondition"/>.</summary>
    Before,

    /// <summary><see cref="AfterCondition"/>.</summary>
    After,

    /// <summary><see cref="DateBetweenCondition"/>.</summary>
    DateBetween,

    /// <summary><see cref="WithinNextDaysCondition"/>.</summary>
    WithinNextDays,

    /// <summary><see cref="IsAnsweredCondition"/>.</summary>
    IsAnswered,

    /// <summary><see cref="IsBlankCondition"/>.</summary>
    IsBlank,
}

/// <summary>What sort of answer a question gives, as far as conditions and worked-out values can tell.</summary>
public enum AnswerSort
{
    /// <summary>Words.</summary>
    Text,

    /// <summary>A bare number.</summary>
    Number,

    /// <summary>An amount of a currency.</summary>
    Money,

    /// <summary>A day.</summary>
    Day,

    /// <summary>Days from one to another.</summary>
    Period,

    /// <summary>Yes or no.</summary>
    YesNo,

    /// <summary>One option of several.</summary>
    OneOption,

    /// <summary>Any of several options.</summary>
    SeveralOptions,

    /// <summary>Rows, each with answers of its own.</summary>
    Rows,

    /// <summary>Nothing that can be compared: files, a signature.</summary>
    Other,
}

/// <summary>Says what can be asked of an answer, so that a picker offers nothing that would never be true or false.</summary>
public static class Comparisons
{
    private const int Deepest = 20;

    private static readonly IReadOnlyDictionary<Type, AnswerSort> ByAnswer = new Dictionary<Type, AnswerSort>
    {
        [typeof(TextAnswer)] = AnswerSort.Text,
        [typeof(NumberAnswer)] = AnswerSort.Number,
        [typeof(MoneyAnswer)] = AnswerSort.Money,
        [typeof(DateAnswer)] = AnswerSort.Day,
        [typeof(DateRangeAnswer)] = AnswerSort.Period,
        [typeof(YesNoAnswer)] = AnswerSort.YesNo,
        [typeof(RowsAnswer)] = AnswerSort.Rows,
    };

    /// <summary>What sort of answer a question gives.</summary>
    /// <param name="question">The question; of a worked-out value what it comes to, <see cref="AnswerSort.Other"/> while open.</param>
    /// <param name="form">The form it belongs to.</param>
    public static AnswerSort SortOf(Question question, FormContent form) => SortOf(question, form, 0);

    /// <summary>
    /// The comparisons that can be true or false of its answers, in the order they are offered. Options are compared in size only
    /// where at least one stands for a range, and "does not know" is offered only where an option says so.
    /// </summary>
    /// <param name="question">The question.</param>
    /// <param name="form">The form it belongs to; of a worked-out value the question behind it counts.</param>
    public static IReadOnlyList<Comparison> Of(Question question, FormContent form)
    {
        var options = OptionsOf(question, form);
        return
        [
            .. OfSort(SortOf(question, form)),
            .. options.Any(option => option.Unsure) ? [Comparison.DoesNotKnow] : Array.Empty<Comparison>(),
            .. SortOf(question, form) == AnswerSort.OneOption && options.Any(option => option is { Band: not null, Unsure: false })
                ? [Comparison.NumberIs, Comparison.NumberBetween]
                : Array.Empty<Comparison>(),
            Comparison.IsAnswered,
            Comparison.IsBlank,
        ];
    }

    /// <summary>The comparisons that can be true or false of what a field keeps.</summary>
    /// <param name="field">The field.</param>
    public static IReadOnlyList<Comparison> Of(Field field) =>
        [
            .. OfSort(
                field.Kind switch
                {
                    FieldKind.Text or FieldKind.LongText or FieldKind.Email or FieldKind.WebAddress or FieldKind.OneOf => AnswerSort.Text,
                    FieldKind.SeveralOf => AnswerSort.SeveralOptions,
                    FieldKind.Number => AnswerSort.Number,
                    FieldKind.Money => AnswerSort.Money,
                    FieldKind.Date => AnswerSort.Day,
                    FieldKind.YesNo => AnswerSort.YesNo,
                    _ => AnswerSort.Other,
                }
            ),
            Comparison.IsAnswered,
            Comparison.IsBlank,
        ];

    /// <summary>The currency its amounts are in; null for anything but money.</summary>
    /// <param name="question">The question; of a choice the currency of its first range counts.</param>
    /// <param name="form">The form it belongs to.</param>
    public static string? CurrencyOf(Question question, FormContent form) =>
        question.Kind switch
        {
            MoneyKind money => money.Currency,
            ChoiceKind choice => choice.Options.Select(option => option.Band?.Currency).FirstOrDefault(currency => currency is not null),
            WorkedOutKind { Value: OverRows over } => form.FindQuestion(over.Of)?.Kind is MoneyKind money ? money.Currency : null,
            WorkedOutKind { Value: FixedValue { Value: MoneyAnswer money } } => money.Currency,
            WorkedOutKind { Value: ArithmeticOfTwo both } when SortOf(question, form) == AnswerSort.Money => new[]
            {
                both.First,
                both.Second,
            }
                .Select(side => CurrencyOf(question with { Kind = new WorkedOutKind(side) }, form))
                .FirstOrDefault(currency => currency is not null),
            WorkedOutKind => Behind(question, form)?.Kind is ChoiceKind or MoneyKind ? CurrencyOf(Behind(question, form)!, form) : null,
            _ => null,
        };

    /// <summary>The options its answers are made of; empty for anything but a choice.</summary>
    /// <param name="question">The question; a worked-out value that repeats a choice has its options.</param>
    /// <param name="form">The form it belongs to.</param>
    public static IReadOnlyList<Option> OptionsOf(Question question, FormContent form) => Behind(question, form)?.Options ?? [];

    private static Comparison[] OfSort(AnswerSort sort) =>
        sort switch
        {
            AnswerSort.Text or AnswerSort.YesNo or AnswerSort.OneOption => [Comparison.Is, Comparison.IsNot, Comparison.IsOneOf],
            AnswerSort.SeveralOptions => [Comparison.Includes, Comparison.IncludesNoneOf],
            AnswerSort.Number or AnswerSort.Money => [Comparison.NumberIs, Comparison.NumberBetween],
            AnswerSort.Day or AnswerSort.Period => [Comparison.Before, Comparison.After, Comparison.DateBetween, Comparison.WithinNextDays],
            _ => [],
        };

    private static AnswerSort SortOf(Question question, FormContent form, int depth) =>
        question.Kind switch
        {
            ChoiceKind choice => choice.Several ? AnswerSort.SeveralOptions : AnswerSort.OneOption,
            WorkedOutKind worked => SortOf(worked.Value, form, depth),
            var kind => kind.AnswerType is { } answer ? ByAnswer.GetValueOrDefault(answer, AnswerSort.Other) : AnswerSort.Other,
        };

    // A form that is still being built may go round in a circle.
    private static AnswerSort SortOf(Calculation calculation, FormContent form, int depth) =>
        calculation switch
        {
            _ when depth > Deepest => AnswerSort.Other,
            CopiedAnswer copied => form.FindQuestion(copied.Question) is { } question
                ? SortOf(question, form, depth + 1)
                : AnswerSort.Other,
            FixedValue { Value: BandAnswer { Band.Currency: var currency } } => currency is null ? AnswerSort.Number : AnswerSort.Money,
            FixedValue { Value: var value } => ByAnswer.GetValueOrDefault(value.GetType(), AnswerSort.Other),
            OverRows over => form.FindQuestion(over.Of) is { } summed ? SortOf(summed, form, depth + 1) : AnswerSort.Number,
            ArithmeticOfTwo c => (SortOf(c.First, form, depth + 1), SortOf(c.Second, form, depth + 1)) switch
            {
                (AnswerSort.Money, AnswerSort.Money) when c.How == Arithmetic.DividedBy => AnswerSort.Number,
                (AnswerSort.Money, _) or (_, AnswerSort.Money) => AnswerSort.Money,
                _ => AnswerSort.Number,
            },
            JoinedText => AnswerSort.Text,
            IfElse c => SortOf(c.Then, form, depth + 1) is var then && then == SortOf(c.Otherwise, form, depth + 1)
                ? then
                : AnswerSort.Other,
            _ => AnswerSort.Number,
        };

    private static Question? Behind(Question question, FormContent form)
    {
        for (var depth = 0; question.Kind is WorkedOutKind { Value: CopiedAnswer copied }; depth++)
        {
            if (depth > Deepest || form.FindQuestion(copied.Question) is not { } before)
                return null;
            question = before;
        }

        return question;
    }
}
