using PorchLight.Core.Common;
using PorchLight.Core.Fields;

namespace PorchLight.Core.Forms;

/// <summary>Finds what fills the columns of a field that keeps rows.</summary>
public static class FieldColumns
{
    /// <summary>
    /// Which question of each row fills a column, by the column's key: the one with its key, else the first one with its words; only
    /// where the kinds fit. A column that nothing fills is not in it.
    /// </summary>
    /// <param name="question">A question with rows; any other fills nothing.</param>
    /// <param name="field">A field that keeps rows.</param>
    public static IReadOnlyDictionary<string, Question> Filled(Question question, Field field)
    {
        var filled = new Dictionary<string, Question>();
        foreach (var column in field.Columns)
        {
            var fitting = question.RowQuestions.Where(asked => asked.Kind.FitsField(column.Kind)).ToList();
            var cell =
                fitting.Find(asked => asked.Key == column.Key) ?? fitting.Find(asked => UnicodeText.IsSame(asked.Wording, column.Label));
            if (cell is not null)
                filled[column.Key] = cell;
        }

        return filled;
    }
}
