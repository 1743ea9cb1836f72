using System.Text.Json;
using PorchLight.Server.Forms;
using PorchLight.Server.Hosting;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Inquiries;

/// <summary>
/// The page a form is filled in on, with the sites it may stand in. What opens the form stands in the page already, so that a phone
/// far away need not ask for it first.
/// </summary>
internal static class PublicPageEndpoints
{
    private const string Policy =
        "default-src 'self'; img-src 'self' data:; object-src 'none'; base-uri 'none'; form-action 'self'; frame-ancestors ";

    private const string Root = "<div id=\"root\"></div>";

    public static void MapPublicPage(this WebApplication app) =>
        app.MapGet(
                "/f/{token}",
                async (string token, FormAccess access, FormPageLoader pages, HttpContext http, CancellationToken cancellationToken) =>
                {
                    var target = await access.FindAsync(token);
                    var sites = target?.Form.Settings.EmbedOn ?? [];
                    http.Response.Headers.ContentSecurityPolicy = Policy + (sites.Count == 0 ? "*" : "'self' " + string.Join(' ', sites));
                    if (
                        target is null
                        || !CanBeOpenedHere(target, http.Request)
                        || await WebFiles.ReadAsync(app.Environment, Page) is not { } html
                    )
                        return WebFiles.Page(app.Environment, Page);
                    var view = await pages.LoadAsync(target, OpeningOf(http.Request), cancellationToken);
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

    private const string Page = "form/index.html";

    /// <summary>
    /// A personal link counts as opened when a person's browser asks for the form, not when a mail program looks at the page; and
    /// a look at a working copy shows its ticket only then.
    /// </summary>
    private static bool CanBeOpenedHere(FormTarget target, HttpRequest request) =>
        target is { Link: null, IsPreview: false } && request.Query["look"].ToString() is "" or "1";

    private static FormOpening OpeningOf(HttpRequest request) =>
        new(
            request.QueryString.Value,
            NullIfEmpty(request.Query["within"].ToString()) ?? NullIfEmpty(request.Headers.Referer.ToString()),
            NullIfEmpty(request.Query["later"].ToString()),
            Pass: null
        );

    private static string? NullIfEmpty(string text) => text.Length == 0 ? null : text;
}
