using System.Collections.Concurrent;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Http;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Logging;
using PorchLight.Server.Hosting;

namespace PorchLight.Testing;

/// <summary>
/// What a program could not do while a test looked elsewhere: answers of 500 and above, and what it logged as an error. A test that
/// did not announce it fails with it.
/// </summary>
internal sealed class WhatWentWrong : ILoggerProvider, ILogger, IStartupFilter
{
    private readonly ConcurrentQueue<string> _seen = [];

    public ConcurrentQueue<string> Seen => _seen;

    /// <summary>Lets a program tell it.</summary>
    public void Watch(IServiceCollection services) =>
        services.AddSingleton<IStartupFilter>(this).AddLogging(logging => logging.AddProvider(this));

    public Action<IApplicationBuilder> Configure(Action<IApplicationBuilder> next) =>
        app =>
        {
            app.Use(
                async (http, go) =>
                {
                    await go(http);
                    CalledOperations.Note(http);
                    if (http.Response.StatusCode >= StatusCodes.Status500InternalServerError)
                        _seen.Enqueue(
                            $"{http.Request.Method} {http.Request.Path} ({RequestLog.RouteOf(http)}) answered {http.Response.StatusCode}"
                        );
                }
            );
            next(app);
        };

    public ILogger CreateLogger(string categoryName) => this;

    public IDisposable? BeginScope<TState>(TState state)
        where TState : notnull => null;

    public bool IsEnabled(LogLevel logLevel) => logLevel >= LogLevel.Error;

    public void Log<TState>(
        LogLevel logLevel,
        EventId eventId,
        TState state,
        Exception? exception,
        Func<TState, Exception?, string> formatter
    )
    {
        if (IsEnabled(logLevel))
            _seen.Enqueue($"{formatter(state, exception)} {exception}");
    }

    public void Dispose() { }
}
