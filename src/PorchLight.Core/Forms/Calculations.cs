using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Conditions;

namespace PorchLight.Core.Forms;

/// <summary>Works out values.</summary>
public static class Calculations
{
    /// <summary>
    /// The value, or null while something it rests on is unknown. Numbers are exact decimals; too large ones are
    /// unknown rather than wrong.
    /// </summary>
    /// <param name="calculation">How it is worked out.</param>
    /// <param name="known">What is known; in a row, with the row's own answers.</param>
    public static Answer? WorkOut(this Calculation calculation, AnswerContext known)
    {
        try
        {
            return Value(calculation, known);
        }
        catch (OverflowException)
        {
            return null;
        }
    }

    /// <summary>The keys of the questions it rests on, each once; what a row asks included.</summary>
    /// <param name="calculation">The calculation; of a fixed value there are none.</param>
    public static IEnumerable<string> QuestionsUsed(this Calculation calculation) =>
        (
            calculation switch
            {
                CopiedAnswer c => [c.Question],
                FixedValue => [],
                AgeOn c => [c.Born, c.Event],
                TimeBetween c => c.To is null ? [c.From] : [c.From, c.To],
                DaysUntil c => [c.Date],
                CountRows c => [c.Rows, .. c.Where?.QuestionsUsed() ?? []],
                OverRows c => [c.Rows, c.Of],
                AreaOfRows c => c.HowMany is null ? [c.Rows, c.Width, c.Height] : [c.Rows, c.Width, c.Height, c.HowMany],
                DivideAndRoundUp c => c.Amount.QuestionsUsed(),
                ArithmeticOfTwo c => c.First.QuestionsUsed().Concat(c.Second.QuestionsUsed()),
                JoinedText c => Wordings.QuestionsUsed(c.Words),
                IfElse c => c.If.QuestionsUsed().Concat(c.Then.QuestionsUsed()).Concat(c.Otherwise.QuestionsUsed()),
                _ => throw new ArgumentOutOfRangeException(nameof(calculation), calculation, "A calculation of an unknown kind."),
            }
        ).Distinct();

    /// <summary>The key of the question whose answer the value repeats as it is; null when it makes something of its own.</summary>
    /// <param name="calculation">How it is worked out.</param>
    /// <param name="known">What is known; in a row, with the row's own answers.</param>
    internal static string? Repeats(this Calculation calculation, IKnownAnswers known) =>
        calculation switch
        {
            CopiedAnswer c => c.Question,
            IfElse c => (c.If.Evaluate(known) == Truth.True ? c.Then : c.Otherwise).Repeats(known),
            _ => null,
        };

    /// <summary>
    /// Whether a question's value rests on anything the lead has said: its own answer, or, for a worked-out value, at least
    /// one of what it is worked out from. A sum over rows nobody has filled in is zero, but says nothing yet.
    /// </summary>
    /// <param name="known">What is known by now.</param>
    /// <param name="question">A question of the form. Worked-out values that rest on each other in a circle rest on nothing.</param>
    public static bool IsGrounded(this AnswerContext known, Question question) => known.RestsOn(question, []);

    private static bool RestsOn(this AnswerContext known, Question question, HashSet<string> seen) =>
        question.Kind is not WorkedOutKind worked
            ? known.Of(question.Key).Answer is not null
            : seen.Add(question.Key)
                && worked.Value.QuestionsUsed().Any(key => known.Form.FindQuestion(key) is { } used && known.RestsOn(used, seen));

    /// <summary>Whether it can give nothing but a number.</summary>
    /// <param name="calculation">The calculation; a choice between two does when both do.</param>
    public static bool GivesNumber(this Calculation calculation) =>
        calculation switch
        {
            AgeOn or TimeBetween or DaysUntil or CountRows or AreaOfRows or DivideAndRoundUp or FixedValue { Value: NumberAnswer } => true,
            IfElse c => c.Then.GivesNumber() && c.Otherwise.GivesNumber(),
            ArithmeticOfTwo c => c.First.GivesNumber() && c.Second.GivesNumber(),
            _ => false,
        };

    /// <summary>What cannot be meant in it, as sentences for whoever builds the form.</summary>
    internal static IEnumerable<string> Faults(this Calculation calculation) =>
        calculation switch
        {
            FixedValue { Value: NumberAnswer number } => Some(ValueBounds.Check(number.Value)),
            FixedValue { Value: MoneyAnswer money } => Some(ValueBounds.Check(money.Amount)),
            FixedValue { Value: BandAnswer band } => Some(ValueBounds.Check(band.Band)),
            FixedValue { Value: DateAnswer day } => Some(ValueBounds.Check(day.Date)),
            DivideAndRoundUp c => Some(
                    c.PerUnit <= 0
                        ? "Something here is shared out in units of nothing. Say how much goes into one."
                        : ValueBounds.Check(c.PerUnit)
                )
                .Concat(c.Amount.Faults()),
            ArithmeticOfTwo { How: Arithmetic.DividedBy, Second: FixedValue { Value: NumberAnswer { Value: 0 } } } =>
            [
                "Something here is divided by nothing. Say by how much.",
            ],
            ArithmeticOfTwo c => c.First.Faults().Concat(c.Second.Faults()),
            CountRows { Where: { } where } => ConditionBounds.Check(where),
            IfElse c => ConditionBounds.Check(c.If).Concat(c.Then.Faults()).Concat(c.Otherwise.Faults()),
            _ => [],
        };

