using System.Collections.Concurrent;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Logging;

namespace PorchLight.Server.Tests;

/// <summary>Everything that is logged, with what is attached to it.</summary>
internal sealed class CapturedLog : ILoggerProvider, ILogger
{
    public ConcurrentQueue<string> Lines { get; } = [];

    /// <summary>Lets a program write into it.</summary>
    public void Keep(IServiceCollection services) => services.AddLogging(logging => logging.AddProvider(this));

    public ILogger CreateLogger(string categoryName) => this;

    public IDisposable? BeginScope<TState>(TState state)
        where TState : notnull
    {
        Lines.Enqueue("scope " + Say(state));
        return null;
    }

    public bool IsEnabled(LogLevel logLevel) => true;

    public void Log<TState>(
        LogLevel logLevel,
        EventId eventId,
        TState state,
        Exception? exception,
        Func<TState, Exception?, string> formatter
    ) => Lines.Enqueue($"{formatter(state, exception)} {Say(state)} {exception}");

    public void Dispose() { }

    private static string Say(object? state) =>
        state is IEnumerable<KeyValuePair<string, object>> pairs
            ? string.Join(' ', pairs.Select(pair => $"{pair.Key}={pair.Value}"))
            : state?.ToString() ?? "";
}
