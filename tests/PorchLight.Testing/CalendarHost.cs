using System.Text;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Http;
using Microsoft.Extensions.Logging;

namespace PorchLight.Testing;

/// <summary>Another program that gives out a calendar.</summary>
internal sealed class CalendarHost : IAsyncDisposable
{
    private readonly WebApplication _app;

    private CalendarHost(WebApplication app) => _app = app;

    /// <summary>The status of its answers.</summary>
    public int Status { get; set; } = StatusCodes.Status200OK;

    /// <summary>What it gives out.</summary>
    public string Text { get; set; } = "";

    public string Address => _app.Urls.Single() + "/mine.ics";

    public static async Task<CalendarHost> StartAsync()
    {
        var builder = WebApplication.CreateSlimBuilder();
        builder.WebHost.UseUrls("http://127.0.0.1:0");
        builder.Logging.ClearProviders();
        var app = builder.Build();
        var host = new CalendarHost(app);
        app.MapGet(
            "/mine.ics",
            async (HttpResponse response) =>
            {
                response.StatusCode = host.Status;
                if (response.StatusCode is >= 300 and < 400)
                    response.Headers.Location = "/mine.ics";
                await response.WriteAsync(host.Text, Encoding.UTF8);
            }
        );
        await app.StartAsync();
        return host;
    }

    public ValueTask DisposeAsync() => _app.DisposeAsync();
}
