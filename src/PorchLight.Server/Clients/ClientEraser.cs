using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Core.Records;
using PorchLight.Server.Forms;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Clients;

/// <summary>
/// Erases a person, as part of the caller's write: every row that any area keeps of them (<see cref="IClientPart"/>). What is counted
/// stays, without a word of theirs.
/// </summary>
internal sealed class ClientEraser(PorchDb db, IEnumerable<IClientPart> parts, EventLog events, FileStore files)
{
    /// <summary>Erases a client with everything of theirs.</summary>
    /// <param name="client">The client.</param>
    /// <param name="by">Who does it; null when the keeping period has ended.</param>
    /// <param name="now">The business's now.</param>
    /// <returns>The files to be deleted from the disk once the write is saved.</returns>
    public async Task<IReadOnlyList<string>> EraseAsync(Id<Client> client, Guid? by, Instant now, CancellationToken cancellationToken)
    {
        var person = await db.WholePersonAsync(client, cancellationToken);
        var stored = new List<string>();
        foreach (var part in parts)
            stored.AddRange(await part.FilesOfAsync(person, cancellationToken));
        foreach (var part in parts)
            await part.ForgetAsync(person, cancellationToken);
        await db.CurrentWrite!.FlushAsync(cancellationToken);
        foreach (var rows in parts.SelectMany(part => part.RowsOf(person)).Where(rows => !rows.StayEmptied && !GoesWithTheRecord(rows)))
            await rows.EraseAsync(cancellationToken);
        await db.Clients.IgnoreQueryFilters().Where(one => person.Records.Contains(one.Id)).ExecuteDeleteAsync(cancellationToken);
        await events.AppendAsync(new ClientErased(by), now, new EventContext(null));
        return stored;
    }

    /// <summary>
    /// Takes erased files from the disk, and what the database keeps of what it wrote last. What is left behind by a crash before it is
    /// swept like any file nobody knows, and written over with what comes next.
    /// </summary>
    public async Task CleanUpAsync(IEnumerable<string> storedAs)
    {
        foreach (var file in storedAs)
            files.Delete(file);
        await db.Database.ExecuteSqlRawAsync("PRAGMA wal_checkpoint(TRUNCATE)");
    }

    private bool GoesWithTheRecord(ClientRows rows) =>
        !rows.ReachFurther
        && db.Model.FindEntityType(rows.Table)!
            .GetForeignKeys()
            .Any(key => key.PrincipalEntityType.ClrType == typeof(Client) && key.DeleteBehavior == DeleteBehavior.Cascade);
}
