using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;

namespace PorchLight.Core.Forms;

/// <summary>Where a filling-in stands.</summary>
/// <param name="Pages">The pages shown so far, the open one last.</param>
/// <param name="Shown">The places that are shown on them: keys of items, and "signs/0/width" for what a row asks.</param>
/// <param name="Required">Those of them that must be answered now.</param>
/// <param name="Wordings">Wordings with earlier answers in them, by place; only where they differ from the form's.</param>
/// <param name="Helps">The same of the lines of help.</param>
/// <param name="Statements">The same of what is agreed to or signed.</param>
/// <param name="WorkedOut">Worked-out values in words, by place; only those the lead may see and that are known.</param>
/// <param name="Notices">What has to be known of an answer before it is sent, by place.</param>
/// <param name="Next">The page that would follow; null when the form would end.</param>
/// <param name="Findings">What has to be put right on the open page; only looked for when it is to be left.</param>
/// <param name="Summary">The findings in one sentence; null when there are none.</param>
/// <param name="Review">All answers once more, when the last page is left and the form asks for it; else null.</param>
public sealed record EvaluatedPage(
    IReadOnlyList<string> Pages,
    IReadOnlyList<string> Shown,
    IReadOnlyList<string> Required,
    IReadOnlyDictionary<string, string> Wordings,
    IReadOnlyDictionary<string, string> Helps,
    IReadOnlyDictionary<string, string> Statements,
    IReadOnlyDictionary<string, string> WorkedOut,
    IReadOnlyDictionary<string, string> Notices,
    string? Next,
    IReadOnlyList<Finding> Findings,
    string? Summary,
    IReadOnlyList<ReviewPage>? Review
);

/// <summary>The answers of one page, as they would be sent.</summary>
/// <param name="Key">The page to turn back to.</param>
/// <param name="Title">Its title, with earlier answers in it.</param>
/// <param name="Lines">Its questions in order.</param>
public sealed record ReviewPage(string Key, string Title, IReadOnlyList<ReviewLine> Lines);

/// <summary>One answer, as it would be sent.</summary>
/// <param name="Key">The key of the question.</param>
/// <param name="Wording">Its wording, with earlier answers in it.</param>
/// <param name="Words">The answer in words; null for a blank.</param>
public sealed record ReviewLine(string Key, string Wording, string? Words);

/// <summary>Works out what a page shows while it is filled in, and what happens when it is left.</summary>
public static class PageEvaluation
{
    /// <summary>
    /// Where a filling-in stands. While a page is open nothing of it is blank for good; to leave it makes its blanks final, which
    /// may settle where it leads. Only then the page is checked, and the answers are shown once more when it was the last and the
    /// form asks for that.
    /// </summary>
    /// <param name="known">The form and what is known beside the answers.</param>
    /// <param name="answers">The normalised answers.</param>
    /// <param name="page">The key of the page that is open; one the form has.</param>
    /// <param name="leaving">Whether the page is to be left.</param>
    /// <param name="capacity">How much fits into the months; null where every month has room.</param>
    /// <param name="taken">How many inquiries each month has already.</param>
    public static EvaluatedPage Evaluate(
        AnswerContext known,
        IReadOnlyDictionary<string, Answer?> answers,
        string page,
        bool leaving,
        Capacity? capacity,
        IReadOnlyDictionary<YearMonth, int> taken
    )
    {
        var open = Routes.Trace(known, answers, page);
        var left = Routes.Trace(known, answers);
        var said = AnswerDoubts.About(known, open);
        // That a month is full matters more than a doubt about the day.
        if (capacity?.NoticeOf(open.Answers.GetValueOrDefault(capacity.Question).Answer, taken) is { } full)
            said[capacity.Question] = full;
        if (!leaving)
            return Show(known, open, left, open.Next, [], null, said);
        var next = left.Pages.SkipWhile(one => one != page).Skip(1).FirstOrDefault();
        var findings = AnswerChecks.Check(known, left, page);
        var review = known.Form.Review && next is null && findings.Count == 0 ? Review(known, left) : null;
        return Show(known, open, left, next, findings, review, said);
    }

