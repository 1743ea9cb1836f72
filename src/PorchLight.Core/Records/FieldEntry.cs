using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;

namespace PorchLight.Core.Records;

/// <summary>A value somebody of the business gives a field, or what is wrong with it.</summary>
/// <param name="Value">The value in the field's own kind; null when nothing is left of it, which empties the field.</param>
/// <param name="Fault">What is wrong and what to do, as a sentence; null when it can be kept.</param>
public sealed record EnteredValue(Answer? Value, string? Fault);

/// <summary>Takes values for fields as people and files of other programs give them.</summary>
public static class FieldEntry
{
    private const int LongestLine = 500;
    private const int LongestText = 20_000;
    private const int MostFiles = 100;
    private const int MostWords = 100;

    /// <summary>A value in the shape the field keeps, checked.</summary>
    /// <param name="typed">The value as it was entered; a band of numbers stays one.</param>
    /// <param name="field">The field.</param>
    /// <param name="context">The day, the region for phone numbers, and the files there are; others are not taken.</param>
    /// <param name="currency">The business's currency.</param>
    public static EnteredValue Of(Answer typed, Field field, NormaliseContext context, string currency) =>
        (typed, field.Kind) switch
        {
            (BandAnswer band, FieldKind.Number or FieldKind.Money) => new EnteredValue(
                band,
                (field.Kind == FieldKind.Money) == (band.Band.Currency is not null) ? ValueBounds.Check(band.Band) : NotOfThisKind(field)
            ),
            (FilesAnswer files, FieldKind.Files) when files.Files.Any(file => !context.Files.ContainsKey(file.Id)) => new EnteredValue(
                null,
                "One of the files is not here any more. Remove it, or add it again."
            ),
            (TextsAnswer texts, FieldKind.SeveralOf) => Several(texts.Texts),
            (RowsAnswer rows, FieldKind.Rows) => Rows(rows, field, context, currency),
            (_, FieldKind.SeveralOf or FieldKind.Rows) => new EnteredValue(null, NotOfThisKind(field)),
            _ => Single(typed, field, context, currency),
        };

    /// <summary>A value read from text, as a cell of a table or a value of another kind gives it.</summary>
    /// <param name="text">The text; blank empties the field. Several words are separated by commas or semicolons.</param>
    /// <param name="field">The field; files and rows cannot be read from text.</param>
    /// <param name="context">As for <see cref="Of"/>.</param>
    /// <param name="currency">The business's currency.</param>
    public static EnteredValue Read(string text, Field field, NormaliseContext context, string currency)
    {
        var trimmed = TextParts.Clean(text);
        if (trimmed.Length == 0)
            return new EnteredValue(null, null);
        switch (field.Kind)
        {
            case FieldKind.SeveralOf:
                return Several(trimmed.Split([',', ';', '\n'], StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries));
            case FieldKind.PersonName when trimmed.Split(',') is [var family, var given] && given.Trim().Length > 0:
                return Of(new PersonNameAnswer(given.Trim(), family.Trim()), field, context, currency);
            case FieldKind.PersonName:
                var end = trimmed.LastIndexOf(' ');
                return Of(
                    end < 0 ? new PersonNameAnswer(trimmed, "") : new PersonNameAnswer(trimmed[..end], trimmed[(end + 1)..]),
                    field,
                    context,
                    currency
                );
            case FieldKind.Address:
                return Of(new AddressAnswer(trimmed, null, null, null, null, null), field, context, currency);
            case FieldKind.Files or FieldKind.Rows:
                return new EnteredValue(null, $"“{field.Label}” cannot be read from text.");
            case FieldKind.YesNo:
                return IsYes(trimmed) ? new EnteredValue(new YesNoAnswer(true), null)
                    : IsNo(trimmed) ? new EnteredValue(new YesNoAnswer(false), null)
                    : new EnteredValue(null, "Please write yes or no.");
            default:
                return Written(trimmed, field.Kind, context.Region, currency) is { } answer
                    ? Of(answer, field, context, currency)
                    : new EnteredValue(null, $"“{Short(trimmed)}” cannot be kept in “{field.Label}”. {Expected(field.Kind)}");
        }
    }

    /// <summary>A value as a field of another kind would keep it; null when it would not.</summary>
    /// <param name="value">A value of the field as it is.</param>
    /// <param name="wanted">The field with the kind it shall have.</param>
    /// <param name="context">As for <see cref="Of"/>.</param>
    /// <param name="currency">The business's currency.</param>
    public static Answer? Carried(Answer value, Field wanted, NormaliseContext context, string currency)
    {
        if (Of(Turned(value, wanted.Kind, context.Region, currency), wanted, context, currency) is { Fault: null, Value: { } same })
            return same;
        return Read(AnswerWords.Say(value), wanted, context, currency) is { Fault: null, Value: { } read } ? read : null;
    }

