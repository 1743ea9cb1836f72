using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Core.Records;
using PorchLight.Server.Calendar;
using PorchLight.Server.Fields;
using PorchLight.Server.Hosting;
using PorchLight.Server.Identity;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Records;

/// <summary>What the people of the business write about a client: values, notes, the standing, tags.</summary>
internal static class ClientEdits
{
    internal const string Gone = "This client is not here any more.";
    private const int LongestNote = 20_000;
    private const int LongestTag = 40;
    private const int MostValues = 50;
    private const int MostAtOnce = 20_000;

    /// <param name="Field">A field of the client.</param>
    /// <param name="Was">What stood there when it was read; null when nothing did.</param>
    /// <param name="Now">What shall stand there; null empties it.</param>
    internal sealed record FieldEdit(string Field, Answer? Was, Answer? Now);

    /// <param name="People">The people as they were read.</param>
    /// <param name="Person">Which of them, counted from zero.</param>
    internal sealed record NewMainContact(Answer People, int Person);

    /// <param name="Value">What stands there from now on; null for nothing.</param>
    internal sealed record ValueStored(Answer? Value);

    /// <param name="ProjectId">The project it is about; null for the client.</param>
    internal sealed record NewNote(Id<Project>? ProjectId, string Text);

    /// <param name="Leads">How many clients nobody has said more of than that they asked.</param>
    internal sealed record LeadCount(int Leads);

    internal sealed record NoteWords(string Text, bool IsPinned);

    internal sealed record NewClient(string Name, string Email, string Phone);

    internal sealed record Made(Guid Id);

    /// <param name="Always">Whether no answer of theirs rules them out.</param>
    internal sealed record AlwaysComesIn(bool Always);

    internal sealed record StandingOf(Id<Client> Client, Standing Standing);

    /// <param name="Add">Tags they get.</param>
    /// <param name="Remove">Tags they lose.</param>
    internal sealed record TagChange(IReadOnlyList<Id<Client>> Clients, IReadOnlyList<string> Add, IReadOnlyList<string> Remove);

    public static void MapClientEdits(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/clients").For(Access.Member).WithTags("Clients");
        group.MapPost("", AddAsync).Once();
        group.MapPut("/standing", SetStandingAsync);
        group.MapPut("/tags", SetTagsAsync);
        group.MapPut("/{id}/always-comes-in", SetAlwaysComesInAsync);
        group.MapPut("/{id}/values/{field}", SetValueAsync);
        group.MapPut("/{id}/values", SetValuesAsync);
        group.MapPut("/{id}/main-contact", HandOverAsync);
        group.MapGet("/leads", CountLeadsAsync);
        group.MapPost("/{id}/notes", AddNoteAsync).Once();
        group.MapPut("/{id}/notes/{note}", ChangeNoteAsync);
        group.MapDelete("/{id}/notes/{note}", RemoveNoteAsync);
    }

    private static async Task<Results<Created<Made>, ProblemHttpResult>> AddAsync(
        NewClient wanted,
        PorchDb db,
        RecordWriter writer,
        FieldCatalogues catalogues,
        EventLog events,
        BusinessClock clock,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        var business = await db.BusinessAsync();
        var fields = await catalogues.ReadAsync(db);
        var now = clock.GetCurrentInstant();
        var context = new NormaliseContext(business.Region, 0, now, business.Calendar.Today(now));
        var (values, findings) = (new Dictionary<string, Answer>(), new List<Finding>());
        Take(BuiltInFields.Name.Key, "name", wanted.Name);
        Take(BuiltInFields.Email.Key, "email", wanted.Email);
        Take(BuiltInFields.Phone.Key, "phone", wanted.Phone);
        if (findings.Count == 0 && !values.ContainsKey(BuiltInFields.Name.Key))
            findings.Add(new Finding("name", "A client needs a name, so that you find them again."));
        if (findings.Count > 0)
            return Problems.Invalid(findings);
        await using var write = await db.WriteAsync(cancellationToken);
        var email = (values.GetValueOrDefault(BuiltInFields.Email.Key) as TextAnswer)?.Text;
        var client = new Client
        {
            Id = new Id<Client>(Guid.CreateVersion7()),
            Name = wanted.Name,
            Email = null,
            EmailKey = null,
            Standing = Standing.Lead,
            Since = now,
        };
        if (email is not null && await writer.IsTakenAsync(email, client.Id))
            return Problems.Invalid(new Finding("email", "A client with this e-mail address is here already. Look for them in the list."));
        db.Clients.Add(client);
        foreach (var (field, value) in values)
            writer.Write(client, null, field, value, null, new ValueSource(ValueOrigin.Hand, who.DisplayName(), now));
        await events.AppendAsync(new ClientAdded(who.UserId()), now, new EventContext(client.Id));
        await write.SaveAsync(cancellationToken);
        return TypedResults.Created($"/api/clients/{client.Id}", new Made(client.Id.Value));

        void Take(string key, string place, string text)
        {
            var entered = FieldEntry.Read(text, fields.Find(key)!, context, business.Currency);
            if (entered.Fault is { } fault)
                findings.Add(new Finding(place, fault));
            else if (entered.Value is { } value)
                values[key] = value;
        }
    }

