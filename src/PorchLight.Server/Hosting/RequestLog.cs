using Microsoft.AspNetCore.Diagnostics;

namespace PorchLight.Server.Hosting;

/// <summary>
/// One line a request: what was asked, how it ended, how long it took, under the request's identifier. The route stands
/// for the address, so that tokens stay out of it; bodies are never logged.
/// </summary>
internal static partial class RequestLog
{
    public const string Header = "X-Request-Id";

    public static void UseRequestLog(this WebApplication app)
    {
        var logger = app.Services.GetRequiredService<ILoggerFactory>().CreateLogger(typeof(RequestLog).FullName!);
        var time = app.Services.GetRequiredService<TimeProvider>();
        app.Use(
            async (http, next) =>
            {
                var began = time.GetTimestamp();
                http.Response.Headers[Header] = http.TraceIdentifier;
                using var scope = logger.BeginScope(new Dictionary<string, object> { ["RequestId"] = http.TraceIdentifier });
                try
                {
                    await next(http);
                }
                finally
                {
                    Answered(
                        logger,
                        http.TraceIdentifier,
                        http.Request.Method,
                        RouteOf(http),
                        http.Response.StatusCode,
                        time.GetElapsedTime(began).TotalMilliseconds
                    );
                }
            }
        );
    }

    /// <summary>What was asked for, without the tokens in its address.</summary>
    public static string RouteOf(HttpContext http) =>
        // A failure clears the endpoint, but leaves it here.
        ((http.Features.Get<IExceptionHandlerFeature>()?.Endpoint ?? http.GetEndpoint()) as RouteEndpoint)
            ?.RoutePattern
            .RawText
        ?? "a file";

    [LoggerMessage(Level = LogLevel.Information, Message = "{RequestId} {Method} {Route} answered {Status} in {Milliseconds} ms")]
    private static partial void Answered(ILogger logger, string requestId, string method, string route, int status, double milliseconds);
}