    private static IEnumerable<string> Some(string? sentence) => sentence is null ? [] : [sentence];

    private static Answer? Value(Calculation calculation, AnswerContext known) =>
        calculation switch
        {
            CopiedAnswer c => known.Of(c.Question).Answer,
            FixedValue c => c.Value,
            AgeOn c => Day(known, c.Born) is { } born && Day(known, c.Event) is { } on && born <= on
                ? new NumberAnswer(Age.On(born, on))
                : null,
            TimeBetween c => Between(c, known),
            DaysUntil c => Day(known, c.Date) is { } date ? new NumberAnswer(Period.DaysBetween(known.Today, date)) : null,
            CountRows c => Rows(known, c.Rows) is { } rows ? Count(rows, c.Where, known) : null,
            OverRows c => Rows(known, c.Rows) is { } rows ? Over(rows, c, known) : null,
            AreaOfRows c => Rows(known, c.Rows) is { } rows ? Area(rows, c) : null,
            DivideAndRoundUp c => Value(c.Amount, known) is NumberAnswer amount && c.PerUnit > 0
                ? new NumberAnswer(decimal.Ceiling(amount.Value / c.PerUnit))
                : null,
            ArithmeticOfTwo c => Together(Value(c.First, known), c.How, Value(c.Second, known)),
            JoinedText c => Wordings.Fill(c.Words, known) is { Length: > 0 } words ? new TextAnswer(words) : null,
            IfElse c => Value(c.If.Evaluate(known) == Truth.True ? c.Then : c.Otherwise, known),
            _ => throw new ArgumentOutOfRangeException(nameof(calculation), calculation, "A calculation of an unknown kind."),
        };

    private static Answer? Together(Answer? first, Arithmetic how, Answer? second) =>
        (first, how, second) switch
        {
            (NumberAnswer a, _, NumberAnswer b) => Number(a.Value, how, b.Value) is { } number ? new NumberAnswer(number) : null,
            (MoneyAnswer a, Arithmetic.DividedBy, MoneyAnswer b) when a.Currency == b.Currency => Number(a.Amount, how, b.Amount)
                is { } share
                ? new NumberAnswer(share)
                : null,
            (MoneyAnswer a, Arithmetic.Plus or Arithmetic.Minus, MoneyAnswer b) when a.Currency == b.Currency => Amount(
                a.Amount,
                how,
                b.Amount,
                a.Currency
            ),
            (MoneyAnswer a, Arithmetic.Times or Arithmetic.DividedBy, NumberAnswer b) => Amount(a.Amount, how, b.Value, a.Currency),
            (NumberAnswer a, Arithmetic.Times, MoneyAnswer b) => Amount(a.Value, how, b.Amount, b.Currency),
            _ => null,
        };

    private static MoneyAnswer? Amount(decimal first, Arithmetic how, decimal second, string currency) =>
        Number(first, how, second) is { } amount ? new MoneyAnswer(amount, currency) : null;

    private static decimal? Number(decimal first, Arithmetic how, decimal second) =>
        how switch
        {
            Arithmetic.Plus => first + second,
            Arithmetic.Minus => first - second,
            Arithmetic.Times => first * second,
            Arithmetic.DividedBy => second == 0 ? null : first / second,
            _ => throw new ArgumentOutOfRangeException(nameof(how)),
        };

    private static LocalDate? Day(AnswerContext known, string question) =>
        known.Of(question).Answer switch
        {
            DateAnswer day => day.Date,
            DateRangeAnswer range => range.From,
            _ => null,
        };

    private static NumberAnswer? Between(TimeBetween between, AnswerContext known)
    {
        var (from, to) =
            between.To is null && known.Of(between.From).Answer is DateRangeAnswer range
                ? (range.From, range.To)
                : (Day(known, between.From), between.To is null ? null : Day(known, between.To));
        if (from is not { } first || to is not { } last || last < first)
            return null;
        var nights = Period.DaysBetween(first, last);
        return new NumberAnswer(
            between.In switch
            {
                SpanUnit.Days => nights + 1,
                SpanUnit.Nights => nights,
                SpanUnit.Weeks => nights / 7,
                _ => throw new ArgumentOutOfRangeException(nameof(between)),
            }
        );
    }

