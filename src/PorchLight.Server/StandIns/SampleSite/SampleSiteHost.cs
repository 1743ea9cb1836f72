using System.Text.Encodings.Web;
using Microsoft.AspNetCore.Hosting.Server;
using Microsoft.AspNetCore.Hosting.Server.Features;
using Microsoft.EntityFrameworkCore;
using PorchLight.Server.Forms;
using PorchLight.Server.Storage;

namespace PorchLight.Server.StandIns.SampleSite;

/// <summary>
/// A stand-in for the business's own website: another server on another port, and so another origin, whose pages hold the
/// codes of every way in, just as the owner would paste them.
/// </summary>
internal sealed class SampleSiteHost(IServer server, IServiceScopeFactory scopes, IConfiguration configuration) : IHostedService
{
    private static readonly (string Path, string Name)[] Ways =
    [
        ("/", "Inline"),
        ("/button", "Floating button"),
        ("/link", "Text link"),
        ("/plain", "Plain HTML"),
    ];

    private WebApplication? _site;

    /// <summary>Where it listens; set once it has started.</summary>
    public string Address { get; private set; } = "";

    public async Task StartAsync(CancellationToken cancellationToken)
    {
        if (configuration.GetValue<int?>("PorchLight:SampleSitePort") is not { } port)
            return;
        var builder = WebApplication.CreateSlimBuilder();
        builder.Logging.ClearProviders();
        builder.WebHost.UseUrls($"http://127.0.0.1:{port}");
        _site = builder.Build();
        foreach (var (path, _) in Ways)
            _site.MapGet(path, async () => Results.Content(await PageAsync(path), "text/html; charset=utf-8"));
        _site.MapGet("/favicon.ico", () => Results.NoContent());
        await _site.StartAsync(cancellationToken);
        Address = _site.Urls.First();
    }

    public async Task StopAsync(CancellationToken cancellationToken)
    {
        if (_site is not null)
            await _site.DisposeAsync();
    }

    private async Task<string> PageAsync(string path)
    {
        await using var scope = scopes.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<PorchDb>();
        var business = await db.BusinessAsync();
        var form = (await db.Forms.AsNoTracking().Where(form => form.PublishedVersion > 0).ToListAsync())
            .OrderBy(form => form.Id.Value)
            .First();
        var published = (await db.FormVersions.FindAsync(form.Id, form.PublishedVersion))!.Content;
        // The sample names the program by "localhost" and itself by the bare address, so that the two are also different sites.
        var address = server
            .Features.Get<IServerAddressesFeature>()!
            .Addresses.First()
            .Replace("127.0.0.1", "localhost", StringComparison.Ordinal);
        var sharing = FormEndpoints.Sharing.Of(
            form,
            published,
            scope.ServiceProvider.GetRequiredService<Tokens>().Open(form.LinkSealed),
            address,
            business.Look
        );
        var name = HtmlEncoder.Default.Encode(business.Name);
        var way = path switch
        {
            "/button" => $"<p>Look into the corner of this page.</p>{sharing.Button}",
            "/link" => $"<p>If you have a wall in mind, you can tell us about it here: {sharing.TextLink} It takes three minutes.</p>",
            "/plain" => sharing.Plain ?? "<p>The form's settings do not allow this yet.</p>",
            _ => sharing.Inline,
        };
        return $$"""
            <!doctype html>
            <html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1">
            <title>{{name}}, hand-painted signs and murals</title>
            <style>
              body{margin:0;font:17px/1.6 Georgia,serif;color:#33261d;background:#f6efe4}
              header{padding:36px 24px;background:#33261d;color:#f6efe4}
              header p,header h1,nav{max-width:46rem;margin:0 auto}
              nav a{color:#f6efe4;margin-right:1rem}
              main{max-width:46rem;margin:0 auto;padding:28px 24px;min-height:24rem}
              fieldset{margin:0 0 1rem;border:1px solid #b9a68f}
              main input:not([type=radio],[type=checkbox]),main select,main textarea{font:inherit;display:block;width:100%;box-sizing:border-box}
              fieldset label{display:block;margin:.3rem 0}
              footer{padding:24px;text-align:center;font-size:.85rem}
            </style></head>
            <body>
              <header><h1>{{name}}</h1><p>Hand-painted signs and murals. This is a sample website on another address, as your own would be.</p>
                <nav aria-label="Ways in">{{string.Join(
                ' ',
                Ways.Select(one => $"<a href=\"{one.Path}\"{(one.Path == path ? " aria-current=\"page\"" : "")}>{one.Name}</a>")
            )}}</nav></header>
              <main>
                <h2>A wall of your own</h2>
                <p>We paint bakeries, school halls, clinics and gable ends. Tell us about your wall and we will tell you honestly whether we are the right people for it.</p>
                {{way}}
              </main>
              <footer>Everything and everybody here is made up.</footer>
            </body></html>
            """;
    }
}
