using PorchLight.Core.Answers;
using PorchLight.Core.Fields;

namespace PorchLight.Core.Forms;

/// <summary>
/// Notices what a person may have meant otherwise. A doubt is said beside the answer and holds nobody up: what is valid can
/// be sent as it stands.
/// </summary>
public static class AnswerDoubts
{
    /// <summary>The doubts about the answers on a route, by the place they stand beside; at most one a place.</summary>
    /// <param name="known">The form and what is known beside the answers.</param>
    /// <param name="route">The route the tidied answers take.</param>
    public static Dictionary<string, string> About(AnswerContext known, Route route)
    {
        var doubts = new Dictionary<string, string>();
        var now = route.Know(known);
        foreach (var question in known.Form.Questions)
        {
            Say(question.Key, About(question, now.Of(question.Key).Answer, now));
            var rows = now.RowsOf(question.Key);
            for (var index = 0; index < rows.Count; index++)
            {
                foreach (var cell in question.RowQuestions)
                    Say(Places.InRow(question.Key, index, cell.Key), About(cell, rows[index].GetValueOrDefault(cell.Key).Answer, now));
            }

            if (question.Kind is RowsKind kind)
            {
                foreach (var (row, cell, doubt) in kind.DoubtsBetweenRows(rows))
                    Say(Places.InRow(question.Key, row, cell), doubt);
            }
        }

        return doubts;

        void Say(string place, string? doubt)
        {
            if (doubt is not null)
                doubts.TryAdd(place, doubt);
        }
    }

    private static string? About(Question question, Answer? answer, AnswerContext now) =>
        answer is null ? null : question.Kind.Doubt(answer, now.Today, IsAboutTheWork(question));

    private static bool IsAboutTheWork(Question question) =>
        question.LandsIn is SetField { Field: var key } && Field.ScopeOf(key) == RecordScope.Project;
}
