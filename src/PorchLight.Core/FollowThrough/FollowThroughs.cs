using PorchLight.Core.Records;

namespace PorchLight.Core.FollowThrough;

/// <summary>What follow-throughs an event starts, and what ends where one starts.</summary>
public static class FollowThroughs
{
    /// <summary>
    /// Whether a run that is under way ends where a follow-through starts for the same person: one journey a person, so only where both may
    /// run beside others it goes on. The same follow-through for the same piece of work begins anew instead of running twice.
    /// </summary>
    /// <param name="running">What the run follows, in the version it follows.</param>
    /// <param name="next">What starts.</param>
    /// <param name="isSame">Whether it is the same follow-through, in whichever version, for the same piece of work.</param>
    public static bool Ends(FollowThroughContent running, FollowThroughContent next, bool isSame) =>
        isSame || !(running.SideBySide && next.SideBySide);

    /// <summary>
    /// The follow-throughs an event starts: one journey a person, so of several it is the one that asks for most, and among those
    /// the oldest. Only where that one may run beside others, all that may do so start with it.
    /// </summary>
    /// <param name="live">The newest version of each that is switched on, oldest follow-through first.</param>
    /// <param name="happened">What happened.</param>
    /// <param name="facts">What is known of the piece of work it happened to.</param>
    /// <param name="contentOf">What a version holds.</param>
    /// <returns>In the order given; empty where nothing starts.</returns>
    public static IReadOnlyList<T> StartedBy<T>(
        IEnumerable<T> live,
        DomainEvent happened,
        IRunFacts facts,
        Func<T, FollowThroughContent> contentOf
    )
        where T : class => Of([.. live.Where(one => contentOf(one).Starts.IsStartedBy(happened, facts))], contentOf);

    /// <summary>Of those that could start at one moment the ones that do: as above.</summary>
    /// <param name="started">Those that could, oldest follow-through first.</param>
    /// <param name="contentOf">What a version holds.</param>
    /// <returns>In the order given; empty where nothing starts.</returns>
    public static IReadOnlyList<T> Of<T>(IReadOnlyList<T> started, Func<T, FollowThroughContent> contentOf)
        where T : class
    {
        return First(started, contentOf) is not { } first ? []
            : contentOf(first).SideBySide ? [.. started.Where(one => contentOf(one).SideBySide)]
            : [first];
    }

    /// <summary>The one that goes before all others: it asks for most, and among those that do it is the oldest.</summary>
    /// <param name="started">Those that could start, oldest follow-through first.</param>
    /// <param name="contentOf">What a version holds.</param>
    /// <returns>Null where nothing could.</returns>
    public static T? First<T>(IReadOnlyList<T> started, Func<T, FollowThroughContent> contentOf)
        where T : class => started.MaxBy(one => contentOf(one).Starts.Precision);
}
