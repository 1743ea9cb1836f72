using Microsoft.Extensions.DependencyInjection.Extensions;
using NodaTime;

namespace PorchLight.Server.Hosting;

/// <summary>By which clock something falls due.</summary>
internal enum DueClock
{
    /// <summary>The business's: in the demo it can be skipped ahead, and carries everything along.</summary>
    Business,

    /// <summary>The machine's.</summary>
    Machine,
}

/// <summary>Where due work stands in line. What waits for other machines has a lane of its own, so that nothing else waits for it.</summary>
internal enum DueLane
{
    /// <summary>What only asks the database and the disk, one after the other.</summary>
    Local,

    /// <summary>Messages that are handed to a mail server.</summary>
    Mail,

    /// <summary>Calls to other programs.</summary>
    Webhooks,

    /// <summary>Calendars that are kept elsewhere.</summary>
    Calendars,

    /// <summary>Mail that comes in.</summary>
    Mailbox,
}

/// <summary>Something that falls due. Each area says what of it does, and how long nothing will.</summary>
internal interface IDueWork
{
    /// <summary>The clock of its moments.</summary>
    DueClock Clock { get; }

    /// <summary>Whether whatever is written may make it due at once; else it waits for its moment.</summary>
    bool FollowsWrites { get; }

    /// <summary>
    /// Does what is due, or as much of it as may be done before others have their turn, in transactions of its own. What fails is thrown; it
    /// is asked again after a rest.
    /// </summary>
    /// <returns>When more of it will be due, by its clock; null where nothing is planned.</returns>
    Task<Instant?> WorkAsync(CancellationToken cancellationToken);

    /// <summary>Puts in order what a crash left behind, once, before any work begins.</summary>
    /// <param name="stoodStill">How long the program did not run; null where that is not known, or was but a moment.</param>
    Task AfterStartAsync(Duration? stoodStill, CancellationToken cancellationToken) => Task.CompletedTask;
}

/// <summary>A kind of due work that was registered, and its lane.</summary>
internal sealed record DueWorkKind(Type Type, DueLane Lane);

internal static class DueWorkRegistration
{
    /// <summary>Adds due work to a lane; in a lane, what was added first comes first.</summary>
    public static IServiceCollection AddDueWork<T>(this IServiceCollection services, DueLane lane = DueLane.Local)
        where T : class, IDueWork
    {
        services.TryAddScoped<T>();
        return services.AddSingleton(new DueWorkKind(typeof(T), lane));
    }
}

/// <summary>
/// Carries out due things one by one, each in a scope of its own: what fails is logged, and the others go on. Of one that takes long the
/// lane gives a sign after each.
/// </summary>
internal sealed class DueItems(IServiceScopeFactory scopes, ILogger<DueItems> logger)
{
    /// <summary>Told after each.</summary>
    public Action Done { get; set; } = () => { };

    /// <summary>Whether it went well.</summary>
    /// <param name="what">What it is called in the log.</param>
    /// <param name="id">Which it is.</param>
    /// <param name="work">Does it.</param>
    /// <param name="level">How serious a failure is; an error where nothing else is said.</param>
    /// <param name="failed">Told what was thrown.</param>
    public async Task<bool> TryAsync(
        string what,
        object id,
        Func<IServiceProvider, Task> work,
        Func<Exception, LogLevel>? level = null,
        Action<Exception>? failed = null
    )
    {
        try
        {
            await using var scope = scopes.CreateAsyncScope();
            await work(scope.ServiceProvider);
            return true;
        }
        catch (Exception failure) when (failure is not OperationCanceledException)
        {
            logger.Log(level?.Invoke(failure) ?? LogLevel.Error, failure, "Due {What} {Id} failed and will be tried again", what, id);
            failed?.Invoke(failure);
            return false;
        }
        finally
        {
            Done();
        }
    }
}