    /// <summary>The rows; none when the question was left blank or is off the route; null while it may still be answered.</summary>
    private static IReadOnlyList<IReadOnlyDictionary<string, AnswerState>>? Rows(AnswerContext known, string question) =>
        known.Of(question) switch
        {
            { Answer: RowsAnswer } => known.RowsOf(question),
            { Status: AnswerStatus.Blank or AnswerStatus.OffRoute } => [],
            _ => null,
        };

    private static NumberAnswer? Count(IReadOnlyList<IReadOnlyDictionary<string, AnswerState>> rows, Condition? where, AnswerContext known)
    {
        if (where is null)
            return new NumberAnswer(rows.Count);
        var truths = rows.Select(row => where.Evaluate(known.InRow(row))).ToList();
        return truths.Contains(Truth.Unknown) && rows.Any(StillOpen) ? null : new NumberAnswer(truths.Count(truth => truth == Truth.True));
    }

    private static Answer? Over(IReadOnlyList<IReadOnlyDictionary<string, AnswerState>> rows, OverRows over, AnswerContext known)
    {
        var cells = rows.Select(row => row.GetValueOrDefault(over.Of)).ToList();
        if (cells.Any(cell => cell.Status == AnswerStatus.NotAskedYet))
            return null;
        var answers = cells.Select(cell => cell.Answer).OfType<Answer>().ToList();
        var currencies = answers.Select(answer => (answer as MoneyAnswer)?.Currency).Distinct().ToList();
        var numbers = answers
            .Select(answer =>
                answer switch
                {
                    NumberAnswer n => n.Value,
                    MoneyAnswer m => m.Amount,
                    _ => (decimal?)null,
                }
            )
            .ToList();
        if (currencies.Count > 1 || numbers.Contains(null) || (numbers.Count == 0 && over.Take != Total.Sum))
            return null;
        var currency = currencies.Count == 1 ? currencies[0] : CurrencyOf(known.Form, over.Of, []);
        var value = over.Take switch
        {
            Total.Sum => numbers.Sum(number => number!.Value),
            Total.Smallest => numbers.Min(number => number!.Value),
            Total.Largest => numbers.Max(number => number!.Value),
            _ => throw new ArgumentOutOfRangeException(nameof(over)),
        };
        return currency is null ? new NumberAnswer(value) : new MoneyAnswer(value, currency);
    }

    // What nobody has filled in adds up to nothing, in the currency it would have been in.
    private static string? CurrencyOf(FormContent form, string question, HashSet<string> seen) =>
        form.FindQuestion(question)?.Kind switch
        {
            MoneyKind money => money.Currency,
            WorkedOutKind worked when seen.Add(question) => CurrencyOf(form, worked.Value, seen),
            _ => null,
        };

    private static string? CurrencyOf(FormContent form, Calculation calculation, HashSet<string> seen) =>
        calculation switch
        {
            CopiedAnswer c => CurrencyOf(form, c.Question, seen),
            OverRows c => CurrencyOf(form, c.Of, seen),
            FixedValue { Value: MoneyAnswer money } => money.Currency,
            ArithmeticOfTwo { How: not Arithmetic.DividedBy } c => CurrencyOf(form, c.First, seen) ?? CurrencyOf(form, c.Second, seen),
            ArithmeticOfTwo c => CurrencyOf(form, c.Second, [.. seen]) is null ? CurrencyOf(form, c.First, seen) : null,
            IfElse c => CurrencyOf(form, c.Then, seen) ?? CurrencyOf(form, c.Otherwise, seen),
            _ => null,
        };

    private static NumberAnswer? Area(IReadOnlyList<IReadOnlyDictionary<string, AnswerState>> rows, AreaOfRows area)
    {
        var cells = rows.SelectMany(row => new[] { area.Width, area.Height, area.HowMany }.OfType<string>().Select(row.GetValueOrDefault));
        if (cells.Any(cell => cell.Status == AnswerStatus.NotAskedYet))
            return null;
        var perSquareMetre = area.In switch
        {
            LengthUnit.Metres => 1m,
            LengthUnit.Centimetres => 10_000m,
            LengthUnit.Millimetres => 1_000_000m,
            _ => throw new ArgumentOutOfRangeException(nameof(area)),
        };
        var sum =
            rows.Sum(row =>
                (Number(row, area.Width) ?? 0)
                * (Number(row, area.Height) ?? 0)
                * (area.HowMany is null ? 1 : Number(row, area.HowMany) ?? 1)
            ) / perSquareMetre;
        return sum > 0 && !rows.Any(row => Number(row, area.Width) < 0 || Number(row, area.Height) < 0) ? new NumberAnswer(sum) : null;
    }

    private static decimal? Number(IReadOnlyDictionary<string, AnswerState> row, string question) =>
        (row.GetValueOrDefault(question).Answer as NumberAnswer)?.Value;

    private static bool StillOpen(IReadOnlyDictionary<string, AnswerState> row) =>
        row.Values.Any(cell => cell.Status == AnswerStatus.NotAskedYet);
}
