using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Storage;
using PorchLight.Server.Hosting;

namespace PorchLight.Server.Storage;

/// <summary>
/// One writer at a time. SQLite allows no more, and whoever finds it locked can only sleep and try again; here they stand
/// in line and go on the moment it is their turn.
/// </summary>
internal sealed class WriteLock : IDisposable
{
    private readonly SemaphoreSlim _turn = new(1, 1);
    private long _written = 1;

    /// <summary>How often something was written since the start, plus one: as long as it stands, what was read still holds.</summary>
    public long Written => Interlocked.Read(ref _written);

    public void CountWrite() => Interlocked.Increment(ref _written);

    public Task WaitAsync(CancellationToken cancellationToken) => _turn.WaitAsync(cancellationToken);

    public void Release() => _turn.Release();

    public void Dispose() => _turn.Dispose();
}

/// <summary>
/// The one way to change what is stored: it holds the write lock and a transaction. What is not saved when it is disposed of never
/// happened. Nothing else may save (<see cref="WriteGuard"/>).
/// </summary>
internal sealed class Write(PorchDb db, IDbContextTransaction transaction, WriteLock writeLock, ChangeNotifier notifier) : IAsyncDisposable
{
    private readonly HashSet<string> _areas = [];

    /// <summary>Whether all of it is saved and waits to be committed.</summary>
    public bool IsHeld { get; private set; }

    /// <summary>Notes that something of an area changes.</summary>
    public void Touch(string area) => _areas.Add(area);

    /// <summary>
    /// Saves what is not saved yet without committing it, so that whatever this write reads from here on is as after a commit. None
    /// of it has happened before <see cref="SaveAsync"/>.
    /// </summary>
    public async Task FlushAsync(CancellationToken cancellationToken)
    {
        await db.GetService<DerivedColumns>().RefreshAsync(db, cancellationToken);
        await db.SaveChangesAsync(cancellationToken);
    }

    /// <summary>
    /// Saves what is not saved yet, commits, and tells the browsers which areas changed and the worker that there may
    /// be work. In a context that holds commits back, saving is all of it until <see cref="CommitAsync"/>.
    /// </summary>
    public async Task SaveAsync(CancellationToken cancellationToken)
    {
        await FlushAsync(cancellationToken);
        db.SendKey = null;
        if (db.HoldsCommits)
            IsHeld = true;
        else
            await CommitAsync(cancellationToken);
    }

    /// <summary>Gives up what is held back: none of it happens.</summary>
    public async Task GiveUpAsync()
    {
        IsHeld = false;
        await DisposeAsync();
    }

    /// <summary>Commits what is saved.</summary>
    public async Task CommitAsync(CancellationToken cancellationToken)
    {
        IsHeld = false;
        await transaction.CommitAsync(cancellationToken);
        db.End();
        // Before the lock is let go: whoever takes it next knows that something changed.
        writeLock.CountWrite();
        db.Areas?.Changed.UnionWith(_areas);
        if (_areas.Count > 0)
            notifier.Changed(_areas);
    }

    public async ValueTask DisposeAsync()
    {
        if (IsHeld)
            return;
        db.End();
        try
        {
            await transaction.DisposeAsync();
        }
        finally
        {
            writeLock.Release();
        }
    }
}

internal static class Writing
{
    /// <summary>A mark to compare with later: see <see cref="IsUnchangedSince"/>. Taken before what shall still hold is read.</summary>
    public static long Mark(this PorchDb db) => db.GetService<WriteLock>().Written;

    /// <summary>Whether nobody has written anything since the mark, so that what was read after it need not be read again.</summary>
    public static bool IsUnchangedSince(this PorchDb db, long mark) => db.Mark() == mark;

    /// <summary>Commits a write that is held back, and lets go of it.</summary>
    public static async Task CommitHeldAsync(this PorchDb db, CancellationToken cancellationToken)
    {
        if (db.CurrentWrite is not { IsHeld: true } held)
            return;
        await held.CommitAsync(cancellationToken);
        await held.DisposeAsync();
    }

    /// <summary>
    /// Waits for the write lock and begins to write; nobody else changes anything until it is disposed of. What is written is read within
    /// it: what was read before may have changed while one waited.
    /// </summary>
    /// <exception cref="InvalidOperationException">
    /// This context writes already, and a second wait for the lock would never end; or it holds something from before the lock.
    /// </exception>
    public static async Task<Write> WriteAsync(this PorchDb db, CancellationToken cancellationToken)
    {
        // Of several writes in one request only the last is held back.
        await db.CommitHeldAsync(cancellationToken);
        if (db.CurrentWrite is not null)
            throw new InvalidOperationException("A write is open already in this context.");
        if (db.ChangeTracker.Entries().FirstOrDefault() is { } early)
            throw new InvalidOperationException(
                $"{early.Metadata.ShortName()} is held from before the write lock: read or add it after it."
            );
        var writeLock = db.GetService<WriteLock>();
        await writeLock.WaitAsync(cancellationToken);
        try
        {
            await OverwriteWhatIsDeletedAsync(db, cancellationToken);
            // All or nothing: there is no point to go back to within a transaction.
            db.Database.AutoSavepointsEnabled = false;
            var write = new Write(
                db,
                await db.Database.BeginTransactionAsync(cancellationToken),
                writeLock,
                db.GetService<ChangeNotifier>()
            );
            db.Begin(write);
            return write;
        }
        catch
        {
            writeLock.Release();
            throw;
        }
    }

    /// <summary>What a write deletes is written over with zeros, so that nothing of it is left in the file.</summary>
    private static async Task OverwriteWhatIsDeletedAsync(PorchDb db, CancellationToken cancellationToken)
    {
        await db.Database.OpenConnectionAsync(cancellationToken);
        try
        {
            await using var command = db.Database.GetDbConnection().CreateCommand();
            command.CommandText = "PRAGMA secure_delete = ON";
            await command.ExecuteNonQueryAsync(cancellationToken);
        }
        finally
        {
            await db.Database.CloseConnectionAsync();
        }
    }
}
