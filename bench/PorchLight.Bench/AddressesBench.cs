using System.Diagnostics;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using Microsoft.AspNetCore.Routing;
using Microsoft.Extensions.DependencyInjection;
using PorchLight.Server.Hosting;
using PorchLight.Server.Storage;
using static PorchLight.Testing.Requests;

namespace PorchLight.Bench;

/// <summary>What every address costs that a stranger can call, against opening a form.</summary>
internal static class AddressesBench
{
    private const int Times = 60;

    /// <summary>Prints each address with its cost, the dearest first, and says which are dearer than twenty opened forms.</summary>
    public static async Task MeasureAsync(BenchApp app)
    {
        using var http = new HttpClient(new HttpClientHandler { AllowAutoRedirect = false }) { BaseAddress = app.Address };
        await RefreshTokenAsync(http);
        var token = await app.LinkAsync();
        var measured = new List<(string Address, double Times, int Status)>();
        foreach (var (method, pattern) in Strangers(app))
        {
            var (opened, asked, status) = (new double[Times], new double[Times], 0);
            for (var n = 0; n < Times; n++)
            {
                (opened[n], _) = await TimeAsync(new HttpRequestMessage(HttpMethod.Get, $"/public/forms/{token}"));
                (asked[n], status) = await TimeAsync(Request(method, pattern, token));
            }

            measured.Add(($"{method} {pattern}", Median(asked) / Median(opened), status));
        }

        foreach (var (address, times, status) in measured.OrderByDescending(one => one.Times))
            Console.WriteLine($"{times, 6:0.00} opened forms  {address} (answers {status})");
        var dear = measured.Where(one => one.Times > 20).ToList();
        Console.WriteLine(
            dear.Count == 0
                ? $"none of {measured.Count} public addresses costs more than twenty opened forms"
                : $"dearer than twenty opened forms: {string.Join(", ", dear.Select(one => one.Address))}"
        );

        async Task<(double Took, int Status)> TimeAsync(HttpRequestMessage request)
        {
            var began = Stopwatch.GetTimestamp();
            using var answer = await http.SendAsync(request);
            await answer.Content.ReadAsByteArrayAsync();
            return (Stopwatch.GetElapsedTime(began).TotalMilliseconds, (int)answer.StatusCode);
        }
    }

    /// <summary>Every address that asks for no sign-in, by method.</summary>
    private static IEnumerable<(string Method, string Pattern)> Strangers(BenchApp app) =>
        app
            .Services.GetRequiredService<EndpointDataSource>()
            .Endpoints.OfType<RouteEndpoint>()
            .Where(endpoint => endpoint.Metadata.GetMetadata<AccessMetadata>()?.Access == Access.Public)
            .SelectMany(endpoint =>
                (endpoint.Metadata.GetMetadata<HttpMethodMetadata>()?.HttpMethods ?? ["GET"]).Select(method =>
                    (method, "/" + endpoint.RoutePattern.RawText!.Trim('/'))
                )
            )
            .Distinct()
            .OrderBy(one => one.Item2, StringComparer.Ordinal);

    /// <summary>A request as the page makes it; for what needs more than a link, one that is refused as late as can be.</summary>
    private static HttpRequestMessage Request(string method, string pattern, string token)
    {
        var path = pattern
            .Replace("{token}", token, StringComparison.Ordinal)
            .Replace("{version:int}", "1", StringComparison.Ordinal)
            .Replace("{id}", Guid.NewGuid().ToString(), StringComparison.Ordinal)
            .Replace("{hash}", new string('0', 64), StringComparison.Ordinal)
            .Replace("{*path:nonfile}", "inquiries", StringComparison.Ordinal);
        var query =
            path.EndsWith("/files", StringComparison.Ordinal) ? $"?filling={Guid.NewGuid()}&question=what&name=wall.png"
            : path.EndsWith("/look-up", StringComparison.Ordinal) ? "?question=what&typed=a"
            : "";
        return new HttpRequestMessage(new HttpMethod(method), path + query) { Content = method is "GET" or "DELETE" ? null : Body(path) };
    }

    private static HttpContent Body(string path)
    {
        if (path.EndsWith("/files", StringComparison.Ordinal))
        {
            var picture = new ByteArrayContent([0x89, 0x50, 0x4E, 0x47, 0x0D, 0x0A, 0x1A, 0x0A, .. new byte[4000]]);
            picture.Headers.ContentType = new MediaTypeHeaderValue("image/png");
            return picture;
        }

        if (path.EndsWith("/plain", StringComparison.Ordinal))
            return new FormUrlEncodedContent(new Dictionary<string, string> { ["email"] = "lead@bakes.example" });
        object body = path switch
        {
            _ when path.EndsWith("/evaluate", StringComparison.Ordinal) => new
            {
                version = 1,
                page = "wall",
                leaving = true,
                sendKey = Guid.NewGuid(),
                answers = new { },
            },
            _ when path.EndsWith("/send", StringComparison.Ordinal) => new
            {
                version = 1,
                sendKey = Guid.NewGuid(),
                answers = PorchLight.Testing.Requests.Answers($"lead-{Guid.NewGuid():N}@bakes.example"),
                cameFrom = (string?)null,
            },
            _ when path.EndsWith("/sign-in", StringComparison.Ordinal) => new
            {
                email = "maren@ochrewren.example",
                password = "not the one",
            },
            _ => new
            {
                email = "lead@bakes.example",
                sendKey = Guid.NewGuid(),
                agrees = true,
                version = 1,
                revision = 0,
                name = "Lead",
                password = "not the one at all",
                page = "wall",
                answers = new { },
                code = "000000",
            },
        };
        return JsonContent.Create(body, options: Json.Options);
    }

    private static double Median(double[] took) => took.Order().ElementAt(took.Length / 2);
}
