using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Forms;
using PorchLight.Core.Records;
using PorchLight.Server.Fields;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Records;

/// <summary>The records of a client: what is on file, their projects, notes and tasks, and what happened.</summary>
internal sealed class ClientRecords(PorchDb db, RecordWriter writer, FieldCatalogues catalogues) : IClientPart
{
    public IEnumerable<ClientRows> RowsOf(WholePerson person)
    {
        var records = person.Records;
        yield return new ClientRows<FieldValue>(db.FieldValues.Where(one => records.Contains(one.ClientId)))
        {
            WhenMerged = WhenMerged.GoesOver,
            Goes = ("One field, with its history", "{0} fields, with their history"),
            Counted = (values, cancellationToken) => values.Select(one => one.Field).Distinct().CountAsync(cancellationToken),
            Saved = one => new
            {
                one.Field,
                Value = one.Value,
                Words = one.Value is { } value ? AnswerWords.Say(value) : "",
                Project = one.ProjectId,
                one.Origin,
                one.By,
                one.At,
                one.IsCurrent,
            },
        };
        yield return new ClientRows<Note>(db.Notes.Where(one => records.Contains(one.ClientId)))
        {
            WhenMerged = WhenMerged.GoesOver,
            Goes = ("One note", "{0} notes"),
            Saved = one => new
            {
                one.Heading,
                one.Text,
                Project = one.ProjectId,
                one.By,
                one.At,
            },
        };
        yield return new ClientRows<NoteRevision>(
            db.NoteRevisions.Where(one => db.Notes.Any(note => note.Id == one.NoteId && records.Contains(note.ClientId)))
        )
        {
            WhenMerged = WhenMerged.Stays,
            Saved = one => new
            {
                one.Text,
                one.By,
                one.At,
            },
        };
        yield return new ClientRows<ClientTask>(db.ClientTasks.Where(one => records.Contains(one.ClientId)))
        {
            WhenMerged = WhenMerged.GoesOver,
            Goes = ("One task or date", "{0} tasks and dates"),
            Saved = one => new
            {
                one.Title,
                one.On,
                one.Done,
                Project = one.ProjectId,
                one.By,
                one.At,
            },
        };
        yield return new ClientRows<Project>(db.Projects.Where(one => records.Contains(one.ClientId)))
        {
            WhenMerged = WhenMerged.GoesOver,
            Goes = ("One project", "{0} projects"),
            Saved = one => new
            {
                one.Id,
                one.Title,
                one.Stage,
                one.Opened,
                one.Closed,
                one.LostReason,
            },
        };
        yield return new ClientRows<RecordDifference>(db.Differences.Where(one => records.Contains(one.ClientId)))
        {
            WhenMerged = WhenMerged.GoesOver,
            Saved = one => new
            {
                one.Field,
                Theirs = one.Theirs,
                Ours = one.Ours,
                one.At,
                one.Settlement,
            },
        };
        yield return new ClientRows<ClientTag>(db.ClientTags.Where(one => records.Contains(one.ClientId)))
        {
            WhenMerged = WhenMerged.Stays,
            Saved = one => new { one.Tag },
        };
        yield return new ClientRows<ClientKey>(db.ClientKeys.Where(one => records.Contains(one.ClientId)))
        {
            WhenMerged = WhenMerged.Stays,
            Saved = null,
        };
        yield return new ClientRows<ClientPair>(db.ClientPairs.Where(one => records.Contains(one.OneId) || records.Contains(one.OtherId)))
        {
            WhenMerged = WhenMerged.Stays,
            Saved = null,
        };
        yield return new ClientRows<ClientMerge>(
            db.ClientMerges.Where(one => records.Contains(one.KeptId) || records.Contains(one.OtherId))
        )
        {
            WhenMerged = WhenMerged.Stays,
            Saved = null,
        };
        yield return new ClientRows<LoggedEvent>(cancellationToken => SpokenAsync(person, cancellationToken))
        {
            WhenMerged = WhenMerged.GoesOver,
            Saved = one => new { one.At, one.What },
        };
        yield return new ClientRows<Client>(db.Clients.IgnoreQueryFilters().Where(one => records.Contains(one.Id)))
        {
            WhenMerged = WhenMerged.Stays,
            Goes = ("One record that was made one with this", "{0} records that were made one with this"),
            Counted = async (found, cancellationToken) => Math.Max(await found.CountAsync(cancellationToken) - 1, 0),
            Saved = one => new
            {
                one.Id,
                one.Name,
                one.Email,
                one.Standing,
                one.Since,
            },
        };
    }

    /// <summary>What happened to them, but for what is counted later and says nothing in anybody's words.</summary>
    private async Task<IQueryable<LoggedEvent>> SpokenAsync(WholePerson person, CancellationToken cancellationToken)
    {
        var records = person.Records;
        var spoken = (
            await db
                .Events.AsNoTracking()
                .Where(logged => logged.ClientId != null && records.Contains(logged.ClientId.Value))
                .ToListAsync(cancellationToken)
        )
            .Where(logged => !logged.What.OutlivesErasing())
            .Select(logged => logged.Seq)
            .ToList();
        return db.Events.Where(logged => spoken.Contains(logged.Seq));
    }

    public async Task<IReadOnlyList<string>> LostBySplittingAsync(ClientMerge merge, CancellationToken cancellationToken)
    {
        var lost = new List<string>();
        var kept = (await db.Clients.FindAsync([merge.KeptId], cancellationToken))!.Name;
        if (await WrittenSinceAsync(merge, cancellationToken) is { Count: > 0 } since)
        {
            var fields = await catalogues.ReadAsync(db);
            lost.Add(
                $"Changed since then: {string.Join(", ", since.Select(field => fields.Find(field)?.Label ?? field))}. That stays with {kept}."
            );
        }

        var added =
            await db.Notes.CountAsync(
                note => note.ClientId == merge.KeptId && note.ProjectId == null && note.At > merge.At,
                cancellationToken
            )
            + await db.ClientTasks.CountAsync(
                task => task.ClientId == merge.KeptId && task.ProjectId == null && task.At > merge.At,
                cancellationToken
            );
        if (added > 0)
            lost.Add($"Notes and tasks added since then ({added}) stay with {kept}.");
        return lost;
    }

    /// <summary>The fields merging wrote that were written again since, so that splitting would not put back what stood there.</summary>
    private async Task<IReadOnlyList<string>> WrittenSinceAsync(ClientMerge merge, CancellationToken cancellationToken)
    {
        var current = await writer.CurrentAsync(merge.KeptId, null);
        var ids = merge.Memory.Written.Select(id => new Core.Common.Id<FieldValue>(id)).ToList();
        return
        [
            .. (
                await db
                    .FieldValues.Where(value => ids.Contains(value.Id))
                    .Select(value => new { value.Id, value.Field })
                    .ToListAsync(cancellationToken)
            )
                .Where(value => current.GetValueOrDefault(value.Field)?.Id != value.Id)
                .Select(value => value.Field),
        ];
    }
}
