using System.Globalization;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Conditions;

namespace PorchLight.Core.Forms;

/// <summary>The way a set of answers takes through a form.</summary>
/// <param name="Pages">The keys of the pages shown so far, in order.</param>
/// <param name="Answers">The state of every question of the form.</param>
/// <param name="Next">The page that follows the last one shown, or null when the form ends there.</param>
/// <param name="SendOff">The send-off a route rule led straight to, or null.</param>
public sealed record Route(IReadOnlyList<string> Pages, IReadOnlyDictionary<string, AnswerState> Answers, string? Next, string? SendOff)
{
    /// <summary>The keys of the questions that are asked, in form order.</summary>
    /// <param name="form">The form the route leads through; with another the outcome means nothing.</param>
    public IEnumerable<string> Asked(FormContent form) =>
        form
            .Pages.Where(page => Pages.Contains(page.Key))
            .SelectMany(page => page.Questions)
            .Where(question => Shown.Contains(question.Key))
            .Select(question => question.Key);

    /// <summary>
    /// The places that are shown, in the order they stand: keys of questions and content, and for what a row asks
    /// "signs/0/width" (see <see cref="Places.InRow"/>).
    /// </summary>
    public IReadOnlyCollection<string> Shown { get; init; } = [];

    /// <summary>The state of every question of every row, by the key of the question with the rows.</summary>
    public IReadOnlyDictionary<string, IReadOnlyList<IReadOnlyDictionary<string, AnswerState>>> Rows { get; init; } =
        new Dictionary<string, IReadOnlyList<IReadOnlyDictionary<string, AnswerState>>>();

    /// <summary>Whether a rule led to a send-off before the last page of the form was shown.</summary>
    /// <param name="form">The form the route leads through.</param>
    public bool IsEarlyExit(FormContent form) => SendOff is not null && (Pages.Count == 0 || Pages[^1] != form.Pages[^1].Key);

    /// <summary>What is known on this route.</summary>
    /// <param name="known">What is known beside the answers.</param>
    public AnswerContext Know(AnswerContext known) => known with { Answers = Answers, Rows = Rows };
}

/// <summary>Names places in a form.</summary>
public static class Places
{
    /// <summary>A row: "signs/0".</summary>
    /// <param name="rows">The key of the question with the rows.</param>
    /// <param name="index">The row, from 0.</param>
    public static string Row(string rows, int index) => $"{rows}/{index.ToString(CultureInfo.InvariantCulture)}";

    /// <summary>The key of the question a place belongs to: of "signs/0/width" it is "signs".</summary>
    /// <param name="place">A place as findings name it; one without a part is the key itself.</param>
    public static string QuestionOf(string place) => place.Split('/')[0];

    /// <summary>A question of a row: "signs/0/width".</summary>
    /// <param name="rows">The key of the question with the rows.</param>
    /// <param name="index">The row, from 0.</param>
    /// <param name="question">The key of the question in the row.</param>
    public static string InRow(string rows, int index, string question) => $"{Row(rows, index)}/{question}";
}

