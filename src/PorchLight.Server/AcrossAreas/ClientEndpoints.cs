using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Answers;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Core.Projects;
using PorchLight.Core.Records;
using PorchLight.Server.Calendar;
using PorchLight.Server.Fields;
using PorchLight.Server.Hosting;
using PorchLight.Server.Identity;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.AcrossAreas;

/// <summary>One client with everything on file and where it came from.</summary>
internal static class ClientEndpoints
{
    private const string Gone = "This client is not here any more.";

    /// <param name="Standing">How the business stands with them.</param>
    /// <param name="Since">When they came, in words.</param>
    /// <param name="Fields">Every field of clients that is offered or filled, in order.</param>
    /// <param name="Differences">What differs from what is on file, open ones first.</param>
    internal sealed record ClientView(
        Id<Client> Id,
        string Name,
        string? Email,
        Standing Standing,
        bool AlwaysComesIn,
        string Since,
        IReadOnlyList<string> Tags,
        IReadOnlyList<FieldOnFile> Fields,
        IReadOnlyList<PersonOnFile> People,
        IReadOnlyList<NoteOnFile> Notes,
        IReadOnlyList<ProjectView> Projects,
        IReadOnlyList<TaskOnFile> Tasks,
        IReadOnlyList<DifferenceOnFile> Differences,
        IReadOnlyList<PerhapsSameAs> PerhapsSame,
        IReadOnlyList<MergedRecord> Merges,
        IReadOnlyList<TimelineEntry> Timeline
    );

    /// <summary>A client who is perhaps the same person.</summary>
    /// <param name="Why">What they have in common, as the end of a sentence.</param>
    internal sealed record PerhapsSameAs(Id<Client> Id, string Name, string Why);

    /// <summary>A record that was made one with this, and can be split from it again.</summary>
    internal sealed record MergedRecord(Id<ClientMerge> Id, string Name, string By, string At);

    /// <summary>A person of the client beside the main contact.</summary>
    /// <param name="More">How they stand to the client, and what else is known of them, in words.</param>
    internal sealed record PersonOnFile(string Name, string More);

    /// <param name="Service">What it is about, as clients call it; null when nothing says.</param>
    /// <param name="ServiceKey">The key of that service; null when it is none of the list.</param>
    /// <param name="Stage">The stage it stands in.</param>
    /// <param name="LooksAfter">The user who looks after it; null for nobody.</param>
    /// <param name="LooksAfterName">What they are called; null for nobody.</param>
    /// <param name="Watches">Whether whoever asks is told by mail what comes in.</param>
    /// <param name="Watchers">The names of the others who are.</param>
    /// <param name="Days">Its days in the order of time.</param>
    internal sealed record ProjectView(
        Id<Project> Id,
        string Title,
        string? Service,
        string? ServiceKey,
        Stage Stage,
        bool Open,
        string Opened,
        Guid? LooksAfter,
        string? LooksAfterName,
        bool Watches,
        IReadOnlyList<string> Watchers,
        IReadOnlyList<DayOfProject> Days,
        IReadOnlyList<FieldOnFile> Fields,
        IReadOnlyList<NoteOnFile> Notes,
        IReadOnlyList<ProjectInquiry> Inquiries
    );

    /// <param name="Label">What happens on it.</param>
    /// <param name="Day">The day, in words.</param>
    /// <param name="IsPast">Whether it lies before today.</param>
    internal sealed record DayOfProject(string Label, string Day, bool IsPast);

    internal sealed record ProjectInquiry(Id<Inquiry> Id, FitLabel? Fit, string Received);

    /// <param name="Field">The field.</param>
    /// <param name="Value">What stands in it; null for nothing.</param>
    /// <param name="Words">The same in words; empty for nothing.</param>
    /// <param name="Source">Who said it and where; null for nothing.</param>
    /// <param name="At">When, in words.</param>
    /// <param name="Exactly">When, with date and zone.</param>
    internal sealed record FieldOnFile(Field Field, Answer? Value, string Words, string? Source, string? At, string? Exactly);

    /// <param name="Heading">What was asked; empty for what the business wrote itself.</param>
    /// <param name="Earlier">What it said before, newest first.</param>
    internal sealed record NoteOnFile(
        Id<Note> Id,
        string Heading,
        string Text,
        bool IsPinned,
        bool IsAnswer,
        string By,
        string At,
        string Exactly,
        IReadOnlyList<WrittenBefore> Earlier
    );

    /// <param name="Words">What stood there.</param>
    /// <param name="By">Who wrote it, or who changed it then.</param>
    /// <param name="At">When, in words.</param>
    internal sealed record WrittenBefore(string Words, string By, string At);

    /// <param name="Words">The value; empty when the field was emptied.</param>
    /// <param name="Source">Who said it and where.</param>
    /// <param name="Asked">What was asked; null for what the business wrote itself.</param>
    internal sealed record ValueInHistory(string Words, string Source, string? Asked, string At, string Exactly);

