namespace PorchLight.Server.Storage;

/// <summary>
/// The areas an answer was made of, and those that changed for it. Screens ask again for what was made of what changed, so nobody keeps a
/// list of what depends on what.
/// </summary>
internal sealed class AnswerAreas
{
    /// <summary>The header that names what an answer was made of.</summary>
    public const string MadeOfHeader = "Made-Of";

    /// <summary>The header that names what changed for it.</summary>
    public const string ChangedHeader = "Changed";

    /// <summary>The areas that were read.</summary>
    public SortedSet<string> MadeOf { get; } = new(StringComparer.Ordinal);

    /// <summary>The areas in which something was written and committed.</summary>
    public SortedSet<string> Changed { get; } = new(StringComparer.Ordinal);

    /// <summary>Says of every answer under an address what it was made of and what changed for it. To be placed behind the sign-in.</summary>
    public static void Tell(WebApplication app, string under) =>
        app.UseWhen(
            http => http.Request.Path.StartsWithSegments(under, StringComparison.Ordinal),
            branch => branch.Use((http, next) => TellAsync(http, next, http.RequestServices.GetRequiredService<PorchDb>()))
        );

    private static async Task TellAsync(HttpContext http, RequestDelegate next, PorchDb db)
    {
        var areas = db.Areas = new AnswerAreas();
        http.Response.OnStarting(() =>
        {
            if (areas.MadeOf.Count > 0)
                http.Response.Headers[MadeOfHeader] = string.Join(' ', areas.MadeOf);
            if (areas.Changed.Count > 0)
                http.Response.Headers[ChangedHeader] = string.Join(' ', areas.Changed);
            return Task.CompletedTask;
        });
        try
        {
            await next(http);
        }
        finally
        {
            db.Areas = null;
        }
    }
}
