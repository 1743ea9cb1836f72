using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Conditions;
using PorchLight.Core.Forms;

namespace PorchLight.Core.Screening;

/// <summary>
/// Lists the other answers that could move a verdict: for each question that a signal, a route or a worked-out value looks at,
/// one answer of every class that can be told apart, seen through the worked-out values that rest on it.
/// </summary>
internal sealed class AnswerProbes
{
    private readonly FormContent _form;
    private readonly List<ComparisonCondition> _comparisons;

    /// <param name="rules">The screening.</param>
    /// <param name="form">The form.</param>
    public AnswerProbes(ScreeningRules rules, FormContent form)
    {
        _form = form;
        _comparisons =
        [
            .. rules.Counting.Select(signal => signal.When).Concat(Conditions(form)).SelectMany(condition => condition.Comparisons()),
        ];
    }

    /// <summary>The other answers, one question after the other in form order.</summary>
    /// <param name="known">The form and what is known beside the answers.</param>
    /// <param name="route">The route the answers take; only what it asks is changed.</param>
    /// <param name="given">The answers.</param>
    /// <param name="after">Only questions that stand after this one; null for all.</param>
    public IEnumerable<AnswerChange> Of(AnswerContext known, Route route, IReadOnlyDictionary<string, Answer?> given, string? after = null)
    {
        var now = route.Know(known);
        var seen = new ProbesThroughValues(now).Of(_comparisons);
        var asked = route.Asked(_form).ToHashSet();
        return from question in after is null ? _form.Questions : _form.Questions.SkipWhile(one => one.Key != after).Skip(1)
            where asked.Contains(question.Key) && MayBeChanged(question.Kind) && seen.Contains(question.Key)
            let comparisons = seen[question.Key].ToList()
            let today = given.GetValueOrDefault(question.Key)
            let changes = question.Kind is RowsKind
                ? Rows(question, today as RowsAnswer, seen, now)
                : Others(question, question.Kind.Examples(comparisons, now), comparisons, now)
            from change in changes
            where !Equals(change.Answer, today)
            select change;
    }

    private static IEnumerable<AnswerChange> Others(
        Question question,
        IEnumerable<Answer>? examples,
        IReadOnlyList<ComparisonCondition> comparisons,
        AnswerContext now
    )
    {
        foreach (var answer in examples ?? [])
        {
            yield return new AnswerChange(question.Key, Wordings.Fill(question.Wording, now), answer, AnswerWords.Say(answer, question))
            {
                Phrase = answer is TextAnswer { Text: var text } && !IsNamed(comparisons, text) ? "were answered in other words" : null,
            };
        }

        yield return Change(question, null, "were left blank", now);
    }

    private static IEnumerable<AnswerChange> Rows(
        Question question,
        RowsAnswer? today,
        ILookup<string, ComparisonCondition> seen,
        AnswerContext now
    )
    {
        if (today is not { Rows: { Count: > 0 } rows })
            yield break;
        var kind = (RowsKind)question.Kind;
        for (var index = 0; index < rows.Count; index++)
        {
            foreach (var cell in kind.Questions.Where(cell => MayBeChanged(cell.Kind) && seen.Contains(cell.Key)))
            {
                foreach (var answer in cell.Kind.Examples([.. seen[cell.Key]], now) ?? [])
                {
                    var row = new AnswerRow(new Dictionary<string, Answer?>(rows[index].Answers) { [cell.Key] = answer });
                    yield return Change(
                        question,
                        new RowsAnswer([.. rows.Take(index), row, .. rows.Skip(index + 1)]),
                        $"had “{AnswerWords.Say(answer, cell)}” for “{Wordings.Fill(cell.Wording, now)}” in {kind.OneIsCalled} {index + 1}",
                        now
                    );
                }
            }
        }

        for (var index = 0; index < rows.Count; index++)
        {
            var fewer = rows.Where((_, other) => other != index).ToList();
            yield return Change(
                question,
                fewer.Count == 0 ? null : new RowsAnswer(fewer),
                $"were without {kind.OneIsCalled} {index + 1}",
                now
            );
        }

        foreach (
            var more in seen[question.Key]
                .OfType<NumberCondition>()
                .SelectMany(of => new[] { of.Value - rows.Count, of.Value - rows.Count + 1 })
                .Append(1)
                .Where(more => more >= 1 && rows.Count + more <= kind.Most && more == decimal.Truncate(more))
                .Distinct()
                .Order()
        )
        {
            yield return Change(
                question,
                new RowsAnswer([.. rows, .. Enumerable.Repeat(rows[^1], (int)more)]),
                more == 1 ? $"had one more {kind.OneIsCalled} like the last" : $"had {more} more like the last {kind.OneIsCalled}",
                now
            );
        }
    }

    private static AnswerChange Change(Question question, Answer? answer, string phrase, AnswerContext now) =>
        new(question.Key, Wordings.Fill(question.Wording, now), answer, answer is null ? "" : AnswerWords.Say(answer, question))
        {
            Phrase = phrase,
        };