/// <summary>Walks a form forward. Pages run in order and routes lead only forward, so a walk always ends.</summary>
public static class Routes
{
    /// <summary>
    /// The route the answers take. Pages before <paramref name="current"/> have been left: what is blank there is blank
    /// for good. The current page is still open: what is blank there is not asked yet. Later pages are not asked yet.
    /// </summary>
    /// <param name="known">The form and what is known beside the answers; its own answer states are not used.</param>
    /// <param name="given">
    /// Answers by question key; absent or null means nothing was answered. Keys the form does not have are passed over.
    /// </param>
    /// <param name="current">The key of the page being filled in, or null when all pages have been left, as at sending.</param>
    public static Route Trace(AnswerContext known, IReadOnlyDictionary<string, Answer?> given, string? current = null)
    {
        var form = known.Form;
        var states = form.Questions.ToDictionary(question => question.Key, _ => AnswerState.NotAskedYet);
        var rows = new Dictionary<string, IReadOnlyList<IReadOnlyDictionary<string, AnswerState>>>();
        var now = known with { Answers = states, Rows = rows };
        var pages = new List<string>();
        var shown = new List<string>();

        for (var index = 0; index < form.Pages.Count; )
        {
            var page = form.Pages[index];
            if (page.ShownOnlyWhen.EvaluateOrTrue(now) != Truth.True)
            {
                PassBy(form.Pages.Skip(index).Take(1));
                index++;
                continue;
            }

            pages.Add(page.Key);
            var open = page.Key == current;
            foreach (var item in page.Items)
                Stand(item, open);

            var (next, sendOff) = Follow(index);
            if (open || sendOff is not null)
            {
                // Behind an open page everything may still change; behind a send-off nothing is asked any more.
                if (!open)
                    PassBy(form.Pages.Skip(index + 1));
                return new Route(pages, states, NextShown(next), sendOff) { Shown = shown, Rows = rows };
            }

            PassBy(form.Pages.Take(next).Skip(index + 1));
            index = next;
        }

        return new Route(pages, states, null, null) { Shown = shown, Rows = rows };

        void Stand(Item item, bool open)
        {
            var stands = item.OnlyWhen.EvaluateOrTrue(now);
            if (stands == Truth.True)
                shown.Add(item.Key);
            if (item is not Question question)
                return;
            var answer = stands == Truth.True ? AnswerOf(question, open) : null;
            states[question.Key] = StateOf(stands, answer, open);
        }

        Answer? AnswerOf(Question question, bool open)
        {
            switch (question.Kind, given.GetValueOrDefault(question.Key))
            {
                case (WorkedOutKind worked, _):
                    return worked.Value.WorkOut(now);
                case (RowsKind kind, RowsAnswer answer):
                    var walked = answer.Rows.Select((row, index) => WalkRow(question.Key, kind, row, index, open)).ToList();
                    rows[question.Key] = walked;
                    return answer.Rows.All(row => row.IsEmpty)
                        ? null
                        : new RowsAnswer([
                            .. walked.Select(row => new AnswerRow(
                                row.Where(cell => cell.Value.Answer is not null).ToDictionary(cell => cell.Key, cell => cell.Value.Answer)
                            )),
                        ]);
                case (_, var answer):
                    return answer;
            }
        }

        Dictionary<string, AnswerState> WalkRow(string key, RowsKind kind, AnswerRow row, int index, bool open)
        {
            var cells = kind.Questions.ToDictionary(question => question.Key, _ => AnswerState.NotAskedYet);
            var answers = new Dictionary<string, AnswerState>(states);
            var inRow = now with { Answers = answers };
            foreach (var question in kind.Questions)
            {
                var stands = question.AskedOnlyWhen.EvaluateOrTrue(inRow);
                if (stands == Truth.True)
                    shown.Add(Places.InRow(key, index, question.Key));
                var answer =
                    stands != Truth.True ? null
                    : question.Kind is WorkedOutKind worked ? worked.Value.WorkOut(inRow)
                    : row[question.Key];
                answers[question.Key] = cells[question.Key] = StateOf(stands, answer, open);
            }

            return cells;
        }

        static AnswerState StateOf(Truth stands, Answer? answer, bool open) =>
            (stands, answer) switch
            {
                (Truth.True, { } given) => AnswerState.Of(given),
                (Truth.True, null) => open ? AnswerState.NotAskedYet : AnswerState.Blank,
                (Truth.Unknown, _) when open => AnswerState.NotAskedYet,
                _ => AnswerState.OffRoute,
            };

        void PassBy(IEnumerable<Page> skipped)
        {
            foreach (var question in skipped.SelectMany(page => page.Questions))
                states[question.Key] = AnswerState.OffRoute;
        }

        (int Next, string? SendOff) Follow(int index)
        {
            var rule = form.Pages[index].Routes.FirstOrDefault(route => route.When.Evaluate(now) == Truth.True);
            if (rule is null)
                return (index + 1, null);
            var target = IndexOf(rule.To);
            return target > index ? (target, null) : (form.Pages.Count, form.FindSendOff(rule.To)?.Key);
        }

        int IndexOf(string page) => form.Pages.Select(p => p.Key).ToList().IndexOf(page);

        string? NextShown(int from) =>
            form.Pages.Skip(from).FirstOrDefault(page => page.ShownOnlyWhen.EvaluateOrTrue(now) == Truth.True)?.Key;
    }

    /// <summary>
    /// The send-off at the end of a route: the one a rule led to, else the first whose condition is true, else the
    /// default one. One without a condition is meant for a rule that leads to it, and is taken by no other route.
    /// </summary>
    /// <param name="route">A route that has ended.</param>
    /// <param name="known">What is known at the end, the verdict included.</param>
    public static SendOff End(Route route, AnswerContext known) =>
        (route.SendOff is { } key ? known.Form.FindSendOff(key) : null)
        ?? known.Form.SendOffs.FirstOrDefault(sendOff => sendOff.When?.Evaluate(known) == Truth.True)
        ?? known.Form.DefaultSendOff;
}
