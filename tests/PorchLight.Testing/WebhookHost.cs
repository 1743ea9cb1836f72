using System.Collections.Concurrent;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Http;
using Microsoft.Extensions.Logging;

namespace PorchLight.Testing;

/// <summary>A call as it came in.</summary>
internal sealed record ReceivedCall(IReadOnlyDictionary<string, string> Headers, string Body);

/// <summary>Another program that is called, and answers as a test asks for.</summary>
internal sealed class WebhookHost : IAsyncDisposable
{
    private readonly WebApplication _app;

    private WebhookHost(WebApplication app) => _app = app;

    /// <summary>The statuses of its next answers; afterwards it answers 204.</summary>
    public ConcurrentQueue<int> Answers { get; } = [];

    public ConcurrentQueue<ReceivedCall> Calls { get; } = [];

    /// <summary>Until this is done it answers nobody.</summary>
    public Task Silence { get; set; } = Task.CompletedTask;

    /// <summary>Done once it has been called.</summary>
    public Task Called => _called.Task;

    private readonly TaskCompletionSource _called = new(TaskCreationOptions.RunContinuationsAsynchronously);

    public string Address => _app.Urls.Single() + "/hook";

    public static async Task<WebhookHost> StartAsync(params IEnumerable<int> answers)
    {
        var builder = WebApplication.CreateSlimBuilder();
        builder.WebHost.UseUrls("http://127.0.0.1:0");
        builder.Logging.ClearProviders();
        var app = builder.Build();
        var host = new WebhookHost(app);
        foreach (var status in answers)
            host.Answers.Enqueue(status);
        app.MapPost(
            "/hook",
            async (HttpRequest request, HttpResponse response) =>
            {
                using var reader = new StreamReader(request.Body);
                host.Calls.Enqueue(
                    new ReceivedCall(
                        request.Headers.ToDictionary(header => header.Key, header => header.Value.ToString()),
                        await reader.ReadToEndAsync()
                    )
                );
                host._called.TrySetResult();
                await host.Silence;
                response.StatusCode = host.Answers.TryDequeue(out var status) ? status : StatusCodes.Status204NoContent;
                if (response.StatusCode is >= 300 and < 400)
                    response.Headers.Location = "/hook";
            }
        );
        await app.StartAsync();
        return host;
    }

    public ValueTask DisposeAsync() => _app.DisposeAsync();
}
