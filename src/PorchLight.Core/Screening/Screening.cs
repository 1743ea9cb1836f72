using System.Text.Json.Serialization;
using PorchLight.Core.Common;
using PorchLight.Core.Conditions;
using PorchLight.Core.Forms;

namespace PorchLight.Core.Screening;

/// <summary>The signals, base and thresholds of one form.</summary>
/// <param name="Base">Points everybody starts with.</param>
/// <param name="ComeInAt">This score and above is <see cref="Fit.ComeIn"/>.</param>
/// <param name="Floor">Below this score is <see cref="Fit.NotNow"/>; at most <paramref name="ComeInAt"/>.</param>
/// <param name="FlagLimit">So many raised flags are <see cref="Fit.NotNow"/>; at least 1.</param>
/// <param name="Signals">What answers tell about fit.</param>
public sealed record ScreeningRules(int Base, int ComeInAt, int Floor, int FlagLimit, IReadOnlyList<Signal> Signals)
{
    /// <summary>The signals that count: those that are not switched off.</summary>
    [JsonIgnore]
    public IEnumerable<Signal> Counting => Signals.Where(signal => !signal.IsOff);

    /// <summary>Whether it sorts anything; without signals that count there is no verdict to speak of.</summary>
    [JsonIgnore]
    public bool Sorts => Counting.Any();

    /// <summary>Whether any signal that counts looks at what is on file.</summary>
    [JsonIgnore]
    public bool LooksOnFile => Counting.SelectMany(signal => signal.When.Comparisons()).Any(comparison => comparison.Of is ValueOnFile);

    /// <summary>Whether any signal that counts rules out whom it is true of, unless they always come in.</summary>
    [JsonIgnore]
    public bool BreaksDeals => Counting.Any(signal => signal.Effect is DealBreakerEffect);

    /// <summary>No signal gives or takes more points, and no threshold is further away.</summary>
    public const int MostPoints = 10_000;

    /// <summary>So many signals a form can have; far more than anybody can keep in mind.</summary>
    public const int MostSignals = 100;

    private const int LongestSentence = 200;
    private const int LongestAdvice = 500;

    /// <summary>What has to be put right before these rules can judge; the place is a signal's key, or the name of the number.</summary>
    public IReadOnlyList<Finding> Check() =>
        [
            .. new[] { ("base", Base), ("comeInAt", ComeInAt), ("floor", Floor) }
                .Where(number => Math.Abs((long)number.Item2) > MostPoints)
                .Select(number => new Finding(number.Item1, $"Choose a number of points up to {MostPoints:N0}.")),
            .. Floor > ComeInAt
                ? [new Finding("floor", "The points for Not now lie above those for Come in. Lower the one or raise the other.")]
                : Array.Empty<Finding>(),
            .. FlagLimit < 1 ? [new Finding("flagLimit", "At least one flag must be needed for Not now.")] : Array.Empty<Finding>(),
            .. Signals.Count > MostSignals
                ? [new Finding("signals", $"A form can have up to {MostSignals} signals. Take some away first.")]
                : Array.Empty<Finding>(),
            .. Signals
                .GroupBy(signal => signal.Key)
                .Where(same => same.Key.Length == 0 || same.Count() > 1)
                .Select(same => new Finding(same.Key, "Two signals have one key, or one has none.")),
            .. Signals
                .Where(signal => string.IsNullOrWhiteSpace(signal.Sentence))
                .Select(signal => new Finding(signal.Key, "Say in a few words what this tells you.")),
            .. Signals
                .Where(signal => signal.Sentence.Length > LongestSentence || signal.Advice?.Length > LongestAdvice)
                .Select(signal => new Finding(
                    signal.Key,
                    $"What it tells has up to {LongestSentence} characters, the advice up to {LongestAdvice}. Say it more shortly."
                )),
            .. Signals
                .Where(signal => signal.Effect is PointsEffect { Points: > MostPoints or < -MostPoints })
                .Select(signal => new Finding(signal.Key, $"A signal gives or takes at most {MostPoints:N0} points.")),
            .. Signals.SelectMany(signal => ConditionBounds.Check(signal.When).Select(sentence => new Finding(signal.Key, sentence))),
        ];
}

