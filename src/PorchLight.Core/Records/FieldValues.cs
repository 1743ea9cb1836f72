using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;

namespace PorchLight.Core.Records;

/// <summary>Reads answers as values of fields, and compares values.</summary>
public static class FieldValues
{
    /// <summary>
    /// An answer as a field keeps it: an option as its words, or as the range it stands for where the field keeps numbers; rows with the
    /// cells their columns name. Null when the field cannot keep it, and for "I don't know".
    /// </summary>
    /// <param name="answer">The answer.</param>
    /// <param name="question">The question it answers; of a worked-out one the question it repeats.</param>
    /// <param name="field">The field.</param>
    public static Answer? Of(Answer answer, Question question, Field field)
    {
        if (answer is ChoiceAnswer choice && choice.Keys.Any(key => question.FindOption(key) is not { Unsure: false }))
            return null;
        return field.Kind == FieldKind.Rows
            ? answer is RowsAnswer rows
                ? InColumns(rows, question, field)
                : null
            : Of(answer, question, field.Kind);
    }

    private static Answer? Of(Answer answer, Question question, FieldKind kind) =>
        (answer, kind) switch
        {
            (ChoiceAnswer { Keys: [var key] }, FieldKind.Number or FieldKind.Money) => question.FindOption(key) is { Band: { } band } option
                ? new BandAnswer(option.Label, band)
                : null,
            (ChoiceAnswer choice, FieldKind.SeveralOf) => new TextsAnswer([
                .. question
                    .Options.Where(option => choice.Keys.Contains(option.Key))
                    .Select(option => AnswerWords.Say(choice with { Keys = [option.Key] }, question)),
            ]),
            (ConsentAnswer, FieldKind.YesNo) => new YesNoAnswer(true),
            (TextAnswer or BandAnswer, _) => answer,
            (_, FieldKind.Text or FieldKind.LongText or FieldKind.OneOf) => new TextAnswer(AnswerWords.Say(answer, question)),
            _ => answer,
        };

    private static RowsAnswer? InColumns(RowsAnswer rows, Question question, Field field)
    {
        var filled = FieldColumns.Filled(question, field);
        var kept = rows
            .Rows.Select(row => new AnswerRow(
                field
                    .Columns.Where(column => filled.ContainsKey(column.Key))
                    .Select(column => (column, cell: filled[column.Key]))
                    .Where(one => row[one.cell.Key] is not null)
                    .Select(one => (one.column.Key, Value: Cell(row[one.cell.Key]!, one.cell, one.column)))
                    .Where(one => one.Value is not null)
                    .ToDictionary(one => one.Key, one => one.Value)
            ))
            .Where(row => !row.IsEmpty)
            .ToList();
        return kept.Count == 0 ? null : new RowsAnswer(kept);
    }

    private static Answer? Cell(Answer answer, Question cell, FieldColumn column) =>
        Of(answer, cell, new Field("", column.Label, column.Kind));

    /// <summary>
    /// Whether two values of a field say the same once normalised: text without regard to case, to how much white space
    /// there is and to how accents are put together (Unicode NFC), phone numbers by their E.164 form, several words and files
    /// without regard to their order.
    /// </summary>
    /// <param name="a">One value.</param>
    /// <param name="b">The other; the order does not matter, and values of two kinds are never the same.</param>
    public static bool IsSame(Answer a, Answer b) =>
        (a, b) switch
        {
            (TextAnswer x, TextAnswer y) => UnicodeText.IsSame(x.Text, y.Text),
            (TextsAnswer x, TextsAnswer y) => x
                .Texts.Select(UnicodeText.Squeezed)
                .ToHashSet()
                .SetEquals(y.Texts.Select(UnicodeText.Squeezed)),
            (PersonNameAnswer x, PersonNameAnswer y) => UnicodeText.IsSame(x.Full, y.Full),
            (PhoneAnswer { E164: { } x }, PhoneAnswer { E164: { } y }) => x == y,
            (BandAnswer x, BandAnswer y) => x.Band.IsSame(y.Band),
            (AddressAnswer x, AddressAnswer y) => UnicodeText.IsSame(string.Join('\n', x.Parts), string.Join('\n', y.Parts)),
            (FilesAnswer x, FilesAnswer y) => x.Files.Select(file => file.Id).ToHashSet().SetEquals(y.Files.Select(file => file.Id)),
            (RowsAnswer x, RowsAnswer y) => x.Rows.Count == y.Rows.Count
                && x.Rows.Zip(y.Rows, (one, other) => IsSame(one, other)).All(same => same),
            _ => a.Equals(b),
        };

    private static bool IsSame(AnswerRow a, AnswerRow b) =>
        a
            .Answers.Keys.Union(b.Answers.Keys)
            .All(key =>
                (a[key], b[key]) switch
                {
                    (null, null) => true,
                    ({ } x, { } y) => IsSame(x, y),
                    _ => false,
                }
            );
}
