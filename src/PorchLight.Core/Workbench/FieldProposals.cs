using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;

namespace PorchLight.Core.Workbench;

/// <summary>Makes a field for what a question asks.</summary>
public static class FieldProposals
{
    private const int LongestLabel = 80;

    // The most telling kind comes first: an address is also a text, but more than one.
    private static readonly FieldKind[] Preferred =
    [
        FieldKind.PersonName,
        FieldKind.Email,
        FieldKind.Phone,
        FieldKind.Address,
        FieldKind.WebAddress,
        FieldKind.Date,
        FieldKind.Money,
        FieldKind.Number,
        FieldKind.YesNo,
        FieldKind.Files,
        FieldKind.Rows,
        FieldKind.OneOf,
        FieldKind.SeveralOf,
        FieldKind.Text,
        FieldKind.LongText,
    ];

    /// <summary>
    /// A new field named as the question is worded, of the kind that tells most of its answers, with the question's options or, for
    /// rows, what each row asks as columns. Null for a question whose answers no field can keep.
    /// </summary>
    /// <param name="question">The question, with the business's lists in it.</param>
    /// <param name="scope">Whose field it is.</param>
    /// <param name="fields">The fields there are; the new one has a key of its own.</param>
    public static Field? For(Question question, RecordScope scope, FieldCatalogue fields)
    {
        if (BestKind(question.Kind) is not { } kind)
            return null;
        var label = Label(question.Wording, fields.All.Where(field => field.Scope == scope).Select(field => field.Label));
        return new Field(fields.NewKey(scope, label), label, kind)
        {
            Options = kind is FieldKind.OneOf or FieldKind.SeveralOf
                ?
                [
                    .. question
                        .Options.Where(option => !option.Unsure)
                        .Select(option => option.Label.Trim())
                        .Distinct(StringComparer.OrdinalIgnoreCase),
                ]
                : [],
            Columns =
                kind == FieldKind.Rows
                    ?
                    [
                        .. question
                            .RowQuestions.Select(cell => (cell, kind: BestKind(cell.Kind)))
                            .Where(one => one.kind is not (null or FieldKind.Rows or FieldKind.Files))
                            .Select(one => new FieldColumn(one.cell.Key, Plain(one.cell.Wording), one.kind!.Value))
                            .DistinctBy(column => column.Label.ToUpperInvariant()),
                    ]
                    : [],
        };
    }

    private static FieldKind? BestKind(QuestionKind kind) =>
        Preferred.Where(kind.FitsField).Select(fitting => (FieldKind?)fitting).FirstOrDefault();

    private static string Label(string wording, IEnumerable<string> taken)
    {
        var used = taken.ToHashSet(StringComparer.OrdinalIgnoreCase);
        var label = Plain(wording);
        for (var number = 2; used.Contains(label); number++)
            label = $"{Plain(wording)} {number}";
        return label;
    }

    private static string Plain(string wording)
    {
        var plain = KnownValues.BeforeAnswers(wording).Trim().TrimEnd('?', ':', '.', ' ');
        return plain.Length == 0 ? "A field"
            : plain.Length <= LongestLabel - 5 ? plain
            : plain[..(LongestLabel - 5)].TrimEnd();
    }
}
