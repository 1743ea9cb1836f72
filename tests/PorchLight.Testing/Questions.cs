using System.Collections.Concurrent;
using System.Data.Common;
using Microsoft.EntityFrameworkCore.Diagnostics;

namespace PorchLight.Testing;

/// <summary>Notes every question that is asked.</summary>
internal sealed class Questions : DbCommandInterceptor
{
    public ConcurrentQueue<(string Text, IReadOnlyList<(string Name, object? Value)> Parameters)> Made { get; } = [];

    public override ValueTask<InterceptionResult<DbDataReader>> ReaderExecutingAsync(
        DbCommand command,
        CommandEventData eventData,
        InterceptionResult<DbDataReader> result,
        CancellationToken cancellationToken = default
    )
    {
        if (command.CommandText.StartsWith("SELECT", StringComparison.Ordinal))
            Made.Enqueue(
                (
                    command.CommandText,
                    [.. command.Parameters.Cast<DbParameter>().Select(parameter => (parameter.ParameterName, parameter.Value))]
                )
            );
        return ValueTask.FromResult(result);
    }
}