    private static bool IsNamed(IReadOnlyList<ComparisonCondition> comparisons, string text) =>
        comparisons.Any(comparison =>
            comparison switch
            {
                IsCondition c => c.Value == text,
                IsNotCondition c => c.Value == text,
                IsOneOfCondition c => c.Values.Contains(text),
                _ => false,
            }
        );

    private static bool MayBeChanged(QuestionKind kind) => kind.Uses().HasFlag(KindUses.InWhatIfs);

    private static IEnumerable<Condition> Conditions(FormContent form) =>
        form
            .Pages.SelectMany(page =>
                page.Items.Select(item => item.OnlyWhen).Append(page.ShownOnlyWhen).Concat(page.Routes.Select(rule => rule.When))
            )
            .Concat(form.Questions.SelectMany(question => question.RowQuestions).Select(cell => cell.AskedOnlyWhen))
            .OfType<Condition>();
}

/// <summary>Carries comparisons with worked-out values back to the questions these rest on.</summary>
internal sealed class ProbesThroughValues(AnswerContext now)
{
    private const int MostTurns = 20;

    /// <summary>The comparisons by the question they look at, directly or through worked-out values.</summary>
    public ILookup<string, ComparisonCondition> Of(IEnumerable<ComparisonCondition> comparisons) =>
        comparisons.SelectMany(comparison => Back(comparison, 0)).ToLookup(comparison => ((AnswerTo)comparison.Of).Question);

    private IEnumerable<ComparisonCondition> Back(ComparisonCondition comparison, int turns) =>
        comparison.Of is not AnswerTo { Question: var key } || turns > MostTurns ? []
        : now.Form.FindQuestion(key)?.Kind is WorkedOutKind worked ? Back(worked.Value, comparison, turns + 1)
        : [comparison];

    private IEnumerable<ComparisonCondition> Back(Calculation calculation, ComparisonCondition comparison, int turns)
    {
        var numbers = Numbers(comparison).ToList();
        return calculation switch
        {
            CopiedAnswer c => Back(On(comparison, c.Question), turns),
            IfElse c =>
            [
                .. c.If.Comparisons().SelectMany(one => Back(one, turns)),
                .. Back(c.Then, comparison, turns),
                .. Back(c.Otherwise, comparison, turns),
            ],
            DivideAndRoundUp { PerUnit: > 0 } c => numbers
                .SelectMany(number => new[] { number, number - 1 })
                .SelectMany(number => Back(c.Amount, At(comparison, number * c.PerUnit), turns)),
            ArithmeticOfTwo c => numbers.SelectMany(number =>
                Needed(c, number).SelectMany(side => Back(side.Of, At(comparison, side.Wanted), turns))
            ),
            DaysUntil c => Dates(c.Date, numbers.Select(number => DayArithmetic.Plus(now.Today, Days(number)))),
            TimeBetween c => Between(c, numbers),
            AgeOn c => Years(c, numbers),
            CountRows c =>
            [
                .. On(comparison, c.Rows) is var count ? [count] : Array.Empty<ComparisonCondition>(),
                .. c.Where?.Comparisons().SelectMany(one => Back(one, turns)) ?? [],
            ],
            OverRows c => [On(comparison, c.Rows), .. OverCells(c, numbers, comparison).SelectMany(one => Back(one, turns))],
            AreaOfRows c => [On(comparison, c.Rows), .. Sides(c, numbers, comparison)],
            _ => [],
        };
    }

    /// <summary>What each of the two has to be for the whole to come to a number, while the other stays as it is.</summary>
    private IEnumerable<(Calculation Of, decimal Wanted)> Needed(ArithmeticOfTwo both, decimal number)
    {
        var (first, second) = (Amount(both.First), Amount(both.Second));
        (decimal? First, decimal? Second) wanted = both.How switch
        {
            Arithmetic.Plus => (number - second, number - first),
            Arithmetic.Minus => (number + second, first - number),
            Arithmetic.Times => (second is 0 ? null : number / second, first is 0 ? null : number / first),
            Arithmetic.DividedBy => (number * second, number == 0 ? null : first / number),
            _ => throw new ArgumentOutOfRangeException(nameof(both)),
        };
        return new[] { (both.First, wanted.First), (both.Second, wanted.Second) }
            .Where(side => side.Item2 is not null)
            .Select(side => (side.Item1, side.Item2!.Value));
    }

    private decimal? Amount(Calculation calculation) =>
        calculation.WorkOut(now) switch
        {
            NumberAnswer number => number.Value,
            MoneyAnswer money => money.Amount,
            _ => null,
        };

    private static ComparisonCondition On(ComparisonCondition comparison, string question) =>
        comparison with
        {
            Of = new AnswerTo(question),
        };

    private static NumberCondition At(ComparisonCondition comparison, decimal number) =>
        new(
            comparison.Of,
            NumberRelation.AtLeast,
            number,
            comparison is NumberCondition { Currency: var currency } ? currency : (comparison as NumberBetweenCondition)?.Currency
        );

