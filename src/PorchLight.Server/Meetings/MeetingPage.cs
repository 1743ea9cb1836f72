using System.Text.Json;
using PorchLight.Server.Hosting;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Meetings;

/// <summary>
/// The page on which times are chosen and meetings looked at. What it shows first stands in it already, by the clock of the business:
/// the browser asks again where its own says otherwise.
/// </summary>
internal static class MeetingPage
{
    /// <summary>Where the pages stand.</summary>
    public const string Path = "/m/";

    private const string Page = "form/meeting.html";
    private const string Root = "<div id=\"root\"></div>";
    private const string Policy =
        "default-src 'self'; img-src 'self' data:; object-src 'none'; base-uri 'none'; form-action 'self'; frame-ancestors 'self'";

    public static void MapMeetingPage(this WebApplication app) =>
        app.MapGet(
                Path + "{token}",
                async (string token, MeetingPageLoader pages, HttpContext http, CancellationToken cancellationToken) =>
                {
                    http.Response.Headers.ContentSecurityPolicy = Policy;
                    http.Response.Headers["Referrer-Policy"] = "no-referrer";
                    if (
                        await pages.LoadAsync(token, zone: null, cancellationToken) is not { } view
                        || await WebFiles.ReadAsync(app.Environment, Page) is not { } html
                    )
                        return WebFiles.Page(app.Environment, Page);
                    // A block of data is no script, so the policy lets it stand; its letters cannot end it, for < is written as \u003C.
                    var data = JsonSerializer.Serialize(view, Json.Options);
                    return Results.Content(
                        html.Replace(
                            Root,
                            $"<script type=\"application/json\" id=\"opened\">{data}</script>{Root}",
                            StringComparison.Ordinal
                        ),
                        "text/html; charset=utf-8"
                    );
                }
            )
            .For(Access.Public)
            .RequireRateLimiting(RateLimits.PublicForms)
            .ExcludeFromDescription();
}