    public static void MapClients(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/clients").For(Access.Member).WithTags("Clients");
        group.MapGet("/{id}", ShowAsync);
        group.MapGet("/{id}/values/{field}", HistoryAsync);
    }

    private static async Task<Results<Ok<ClientView>, ProblemHttpResult>> ShowAsync(
        Id<Client> id,
        PorchDb db,
        FieldCatalogues catalogues,
        BusinessClock clock,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        if (await db.ClientOrMergedAsync(id) is not { } asked)
            return Problems.NotFound(Gone);
        // An address that was kept of a record which went into another leads there.
        var client = await db.WhereMergedAsync(asked);
        id = client.Id;
        var now = clock.GetCurrentInstant();
        var zone = (await db.BusinessAsync()).DateTimeZone;
        var fields = await catalogues.ReadAsync(db);
        var values = await db
            .FieldValues.AsNoTracking()
            .Where(value => value.ClientId == id && value.IsCurrent)
            .ToListAsync(cancellationToken);
        var notes = await db
            .Notes.AsNoTracking()
            .Where(note => note.ClientId == id)
            .OrderByDescending(note => note.IsPinned)
            .ThenBy(note => note.At)
            .ToListAsync(cancellationToken);
        var revisions = (
            await db
                .NoteRevisions.AsNoTracking()
                .Where(revision => db.Notes.Any(note => note.ClientId == id && note.Id == revision.NoteId))
                .OrderByDescending(revision => revision.At)
                .ToListAsync(cancellationToken)
        ).ToLookup(revision => revision.NoteId);
        var projects = await db
            .Projects.AsNoTracking()
            .Where(project => project.ClientId == id)
            .OrderByDescending(project => project.Opened)
            .ToListAsync(cancellationToken);
        var watchers = (
            await db
                .ProjectWatchers.AsNoTracking()
                .Where(watcher => db.Projects.Any(project => project.Id == watcher.ProjectId && project.ClientId == id))
                .ToListAsync(cancellationToken)
        ).ToLookup(watcher => watcher.ProjectId, watcher => watcher.UserId);
        var me = who.UserId();
        var lists = (await db.BusinessAsync()).Lists;
        var today = now.InZone(zone).Date;
        var team = await db.Users.ToDictionaryAsync(user => user.Id, user => user.DisplayName, cancellationToken);
        var inquiries = (
            await db.Inquiries.AsNoTracking().Where(inquiry => inquiry.ClientId == id).ToListAsync(cancellationToken)
        ).ToLookup(inquiry => inquiry.ProjectId);
        var sources = await ValueSources.OfAsync(db, values, cancellationToken);

        return TypedResults.Ok(
            new ClientView(
                id,
                client.Name,
                client.Email,
                client.Standing,
                client.AlwaysComesIn,
                TimeWords.At(client.Since, now, zone),
                await db
                    .ClientTags.Where(tag => tag.ClientId == id)
                    .OrderBy(tag => tag.Tag)
                    .Select(tag => tag.Tag)
                    .ToListAsync(cancellationToken),
                OnFile(RecordScope.Client, null),
                People(values.Find(value => value.Field == ClientPeople.Field.Key)?.Value),
                NotesOf(null),
                [.. projects.Select(ViewOf)],
                await TasksOnFile.OfClientAsync(db, id, now, zone, cancellationToken),
                await DifferencesOnFile.OfAsync(
                    db,
                    db.Differences.Where(difference => difference.ClientId == id),
                    fields,
                    now,
                    zone,
                    cancellationToken
                ),
                await PerhapsSameAsync(db, id, cancellationToken),
                await db
                    .ClientMerges.Where(merge => merge.KeptId == id && merge.Split == null)
                    .OrderByDescending(merge => merge.At)
                    .Join(
                        db.Clients.IgnoreQueryFilters(),
                        merge => merge.OtherId,
                        other => other.Id,
                        (merge, other) => new MergedRecord(merge.Id, other.Name, merge.By, TimeWords.At(merge.At, now, zone))
                    )
                    .ToListAsync(cancellationToken),
                await Timeline.OfAsync(db, db.Events.Where(logged => logged.ClientId == id), now, zone, cancellationToken)
            )
        );

        ProjectView ViewOf(Project project)
        {
            var onFile = OnFile(RecordScope.Project, project.Id);
            var service = onFile.FirstOrDefault(one => one.Field.Key == BuiltInFields.Service.Key)?.Words;
            return new ProjectView(
                project.Id,
                project.Title,
                service is { Length: > 0 } ? service : null,
                lists.ServiceCalled(service ?? "")?.Key,
                lists.Stages.FirstOrDefault(stage => stage.Key == project.Stage)
                    ?? new Stage(project.Stage, "A stage that is gone", StageKind.Open),
                project.Closed is null,
                TimeWords.At(project.Opened, now, zone),
                project.LooksAfterId,
                project.LooksAfterId is { } user ? team.GetValueOrDefault(user) : null,
                watchers[project.Id].Contains(me),
                [.. watchers[project.Id].Where(one => one != me).Select(one => team.GetValueOrDefault(one)).OfType<string>().Order()],
                [
                    .. ProjectDates
                        .Of(
                            project.Opened.InZone(zone).Date,
                            project.Closed?.InZone(zone).Date,
                            onFile.Select(one => (one.Field, one.Value)),
                            today
                        )
                        .Select(one => new DayOfProject(one.Label, TimeWords.Day(one.Day, today), one.IsPast)),
                ],
                onFile,
                NotesOf(project.Id),
                [
                    .. inquiries[project.Id]
                        .OrderByDescending(inquiry => inquiry.Received)
                        .Select(inquiry => new ProjectInquiry(
                            inquiry.Id,
                            FitLabel.Of(inquiry.Fit),
                            TimeWords.At(inquiry.Received, now, zone)
                        )),
                ]
            );
        }

        List<FieldOnFile> OnFile(RecordScope scope, Id<Project>? project)
        {
            var here = values.Where(value => value.ProjectId == project).ToDictionary(value => value.Field);
            return
            [
                .. from field in fields.All
                where field.Scope == scope
                let value = here.GetValueOrDefault(field.Key)
                where value is not null || !field.Archived
                select value is null
                    ? new FieldOnFile(field, null, "", null, null, null)
                    : new FieldOnFile(
                        field,
                        value.Value,
                        AnswerWords.Say(value.Value!),
                        sources(value).Source,
                        TimeWords.At(value.At, now, zone),
                        TimeWords.Exactly(value.At, zone)
                    ),
            ];
        }

        List<NoteOnFile> NotesOf(Id<Project>? project) =>
            [
                .. notes
                    .Where(note => note.ProjectId == project)
                    .Select(note => new NoteOnFile(
                        note.Id,
                        note.Heading,
                        note.Text,
                        note.IsPinned,
                        note.InquiryId is not null,
                        note.By,
                        TimeWords.At(note.At, now, zone),
                        TimeWords.Exactly(note.At, zone),
                        [.. revisions[note.Id].Select(one => new WrittenBefore(one.Text, one.By, TimeWords.At(one.At, now, zone)))]
                    )),
            ];
    }

