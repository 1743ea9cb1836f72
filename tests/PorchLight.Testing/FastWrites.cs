using System.Data.Common;
using Microsoft.EntityFrameworkCore.Diagnostics;

namespace PorchLight.Testing;

/// <summary>Commits do not wait for the disk: what a test writes need not outlive a power cut.</summary>
internal sealed class FastWrites : DbConnectionInterceptor
{
    public static FastWrites Instance { get; } = new();

    public override void ConnectionOpened(DbConnection connection, ConnectionEndEventData eventData) => Hurry(connection);

    public override Task ConnectionOpenedAsync(
        DbConnection connection,
        ConnectionEndEventData eventData,
        CancellationToken cancellationToken = default
    )
    {
        Hurry(connection);
        return Task.CompletedTask;
    }

    private static void Hurry(DbConnection connection)
    {
        using var command = connection.CreateCommand();
        command.CommandText = "PRAGMA synchronous = OFF";
        command.ExecuteNonQuery();
    }
}
