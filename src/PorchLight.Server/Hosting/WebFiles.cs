using Microsoft.AspNetCore.StaticFiles;
using Microsoft.Extensions.Primitives;

namespace PorchLight.Server.Hosting;

/// <summary>Serves the built web files, already compressed, and the pages that start them, each with its security policy.</summary>
internal static class WebFiles
{
    private const string BusinessPolicy =
        "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data:; object-src 'none'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'";

    private static readonly PathString[] Answers = ["/api", "/public", "/f", "/m", "/changes"];

    private static readonly FileExtensionContentTypeProvider Types = new();

    private static readonly Dictionary<string, string> Encodings = new() { [".br"] = "br", [".gz"] = "gzip" };

    public static void UseWebFiles(this WebApplication app)
    {
        // What is written for one reader alone cannot lie compressed beforehand.
        app.UseWhen(
            http => http.Request.Path.StartsWithSegments("/f") || http.Request.Path.StartsWithSegments("/m"),
            page => page.UseResponseCompression()
        );
        app.Use(
            (http, next) =>
            {
                http.Response.Headers.XContentTypeOptions = "nosniff";
                http.Response.Headers["Referrer-Policy"] = "strict-origin-when-cross-origin";
                // What somebody said is kept by nobody on the way; what may be kept says so itself.
                if (Answers.Any(start => http.Request.Path.StartsWithSegments(start, StringComparison.OrdinalIgnoreCase)))
                    http.Response.Headers.CacheControl = "no-store";
                if (
                    HttpMethods.IsGet(http.Request.Method)
                    && Encodings.FirstOrDefault(encoding => Fits(http, app.Environment, encoding)) is { Key: { } extension }
                )
                    http.Request.Path += extension;
                return next(http);
            }
        );
        // Pages go out by their own routes, each with its security policy, and never as mere files.
        app.UseWhen(
            http => http.Request.Path.Value?.Contains(".html", StringComparison.OrdinalIgnoreCase) != true,
            files => files.UseStaticFiles(Files())
        );
    }

    private static StaticFileOptions Files() =>
        new()
        {
            ServeUnknownFileTypes = true,
            OnPrepareResponse = prepared =>
            {
                var (headers, name) = (prepared.Context.Response.Headers, prepared.File.Name);
                headers.Vary = "Accept-Encoding";
                if (Encodings.TryGetValue(Path.GetExtension(name), out var encoding))
                {
                    headers.ContentEncoding = encoding;
                    name = Path.GetFileNameWithoutExtension(name);
                }

                headers.ContentType = Types.TryGetContentType(name, out var type) ? type : "application/octet-stream";
                headers.CacheControl =
                    prepared.Context.Request.Path.StartsWithSegments("/assets")
                    || prepared.Context.Request.Path.StartsWithSegments("/form/assets")
                        ? "public, max-age=31536000, immutable"
                        : "no-cache";
            },
        };

    /// <summary>The page of the business app, at every address nothing else has.</summary>
    public static void MapPages(this WebApplication app)
    {
        app.MapFallback(
                "{*path:nonfile}",
                (HttpResponse response) =>
                {
                    response.Headers.ContentSecurityPolicy = BusinessPolicy;
                    response.Headers.XFrameOptions = "DENY";
                    return Page(app.Environment, "index.html");
                }
            )
            .For(Access.Public);
    }

    /// <summary>The text of one of the pages that start the web files; null while they are not built.</summary>
    public static async Task<string?> ReadAsync(IWebHostEnvironment environment, string file) =>
        environment.WebRootFileProvider.GetFileInfo(file) is { Exists: true, PhysicalPath: { } path }
            ? await File.ReadAllTextAsync(path)
            : null;

    /// <summary>One of the pages that start the web files.</summary>
    public static IResult Page(IWebHostEnvironment environment, string file) =>
        environment.WebRootFileProvider.GetFileInfo(file) is { Exists: true, PhysicalPath: { } path }
            ? Results.File(path, "text/html; charset=utf-8")
            : Results.Text(
                "The web files are not built yet: build the solution without SkipWeb.",
                statusCode: StatusCodes.Status503ServiceUnavailable
            );

    private static bool Fits(HttpContext http, IWebHostEnvironment environment, KeyValuePair<string, string> encoding) =>
        Accepts(http.Request.Headers.AcceptEncoding, encoding.Value)
        && http.Request.Path.Value is { } path
        && Path.HasExtension(path)
        && environment.WebRootFileProvider.GetFileInfo(path + encoding.Key).Exists;

    private static bool Accepts(StringValues header, string encoding) =>
        header
            .ToString()
            .Split(',')
            .Any(part => part.Split(';') is [var name, .. var rest] && name.Trim() == encoding && !rest.Any(q => q.Trim() == "q=0"));
}
