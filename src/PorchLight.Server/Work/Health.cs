using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Messages;
using PorchLight.Server.Hosting;
using PorchLight.Server.Messages;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Work;

/// <summary>
/// Says how the program stands: database, disk, worker, mail. Not ready (503) while one of the first three does not
/// work.
/// </summary>
internal static class Health
{
    private const string Ready = "ready";

    /// <param name="Status">"ready" or "not ready".</param>
    /// <param name="Database">Whether it can be asked and written.</param>
    /// <param name="Disk">Whether there is room on it.</param>
    /// <param name="Worker">Whether due work is looked for; else which lanes of it are behind.</param>
    /// <param name="Mail">How many messages wait, and how many want a person.</param>
    internal sealed record HealthView(string Status, string Database, string Disk, string Worker, string Mail);

    public static void MapHealth(this IEndpointRouteBuilder app) =>
        app.MapGet("/health", AskAsync).For(Access.Public).RequireRateLimiting(RateLimits.SignIn).ExcludeFromDescription();

    private static async Task<IResult> AskAsync(
        PorchDb db,
        DueWork work,
        DataFolder folder,
        StorageQuota storageQuota,
        ILogger<DueWork> logger,
        CancellationToken cancellationToken
    )
    {
        var mail = "unknown";
        var database = Ready;
        try
        {
            var stuck = await MailEndpoints.Stuck(db).CountAsync(cancellationToken);
            var waiting = await db.OutgoingMail.CountAsync(one => one.State == MailState.Queued, cancellationToken);
            mail = (stuck, waiting) switch
            {
                (0, 0) => Ready,
                (0, _) => $"{waiting} waiting",
                _ => $"{waiting} waiting, {stuck} stuck",
            };
        }
        catch (Exception failure) when (failure is not OperationCanceledException)
        {
            logger.LogError(failure, "The database could not be asked");
            database = "cannot be read";
        }

        var disk = storageQuota.DiskIsLow ? "nearly full" : Ready;
        if (database == Ready)
        {
            try
            {
                await folder.TryWritingAsync(cancellationToken);
                await using var write = await db.WriteAsync(cancellationToken);
                await db.Database.ExecuteSqlAsync($"UPDATE Businesses SET Id = Id", cancellationToken);
            }
            catch (Exception failure) when (failure is not OperationCanceledException)
            {
                logger.LogError(failure, "The database could not be written");
                database = "cannot be written";
            }
        }

        var behind = work.Behind;
        var worker = behind.Count == 0 ? Ready : $"behind: {string.Join(", ", behind).ToLowerInvariant()}";
        // Another machine that does not answer is no failure of this one.
        var ready = database == Ready && disk == Ready && !behind.Contains(DueLane.Local);
        return Results.Json(
            new HealthView(ready ? Ready : "not ready", database, disk, worker, mail),
            statusCode: ready ? StatusCodes.Status200OK : StatusCodes.Status503ServiceUnavailable
        );
    }
}