    /// <summary>The first page of a form that was just opened.</summary>
    /// <param name="known">The form and what is known beside the answers.</param>
    /// <param name="start">The answers that stand in it already.</param>
    public static EvaluatedPage Begin(AnswerContext known, IReadOnlyDictionary<string, Answer?> start)
    {
        var open = Routes.Trace(known, start, known.Form.Pages[0].Key);
        return Show(known, open, open, open.Next, [], null, new Dictionary<string, string>());
    }

    private static EvaluatedPage Show(
        AnswerContext known,
        Route open,
        Route sofar,
        string? next,
        IReadOnlyList<Finding> findings,
        IReadOnlyList<ReviewPage>? review,
        IReadOnlyDictionary<string, string> notices
    )
    {
        var (now, then) = (open.Know(known), sofar.Know(known));
        var shown = open.Shown.ToHashSet();
        var (required, wordings, helps, statements, workedOut) = (
            new List<string>(),
            new Dictionary<string, string>(),
            new Dictionary<string, string>(),
            new Dictionary<string, string>(),
            new Dictionary<string, string>()
        );
        foreach (var page in known.Form.Pages.Where(page => open.Pages.Contains(page.Key)))
        {
            Differ(wordings, page.Key, page.Title, then);
            foreach (var item in page.Items.Where(item => shown.Contains(item.Key)))
                Tell(item, item.Key, now, then);
        }

        return new EvaluatedPage(
            open.Pages,
            [.. open.Shown],
            required,
            wordings,
            helps,
            statements,
            workedOut,
            notices,
            next,
            findings,
            findings.Count == 0 ? null : AnswerChecks.Summary(findings),
            review
        );

        void Tell(Item item, string place, AnswerContext now, AnswerContext then)
        {
            switch (item)
            {
                case Heading heading:
                    Differ(wordings, place, heading.Text, then);
                    break;
                case Passage passage:
                    Differ(wordings, place, passage.Text, then);
                    break;
                case Question question:
                    Differ(wordings, place, question.Wording, then);
                    Differ(helps, place, question.Help ?? "", then);
                    Differ(statements, place, question.Statement ?? "", then);
                    if (question.IsRequired(now))
                        required.Add(place);
                    if (
                        question.Kind is WorkedOutKind { Shown: true }
                        && then.Of(question.Key).Answer is { } value
                        && then.IsGrounded(question)
                    )
                        workedOut[place] = AnswerWords.Say(value, then.Behind(question.Key));
                    var rows = now.RowsOf(question.Key);
                    for (var index = 0; index < rows.Count; index++)
                    {
                        foreach (var cell in question.RowQuestions.Where(cell => shown.Contains(Places.InRow(place, index, cell.Key))))
                            Tell(
                                cell,
                                Places.InRow(place, index, cell.Key),
                                now.InRow(rows[index]),
                                then.InRow(then.RowsOf(question.Key)[index])
                            );
                    }

                    break;
            }
        }
    }

    /// <summary>All answers of a route once more, as they would be sent.</summary>
    private static List<ReviewPage> Review(AnswerContext known, Route route)
    {
        var now = route.Know(known);
        var asked = route.Asked(known.Form).ToHashSet();
        return
        [
            .. known
                .Form.Pages.Where(page => route.Pages.Contains(page.Key))
                .Select(page => new ReviewPage(
                    page.Key,
                    Wordings.Fill(page.Title, now),
                    [
                        .. page
                            .Questions.Where(question =>
                                asked.Contains(question.Key) && question.Kind is not (HiddenKind or WorkedOutKind { Shown: false })
                            )
                            .Select(question => new ReviewLine(
                                question.Key,
                                Wordings.Fill(question.Wording, now),
                                now.Of(question.Key).Answer is { } answer ? AnswerWords.Say(answer, now.Behind(question.Key)) : null
                            )),
                    ]
                )),
        ];
    }

    private static void Differ(Dictionary<string, string> said, string place, string words, AnswerContext known)
    {
        if (Wordings.Fill(words, known) is var filled && filled != words)
            said[place] = filled;
    }
}
