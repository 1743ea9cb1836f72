using Microsoft.EntityFrameworkCore;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Clients;

/// <summary>Files of people that were only looked at and hold a client, and what else says whom something was made of.</summary>
internal sealed class ClientImports(PorchDb db, Tokens tokens) : IClientPart
{
    public IEnumerable<ClientRows> RowsOf(WholePerson person)
    {
        yield return new ClientRows<ClientImport>(cancellationToken => LookedAtAsync(person, cancellationToken))
        {
            WhenMerged = WhenMerged.Stays,
            Goes = ("One file of people that was never imported", "{0} files of people that were never imported"),
            Saved = one => new { one.FileName, one.At },
        };
    }

    public async Task ForgetAsync(WholePerson person, CancellationToken cancellationToken)
    {
        var parts = person.Words.SelectMany(word => word.Split(' ')).Where(part => part.Length > 3).ToList();
        foreach (var import in await db.ClientImports.ToListAsync(cancellationToken))
        {
            if (parts.Exists(part => import.FileName.Contains(part, StringComparison.OrdinalIgnoreCase)))
                import.FileName = $"people{Path.GetExtension(import.FileName)}";
        }

        // An answer that is shown again to the same press says what was made of whom.
        foreach (var done in await db.CompletedRequests.Where(one => one.Answer != null).ToListAsync(cancellationToken))
        {
            if (person.IsNamedIn(tokens.Open(done.Answer!)))
                done.Answer = null;
        }
    }

    private async Task<IQueryable<ClientImport>> LookedAtAsync(WholePerson person, CancellationToken cancellationToken)
    {
        if (person.Words.Count == 0)
            return db.ClientImports.Where(import => false);
        var theirs = (
            await db
                .ClientImportFiles.AsNoTracking()
                .Where(file => db.ClientImports.Any(import => import.Id == file.ImportId && import.State == ImportState.Looked))
                .ToListAsync(cancellationToken)
        )
            .Where(file => PeopleFile.Unpack(file.Table).Rows.Any(row => person.IsNamedIn([.. row])))
            .Select(file => file.ImportId)
            .ToList();
        return db.ClientImports.Where(import => theirs.Contains(import.Id) && import.State == ImportState.Looked);
    }
}
