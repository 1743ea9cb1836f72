using System.Globalization;
using NodaTime;
using NodaTime.Text;
using PorchLight.Core.Common;

namespace PorchLight.Core.Forms;

/// <summary>
/// Reads answers out of plain names and values, as a form in a developer's own markup posts them. A question is named by
/// its key, a part of an answer by <c>key.part</c>, what a row asks by <c>key.0.cell</c>.
/// </summary>
public static class PlainAnswers
{
    /// <summary>The parts of an address, by the name they are posted under.</summary>
    public static IReadOnlyList<string> AddressParts { get; } = ["street", "unit", "city", "region", "postalCode", "country"];

    private const int Longest = 20_000;

    /// <summary>Whether a question can be asked in plain markup at all. Files, looked-up lines and signatures need more than that.</summary>
    public static bool CanAsk(QuestionKind kind) => kind is not (FilesKind or LookUpKind or SignatureKind or WorkedOutKind);

    /// <summary>
    /// The answers, and what could not be read as an answer of its question's kind. Names the form does not know are passed
    /// over, for other people's markup has fields of its own.
    /// </summary>
    /// <param name="form">The version that is answered.</param>
    /// <param name="values">All values by name, in the order they were posted.</param>
    public static (Dictionary<string, Answer?> Answers, IReadOnlyList<Finding> Unreadable) Read(
        FormContent form,
        IReadOnlyDictionary<string, IReadOnlyList<string>> values
    )
    {
        var unreadable = new List<Finding>();
        return (form.Questions.ToDictionary(question => question.Key, question => Read(question, question.Key, question.Key)), unreadable);

        Answer? Read(Question question, string name, string place) =>
            question.Kind switch
            {
                PersonNameKind => (One($"{name}.given"), One($"{name}.family")) is var (given, family) && (given ?? family) is not null
                    ? new PersonNameAnswer(given ?? "", family ?? "")
                    : Typed(question, name, place),
                AddressKind => AddressParts.Select(part => One($"{name}.{part}")).ToArray() is var parts
                && parts.Any(part => part is not null)
                    ? new AddressAnswer(parts[0], parts[1], parts[2], parts[3], parts[4], parts[5])
                    : null,
                DateRangeKind => Range(name, place),
                ChoiceKind => All(name) is { Count: > 0 } keys ? new ChoiceAnswer([.. keys.Distinct()], One($"{name}.ownWords")) : null,
                ConsentKind or AdvertisingKind => One(name) is null ? null : new ConsentAnswer(),
                RowsKind rows => Rows(rows, name, place),
                var kind when !CanAsk(kind) => null,
                _ => Typed(question, name, place),
            };

        RowsAnswer? Rows(RowsKind kind, string name, string place)
        {
            // Rows may be numbered with gaps, and there may be more than fit: that is for the checks to say.
            var rows = new List<AnswerRow>();
            foreach (
                var index in values.Keys.Select(key => IndexOf(key, name)).OfType<int>().Distinct().Order().Take(FormLimits.MostRows + 1)
            )
            {
                var (prefix, before) = (string.Create(CultureInfo.InvariantCulture, $"{name}.{index}."), unreadable.Count);
                var row = new AnswerRow(
                    kind.Questions.Where(cell => CanAsk(cell.Kind))
                        .ToDictionary(cell => cell.Key, cell => Read(cell, prefix + cell.Key, Places.InRow(place, rows.Count, cell.Key)))
                );
                if (!row.IsEmpty || unreadable.Count > before)
                    rows.Add(row);
            }

            return rows.Count == 0 ? null : new RowsAnswer(rows);
        }

        static int? IndexOf(string key, string rows) =>
            key.StartsWith(rows + ".", StringComparison.Ordinal)
            && key.IndexOf('.', rows.Length + 1) is > 0 and var end
            && int.TryParse(
                key.AsSpan(rows.Length + 1, end - rows.Length - 1),
                NumberStyles.None,
                CultureInfo.InvariantCulture,
                out var index
            )
                ? index
                : null;

        Answer? Typed(Question question, string name, string place)
        {
            if (One(name) is not { } text)
                return null;
            if (Prefilling.Read(question, text, Longest) is { } answer)
                return answer;
            Refuse(place);
            return null;
        }

        DateRangeAnswer? Range(string name, string place)
        {
            if (One($"{name}.month") is { } month)
            {
                if (YearMonthPattern.Iso.Parse(month) is { Success: true, Value: var whole })
                    return new DateRangeAnswer(whole.OnDayOfMonth(1), DayArithmetic.EndOfMonth(whole.OnDayOfMonth(1)), Roughly: true);
                Refuse(place);
            }

            var (from, to) = (One($"{name}.from"), One($"{name}.to"));
            if (from is null && to is null)
                return null;
            if (Day(from) is { } first && Day(to) is { } last)
                return new DateRangeAnswer(first, last);
            Refuse(place);
            return null;
        }

        static LocalDate? Day(string? text) =>
            text is not null && LocalDatePattern.Iso.Parse(text) is { Success: true } day ? day.Value : null;

        void Refuse(string place) => unreadable.Add(new Finding(place, "This answer could not be read. Please answer it again."));

        List<string> All(string name) => [.. values.GetValueOrDefault(name, []).Where(value => !string.IsNullOrWhiteSpace(value))];

        string? One(string name) => All(name).FirstOrDefault();
    }
}
