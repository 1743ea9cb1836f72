using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Storage;

namespace PorchLight.Server.Data;

/// <summary>
/// One writer at a time. SQLite allows no more, and whoever finds it locked can only sleep and try again; here they stand
/// in line and go on the moment it is their turn.
/// </summary>
internal sealed class WriteLock : IDisposable
{
    private readonly SemaphoreSlim _turn = new(1, 1);

    public Task WaitAsync(CancellationToken cancellationToken) => _turn.WaitAsync(cancellationToken);

    public void GiveBack() => _turn.Release();

    public void Dispose() => _turn.Dispose();
}

/// <summary>A transaction that writes. What is not committed when it is disposed of never happened.</summary>
internal sealed class WriteTransaction(IDbContextTransaction transaction, WriteLock writeLock) : IAsyncDisposable
{
    public Task CommitAsync(CancellationToken cancellationToken) => transaction.CommitAsync(cancellationToken);

    public async ValueTask DisposeAsync()
    {
        try
        {
            await transaction.DisposeAsync();
        }
        finally
        {
            writeLock.GiveBack();
        }
    }
}

internal static class Writing
{
    /// <summary>Waits for a turn and begins to write; nobody else changes anything until it is disposed of.</summary>
    public static async Task<WriteTransaction> BeginWriteAsync(this PorchDb db, CancellationToken cancellationToken)
    {
        var writeLock = db.GetService<WriteLock>();
        await writeLock.WaitAsync(cancellationToken);
        try
        {
            // All or nothing: there is no point to go back to within a transaction.
            db.Database.AutoSavepointsEnabled = false;
            return new WriteTransaction(await db.Database.BeginTransactionAsync(cancellationToken), writeLock);
        }
        catch
        {
            writeLock.GiveBack();
            throw;
        }
    }
}
