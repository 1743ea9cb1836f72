using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Forms;

namespace PorchLight.Core.Tests.Forms;

/// <summary>
/// A form filled in on paper, page after page, with every rule read anew at each line. What is crossed out is off the route.
/// </summary>
internal sealed class NaiveWalk
{
    private readonly FormContent _form;
    private readonly LocalDate _today;
    private readonly IReadOnlyDictionary<string, Answer?> _given;
    private readonly Dictionary<string, AnswerState> _sheet = [];
    private readonly Dictionary<string, IReadOnlyList<IReadOnlyDictionary<string, AnswerState>>> _rows = [];

    public NaiveWalk(FormContent form, LocalDate today, IReadOnlyDictionary<string, Answer?> given, string? openPage = null)
    {
        (_form, _today, _given) = (form, today, given);
        var leaf = 0;
        while (leaf < form.Pages.Count)
        {
            var page = form.Pages[leaf];
            if (page.ShownOnlyWhen is { } when && NaiveTruth.Of(when, Now) != true)
            {
                CrossOut(page);
                leaf++;
                continue;
            }

            Pages.Add(page.Key);
            foreach (var question in page.Questions)
                _sheet[question.Key] = Fill(question, page.Key == openPage);
            var to = page.Routes.Where(rule => NaiveTruth.Of(rule.When, Now) == true).Select(rule => rule.To).FirstOrDefault();
            var jump =
                to is null ? leaf + 1
                : form.Pages.ToList().FindIndex(later => later.Key == to) is >= 0 and var found ? found
                : form.Pages.Count;
            SendOff = jump == form.Pages.Count && to is not null ? to : null;
            if (page.Key == openPage)
                return;
            for (leaf++; leaf < jump; leaf++)
                CrossOut(form.Pages[leaf]);
        }
    }

    public List<string> Pages { get; } = [];

    public string? SendOff { get; private set; }

    public AnswerState State(string question) => _sheet.GetValueOrDefault(question);

    private AnswerContext Now => new(_form, _sheet, _today) { Rows = _rows };

    private void CrossOut(Page page)
    {
        foreach (var question in page.Questions)
            _sheet[question.Key] = AnswerState.OffRoute;
    }

    private AnswerState Fill(Question question, bool open)
    {
        var asked = question.AskedOnlyWhen is { } when ? NaiveTruth.Of(when, Now) : true;
        if (asked != true)
            return asked is null && open ? AnswerState.NotAskedYet : AnswerState.OffRoute;
        var answer = question.Kind is WorkedOutKind worked ? worked.Value.WorkOut(Now) : _given.GetValueOrDefault(question.Key);
        if (answer is RowsAnswer { Rows: var rows })
            _rows[question.Key] =
            [
                .. rows.Select(row =>
                    question.RowQuestions.ToDictionary(
                        cell => cell.Key,
                        cell =>
                            row[cell.Key] is { } said ? AnswerState.Of(said)
                            : open ? AnswerState.NotAskedYet
                            : AnswerState.Blank
                    )
                ),
            ];
        return answer is not null ? AnswerState.Of(answer)
            : open ? AnswerState.NotAskedYet
            : AnswerState.Blank;
    }
}
