using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Server.Forms;

namespace PorchLight.Server.Records;

/// <summary>A client with every record that was made one with theirs, and all they are told by.</summary>
/// <param name="Records">Their record, and those that went into it.</param>
/// <param name="Submissions">What they sent.</param>
/// <param name="Emails">Every address that ever stood in their records and is nobody else's, as addresses are compared.</param>
/// <param name="Words">Their full names, addresses and phone numbers, as they ever stood in the records.</param>
/// <param name="Work">The identifiers of their inquiries, projects and runs, as keys of effects name them.</param>
internal sealed record WholePerson(
    IReadOnlyList<Id<Client>> Records,
    IReadOnlyList<Id<Submission>> Submissions,
    IReadOnlyList<string> Emails,
    IReadOnlyList<string> Words,
    IReadOnlySet<string> Work
)
{
    /// <summary>Nobody, of whom nothing is kept.</summary>
    public static WholePerson Nobody { get; } = new([], [], [], [], new HashSet<string>());

    /// <summary>Whether any of some texts names them.</summary>
    public bool IsNamedIn(params IReadOnlyList<string> texts) =>
        texts.Any(text => Words.Any(word => text.Contains(word, StringComparison.OrdinalIgnoreCase)));

    /// <summary>Whether what somebody typed to find people finds them by what they are told by.</summary>
    /// <param name="typed">What was typed; three letters find too many.</param>
    public bool IsFoundBy(string typed) =>
        typed.Length > 3
        && Words.Any(word =>
            word.Contains(typed.Trim(), StringComparison.OrdinalIgnoreCase) || typed.Contains(word, StringComparison.OrdinalIgnoreCase)
        );
}

/// <summary>What becomes of a row of one client who is made one with another.</summary>
internal enum WhenMerged
{
    /// <summary>It goes over to the record that is kept, and back when the two are split.</summary>
    GoesOver,

    /// <summary>It belongs to the record and not to the person, is made anew of the records, or hangs on a row that goes over.</summary>
    Stays,
}

/// <summary>The rows of one table that are somebody's.</summary>
internal abstract class ClientRows
{
    /// <summary>The table, by what it holds.</summary>
    public abstract Type Table { get; }

    public required WhenMerged WhenMerged { get; init; }

    /// <summary>What they are called before they are erased: one of them, and many behind their number; null where that is not told.</summary>
    public (string One, string Many)? Goes { get; init; }

    /// <summary>Whether the rows stay to be counted, without a word of theirs (<see cref="IClientPart.ForgetAsync"/>).</summary>
    public bool StayEmptied { get; init; }

    /// <summary>Whether some of them hang on somebody else's record, so that they do not go with theirs.</summary>
    public bool ReachFurther { get; init; }

    /// <summary>How many the person is told go.</summary>
    public abstract Task<int> CountAsync(CancellationToken cancellationToken);

    /// <summary>Whether there are any at all.</summary>
    public abstract Task<bool> AnyAsync(CancellationToken cancellationToken);

    /// <summary>Erases them, as part of the caller's write.</summary>
    public abstract Task EraseAsync(CancellationToken cancellationToken);

    /// <summary>What of them is handed to somebody who asks what is kept of them; null where a row only serves the program.</summary>
    public abstract Task<IReadOnlyList<object>?> SaveAsync(CancellationToken cancellationToken);
}

/// <summary>The same of one table.</summary>
/// <param name="rows">The rows; looked for anew each time.</param>
internal sealed class ClientRows<T>(Func<CancellationToken, Task<IQueryable<T>>> rows) : ClientRows
    where T : class
{
    public ClientRows(IQueryable<T> rows)
        : this(_ => Task.FromResult(rows)) { }

    public override Type Table => typeof(T);

    /// <summary>What is handed out of a row; null for nothing.</summary>
    public required Func<T, object>? Saved { get; init; }

    /// <summary>Counts what the person is told; the rows where nothing is said.</summary>
    public Func<IQueryable<T>, CancellationToken, Task<int>>? Counted { get; init; }

    public override async Task<int> CountAsync(CancellationToken cancellationToken)
    {
        var found = await rows(cancellationToken);
        return await (Counted is null ? found.CountAsync(cancellationToken) : Counted(found, cancellationToken));
    }

    public override async Task<bool> AnyAsync(CancellationToken cancellationToken) =>
        await (await rows(cancellationToken)).AnyAsync(cancellationToken);

    public override async Task EraseAsync(CancellationToken cancellationToken) =>
        await (await rows(cancellationToken)).ExecuteDeleteAsync(cancellationToken);

    public override async Task<IReadOnlyList<object>?> SaveAsync(CancellationToken cancellationToken) =>
        Saved is null ? null : [.. (await (await rows(cancellationToken)).AsNoTracking().ToListAsync(cancellationToken)).Select(Saved)];
}

/// <summary>
/// What an area keeps of clients. Whatever concerns a whole client is made of these: erasing and what is shown before, making two one and
/// splitting them, handing out all that is kept. A table with a client that no part answers for fails a test.
/// </summary>
internal interface IClientPart
{
    /// <summary>
    /// The rows of a person, table by table. Those that a foreign key takes along with the record need not be erased by themselves; the
    /// others are erased before it, in this order.
    /// </summary>
    IEnumerable<ClientRows> RowsOf(WholePerson person);

    /// <summary>The files of theirs in the store, by the names they have there; they are deleted once the write is saved.</summary>
    Task<IReadOnlyList<string>> FilesOfAsync(WholePerson person, CancellationToken cancellationToken) =>
        Task.FromResult<IReadOnlyList<string>>([]);

    /// <summary>Takes what speaks of them out of what stays, as part of the caller's write that erases them.</summary>
    Task ForgetAsync(WholePerson person, CancellationToken cancellationToken) => Task.CompletedTask;

    /// <summary>What follows from two clients having become one, in the same write: their rows have gone over.</summary>
    Task MergedAsync(ClientMerge merge, Instant now, CancellationToken cancellationToken) => Task.CompletedTask;

    /// <summary>What follows from two having been split again, in the same write.</summary>
    Task SplitAsync(ClientMerge merge, CancellationToken cancellationToken) => Task.CompletedTask;

    /// <summary>What splitting would not bring back, a sentence each.</summary>
    Task<IReadOnlyList<string>> LostBySplittingAsync(ClientMerge merge, CancellationToken cancellationToken) =>
        Task.FromResult<IReadOnlyList<string>>([]);
}
