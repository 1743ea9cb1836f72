using PorchLight.Core.Common;
using PorchLight.Core.Conditions;

namespace PorchLight.Core.Screening;

/// <summary>How often a signal was true or false of inquiries whose outcome is known.</summary>
/// <param name="TrueBooked">True of so many that were booked.</param>
/// <param name="TrueNotBooked">True of so many that were not.</param>
/// <param name="FalseBooked">False of so many that were booked.</param>
/// <param name="FalseNotBooked">False of so many that were not.</param>
public sealed record SignalCounts(int TrueBooked, int TrueNotBooked, int FalseBooked, int FalseNotBooked)
{
    /// <summary>Of how many inquiries it was true.</summary>
    public int True => TrueBooked + TrueNotBooked;

    /// <summary>Of how many inquiries it was false.</summary>
    public int False => FalseBooked + FalseNotBooked;
}

/// <summary>What history says of one signal.</summary>
/// <param name="Signal">The signal's key.</param>
/// <param name="Counts">How often it was true and false of inquiries whose outcome is known.</param>
/// <param name="Points">The points history suggests; null for a flag or deal-breaker, and where there is too little history.</param>
public sealed record SuggestedPoints(string Signal, SignalCounts Counts, int? Points)
{
    /// <summary>As many points as double the odds of a booking.</summary>
    public const double PointsToDoubleOdds = 20;

    /// <summary>
    /// The weight of evidence of the signal being true less that of its being false, in points: each is the logarithm of how much
    /// more often it is met among those who booked than among those who did not, one half added to each count so that none is
    /// without end (I. J. Good, Probability and the Weighing of Evidence, 1950; the usual scaling of score cards).
    /// </summary>
    /// <param name="counts">The counts of known cases.</param>
    /// <returns>
    /// The points, not rounded; null with fewer than 10 booked or fewer than 10 not booked, and for what was true of all or of nobody,
    /// which parts nothing.
    /// </returns>
    public static double? Weigh(SignalCounts counts)
    {
        var (booked, notBooked) = (counts.TrueBooked + counts.FalseBooked, counts.TrueNotBooked + counts.FalseNotBooked);
        if (booked < SortingReport.LeastToLearn || notBooked < SortingReport.LeastToLearn || counts.True == 0 || counts.False == 0)
            return null;
        return Evidence(counts.TrueBooked, counts.TrueNotBooked) - Evidence(counts.FalseBooked, counts.FalseNotBooked);

        double Evidence(int ofBooked, int ofNotBooked) =>
            PointsToDoubleOdds / Math.Log(2) * Math.Log((ofBooked + 0.5) / (booked + 1) / ((ofNotBooked + 0.5) / (notBooked + 1)));
    }
}

/// <summary>What history says of a screening.</summary>
/// <param name="Signals">One for each signal that counts, in the order of the rules.</param>
/// <param name="Base">
/// The points everybody would start with beside the suggested ones, so that past inquiries score as much as today on average and
/// the thresholds keep their meaning; null when nothing is suggested.
/// </param>
public sealed record Suggestions(IReadOnlyList<SuggestedPoints> Signals, int? Base)
{
    /// <summary>The rules with the suggested points in them; what nothing is suggested for stays as it is.</summary>
    /// <param name="rules">The rules the suggestions were made for.</param>
    public ScreeningRules Into(ScreeningRules rules) =>
        rules with
        {
            Base = Base ?? rules.Base,
            Signals =
            [
                .. rules.Signals.Select(signal =>
                    Signals.FirstOrDefault(one => one.Signal == signal.Key)?.Points is { } points
                        ? signal with
                        {
                            Effect = new PointsEffect(points),
                        }
                        : signal
                ),
            ],
        };
}

/// <summary>Learns points from what became of past inquiries.</summary>
public static class PointSuggestions
{
    /// <summary>
    /// What history says. Inquiries that are open still, or that the business declined itself, teach nothing; nor does a signal
    /// that is unknown of an inquiry.
    /// </summary>
    /// <param name="rules">The rules as they stand.</param>
    /// <param name="inquiries">The past inquiries of the form.</param>
    public static Suggestions For(ScreeningRules rules, IReadOnlyList<PastInquiry> inquiries)
    {
        var decided = inquiries.Where(one => one.Outcome is Outcome.Booked or Outcome.NotBooked).ToList();
        var suggested = rules.Counting.Select(signal => For(signal, decided)).ToList();
        if (suggested.All(one => one.Points is null))
            return new Suggestions(suggested, null);
        var withPoints = new Suggestions(suggested, rules.Base).Into(rules);
        var shift = decided.Average(one => (double)Screener.Sort(rules, one.Known).Score - Screener.Sort(withPoints, one.Known).Score);
        return new Suggestions(suggested, Bounded(rules.Base + shift));
    }

    private static SuggestedPoints For(Signal signal, List<PastInquiry> decided)
    {
        var counts = new int[4];
        foreach (var one in decided)
        {
            var truth = signal.When.Evaluate(one.Known);
            if (truth != Truth.Unknown)
                counts[(truth == Truth.True ? 0 : 2) + (one.Outcome == Outcome.Booked ? 0 : 1)]++;
        }

        var counted = new SignalCounts(counts[0], counts[1], counts[2], counts[3]);
        return new SuggestedPoints(
            signal.Key,
            counted,
            signal.Effect is PointsEffect && SuggestedPoints.Weigh(counted) is { } points ? Bounded(points) : null
        );
    }

    private static int Bounded(double points) =>
        (int)Math.Clamp(Math.Round(points, MidpointRounding.AwayFromZero), -ScreeningRules.MostPoints, ScreeningRules.MostPoints);
}
