using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Server.Calendar;
using PorchLight.Server.Data;
using PorchLight.Server.Messages;

namespace PorchLight.Server.Work;

/// <summary>Says how the house stands: database, worker, mail. Not ready (503) while the first two do not work.</summary>
internal static class Health
{
    private const string Ready = "ready";
    private static readonly Duration LongestSilence = Duration.FromMinutes(3);

    /// <param name="Status">"ready" or "not ready".</param>
    /// <param name="Database">Whether it can be asked.</param>
    /// <param name="Worker">Whether due work is looked for.</param>
    /// <param name="Mail">How many messages wait, and how many want a person.</param>
    internal sealed record HealthView(string Status, string Database, string Worker, string Mail);

    public static void MapHealth(this IEndpointRouteBuilder app) => app.MapGet("/health", AskAsync).ExcludeFromDescription();

    private static async Task<IResult> AskAsync(PorchDb db, DueWork work, TimeProvider time, ILogger<DueWork> logger, CancellationToken stop)
    {
        var mail = "unknown";
        var database = Ready;
        try
        {
            var stuck = await MailEndpoints.Stuck(db).CountAsync(stop);
            var waiting = await db.OutgoingMail.CountAsync(one => one.State == MailState.Queued, stop);
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

        var worker = time.Now() - work.LastPass > LongestSilence ? "silent" : Ready;
        var ready = database == Ready && worker == Ready;
        return Results.Json(
            new HealthView(ready ? Ready : "not ready", database, worker, mail),
            statusCode: ready ? StatusCodes.Status200OK : StatusCodes.Status503ServiceUnavailable);
    }
}
