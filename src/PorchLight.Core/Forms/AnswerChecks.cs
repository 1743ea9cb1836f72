using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Conditions;

namespace PorchLight.Core.Forms;

/// <summary>Checks the answers on a route against their questions and against each other.</summary>
public static class AnswerChecks
{
    /// <summary>
    /// What has to be put right before the answers can be sent, in form order, at most one finding a place; the place
    /// is the question's key, in a row as <see cref="Places.InRow"/> says. Questions that are not shown are never checked.
    /// </summary>
    /// <param name="known">The form and what is known beside the answers.</param>
    /// <param name="route">The route the tidied answers take.</param>
    /// <param name="onlyPage">Check this page alone, or null for the whole route.</param>
    public static IReadOnlyList<Finding> Check(AnswerContext known, Route route, string? onlyPage = null)
    {
        var now = route.Know(known);
        var shown = route.Shown.ToHashSet();
        var asked = known
            .Form.Pages.Where(page => onlyPage is null || page.Key == onlyPage)
            .SelectMany(page => page.Questions)
            .Where(question => shown.Contains(question.Key))
            .ToList();
        var broken = known.Form.Rules.Select(rule => Check(rule, now)).OfType<Finding>().ToLookup(finding => finding.Place);
        return
        [
            .. asked.SelectMany(question => CheckOne(question, now, shown) is { Count: > 0 } found ? found : broken[question.Key].Take(1)),
        ];
    }

    /// <summary>The sentence over findings: how many answers need another look.</summary>
    /// <param name="findings">The findings; at least one.</param>
    public static string Summary(IReadOnlyList<Finding> findings) =>
        findings.Count == 1
            ? "One answer needs another look before this can go on."
            : $"{findings.Count} answers need another look before this can go on.";

    private static List<Finding> CheckOne(Question question, AnswerContext now, HashSet<string> shown)
    {
        var found = new List<Finding>();
        Say(question.Key, AnswerLimits.Check(question, now.Of(question.Key).Answer, now.Today, question.IsRequired(now)));
        if (now.Of(question.Key).Answer is not RowsAnswer)
            return found;
        var rows = now.RowsOf(question.Key);
        for (var index = 0; index < rows.Count; index++)
        {
            if (question.RowQuestions.All(cell => cell.Kind is WorkedOutKind || rows[index][cell.Key].Answer is null))
                Say(
                    Places.Row(question.Key, index),
                    $"This {((RowsKind)question.Kind).OneIsCalled} is empty. Please fill it in, or take it away."
                );
            else
                CheckRow(now.InRow(rows[index]), index);
        }

        return found;

        void CheckRow(AnswerContext row, int index)
        {
            foreach (var cell in question.RowQuestions)
            {
                var place = Places.InRow(question.Key, index, cell.Key);
                if (shown.Contains(place))
                    Say(place, AnswerLimits.Check(cell, row.Of(cell.Key).Answer, now.Today, cell.IsRequired(row)));
            }
        }

        void Say(string place, string? sentence)
        {
            if (sentence is not null)
                found.Add(new Finding(place, sentence));
        }
    }

    private static Finding? Check(AnswerRule rule, AnswerContext now) =>
        rule switch
        {
            EndNotBeforeStartRule r when Day(now, r.Start, last: false) > Day(now, r.End, last: true) => new Finding(
                Later(now.Form, r.Start, r.End),
                "This ends before it starts. Please change one of the two days."
            ),
            CountMatchesRowsRule r
                when now.Of(r.Count).Answer is NumberAnswer count && RowsAsked(now.Of(r.Rows)) is { } rows && count.Value != rows =>
                new Finding(
                    Later(now.Form, r.Count, r.Rows),
                    $"You said {AnswerWords.Say(count)}, and there {rows switch { 0 => "are none", 1 => "is 1", _ => $"are {rows}" }} here. Please change one of them."
                ),
            NeverRule r when r.When.Evaluate(now) == Truth.True => new Finding(r.At, r.Sentence),
            _ => null,
        };

    private static int? RowsAsked(AnswerState rows) =>
        rows switch
        {
            { Answer: RowsAnswer answer } => answer.Rows.Count,
            { Status: AnswerStatus.Blank } => 0,
            _ => null,
        };

    private static NodaTime.LocalDate? Day(AnswerContext now, string question, bool last) =>
        now.Of(question).Answer switch
        {
            DateAnswer day => day.Date,
            DateRangeAnswer range => last ? range.To : range.From,
            _ => null,
        };

    private static string Later(FormContent form, string one, string other) =>
        form.Questions.Last(question => question.Key == one || question.Key == other).Key;
}