/// <summary>One thing an answer tells about fit.</summary>
/// <param name="Key">Names it within the screening.</param>
/// <param name="Sentence">What it means when it is true, as one could say it aloud: "Budget above where murals start".</param>
/// <param name="When">It counts only when this is true.</param>
/// <param name="Effect">What it does.</param>
public sealed record Signal(string Key, string Sentence, Condition When, SignalEffect Effect)
{
    /// <summary>What to do or to ask in the reply when it is true; null for nothing in particular.</summary>
    public string? Advice { get; init; }

    /// <summary>Whether it is switched off: it stays where it is, and counts for nothing.</summary>
    public bool IsOff { get; init; }
}

/// <summary>What a true signal does.</summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(PointsEffect), "points")]
[JsonDerivedType(typeof(FlagEffect), "flag")]
[JsonDerivedType(typeof(DealBreakerEffect), "dealBreaker")]
public abstract record SignalEffect;

/// <summary>Adds points, or takes them away.</summary>
/// <param name="Points">Positive or negative.</param>
public sealed record PointsEffect(int Points) : SignalEffect;

/// <summary>Raises a flag.</summary>
public sealed record FlagEffect : SignalEffect;

/// <summary>Ends it: the fit is <see cref="Fit.NotNow"/>, unless the client is always welcome.</summary>
public sealed record DealBreakerEffect : SignalEffect;

/// <summary>What one signal came to.</summary>
/// <param name="Signal">The signal's key.</param>
/// <param name="Sentence">The signal's sentence.</param>
/// <param name="Truth">Unknown is kept apart from false.</param>
/// <param name="Points">The points it added: zero unless it is true and gives points.</param>
/// <param name="Weight">The points it would give if it were true; zero for flags and deal-breakers.</param>
/// <param name="Flag">Whether it raises a flag when true.</param>
/// <param name="DealBreaker">Whether it ends it when true.</param>
public sealed record Contribution(string Signal, string Sentence, Truth Truth, int Points, int Weight, bool Flag, bool DealBreaker)
{
    /// <summary>What to do or to ask in the reply, where the signal is true and says so; else null.</summary>
    public string? Advice { get; init; }
}

/// <summary>The verdict on one set of answers, with its reasons.</summary>
/// <param name="Fit">The fit.</param>
/// <param name="Score">Base and points of the true signals.</param>
/// <param name="Base">The points everybody starts with.</param>
/// <param name="Flags">How many flags are raised.</param>
/// <param name="Contributions">
/// Every signal that counts: the true ones first, deal-breakers and flags before points, larger before smaller; then the unknown,
/// then the false.
/// </param>
/// <param name="OverComeIn">The score less the come-in threshold; negative below it.</param>
/// <param name="OverFloor">The score less the floor; negative below it.</param>
public sealed record Verdict(
    Fit Fit,
    int Score,
    int Base,
    int Flags,
    IReadOnlyList<Contribution> Contributions,
    int OverComeIn,
    int OverFloor
)
{
    /// <summary>How far the score is from the next threshold, in words: "5 more than Come in needs".</summary>
    public string SayMargin() =>
        OverComeIn >= 0 ? $"{OverComeIn} more than {Fit.ComeIn.Say()} needs"
        : OverFloor < 0 ? $"{-(long)OverFloor} fewer than {Fit.TalkFirst.Say()} needs"
        : $"{-(long)OverComeIn} fewer than {Fit.ComeIn.Say()} needs";
}

