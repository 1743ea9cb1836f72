using System.Globalization;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;

namespace PorchLight.Core.Forms;

/// <summary>
/// Reads answers out of plain names and values, as a form in a developer's own markup posts them. A question is named by
/// its key, a part of an answer by <c>key.part</c>, what a row asks by <c>key.0.cell</c>.
/// </summary>
public static class PlainAnswers
{
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
        return (
            form.Questions.ToDictionary(
                question => question.Key,
                question => new PostedAnswer(values, question.Key, question.Key, unreadable).Read(question)
            ),
            unreadable
        );
    }
}

/// <summary>What was posted for one question.</summary>
/// <param name="values">All values by name.</param>
/// <param name="name">What the question is posted under: "signs.0.width".</param>
/// <param name="place">Its place in the form: "signs/0/width".</param>
/// <param name="unreadable">Where what cannot be read is noted.</param>
internal sealed class PostedAnswer(
    IReadOnlyDictionary<string, IReadOnlyList<string>> values,
    string name,
    string place,
    List<Finding> unreadable
)
{
    /// <summary>What is longer is no answer, in UTF-16 code units.</summary>
    public const int Longest = 20_000;

    /// <summary>The answer to a question, or null.</summary>
    /// <param name="question">The question; of a kind that plain markup has no control for there is no answer.</param>
    public Answer? Read(Question question) => question.Kind.PlainControl() is null ? null : question.Kind.ReadPosted(this);

    /// <summary>The first value that is not blank, or null.</summary>
    /// <param name="part">The part of the answer, or null for the whole.</param>
    public string? One(string? part = null) => All(part).FirstOrDefault();

    /// <summary>All values that are not blank.</summary>
    /// <param name="part">The part of the answer, or null for the whole.</param>
    public List<string> All(string? part = null) =>
        [.. values.GetValueOrDefault(part is null ? name : $"{name}.{part}", []).Where(value => !string.IsNullOrWhiteSpace(value))];

    /// <summary>Notes that it cannot be read.</summary>
    public void Refuse() => unreadable.Add(new Finding(place, "This answer could not be read. Please answer it again."));

    /// <summary>
    /// The rows that are not empty. They may be numbered with gaps, and there may be more than fit: that is for the
    /// checks to say.
    /// </summary>
    /// <param name="questions">What each row asks.</param>
    public List<AnswerRow> Rows(IReadOnlyList<Question> questions)
    {
        var rows = new List<AnswerRow>();
        foreach (var index in values.Keys.Select(IndexOf).OfType<int>().Distinct().Order().Take(FormLimits.MostRows + 1))
        {
            var before = unreadable.Count;
            var row = new AnswerRow(
                questions
                    .Where(cell => cell.Kind.PlainControl() is not null)
                    .ToDictionary(cell => cell.Key, cell => Cell(index, rows.Count, cell.Key).Read(cell))
            );
            if (!row.IsEmpty || unreadable.Count > before)
                rows.Add(row);
        }

        return rows;
    }

    private PostedAnswer Cell(int posted, int row, string question) =>
        new(
            values,
            string.Create(CultureInfo.InvariantCulture, $"{name}.{posted}.{question}"),
            Places.InRow(place, row, question),
            unreadable
        );

    private int? IndexOf(string key) =>
        key.StartsWith(name + ".", StringComparison.Ordinal)
        && key.IndexOf('.', name.Length + 1) is > 0 and var end
        && int.TryParse(key.AsSpan(name.Length + 1, end - name.Length - 1), NumberStyles.None, CultureInfo.InvariantCulture, out var index)
            ? index
            : null;
}
