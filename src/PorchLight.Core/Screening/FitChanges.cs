using System.Text.Json.Serialization;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Conditions;
using PorchLight.Core.Forms;

namespace PorchLight.Core.Screening;

/// <summary>One answer that would have to be another.</summary>
/// <param name="Question">The question's key.</param>
/// <param name="Wording">The question's wording.</param>
/// <param name="Answer">The answer that would change the verdict; null for a blank.</param>
/// <param name="Words">That answer in words, as the lead would read it.</param>
public sealed record AnswerChange(string Question, string Wording, Answer? Answer, string Words)
{
    /// <summary>What would have to be so, where it is not that the answer were something: "had one more sign".</summary>
    public string? Phrase { get; init; }
}

/// <summary>The smallest change of answers that gives a better fit.</summary>
/// <param name="Fit">The better fit.</param>
/// <param name="Changes">One or two answers.</param>
public sealed record WhatWouldChange(Fit Fit, IReadOnlyList<AnswerChange> Changes)
{
    /// <summary>"It would become Come in if “What have you set aside?” were “4,000 to 9,000”."</summary>
    [JsonIgnore]
    public string Sentence =>
        $"It would become {Fit.Say()} if {string.Join(" and ", Changes.Select(one => $"“{one.Wording}” {one.Phrase ?? $"were “{one.Words}”"}"))}.";
}

/// <summary>Finds what would change a verdict for the better.</summary>
public static class FitChanges
{
    /// <summary>How often everything is judged anew before the search is given up.</summary>
    public const int MostTries = 5_000;

    /// <summary>
    /// The smallest change (one question, then two) to an answer the form would accept, after which everything re-run gives
    /// a better fit; or null when there is none, or when it was not found within <see cref="MostTries"/>. Of several equally
    /// small ones the best fit wins, then the first in form order. Questions that say who the person is (name, e-mail, phone,
    /// address), what they agree to, sign or send along, and what nobody types are never changed; rows are changed, repeated and
    /// taken away, never made up.
    /// </summary>
    /// <param name="rules">The screening.</param>
    /// <param name="known">The form and what is on file.</param>
    /// <param name="given">The answers as sent.</param>
    /// <param name="alwaysComeIn">Whether the client is marked so.</param>
    public static WhatWouldChange? Find(
        ScreeningRules rules,
        AnswerContext known,
        IReadOnlyDictionary<string, Answer?> given,
        bool alwaysComeIn = false
    ) => new Search(rules, known, given, alwaysComeIn).Find();

    private sealed class Search
    {
        private readonly ScreeningRules _rules;
        private readonly AnswerContext _known;
        private readonly IReadOnlyDictionary<string, Answer?> _given;
        private readonly bool _alwaysComeIn;
        private readonly Fit _today;
        private readonly Route _route;
        private readonly HashSet<Finding> _accepted;
        private readonly AnswerProbes _probes;
        private int _tries;

        public Search(ScreeningRules rules, AnswerContext known, IReadOnlyDictionary<string, Answer?> given, bool alwaysComeIn)
        {
            (_rules, _known, _given, _alwaysComeIn) = (rules, known, given, alwaysComeIn);
            (_today, _route) = Judge(given);
            // What was wrong before is not held against the change.
            _accepted = [.. AnswerChecks.Check(known, _route)];
            _probes = new AnswerProbes(rules, known.Form);
        }

        public WhatWouldChange? Find()
        {
            if (_today == Fit.ComeIn)
                return null;
            WhatWouldChange? best = null;
            foreach (var one in _probes.Of(_known, _route, _given))
            {
                if (!Try([one], ref best))
                    return null;
            }

            if (best is not null)
                return best;
            foreach (var first in _probes.Of(_known, _route, _given))
            {
                var changed = With([first]);
                foreach (var second in _probes.Of(_known, Judge(changed).Route, changed, after: first.Question))
                {
                    if (!Try([first, second], ref best))
                        return null;
                    if (best?.Fit == Fit.ComeIn)
                        return best;
                }
            }

            return best;
        }

        /// <summary>Whether the search may go on.</summary>
        private bool Try(IReadOnlyList<AnswerChange> changes, ref WhatWouldChange? best)
        {
            if (++_tries > MostTries)
                return false;
            var (fit, route) = Judge(With(changes));
            if (fit > _today && (best is null || fit > best.Fit) && AnswerChecks.Check(_known, route).All(_accepted.Contains))
                best = new WhatWouldChange(fit, changes);
            return true;
        }

        private (Fit Fit, Route Route) Judge(IReadOnlyDictionary<string, Answer?> answers)
        {
            var route = Routes.Trace(_known, answers);
            return (Screener.Judge(_rules, route.Know(_known), _alwaysComeIn).Fit, route);
        }

        private Dictionary<string, Answer?> With(IReadOnlyList<AnswerChange> changes)
        {
            var changed = new Dictionary<string, Answer?>(_given);
            foreach (var change in changes)
                changed[change.Question] = change.Answer;
            return changed;
        }
    }
}
