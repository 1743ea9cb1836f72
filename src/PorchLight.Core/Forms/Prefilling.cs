using System.Globalization;
using NodaTime.Text;
using PorchLight.Core.Records;

namespace PorchLight.Core.Forms;

/// <summary>What already stands in a form when it is opened.</summary>
public static class Prefilling
{
    private const int Longest = 500;

    /// <summary>
    /// The answers an address and a record give, and the empty rows lists begin with, by question key. What cannot be read as an answer of the question's kind
    /// is left out, never an error: whoever opens a link did not write it.
    /// </summary>
    /// <param name="form">The version that is opened.</param>
    /// <param name="parameters">Names and values in the address.</param>
    /// <param name="onFile">What is known of the person a personal link was made for, by field key; empty for everybody else.</param>
    /// <param name="cameFrom">The page they came from, or null.</param>
    public static Dictionary<string, Answer> Start(
        FormContent form,
        IReadOnlyDictionary<string, string> parameters,
        IReadOnlyDictionary<string, Answer> onFile,
        string? cameFrom
    )
    {
        var start = new Dictionary<string, Answer>();
        foreach (var question in form.Questions)
        {
            var answer = (question.Kind, question.Prefill) switch
            {
                (HiddenKind { Parameter: null }, _) => Read(question, cameFrom),
                (HiddenKind { Parameter: { } name }, _) => Read(question, parameters.GetValueOrDefault(name)),
                (_, FromAddress from) => Read(question, parameters.GetValueOrDefault(from.Parameter)),
                (RowsKind rows, _) => FirstRows(rows),
                (_, FromRecord from) => onFile.GetValueOrDefault(from.Field),
                // What is known is never asked as if it were not.
                (_, null) when question.LandsIn is SetField set => onFile.GetValueOrDefault(set.Field),
                _ => null,
            };
            if (answer is not null)
                start[question.Key] = answer;
        }

        return start;
    }

    /// <summary>
    /// Text read as an answer of the question's kind, or null when it is none: options by key (several parted by
    /// commas), dates as ISO 8601 (2027-05-14), numbers with a point, yes and no as "yes" and "no".
    /// </summary>
    /// <param name="question">The question.</param>
    /// <param name="text">What was given, or null.</param>
    /// <param name="longest">What is longer is no answer.</param>
    public static Answer? Read(Question question, string? text, int longest = Longest)
    {
        if (string.IsNullOrWhiteSpace(text) || text.Length > longest)
            return null;
        text = text.Trim();
        return question.Kind switch
        {
            ShortTextKind or LongTextKind or EmailKind or WebAddressKind or HiddenKind => new TextAnswer(text),
            PhoneKind => new PhoneAnswer(text),
            NumberKind or ScaleKind => Number(text) is { } number ? new NumberAnswer(number) : null,
            MoneyKind kind => Number(text) is { } amount ? new MoneyAnswer(amount, kind.Currency) : null,
            DateKind => LocalDatePattern.Iso.Parse(text) is { Success: true } date ? new DateAnswer(date.Value) : null,
            YesNoKind => text switch
            {
                "yes" => new YesNoAnswer(true),
                "no" => new YesNoAnswer(false),
                _ => null,
            },
            ChoiceKind { Several: true } => text.Split(',', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries)
                .Distinct()
                .ToArray()
                is var keys
            && keys.Length > 0
            && keys.All(key => question.FindOption(key) is not null)
                ? new ChoiceAnswer(keys)
                : null,
            ChoiceKind => question.FindOption(text) is not null ? ChoiceAnswer.Of(text) : null,
            LookUpKind => new LookUpAnswer(text),
            PersonNameKind => Name(text),
            _ => null,
        };
    }

    // A list begins with a row to write into.
    private static RowsAnswer FirstRows(RowsKind rows) =>
        new([.. Enumerable.Repeat(new AnswerRow(new Dictionary<string, Answer?>()), Math.Max(1, rows.Least))]);

    private static decimal? Number(string text) =>
        decimal.TryParse(text, NumberStyles.AllowLeadingSign | NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var number)
            ? number
            : null;

    private static PersonNameAnswer Name(string text)
    {
        var parts = text.Split(' ', 2, StringSplitOptions.TrimEntries);
        return new PersonNameAnswer(parts[0], parts.Length > 1 ? parts[1] : "");
    }
}
