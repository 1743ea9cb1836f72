using System.Text.Json.Serialization;
using PorchLight.Core.Forms;
using PorchLight.Core.Records;

namespace PorchLight.Core.Screening;

/// <summary>One answer that would have to be another.</summary>
/// <param name="Question">The question's key.</param>
/// <param name="Wording">The question's wording.</param>
/// <param name="Answer">The answer that would change the verdict.</param>
/// <param name="Words">That answer in words, as the lead would read it.</param>
public sealed record AnswerChange(string Question, string Wording, Answer Answer, string Words);

/// <summary>The smallest change of answers that gives a better fit.</summary>
/// <param name="Fit">The better fit.</param>
/// <param name="Changes">One or two answers.</param>
public sealed record WhatWouldChange(Fit Fit, IReadOnlyList<AnswerChange> Changes)
{
    /// <summary>"It would become Come in if “What have you set aside?” were “4,000 to 9,000”."</summary>
    [JsonIgnore]
    public string Sentence =>
        $"It would become {Fit.Say()} if {string.Join(" and ", Changes.Select(one => $"“{one.Wording}” were “{one.Words}”"))}.";
}

/// <summary>Finds what would change a verdict for the better.</summary>
public static class Changes
{
    private const int MostClasses = 64;

    /// <summary>
    /// The smallest change (one question, then two) after which everything re-run gives a better fit, or null when
    /// there is none. Of several equally small ones the best fit wins, then the first in form order. Questions that say
    /// who the person is (name, e-mail, phone, address) are never changed.
    /// </summary>
    /// <param name="rules">The screening.</param>
    /// <param name="known">The form and what is on file.</param>
    /// <param name="given">The answers as sent.</param>
    /// <param name="alwaysComeIn">Whether the client is marked so.</param>
    public static WhatWouldChange? Find(
        ScreeningRules rules, Known known, IReadOnlyDictionary<string, Answer?> given, bool alwaysComeIn = false)
    {
        var today = Refit(given);
        if (today == Fit.ComeIn)
            return null;

        var singles = Singles(rules, known, given).ToList();
        var pairs = singles.SelectMany((first, index) => singles.Skip(index + 1)
            .Where(second => second.Question != first.Question)
            .Select(second => new[] { first, second }));
        return Best(singles.Select(change => new[] { change })) ?? Best(pairs);

        WhatWouldChange? Best(IEnumerable<AnswerChange[]> candidates) => candidates
            .Select(changes => new WhatWouldChange(Refit(With(given, changes)), changes))
            .Where(found => found.Fit > today)
            .Aggregate((WhatWouldChange?)null, (best, found) => best is null || found.Fit > best.Fit ? found : best);

        Fit Refit(IReadOnlyDictionary<string, Answer?> answers) => Screener.Judge(
            rules, Routes.Trace(known, answers).Know(known), alwaysComeIn).Fit;
    }

    private static IEnumerable<AnswerChange> Singles(ScreeningRules rules, Known known, IReadOnlyDictionary<string, Answer?> given)
    {
        var conditions = rules.Signals.Select(signal => signal.When).ToList();
        var used = conditions.SelectMany(condition => condition.QuestionsUsed()).ToHashSet();
        var route = Routes.Trace(known, given);
        return from key in route.Asked(known.Form)
               let question = known.Form.FindQuestion(key)
               where used.Contains(key) && question.Kind is YesNoKind or ChoiceKind or NumberKind or MoneyKind or DateKind
               from state in AnswerClasses.Of(question, conditions, known.Today, MostClasses) ?? []
               let answer = state.Answer
               where answer is not null && !answer.Equals(given.GetValueOrDefault(key))
               select new AnswerChange(key, question.Wording, answer, AnswerWords.Say(answer, question));
    }

    private static Dictionary<string, Answer?> With(IReadOnlyDictionary<string, Answer?> given, AnswerChange[] changes)
    {
        var changed = new Dictionary<string, Answer?>(given);
        foreach (var change in changes)
            changed[change.Question] = change.Answer;
        return changed;
    }
}
