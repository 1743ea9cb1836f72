using PorchLight.Core.Conditions;
using PorchLight.Core.Forms;

namespace PorchLight.Core.Screening;

/// <summary>What became of an inquiry.</summary>
public enum Outcome
{
    /// <summary>Nothing is decided yet.</summary>
    Open,

    /// <summary>The work was agreed.</summary>
    Booked,

    /// <summary>They could have booked and did not.</summary>
    NotBooked,

    /// <summary>The business itself said no, so that it could never be booked.</summary>
    Declined,
}

/// <summary>An inquiry as it came in, and what became of it.</summary>
/// <param name="Id">Which one.</param>
/// <param name="Before">How it is sorted today, whoever did it; null where its form sorted nothing then.</param>
/// <param name="Outcome">What became of it.</param>
/// <param name="HadFirstCall">Whether the business talked with them.</param>
/// <param name="Known">Its answers by state, and what was on file when it came.</param>
public sealed record PastInquiry(Guid Id, Fit? Before, Outcome Outcome, bool HadFirstCall, AnswerContext Known)
{
    /// <summary>Whether the client is marked as always welcome.</summary>
    public bool AlwaysComesIn { get; init; }
}

/// <summary>How a past inquiry would be sorted by other rules.</summary>
/// <param name="Id">Which one.</param>
/// <param name="Before">How it is sorted today; null where its form sorted nothing then.</param>
/// <param name="Now">How it would be sorted.</param>
/// <param name="Score">Its points by the other rules.</param>
/// <param name="Outcome">What became of it.</param>
/// <param name="HadFirstCall">Whether the business talked with them.</param>
public sealed record SortedInquiry(Guid Id, Fit? Before, Fit Now, int Score, Outcome Outcome, bool HadFirstCall)
{
    /// <summary>Whether it moves; what was never sorted does not.</summary>
    public bool Moves => Before is { } before && before != Now;
}

/// <summary>How many moved from one fit to another.</summary>
/// <param name="From">The fit today.</param>
/// <param name="To">The fit by the other rules; the same for those who stay.</param>
/// <param name="Count">How many.</param>
/// <param name="Booked">How many of them booked.</param>
public sealed record FitMove(Fit From, Fit To, int Count, int Booked);

/// <summary>How many whom nobody sorted yet would be sorted so.</summary>
/// <param name="To">The fit by the other rules.</param>
/// <param name="Count">How many.</param>
/// <param name="Booked">How many of them booked.</param>
public sealed record FirstSorted(Fit To, int Count, int Booked);

/// <summary>How many of one fit were booked.</summary>
/// <param name="Fit">The fit by the other rules.</param>
/// <param name="Booked">Of those that are decided and that the business did not decline itself.</param>
public sealed record BookedShare(Fit Fit, Proportion Booked);

/// <summary>What other rules would have made of past inquiries.</summary>
/// <param name="Inquiries">Each of them, in the order they were given.</param>
/// <param name="Moves">All nine moves, from the best fit to the worst, those who stay among them.</param>
/// <param name="Unsorted">How many of those nobody sorted yet would be of each fit, the best first.</param>
/// <param name="Shares">How many were booked of each fit, the best first.</param>
/// <param name="TurnedAway">How many of all booked work would have been sorted as <see cref="Fit.NotNow"/>.</param>
/// <param name="Roc">How well the points part those who booked from those who did not; null when there is only one sort of them.</param>
/// <param name="MinutesSaved">First calls that would not have been held, in minutes.</param>
/// <param name="Booked">How many booked.</param>
/// <param name="NotBooked">How many did not.</param>
/// <param name="Declined">How many the business declined itself; they are left out of learning and of the curve.</param>
/// <param name="Open">How many are not decided yet.</param>
public sealed record SortingReport(
    IReadOnlyList<SortedInquiry> Inquiries,
    IReadOnlyList<FitMove> Moves,
    IReadOnlyList<FirstSorted> Unsorted,
    IReadOnlyList<BookedShare> Shares,
    Proportion TurnedAway,
    RocCurve? Roc,
    int MinutesSaved,
    int Booked,
    int NotBooked,
    int Declined,
    int Open
)
{
    /// <summary>So many booked, and so many not, are needed before numbers mean something.</summary>
    public const int LeastToLearn = 10;

    /// <summary>Whether there is enough history to learn from.</summary>
    public bool HasEnough => Booked >= LeastToLearn && NotBooked >= LeastToLearn;
}

/// <summary>Sorts past inquiries by other rules than those they came in under.</summary>
public static class SortingAgain
{
    private static readonly Fit[] BestFirst = [Fit.ComeIn, Fit.TalkFirst, Fit.NotNow];

    /// <summary>
    /// How the rules would sort each inquiry, and what that comes to. It is linear in inquiries and in signals, and uses all processors.
    /// </summary>
    /// <param name="rules">The rules to try.</param>
    /// <param name="inquiries">The past inquiries of the form, in any order.</param>
    /// <param name="minutesPerFirstCall">How long a first call takes; 0 or more.</param>
    public static SortingReport Run(ScreeningRules rules, IReadOnlyList<PastInquiry> inquiries, int minutesPerFirstCall)
    {
        var sorted = new SortedInquiry[inquiries.Count];
        Parallel.For(
            0,
            inquiries.Count,
            index =>
            {
                var (id, before, outcome, hadCall, known) = inquiries[index];
                var (fit, score) = Screener.Sort(rules, known, inquiries[index].AlwaysComesIn);
                sorted[index] = new SortedInquiry(id, before, fit, score, outcome, hadCall);
            }
        );
        return Report(sorted, minutesPerFirstCall);
    }

    private static SortingReport Report(IReadOnlyList<SortedInquiry> sorted, int minutesPerFirstCall)
    {
        var byMove = sorted.Where(one => one.Before is not null).ToLookup(one => (one.Before!.Value, one.Now));
        var unsorted = sorted.Where(one => one.Before is null).ToLookup(one => one.Now);
        var byOutcome = sorted.ToLookup(one => one.Outcome);
        var decided = sorted.Where(one => one.Outcome is Outcome.Booked or Outcome.NotBooked).ToLookup(one => one.Now);
        var booked = byOutcome[Outcome.Booked].ToList();
        var notBooked = byOutcome[Outcome.NotBooked].ToList();
        return new SortingReport(
            sorted,
            [
                .. from before in BestFirst
                from now in BestFirst
                let moved = byMove[(before, now)]
                select new FitMove(before, now, moved.Count(), moved.Count(IsBooked)),
            ],
            [.. BestFirst.Select(fit => new FirstSorted(fit, unsorted[fit].Count(), unsorted[fit].Count(IsBooked)))],
            [.. BestFirst.Select(fit => new BookedShare(fit, Proportion.Wilson(decided[fit].Count(IsBooked), decided[fit].Count())))],
            Proportion.Wilson(booked.Count(one => one.Now == Fit.NotNow), booked.Count),
            RocCurve.Of([.. booked.Select(one => one.Score)], [.. notBooked.Select(one => one.Score)]),
            sorted.Count(one => one is { Moves: true, Now: Fit.NotNow, HadFirstCall: true }) * minutesPerFirstCall,
            booked.Count,
            notBooked.Count,
            byOutcome[Outcome.Declined].Count(),
            byOutcome[Outcome.Open].Count()
        );

        static bool IsBooked(SortedInquiry one) => one.Outcome == Outcome.Booked;
    }
}
