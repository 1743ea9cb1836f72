using System.Collections.Concurrent;
using System.Reflection;
using Microsoft.AspNetCore.Http;
using PorchLight.Server.Hosting;

namespace PorchLight.Testing;

/// <summary>
/// The operations that tests called with success, one a line in <c>artifacts/called</c> when the run ends. <c>./test</c> compares them
/// with the contract.
/// </summary>
internal static class CalledOperations
{
    private static readonly ConcurrentDictionary<string, bool> Called = [];

    static CalledOperations() => AppDomain.CurrentDomain.ProcessExit += (_, _) => Write();

    public static void Note(HttpContext http)
    {
        if (http.Response.StatusCode is >= 200 and < 400)
            Called.TryAdd($"{http.Request.Method} {RequestLog.RouteOf(http)}", true);
    }

    private static void Write()
    {
        var folder = Directory.CreateDirectory(Repository.Find("artifacts/called")).FullName;
        File.WriteAllLines(
            Path.Combine(folder, $"{Assembly.GetEntryAssembly()!.GetName().Name}.txt"),
            Called.Keys.Order(StringComparer.Ordinal)
        );
    }
}
