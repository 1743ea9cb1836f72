namespace PorchLight.Core.Screening;

/// <summary>One point of the curve: what share of each group lies at or above some score.</summary>
/// <param name="NotBooked">The share of those who did not book, from 0 to 1.</param>
/// <param name="Booked">The share of those who booked, from 0 to 1.</param>
public sealed record RocPoint(double NotBooked, double Booked);

/// <summary>How well scores part those who booked from those who did not.</summary>
/// <param name="Area">
/// The chance that of two, one who booked and one who did not, the first has the higher score, equal scores counting one half
/// (Mann-Whitney): 1 is perfect, 0.5 no better than chance.
/// </param>
/// <param name="Points">The curve from (0, 0) to (1, 1), one point for each score there is.</param>
public sealed record RocCurve(double Area, IReadOnlyList<RocPoint> Points)
{
    /// <summary>The curve; null when one of the groups is empty, so that there is nothing to part.</summary>
    /// <param name="booked">The scores of those who booked, in any order.</param>
    /// <param name="notBooked">The scores of those who did not.</param>
    public static RocCurve? Of(IReadOnlyCollection<int> booked, IReadOnlyCollection<int> notBooked)
    {
        if (booked.Count == 0 || notBooked.Count == 0)
            return null;
        var points = new List<RocPoint> { new(0, 0) };
        var (bookedAbove, notAbove, wins) = (0L, 0L, 0.0);
        foreach (
            var score in booked
                .Select(score => (score, IsBooked: true))
                .Concat(notBooked.Select(score => (score, IsBooked: false)))
                .GroupBy(one => one.score)
                .OrderByDescending(same => same.Key)
        )
        {
            var (here, notHere) = (score.LongCount(one => one.IsBooked), score.LongCount(one => !one.IsBooked));
            wins += notHere * (bookedAbove + here / 2.0);
            (bookedAbove, notAbove) = (bookedAbove + here, notAbove + notHere);
            points.Add(new RocPoint((double)notAbove / notBooked.Count, (double)bookedAbove / booked.Count));
        }

        return new RocCurve(wins / ((double)booked.Count * notBooked.Count), points);
    }
}
