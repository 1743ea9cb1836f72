using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Conditions;
using PorchLight.Core.Forms;

namespace PorchLight.Core.Screening;

/// <summary>Parts what is settled for good from what an answer still to come may change.</summary>
internal static class OpenAnswers
{
    /// <summary>
    /// The same with everything that may still change not asked yet: what is not asked yet, worked-out values that rest on
    /// it (whatever they are for the moment), and what is asked or passed by only because of such a value.
    /// </summary>
    public static AnswerContext SettledOnly(this AnswerContext known)
    {
        var answers = new Dictionary<string, AnswerState>(known.Answers);
        var settled = known with { Answers = answers };
        var open = new HashSet<string>();
        foreach (var question in known.Form.Questions)
        {
            if (known.Of(question.Key).Status == AnswerStatus.NotAskedYet || MayChange(question))
            {
                open.Add(question.Key);
                answers[question.Key] = AnswerState.NotAskedYet;
            }

            var rows = known.RowsOf(question.Key);
            open.UnionWith(
                question
                    .RowQuestions.Where(cell =>
                        open.Contains(question.Key)
                        || MayChange(cell)
                        || rows.Any(row => row.GetValueOrDefault(cell.Key).Status == AnswerStatus.NotAskedYet)
                    )
                    .Select(cell => cell.Key)
            );
        }

        return settled;

        bool MayChange(Question question) =>
            (question.Kind is WorkedOutKind worked && worked.Value.QuestionsUsed().Any(open.Contains))
            || (question.AskedOnlyWhen is { } when && when.QuestionsUsed().Any(open.Contains) && when.Evaluate(settled) == Truth.Unknown);
    }
}
