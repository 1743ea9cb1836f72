using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Storage;

namespace PorchLight.Server.Data;

/// <summary>
/// One writer at a time. SQLite allows no more, and whoever finds it locked can only sleep and try again; here they stand
/// in line and go on the moment it is their turn.
/// </summary>
internal sealed class WriteTurns : IDisposable
{
    private readonly SemaphoreSlim _turn = new(1, 1);

    public Task WaitAsync(CancellationToken stop) => _turn.WaitAsync(stop);

    public void GiveBack() => _turn.Release();

    public void Dispose() => _turn.Dispose();
}

/// <summary>A transaction that writes. What is not committed when it is disposed of never happened.</summary>
internal sealed class WriteTurn(IDbContextTransaction transaction, WriteTurns turns) : IAsyncDisposable
{
    public Task CommitAsync(CancellationToken stop) => transaction.CommitAsync(stop);

    public async ValueTask DisposeAsync()
    {
        try
        {
            await transaction.DisposeAsync();
        }
        finally
        {
            turns.GiveBack();
        }
    }
}

internal static class Writing
{
    /// <summary>Waits for a turn and begins to write; nobody else changes anything until it is disposed of.</summary>
    public static async Task<WriteTurn> BeginWriteAsync(this PorchDb db, CancellationToken stop)
    {
        var turns = db.GetService<WriteTurns>();
        await turns.WaitAsync(stop);
        try
        {
            // All or nothing: there is no point to go back to within a transaction.
            db.Database.AutoSavepointsEnabled = false;
            return new WriteTurn(await db.Database.BeginTransactionAsync(stop), turns);
        }
        catch
        {
            turns.GiveBack();
            throw;
        }
    }
}
