using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Conditions;
using PorchLight.Core.Forms;

namespace PorchLight.Core.Screening;

/// <summary>Bounds the verdict over everything that can still be answered.</summary>
public static class FitRanges
{
    private const int MostCompletions = 4096;

    /// <summary>
    /// The lowest and highest fit and score over all completions of what is not asked yet. Signals that share open
    /// questions are bounded together by trying every class of answers, up to 4,096 completions a group; beyond that
    /// the bound may be wider, never narrower, so the final score always lies in every earlier range. A worked-out value
    /// that rests on an open question is open itself, whatever it is for the moment.
    /// </summary>
    /// <param name="rules">The screening.</param>
    /// <param name="known">The answers by state so far.</param>
    /// <param name="alwaysComeIn">Whether the client is marked so.</param>
    public static FitRange Of(ScreeningRules rules, AnswerContext known, bool alwaysComeIn = false)
    {
        var settled = known.SettledOnly();
        var bounds = Group(rules.Counting, settled)
            .Select(group => Bound(group, settled))
            .Aggregate(Bounds.Nothing, (sum, bound) => sum.Plus(bound));
        var (low, high) = (Screener.Total(rules.Base + bounds.LowPoints), Screener.Total(rules.Base + bounds.HighPoints));
        return new FitRange(
            low,
            high,
            Screener.Sort(rules, low, bounds.HighFlags, bounds.MayBreak && !alwaysComeIn),
            Screener.Sort(rules, high, bounds.LowFlags, bounds.MustBreak && !alwaysComeIn)
        );
    }

    /// <summary>Signals in groups that share no open question with each other.</summary>
    private static List<SignalGroup> Group(IEnumerable<Signal> signals, AnswerContext known)
    {
        var groups = new List<SignalGroup>();
        foreach (var signal in signals)
        {
            var open =
                signal.When.Evaluate(known) != Truth.Unknown
                    ? []
                    : signal.When.QuestionsUsed().Where(key => known.Of(key).Status == AnswerStatus.NotAskedYet).ToHashSet();
            var touching = groups.Where(group => group.Open.Overlaps(open)).ToList();
            groups.RemoveAll(touching.Contains);
            groups.Add(
                new SignalGroup(
                    [.. touching.SelectMany(group => group.Signals), signal],
                    [.. touching.SelectMany(group => group.Open), .. open]
                )
            );
        }

        return groups;
    }

    private static Bounds Bound(SignalGroup group, AnswerContext known)
    {
        var conditions = group.Signals.Select(signal => signal.When).ToList();
        var classes = new List<(string Key, IReadOnlyList<AnswerState> States)>();
        var completions = 1;
        foreach (var key in group.Open)
        {
            var states = known.Form.FindQuestion(key) is { } question
                ? AnswerClasses.Of(question, known, conditions, MostCompletions)
                : null;
            if (states is null || (completions *= states.Count) > MostCompletions)
                return group.Signals.Select(signal => Loosely(signal, known)).Aggregate(Bounds.Nothing, (sum, bound) => sum.Plus(bound));
            classes.Add((key, states));
        }

        return Completions(known, classes, 0).Select(completion => Exactly(group.Signals, completion)).Aggregate((a, b) => a.Hull(b));
    }

    private static IEnumerable<AnswerContext> Completions(
        AnswerContext known,
        List<(string Key, IReadOnlyList<AnswerState> States)> classes,
        int from
    ) =>
        from == classes.Count
            ? [known]
            : classes[from]
                .States.SelectMany(state =>
                    Completions(
                        known with
                        {
                            Answers = new Dictionary<string, AnswerState>(known.Answers) { [classes[from].Key] = state },
                        },
                        classes,
                        from + 1
                    )
                );

    private static Bounds Exactly(IEnumerable<Signal> signals, AnswerContext completion)
    {
        var raised = signals.Where(signal => signal.When.Evaluate(completion) == Truth.True).Select(signal => signal.Effect).ToList();
        var points = raised.OfType<PointsEffect>().Sum(effect => (long)effect.Points);
        var flags = raised.OfType<FlagEffect>().Count();
        var broken = raised.OfType<DealBreakerEffect>().Any();
        return new Bounds(points, points, flags, flags, broken, broken);
    }

    private static Bounds Loosely(Signal signal, AnswerContext known)
    {
        var truth = signal.When.Evaluate(known);
        var (can, must) = (truth != Truth.False, truth == Truth.True);
        return signal.Effect switch
        {
            PointsEffect { Points: var p } => new Bounds(
                must ? p
                    : can ? Math.Min(0, p)
                    : 0,
                must ? p
                    : can ? Math.Max(0, p)
                    : 0,
                0,
                0,
                false,
                false
            ),
            FlagEffect => new Bounds(0, 0, must ? 1 : 0, can ? 1 : 0, false, false),
            _ => new Bounds(0, 0, 0, 0, must, can),
        };
    }

    private sealed record SignalGroup(IReadOnlyList<Signal> Signals, HashSet<string> Open);

    private sealed record Bounds(long LowPoints, long HighPoints, int LowFlags, int HighFlags, bool MustBreak, bool MayBreak)
    {
        public static Bounds Nothing { get; } = new(0, 0, 0, 0, false, false);

        /// <summary>Both groups happen.</summary>
        public Bounds Plus(Bounds other) =>
            new(
                LowPoints + other.LowPoints,
                HighPoints + other.HighPoints,
                LowFlags + other.LowFlags,
                HighFlags + other.HighFlags,
                MustBreak || other.MustBreak,
                MayBreak || other.MayBreak
            );

        /// <summary>One or the other happens.</summary>
        public Bounds Hull(Bounds other) =>
            new(
                Math.Min(LowPoints, other.LowPoints),
                Math.Max(HighPoints, other.HighPoints),
                Math.Min(LowFlags, other.LowFlags),
                Math.Max(HighFlags, other.HighFlags),
                MustBreak && other.MustBreak,
                MayBreak || other.MayBreak
            );
    }
}
