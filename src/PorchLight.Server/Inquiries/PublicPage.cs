using PorchLight.Server.Forms;
using PorchLight.Server.Hosting;

namespace PorchLight.Server.Inquiries;

/// <summary>The page a form is filled in on, with the sites it may stand in.</summary>
internal static class PublicPageEndpoints
{
    private const string Policy =
        "default-src 'self'; img-src 'self' data:; object-src 'none'; base-uri 'none'; form-action 'self'; frame-ancestors ";

    public static void MapPublicPage(this WebApplication app) =>
        app.MapGet(
                "/f/{token}",
                async (string token, FormAccess access, HttpResponse response) =>
                {
                    var sites = (await access.FindAsync(token))?.Form.Settings.EmbedOn ?? [];
                    response.Headers.ContentSecurityPolicy = Policy + (sites.Count == 0 ? "*" : "'self' " + string.Join(' ', sites));
                    return WebFiles.Page(app.Environment, "form/index.html");
                }
            )
            .For(Access.Public)
            .ExcludeFromDescription();
}