    private static IEnumerable<decimal> Numbers(ComparisonCondition comparison) =>
        comparison switch
        {
            NumberCondition c => [c.Value],
            NumberBetweenCondition c => [c.Low, c.High],
            _ => [],
        };

    private static IEnumerable<ComparisonCondition> Dates(string question, IEnumerable<LocalDate> days) =>
        days.Select(day => new DateBetweenCondition(new AnswerTo(question), day, day));

    private IEnumerable<ComparisonCondition> Between(TimeBetween between, List<decimal> numbers)
    {
        var nights = numbers
            .SelectMany(number =>
                between.In switch
                {
                    SpanUnit.Days => [Days(number) - 1],
                    SpanUnit.Nights => [Days(number)],
                    _ => new[] { 7 * Days(number), 7 * (Days(number) + 1) },
                }
            )
            .ToList();
        var (from, to) = (Day(between.From, last: false), Day(between.To ?? between.From, last: true));
        var later = from is { } first ? nights.Select(count => DayArithmetic.Plus(first, count)) : [];
        var earlier = to is { } last ? nights.Select(count => DayArithmetic.Plus(last, -count)) : [];
        return between.To is null
            ? Dates(between.From, [.. later, .. earlier, .. new[] { from, to }.OfType<LocalDate>()])
            : Dates(between.From, earlier).Concat(Dates(between.To, later));
    }

    private IEnumerable<ComparisonCondition> Years(AgeOn age, List<decimal> numbers)
    {
        var years = numbers
            .SelectMany(number => new[] { (int)Math.Clamp(number, -1000, 1000), (int)Math.Clamp(number, -1000, 1000) + 1 })
            .ToList();
        return
        [
            .. Day(age.Event, last: false) is { Year: > 0 and < 8000 } on
                ? Dates(age.Born, years.Select(count => on.PlusYears(-count)))
                : [],
            .. Day(age.Born, last: false) is { Year: > 0 and < 8000 } born
                ? Dates(age.Event, years.Select(count => born.PlusYears(count)))
                : [],
        ];
    }

    /// <summary>
    /// What one cell would have to be for the whole to come to a number: that number less all others, or the number
    /// itself.
    /// </summary>
    private IEnumerable<ComparisonCondition> OverCells(OverRows over, List<decimal> numbers, ComparisonCondition comparison)
    {
        var cells = now.RowsOf(over.Rows).Select(row => Amount(row.GetValueOrDefault(over.Of).Answer)).ToList();
        var sum = cells.Sum(cell => Math.Clamp(cell, -Large, Large));
        return numbers
            .SelectMany(number =>
                over.Take == Total.Sum ? cells.Select(cell => number - (sum - Math.Clamp(cell, -Large, Large))) : [number]
            )
            .Distinct()
            .Select(number => On(At(comparison, number), over.Of));
    }

    private IEnumerable<ComparisonCondition> Sides(AreaOfRows area, List<decimal> numbers, ComparisonCondition comparison)
    {
        var perSquareMetre = area.In switch
        {
            LengthUnit.Metres => 1m,
            LengthUnit.Centimetres => 10_000m,
            _ => 1_000_000m,
        };
        var rows = now.RowsOf(area.Rows)
            .Select(row =>
                (
                    Width: Side(row, area.Width, 0),
                    Height: Side(row, area.Height, 0),
                    Count: area.HowMany is null ? 1 : Side(row, area.HowMany, 1)
                )
            )
            .ToList();
        var sum = rows.Sum(row => row.Width * row.Height * row.Count);
        foreach (var (row, number) in rows.SelectMany(row => numbers.Select(number => (row, number))))
        {
            var wanted = Math.Clamp(number, -Large, Large) * perSquareMetre - (sum - row.Width * row.Height * row.Count);
            if (row.Height * row.Count is not 0 and var acrossWidth)
                yield return On(At(comparison, wanted / acrossWidth), area.Width);
            if (row.Width * row.Count is not 0 and var acrossHeight)
                yield return On(At(comparison, wanted / acrossHeight), area.Height);
            if (area.HowMany is { } howMany && row.Width * row.Height is not 0 and var one)
                yield return On(At(comparison, wanted / one), howMany);
        }

        static decimal Side(IReadOnlyDictionary<string, AnswerState> row, string side, decimal blank) =>
            row.GetValueOrDefault(side).Answer is NumberAnswer number ? Math.Clamp(number.Value, -1_000_000, 1_000_000) : blank;
    }

    private const decimal Large = 1_000_000_000_000m;

    private static decimal Amount(Answer? answer) =>
        answer switch
        {
            NumberAnswer n => n.Value,
            MoneyAnswer m => m.Amount,
            _ => 0,
        };

    private static int Days(decimal number) => (int)Math.Clamp(decimal.Ceiling(number), -100_000, 100_000);

    private LocalDate? Day(string question, bool last) =>
        now.Of(question).Answer switch
        {
            DateAnswer day => day.Date,
            DateRangeAnswer range => last ? range.To : range.From,
            _ => null,
        };
}