/// <summary>Bounds on what a verdict can still become.</summary>
/// <param name="LowScore">No completion scores lower.</param>
/// <param name="HighScore">No completion scores higher.</param>
/// <param name="WorstFit">No completion fits worse.</param>
/// <param name="BestFit">No completion fits better.</param>
public sealed record FitRange(int LowScore, int HighScore, Fit WorstFit, Fit BestFit);

/// <summary>Judges answers by the rules of a form.</summary>
public static class Screener
{
    /// <summary>
    /// The verdict on what is known now. A signal counts when its condition is true; unknown counts for nothing.
    /// </summary>
    /// <param name="rules">The screening.</param>
    /// <param name="known">The answers by state, and values on file.</param>
    /// <param name="alwaysComeIn">Whether the client is marked so; deal-breakers then do not count.</param>
    public static Verdict Judge(ScreeningRules rules, AnswerContext known, bool alwaysComeIn = false)
    {
        var contributions = rules.Counting.Select(signal => Contribute(signal, known)).ToList();
        var score = Total(rules.Base + contributions.Sum(contribution => (long)contribution.Points));
        var raised = contributions.Where(contribution => contribution.Truth == Truth.True).ToList();
        var flags = raised.Count(contribution => contribution.Flag);
        var broken = raised.Any(contribution => contribution.DealBreaker);
        return new Verdict(
            Sort(rules, score, flags, broken && !alwaysComeIn),
            score,
            rules.Base,
            flags,
            [
                .. contributions
                    .OrderByDescending(contribution => contribution.Truth == Truth.True)
                    .ThenByDescending(contribution => contribution.Truth == Truth.Unknown)
                    .ThenByDescending(contribution => contribution.DealBreaker)
                    .ThenByDescending(contribution => contribution.Flag)
                    .ThenByDescending(contribution => Math.Abs(contribution.Weight)),
            ],
            Total((long)score - rules.ComeInAt),
            Total((long)score - rules.Floor)
        );
    }

    /// <summary>Fit and score alone, as <see cref="Judge"/> has them, for whoever judges many.</summary>
    /// <param name="rules">The screening.</param>
    /// <param name="known">The answers by state, and values on file.</param>
    /// <param name="alwaysComeIn">Whether the client is marked so; deal-breakers then do not count.</param>
    public static (Fit Fit, int Score) Sort(ScreeningRules rules, AnswerContext known, bool alwaysComeIn = false)
    {
        var (points, flags, broken) = ((long)rules.Base, 0, false);
        foreach (var signal in rules.Signals)
        {
            if (signal.IsOff || signal.When.Evaluate(known) != Truth.True)
                continue;
            if (signal.Effect is PointsEffect effect)
                points += effect.Points;
            else if (signal.Effect is FlagEffect)
                flags++;
            else
                broken = true;
        }

        var score = Total(points);
        return (Sort(rules, score, flags, broken && !alwaysComeIn), score);
    }

    /// <summary>The fit of a score, a number of flags and whether a deal-breaker is true.</summary>
    internal static Fit Sort(ScreeningRules rules, int score, int flags, bool broken) =>
        broken || flags >= rules.FlagLimit ? Fit.NotNow
        : score >= rules.ComeInAt ? Fit.ComeIn
        : score < rules.Floor ? Fit.NotNow
        : Fit.TalkFirst;

    /// <summary>Points as a score; beyond a thousand million they count as that many.</summary>
    internal static int Total(long points) => (int)Math.Clamp(points, -1_000_000_000, 1_000_000_000);

    private static Contribution Contribute(Signal signal, AnswerContext known)
    {
        var truth = signal.When.Evaluate(known);
        var weight = signal.Effect is PointsEffect points ? points.Points : 0;
        return new Contribution(
            signal.Key,
            signal.Sentence,
            truth,
            truth == Truth.True ? weight : 0,
            weight,
            signal.Effect is FlagEffect,
            signal.Effect is DealBreakerEffect
        )
        {
            Advice = truth == Truth.True ? signal.Advice : null,
        };
    }
}