    private static async Task<List<PerhapsSameAs>> PerhapsSameAsync(PorchDb db, Id<Client> id, CancellationToken cancellationToken) =>
        [
            .. (
                await db
                    .ClientPairs.Where(pair => pair.AreTwo == null && (pair.OneId == id || pair.OtherId == id))
                    .Join(
                        db.CountingClients,
                        pair => pair.OneId == id ? pair.OtherId : pair.OneId,
                        other => other.Id,
                        (pair, other) =>
                            new
                            {
                                other.Id,
                                other.Name,
                                pair.Likeness,
                            }
                    )
                    .OrderBy(other => other.Name)
                    .ToListAsync(cancellationToken)
            ).Select(other => new PerhapsSameAs(other.Id, other.Name, other.Likeness.Say())),
        ];

    private static List<PersonOnFile> People(Answer? onFile)
    {
        var (name, born) = (ClientPeople.Key(PersonPart.Name), ClientPeople.Key(PersonPart.Born));
        return
        [
            .. ((onFile as RowsAnswer)?.Rows ?? []).Select(person => new PersonOnFile(
                person[name] is { } known ? AnswerWords.Say(known) : "Name not known",
                string.Join(
                    ", ",
                    new[] { person[ClientPeople.Role] is TextAnswer role ? role.Text.ToLowerInvariant() : null }
                        .Concat(
                            ClientPeople
                                .Field.Columns.Where(column => column.Key != name && column.Key != ClientPeople.Role)
                                .Select(column =>
                                    person[column.Key] is not { } cell ? null
                                    : column.Key == born ? $"born {AnswerWords.Say(cell)}"
                                    : AnswerWords.Say(cell)
                                )
                        )
                        .OfType<string>()
                )
            )),
        ];
    }

    /// <summary>Everything that ever stood in a field, newest first.</summary>
    private static async Task<Ok<List<ValueInHistory>>> HistoryAsync(
        Id<Client> id,
        string field,
        Id<Project>? project,
        PorchDb db,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        var now = clock.GetCurrentInstant();
        var zone = (await db.BusinessAsync()).DateTimeZone;
        var values = await db
            .FieldValues.AsNoTracking()
            .Where(value => value.ClientId == id && value.ProjectId == project && value.Field == field)
            .OrderByDescending(value => value.At)
            .ThenByDescending(value => value.Id)
            .ToListAsync(cancellationToken);
        var sources = await ValueSources.OfAsync(db, values, cancellationToken);
        return TypedResults.Ok(
            values
                .Select(value => new ValueInHistory(
                    value.Value is { } words ? AnswerWords.Say(words) : "",
                    sources(value).Source,
                    sources(value).Asked,
                    TimeWords.At(value.At, now, zone),
                    TimeWords.Exactly(value.At, zone)
                ))
                .ToList()
        );
    }
}
