using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Core.Records;
using PorchLight.Server.Calendar;
using PorchLight.Server.Fields;
using PorchLight.Server.Hosting;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Clients;

/// <summary>
/// Brings the people of a file in, and takes a whole import back. Each batch is a transaction of its own with how far it has come, so that
/// a program that is stopped in the middle goes on with the next line.
/// </summary>
internal sealed class ClientImporter(
    PorchDb db,
    RecordWriter writer,
    FieldCatalogues catalogues,
    EventLog events,
    ImportTables tables,
    ClientSearch search,
    BusinessClock clock
) : IDueWork
{
    private const int AtOnce = 250;

    public DueClock Clock => DueClock.Machine;

    public bool FollowsWrites => true;

    /// <summary>Does the next batch of whatever import is under way. Its commit wakes the next pass, so that others have their turn.</summary>
    public async Task<Instant?> WorkAsync(CancellationToken cancellationToken)
    {
        if (!await UnderWay().AnyAsync(cancellationToken))
            return null;
        await using var write = await db.WriteAsync(cancellationToken);
        if (await UnderWay().OrderBy(import => import.At).FirstOrDefaultAsync(cancellationToken) is not { } next)
            return null;
        if (next.State == ImportState.Running)
            await BringInAsync(next, cancellationToken);
        else
            await TakeBackAsync(next, cancellationToken);
        await write.SaveAsync(cancellationToken);
        return null;

        IQueryable<ClientImport> UnderWay() =>
            db.ClientImports.Where(import => import.State == ImportState.Running || import.State == ImportState.TakingBack);
    }

    private async Task BringInAsync(ClientImport import, CancellationToken cancellationToken)
    {
        var table = await tables.ReadAsync(db, import.Id);
        var (fields, business, now) = (await catalogues.ReadAsync(db), await db.BusinessAsync(), clock.GetCurrentInstant());
        var context = new NormaliseContext(business.Region, 0, now, business.Calendar.Today(now));
        var people = table
            .Rows.Skip(import.WorkedThrough)
            .Take(AtOnce)
            .Select(cells => ImportedPerson.Read(cells, import.Plan.Targets, fields, context, business.Currency))
            .ToList();
        var known = await KnownPeople.OfAsync(db, people, cancellationToken);
        var source = new ValueSource(ValueOrigin.Imported, import.By, now) { Import = import.Id };
        foreach (var person in people)
        {
            if (!person.IsSomebody)
                import.LeftOut++;
            else if (await known.FindAsync(db, person) is { } client)
                import.Filled += Add(client, person, known.ValuesOf(client.Id), known) ? 1 : 0;
            else
                await MakeAsync(person);
        }

        import.WorkedThrough += people.Count;
        if (import.WorkedThrough < import.Lines)
            return;
        import.State = ImportState.Done;
        await db.ClientImportFiles.Where(file => file.ImportId == import.Id).ExecuteDeleteAsync(cancellationToken);
        tables.Forget();

        async Task MakeAsync(ImportedPerson person)
        {
            var email = (person.Values.GetValueOrDefault(BuiltInFields.Email.Key) as TextAnswer)?.Text;
            var name =
                (person.Values.GetValueOrDefault(BuiltInFields.Name.Key) as PersonNameAnswer)?.Full
                ?? email
                ?? AnswerWords.Say(person.Values[BuiltInFields.Phone.Key]);
            var client = db
                .Clients.Add(
                    new Client
                    {
                        Id = new Id<Client>(Guid.CreateVersion7()),
                        Name = name,
                        SortName = ValueOrder.Fold(name),
                        Email = null,
                        EmailKey = null,
                        Standing = person.Standing ?? Standing.Lead,
                        Since = now,
                        ImportId = import.Id,
                    }
                )
                .Entity;
            var values = new Dictionary<string, FieldValue>();
            Add(client, person, values, known);
            known.Add(client, person, values);
            import.Made++;
            await events.AppendAsync(new ClientImported(import.ByUser), now, new EventContext(client.Id));
        }

        bool Add(Client client, ImportedPerson person, Dictionary<string, FieldValue> current, KnownPeople all)
        {
            var isNew = false;
            foreach (var (field, value) in person.Values)
            {
                var stands = current.GetValueOrDefault(field);
                if (stands is not null && (!import.Plan.Replace || FieldValues.IsSame(stands.Value!, value)))
                    continue;
                // Under one address are only those whose names are unlike.
                if (field == BuiltInFields.Email.Key && stands is not null && all.HasOther(client.Id, value))
                    continue;
                current[field] = writer.Write(client, null, field, value, stands, source);
                isNew = true;
            }

            foreach (var tag in person.Tags.Where(tag => all.AddTag(client.Id, tag)))
            {
                db.ClientTags.Add(
                    new ClientTag
                    {
                        ClientId = client.Id,
                        Tag = tag,
                        ImportId = import.Id,
                    }
                );
                isNew = true;
            }

            if (person.Note is { } note && all.AddNote(client.Id, note))
            {
                db.Notes.Add(
                    new Note
                    {
                        Id = new Id<Note>(Guid.CreateVersion7()),
                        ClientId = client.Id,
                        ProjectId = null,
                        Heading = "",
                        Text = note,
                        By = import.By,
                        At = now,
                        ImportId = import.Id,
                    }
                );
                isNew = true;
            }

            client.IsUnindexed |= isNew;
            return isNew;
        }
    }

    /// <summary>
    /// First what the import wrote into the records of people who were here already, then the people it made. With whom something has
    /// happened since, or whose records are part of another's, stays.
    /// </summary>
    private async Task TakeBackAsync(ClientImport import, CancellationToken cancellationToken)
    {
        var now = clock.GetCurrentInstant();
        var written = await db
            .FieldValues.Where(value =>
                value.ImportId == import.Id
                && value.IsCurrent
                && !db.Clients.IgnoreQueryFilters().Any(client => client.Id == value.ClientId && client.ImportId == import.Id)
            )
            .Take(AtOnce)
            .ToListAsync(cancellationToken);
        if (written.Count > 0)
        {
            foreach (var value in written)
            {
                var client = (await db.ClientOrMergedAsync(value.ClientId))!;
                writer.Write(client, null, value.Field, value.Before, value, new ValueSource(ValueOrigin.Imported, import.By, now));
            }

            return;
        }

        await db
            .Clients.Where(client =>
                db.ClientTags.Any(tag => tag.ClientId == client.Id && tag.ImportId == import.Id)
                || db.Notes.Any(note => note.ClientId == client.Id && note.ImportId == import.Id)
            )
            .ExecuteUpdateAsync(set => set.SetProperty(client => client.IsUnindexed, true), cancellationToken);
        await db.ClientTags.Where(tag => tag.ImportId == import.Id).ExecuteDeleteAsync(cancellationToken);
        var made = await db
            .Clients.IgnoreQueryFilters()
            .Where(client => client.ImportId == import.Id)
            .Where(client => !db.Projects.Any(project => project.ClientId == client.Id))
            .Where(client => !db.Inquiries.Any(inquiry => inquiry.ClientId == client.Id))
            .Where(client => !db.FieldValues.Any(value => value.ClientId == client.Id && value.ImportId != import.Id))
            .Where(client => !db.Notes.Any(note => note.ClientId == client.Id && note.ImportId != import.Id))
            .Where(client => client.MergedIntoId == null && !db.ClientMerges.Any(merge => merge.KeptId == client.Id))
            .Where(client => !db.Events.Any(logged => logged.ClientId == client.Id && logged.Kind != Imported))
            .Select(client => client.Id)
            .Take(AtOnce)
            .ToListAsync(cancellationToken);
        if (made.Count > 0)
        {
            foreach (var client in made)
                await search.ForgetAsync(client, cancellationToken);
            await db
                .Events.Where(logged => logged.ClientId != null && made.Contains(logged.ClientId.Value))
                .ExecuteDeleteAsync(cancellationToken);
            await db.Clients.Where(client => made.Contains(client.Id)).ExecuteDeleteAsync(cancellationToken);
            return;
        }

        await db
            .Notes.Where(note =>
                note.ImportId == import.Id && !db.Clients.Any(client => client.Id == note.ClientId && client.ImportId == import.Id)
            )
            .ExecuteDeleteAsync(cancellationToken);
        import.Stayed = await db.Clients.IgnoreQueryFilters().CountAsync(client => client.ImportId == import.Id, cancellationToken);
        import.State = ImportState.TakenBack;
    }

    private static readonly string Imported = new ClientImported(Guid.Empty).Kind();
}
