using PorchLight.Core.Answers;
using PorchLight.Core.Forms;

namespace PorchLight.Core.Workbench;

/// <summary>Says what the worked-out values of a form come to, for the people who build it.</summary>
public static class WorkedOutValues
{
    /// <summary>
    /// Every worked-out value on the route of the answers in words, by place: "price" on a page, "signs/0/area" in a row. Those that are
    /// not known are not there. Unlike what a lead sees, values that are kept from them are among these.
    /// </summary>
    /// <param name="known">The form and what is known beside the answers.</param>
    /// <param name="answers">The normalised answers.</param>
    public static IReadOnlyDictionary<string, string> Say(AnswerContext known, IReadOnlyDictionary<string, Answer?> answers)
    {
        var now = Routes.Trace(known, answers).Know(known);
        var said = new Dictionary<string, string>();
        foreach (var question in known.Form.Questions)
        {
            Note(question, question.Key, now);
            var rows = now.RowsOf(question.Key);
            for (var index = 0; index < rows.Count; index++)
            {
                foreach (var asked in question.RowQuestions)
                    Note(asked, Places.InRow(question.Key, index, asked.Key), now.InRow(rows[index]));
            }
        }

        return said;

        void Note(Question question, string place, AnswerContext here)
        {
            if (question.Kind is WorkedOutKind && here.Of(question.Key).Answer is { } value)
                said[place] = AnswerWords.Say(value, here.Behind(question.Key));
        }
    }
}
