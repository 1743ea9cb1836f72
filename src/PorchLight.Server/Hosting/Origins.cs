namespace PorchLight.Server.Hosting;

/// <summary>
/// A browser sends its cookies with a WebSocket that any page opens, and no rule of its own keeps that page from listening: where it is
/// opened from has to be looked at here (RFC 6455, 10.2).
/// </summary>
internal static class Origins
{
    /// <summary>Refuses what a page of another site opens below a path. What names no origin comes from no browser.</summary>
    public static void UseOwnOriginsOnly(this WebApplication app, PathString path) =>
        app.UseWhen(
            http => http.Request.Path.StartsWithSegments(path),
            below =>
                below.Use(
                    async (http, next) =>
                    {
                        if (http.Request.Headers.Origin is { Count: > 0 } origin && !IsOwn(http, origin.ToString()))
                            await Problems.Say(StatusCodes.Status403Forbidden, "Only pages of Porch Light listen here.").ExecuteAsync(http);
                        else
                            await next(http);
                    }
                )
        );

    private static bool IsOwn(HttpContext http, string origin) =>
        Uri.TryCreate(origin, UriKind.Absolute, out var from)
        && from.Scheme == http.Request.Scheme
        && string.Equals(
            from.Authority,
            new Uri($"{http.Request.Scheme}://{http.Request.Host}").Authority,
            StringComparison.OrdinalIgnoreCase
        );
}