    /// <summary>A number as an amount and the other way round, and a number as a text that says all of it.</summary>
    private static Answer Turned(Answer value, FieldKind kind, string region, string currency) =>
        (value, kind) switch
        {
            (NumberAnswer number, FieldKind.Money) => new MoneyAnswer(number.Value, currency),
            (MoneyAnswer money, FieldKind.Number) => new NumberAnswer(money.Amount),
            (NumberAnswer number, FieldKind.Text or FieldKind.LongText or FieldKind.OneOf) => new TextAnswer(
                WrittenValues.Say(number.Value, region)
            ),
            (MoneyAnswer money, FieldKind.Text or FieldKind.LongText or FieldKind.OneOf) => new TextAnswer(
                $"{WrittenValues.Say(money.Amount, region)} {money.Currency}"
            ),
            _ => value,
        };

    /// <summary>Numbers, amounts and days as people of the region write them; all else as it is typed.</summary>
    private static Answer? Written(string text, FieldKind kind, string region, string currency) =>
        kind switch
        {
            FieldKind.Number => WrittenValues.Number(text, region) is { } number ? new NumberAnswer(number) : null,
            FieldKind.Money => WrittenValues.Amount(text, region, currency) is { } amount ? new MoneyAnswer(amount, currency) : null,
            FieldKind.Date => WrittenValues.Day(text, region) is { } day ? new DateAnswer(day) : null,
            _ => KindOf(kind, currency).Read(text),
        };

    private static EnteredValue Single(Answer typed, Field field, NormaliseContext context, string currency)
    {
        var kind = KindOf(field.Kind, currency);
        var normal = kind.Normalise(typed, context);
        return normal is null ? new EnteredValue(null, null)
            : kind.AnswerType is { } type && normal.GetType() != type ? new EnteredValue(null, NotOfThisKind(field))
            : kind.Check(normal, context.Today) is { } fault ? new EnteredValue(null, fault)
            : new EnteredValue(normal, null);
    }

    private static EnteredValue Several(IEnumerable<string> texts)
    {
        var kept = texts.Select(TextParts.Clean).Where(text => text.Length > 0).DistinctBy(UnicodeText.Squeezed).ToList();
        return kept.Count == 0 ? new EnteredValue(null, null)
            : kept.Any(text => text.Length > LongestLine) ? new EnteredValue(null, $"Please use at most {LongestLine} characters for each.")
            : kept.Count > MostWords ? new EnteredValue(null, $"Please choose at most {MostWords}.")
            : new EnteredValue(new TextsAnswer(kept), null);
    }

    private static EnteredValue Rows(RowsAnswer rows, Field field, NormaliseContext context, string currency)
    {
        if (rows.Rows.Count > FormLimits.MostRows)
            return new EnteredValue(null, $"At most {FormLimits.MostRows} rows fit here. Please take some away.");
        var kept = new List<AnswerRow>();
        foreach (var (row, index) in rows.Rows.Select((row, index) => (row, index)))
        {
            var cells = new Dictionary<string, Answer?>();
            foreach (var column in field.Columns)
            {
                if (row[column.Key] is not { } cell)
                    continue;
                var entered = Of(cell, new Field(field.Key, column.Label, column.Kind), context, currency);
                if (entered.Fault is { } fault)
                    return new EnteredValue(null, $"Row {index + 1}, {column.Label}: {fault}");
                if (entered.Value is not null)
                    cells[column.Key] = entered.Value;
            }

            if (cells.Count > 0)
                kept.Add(new AnswerRow(cells));
        }

        return new EnteredValue(kept.Count == 0 ? null : new RowsAnswer(kept), null);
    }

    private static QuestionKind KindOf(FieldKind kind, string currency) =>
        kind switch
        {
            FieldKind.Text or FieldKind.OneOf => new ShortTextKind(LongestLine),
            FieldKind.LongText => new LongTextKind(LongestText),
            FieldKind.Email => new EmailKind(),
            FieldKind.Phone => new PhoneKind(),
            FieldKind.WebAddress => new WebAddressKind(),
            FieldKind.Number => new NumberKind(null, null),
            FieldKind.Money => new MoneyKind(currency),
            FieldKind.Date => new DateKind(),
            FieldKind.YesNo => new YesNoKind(),
            FieldKind.Address => new AddressKind(),
            FieldKind.PersonName => new PersonNameKind(),
            FieldKind.Files => new FilesKind(MostFiles),
            _ => throw new ArgumentOutOfRangeException(nameof(kind), kind, "A kind of field that is made of others."),
        };

    private static string Expected(FieldKind kind) =>
        kind switch
        {
            FieldKind.Number => "Please write a number, like 12 or 12.5.",
            FieldKind.Money => "Please write an amount, like 1500.",
            FieldKind.Date => "Please write a day like 2027-05-14.",
            _ => "Please write it in another way.",
        };

    private static string NotOfThisKind(Field field) => $"This cannot be kept in “{field.Label}”. Please enter it again.";

    private static string Short(string text) => text.Length <= 60 ? text : UnicodeText.Start(text, 60) + "…";

    private static bool IsYes(string text) => Is(text, "yes", "y", "true", "1", "x", "✓");

    private static bool IsNo(string text) => Is(text, "no", "n", "false", "0", "-");

    private static bool Is(string text, params string[] words) => words.Contains(text.ToLowerInvariant());
}