    /// <summary>Writes a value by hand. What others wrote meanwhile in another way is refused with both.</summary>
    private static async Task<Results<Ok<ValueStored>, ProblemHttpResult>> SetValueAsync(
        Id<Client> id,
        string field,
        ValueEdit edit,
        PorchDb db,
        ValueEntry hand,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        var (value, refusal) = await hand.WriteAsync(id, field, edit, who.DisplayName());
        if (refusal is not null)
            return refusal;
        await write.SaveAsync(cancellationToken);
        return TypedResults.Ok(new ValueStored(value));
    }

    /// <summary>Writes several values by hand; all of them, or none.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> SetValuesAsync(
        Id<Client> id,
        IReadOnlyList<FieldEdit> edits,
        PorchDb db,
        ValueEntry hand,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        foreach (var edit in edits.Take(MostValues))
        {
            if ((await hand.WriteAsync(id, edit.Field, new ValueEdit(null, edit.Was, edit.Now), who.DisplayName())).Refusal is { } refusal)
                return refusal;
        }

        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
    }

    /// <summary>Makes another of a client's people their main contact; gives what was written, to take it back by.</summary>
    private static async Task<Results<Ok<List<FieldEdit>>, ProblemHttpResult>> HandOverAsync(
        Id<Client> id,
        NewMainContact wanted,
        PorchDb db,
        RecordWriter writer,
        ValueEntry hand,
        EventLog events,
        BusinessClock clock,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (!await db.Clients.AnyAsync(client => client.Id == id, cancellationToken))
            return Problems.NotFound(Gone);
        var onFile = (await writer.CurrentAsync(id, null)).ToDictionary(value => value.Key, value => value.Value.Value!);
        var people = onFile.GetValueOrDefault(ClientPeople.Field.Key);
        if (!Equals(people, wanted.People))
            return Edits.Clashing(ClientPeople.Field.Key, people, wanted.People);
        if (MainContact.HandedTo(wanted.Person, onFile) is not { } values)
            return Problems.Unprocessable("The main contact needs a name. Add it first.");
        var written = values.Select(value => new FieldEdit(value.Key, onFile.GetValueOrDefault(value.Key), value.Value)).ToList();
        foreach (var edit in written)
        {
            if ((await hand.WriteAsync(id, edit.Field, new ValueEdit(null, edit.Was, edit.Now), who.DisplayName())).Refusal is { } refusal)
                return refusal;
        }

        await events.AppendAsync(new MainContactChanged(who.UserId()), clock.GetCurrentInstant(), new EventContext(id));
        await write.SaveAsync(cancellationToken);
        return TypedResults.Ok(written);
    }

    private static async Task<Results<Created<Made>, ProblemHttpResult>> AddNoteAsync(
        Id<Client> id,
        NewNote wanted,
        PorchDb db,
        EventLog events,
        BusinessClock clock,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        if (RefuseNote(wanted.Text) is { } refusal)
            return refusal;
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.Clients.FindAsync([id], cancellationToken) is not { } client)
            return Problems.NotFound(Gone);
        if (
            wanted.ProjectId is { } project
            && !await db.Projects.AnyAsync(one => one.Id == project && one.ClientId == id, cancellationToken)
        )
            return Problems.NotFound("This project is not here any more.");
        var now = clock.GetCurrentInstant();
        var note = new Note
        {
            Id = new Id<Note>(Guid.CreateVersion7()),
            ClientId = id,
            ProjectId = wanted.ProjectId,
            Heading = "",
            Text = wanted.Text.Trim(),
            By = who.DisplayName(),
            At = now,
        };
        db.Notes.Add(note);
        client.IsUnindexed = true;
        await events.AppendAsync(new NoteWritten(who.UserId()), now, new EventContext(id, wanted.ProjectId));
        await write.SaveAsync(cancellationToken);
        return TypedResults.Created($"/api/clients/{id}", new Made(note.Id.Value));
    }

    private static async Task<Ok<LeadCount>> CountLeadsAsync(PorchDb db, CancellationToken cancellationToken) =>
        TypedResults.Ok(new LeadCount(await db.CountingClients.CountAsync(client => client.Standing == Standing.Lead, cancellationToken)));

    /// <summary>Changes a note; what it said before is kept.</summary>
    private static async Task<Results<Ok<NoteWords>, ProblemHttpResult>> ChangeNoteAsync(
        Id<Client> id,
        Id<Note> note,
        Edit<NoteWords> edit,
        PorchDb db,
        BusinessClock clock,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        if (RefuseNote(edit.Now.Text) is { } wrong)
            return wrong;
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.Notes.SingleOrDefaultAsync(one => one.Id == note && one.ClientId == id, cancellationToken) is not { } stored)
            return Problems.NotFound("This note is not here any more.");
        var (merged, refusal) = edit.Onto(new NoteWords(stored.Text, stored.IsPinned));
        if (refusal is not null)
            return refusal;
        if (merged.Text.Trim() != stored.Text)
        {
            db.NoteRevisions.Add(
                new NoteRevision
                {
                    Id = new Id<NoteRevision>(Guid.CreateVersion7()),
                    NoteId = note,
                    Text = stored.Text,
                    By = who.DisplayName(),
                    At = clock.GetCurrentInstant(),
                }
            );
            (await db.Clients.FindAsync([id], cancellationToken))!.IsUnindexed = true;
        }

        (stored.Text, stored.IsPinned) = (merged.Text.Trim(), merged.IsPinned);
        await write.SaveAsync(cancellationToken);
        return TypedResults.Ok(new NoteWords(stored.Text, stored.IsPinned));
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> RemoveNoteAsync(
        Id<Client> id,
        Id<Note> note,
        PorchDb db,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.Notes.SingleOrDefaultAsync(one => one.Id == note && one.ClientId == id, cancellationToken) is not { } stored)
            return Problems.NotFound("This note is not here any more.");
        if (stored.InquiryId is not null)
            return Problems.Conflict("This note is an answer someone gave, so it stays. Change its words if they are wrong.");
        db.Notes.Remove(stored);
        (await db.Clients.FindAsync([id], cancellationToken))!.IsUnindexed = true;
        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
    }

    /// <summary>Says how the business stands with each of some clients. Who is gone is left out.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> SetStandingAsync(
        IReadOnlyList<StandingOf> changes,
        PorchDb db,
        ProjectStages stages,
        BusinessClock clock,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        if (changes.Count > MostAtOnce)
            return Problems.Unprocessable("These are too many at once. Please choose fewer.");
        await using var write = await db.WriteAsync(cancellationToken);
        var wanted = changes.DistinctBy(change => change.Client).ToDictionary(change => change.Client, change => change.Standing);
        var clients = await db.Clients.Where(client => wanted.Keys.Contains(client.Id)).ToListAsync(cancellationToken);
        var now = clock.GetCurrentInstant();
        foreach (var client in clients)
            await stages.SetStandingAsync(client, wanted[client.Id], who.UserId(), now);

        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
    }

    /// <summary>Says whether a client always comes in; what was judged before keeps its verdict.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> SetAlwaysComesInAsync(
        Id<Client> id,
        AlwaysComesIn wanted,
        PorchDb db,
        EventLog events,
        BusinessClock clock,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.Clients.FindAsync([id], cancellationToken) is not { } client)
            return Problems.NotFound(Gone);
        if (client.AlwaysComesIn == wanted.Always)
            return TypedResults.NoContent();
        client.AlwaysComesIn = wanted.Always;
        await events.AppendAsync(new AlwaysComesInSet(wanted.Always, who.UserId()), clock.GetCurrentInstant(), new EventContext(id));
        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> SetTagsAsync(
        TagChange change,
        PorchDb db,
        CancellationToken cancellationToken
    )
    {
        var add = change.Add.Select(tag => tag.Trim()).Where(tag => tag.Length > 0).Distinct().ToList();
        if (add.Any(tag => tag.Length > LongestTag))
            return Problems.Unprocessable($"A tag has at most {LongestTag} characters. Please choose a shorter word.");
        if (change.Clients.Count > MostAtOnce || add.Count + change.Remove.Count > 20)
            return Problems.Unprocessable("These are too many at once. Please choose fewer.");
        await using var write = await db.WriteAsync(cancellationToken);
        var clients = await db.Clients.Where(client => change.Clients.Contains(client.Id)).ToListAsync(cancellationToken);
        var ids = clients.Select(client => client.Id).ToList();
        var there = await db.ClientTags.Where(tag => ids.Contains(tag.ClientId)).ToListAsync(cancellationToken);
        db.ClientTags.RemoveRange(there.Where(tag => change.Remove.Contains(tag.Tag) && !add.Contains(tag.Tag)));
        var has = there.Select(tag => (tag.ClientId, tag.Tag)).ToHashSet();
        db.ClientTags.AddRange(
            from id in ids
            from tag in add
            where !has.Contains((id, tag))
            select new ClientTag { ClientId = id, Tag = tag }
        );
        foreach (var client in clients)
            client.IsUnindexed = true;
        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
    }

    private static ProblemHttpResult? RefuseNote(string text) =>
        string.IsNullOrWhiteSpace(text) ? Problems.Invalid(new Finding("text", "Please write something, or close it."))
        : text.Length > LongestNote
            ? Problems.Invalid(new Finding("text", $"This note is too long. Please use at most {LongestNote} characters."))
        : null;
}
