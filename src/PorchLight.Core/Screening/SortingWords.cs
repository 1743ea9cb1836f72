using System.Globalization;

namespace PorchLight.Core.Screening;

/// <summary>Says what sorting again has shown.</summary>
public static class SortingWords
{
    /// <summary>"11 would move up, nobody down.", or that nobody would move; and how many would be sorted for the first time.</summary>
    /// <param name="report">The report.</param>
    public static string SayMoves(this SortingReport report)
    {
        var (up, down) = (
            report.Moves.Where(move => move.To > move.From).Sum(move => move.Count),
            report.Moves.Where(move => move.To < move.From).Sum(move => move.Count)
        );
        var first = report.Unsorted.Sum(one => one.Count);
        if (report.Inquiries.Count == 0)
            return "No inquiry has come by this form yet.";
        var moves =
            first == report.Inquiries.Count ? ""
            : up + down == 0 ? "Nobody would move. "
            : $"{Many(up)} would move up, {Many(down).ToLowerInvariant()} down. ";
        return $"{moves}{(first == 0 ? "" : $"{first} would be sorted for the first time.")}".TrimEnd();
    }

    /// <summary>What was learned from, and what was left out; or that it is too little.</summary>
    /// <param name="report">The report.</param>
    public static string SayHistory(this SortingReport report)
    {
        var left = report.Declined == 0 ? "" : $" {report.Declined} you declined yourselves are left out: they could never be booked.";
        return report.HasEnough
            ? $"From {report.Booked} booked and {report.NotBooked} not booked.{left}"
            : $"Too little history to trust these numbers: {report.Booked} booked, {report.NotBooked} not booked. With {SortingReport.LeastToLearn} of each they begin to mean something.{left}";
    }

    /// <summary>"It would have turned away 1 of 31 booked."; null when nothing was booked.</summary>
    /// <param name="report">The report.</param>
    public static string? SayTurnedAway(this SortingReport report) =>
        report.TurnedAway.Of == 0
            ? null
            : $"It would have turned away {Many(report.TurnedAway.Count).ToLowerInvariant()} of {report.TurnedAway.Of} booked.";

    /// <summary>"About 3 hours of first calls would not have been held."; null when none would have been saved.</summary>
    /// <param name="report">The report.</param>
    public static string? SaySaved(this SortingReport report) =>
        report.MinutesSaved switch
        {
            0 => null,
            < 60 => $"{report.MinutesSaved} minutes of first calls would not have been held.",
            var minutes =>
                $"About {Math.Round(minutes / 60.0)} {(minutes < 90 ? "hour" : "hours")} of first calls would not have been held.",
        };

    /// <summary>"61 % booked, most likely between 46 and 74 %, of 40"; of an empty group that nobody is there.</summary>
    /// <param name="share">The share.</param>
    public static string Say(this Proportion share) =>
        share.Of == 0
            ? "nobody decided yet"
            : $"{Percent(share.Share)} % booked, most likely between {Percent(share.Low)} and {Percent(share.High)} %, of {share.Of}";

    /// <summary>What became of an inquiry, in a word or two.</summary>
    /// <param name="outcome">The outcome.</param>
    public static string Say(this Outcome outcome) =>
        outcome switch
        {
            Outcome.Booked => "booked",
            Outcome.NotBooked => "not booked",
            Outcome.Declined => "you declined",
            _ => "open",
        };

    /// <summary>Of how many it was true and how many of them booked: "41, 56 % booked"; null when it was true of nobody decided.</summary>
    /// <param name="suggested">What history says of the signal.</param>
    public static string? SayCounts(this SuggestedPoints suggested) =>
        suggested.Counts.True == 0
            ? null
            : $"{suggested.Counts.True}, {Percent((double)suggested.Counts.TrueBooked / suggested.Counts.True)} % booked";

    /// <summary>"History would say −4: 7 of 19 booked where it was true, 20 of 41 where not."; null when it says nothing.</summary>
    /// <param name="suggested">What history says of the signal.</param>
    public static string? SayPoints(this SuggestedPoints suggested) =>
        suggested is { Points: { } points, Counts: var counts }
            ? $"History would say {(points > 0 ? "+" : "")}{Number(points)}: {counts.TrueBooked} of {counts.True} booked where it was true, {counts.FalseBooked} of {counts.False} where not."
            : null;

    /// <summary>How well the points part those who booked from those who did not; null when nothing can be said.</summary>
    /// <param name="roc">The curve, or null.</param>
    public static string? Say(this RocCurve? roc) =>
        roc is null
            ? null
            : string.Create(
                CultureInfo.InvariantCulture,
                $"Of two leads, one who booked and one who did not, the one who booked has more points {Math.Round(roc.Area * 100)} times in 100; 50 would be chance."
            );

    /// <summary>Where the points of past inquiries lie, in words.</summary>
    /// <param name="report">The report.</param>
    public static string? SayWhere(this SortingReport report)
    {
        if (report.Inquiries.Count == 0)
            return null;
        var scores = report.Inquiries.Select(one => one.Score).Order().ToList();
        return scores.Count < 4
            ? $"{scores.Count} past {(scores.Count == 1 ? "inquiry" : "inquiries")}, from {Number(scores[0])} to {Number(scores[^1])} points."
            : $"{scores.Count} past inquiries, from {Number(scores[0])} to {Number(scores[^1])} points; the middle half is between {Number(scores[scores.Count / 4])} and {Number(scores[scores.Count * 3 / 4])}.";
    }

    private static int Percent(double share) => (int)Math.Round(share * 100, MidpointRounding.AwayFromZero);

    private static string Number(int points) => points < 0 ? $"−{-(long)points}" : $"{points}";

    private static string Many(int count) => count == 0 ? "Nobody" : $"{count}";
}
