using System.Data.Common;
using Microsoft.EntityFrameworkCore.Diagnostics;

namespace PorchLight.Server.Tests.Crash;

/// <summary>
/// Copies the data folder at both sides of every commit. A copy is what a program leaves behind that dies at that instant:
/// all it has given to the system, and nothing it only has in memory.
/// </summary>
internal sealed class CommitPoints(string copies) : DbTransactionInterceptor, ISaveChangesInterceptor
{
    /// <summary>The folder that is watched; null while nothing is copied.</summary>
    public string? Watched { get; set; }

    /// <summary>The copies so far, in their order.</summary>
    public List<string> Taken { get; } = [];

    public override ValueTask<InterceptionResult> TransactionCommittingAsync(
        DbTransaction transaction,
        TransactionEventData eventData,
        InterceptionResult result,
        CancellationToken cancellationToken = default
    )
    {
        Take("before");
        return ValueTask.FromResult(result);
    }

    public override Task TransactionCommittedAsync(
        DbTransaction transaction,
        TransactionEndEventData eventData,
        CancellationToken cancellationToken = default
    )
    {
        Take("after");
        return Task.CompletedTask;
    }

    /// <summary>A single statement is a commit of its own, without a transaction to be told of.</summary>
    public ValueTask<int> SavedChangesAsync(
        SaveChangesCompletedEventData eventData,
        int result,
        CancellationToken cancellationToken = default
    )
    {
        if (eventData.Context!.Database.CurrentTransaction is null)
            Take("after");
        return ValueTask.FromResult(result);
    }

    private void Take(string side)
    {
        if (Watched is null)
            return;
        var copy = Path.Combine(copies, $"{Taken.Count:00} {side}");
        FolderCopy.Make(Watched, copy);
        Taken.Add(copy);
    }
}
