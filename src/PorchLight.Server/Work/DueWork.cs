using System.Collections.Concurrent;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Server.Calendar;
using PorchLight.Server.Hosting;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Work;

/// <summary>Carries out what has fallen due, lane by lane. What is due, and when, each area says itself (<see cref="IDueWork"/>).</summary>
internal sealed class DueWork(
    IEnumerable<DueWorkKind> kinds,
    IServiceScopeFactory scopes,
    BusinessClock clock,
    TimeProvider time,
    DataFolder folder,
    ILogger<DueWork> logger
)
{
    private static readonly Duration LongestSilence = Duration.FromMinutes(3);
    private readonly ILookup<DueLane, Type> _lanes = kinds.ToLookup(kind => kind.Lane, kind => kind.Type);
    private readonly ConcurrentDictionary<Type, NextMoment> _next = [];
    private readonly ConcurrentDictionary<DueLane, Instant> _signs = [];
    private volatile bool _isBegun;

    /// <summary>The lanes there are.</summary>
    public IReadOnlyList<DueLane> Lanes => [.. _lanes.Select(lane => lane.Key).Order()];

    /// <summary>
    /// The lanes that have given no sign for so long that something holds them up: in the local one a failure of the program, in the others a
    /// machine at the other end that does not answer.
    /// </summary>
    public IReadOnlyList<DueLane> Behind => [.. Lanes.Where(lane => time.Now() - _signs.GetOrAdd(lane, _ => time.Now()) > LongestSilence)];

    /// <summary>
    /// Puts in order what a crash, or a while in which the program did not run, left behind. To be called once, before the first pass.
    /// </summary>
    public async Task LookAfterStartAsync(CancellationToken cancellationToken)
    {
        var stoodStill = time.Now() - folder.LastInUse is { } gap && gap > NoteInUse.LongestBetween ? gap : (Duration?)null;
        foreach (var type in _lanes.SelectMany(lane => lane))
            await InScopeAsync(type, DueLane.Local, work => work.AfterStartAsync(stoodStill, cancellationToken));
    }

    /// <summary>Works once through what is due in every lane, one after the other.</summary>
    public async Task PassAsync(CancellationToken cancellationToken)
    {
        foreach (var lane in Lanes)
            await PassAsync(lane, cancellationToken);
    }

    /// <summary>
    /// Works through what is due in a lane and says how long until something else will be; null when nothing is planned, or when
    /// something failed and deserves a rest before the next try. Others go on.
    /// </summary>
    public async Task<Duration?> PassAsync(DueLane lane, CancellationToken cancellationToken)
    {
        if (!await IsBegunAsync(cancellationToken))
        {
            _signs[lane] = time.Now();
            return null;
        }

        var allWell = true;
        foreach (var type in _lanes[lane])
        {
            if (!IsWaiting(type))
                allWell &= await TryAsync(type, lane, cancellationToken);
            _signs[lane] = time.Now();
        }

        return allWell ? _lanes[lane].Select(type => Left(_next[type])).Min() : null;
    }

    /// <summary>Before the first run there is no business, and nothing to do for it.</summary>
    private async Task<bool> IsBegunAsync(CancellationToken cancellationToken)
    {
        if (_isBegun)
            return true;
        await using var scope = scopes.CreateAsyncScope();
        return _isBegun = await scope.ServiceProvider.GetRequiredService<PorchDb>().Businesses.AnyAsync(cancellationToken);
    }

    private bool IsWaiting(Type type) => _next.TryGetValue(type, out var next) && !next.FollowsWrites && Left(next) > Duration.Zero;

    private Duration? Left(NextMoment next) =>
        next.At is { } at
            ? Duration.Max(Duration.Zero, at - (next.Clock == DueClock.Business ? clock.GetCurrentInstant() : time.Now()))
            : null;

    private async Task<bool> TryAsync(Type type, DueLane lane, CancellationToken cancellationToken)
    {
        try
        {
            await InScopeAsync(
                type,
                lane,
                async work => _next[type] = new NextMoment(work.Clock, await work.WorkAsync(cancellationToken), work.FollowsWrites)
            );
            return true;
        }
        catch (Exception failure) when (failure is not OperationCanceledException)
        {
            _next.TryRemove(type, out _);
            logger.LogError(failure, "Due {What} failed and will be tried again", type.Name);
            return false;
        }
    }

    private async Task InScopeAsync(Type type, DueLane lane, Func<IDueWork, Task> act)
    {
        await using var scope = scopes.CreateAsyncScope();
        scope.ServiceProvider.GetRequiredService<DueItems>().Done = () => _signs[lane] = time.Now();
        await act((IDueWork)scope.ServiceProvider.GetRequiredService(type));
    }

    /// <param name="At">When it has something to do next; null for nothing planned.</param>
    private sealed record NextMoment(DueClock Clock, Instant? At, bool FollowsWrites);
}
