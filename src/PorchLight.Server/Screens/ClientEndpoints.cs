using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Core.Forms;
using PorchLight.Core.Records;
using PorchLight.Server.Calendar;
using PorchLight.Server.Hosting;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Screens;

/// <summary>The clients: the list, and one with everything on file and where it came from.</summary>
internal static class ClientEndpoints
{
    internal sealed record ClientRow(Id<Client> Id, string Name, string? Email, Standing Standing, string Since, string? Project);

    internal sealed record ClientView(
        Id<Client> Id,
        string Name,
        string? Email,
        Standing Standing,
        string Since,
        IReadOnlyList<ValueOnFile> Values,
        IReadOnlyList<NoteOnFile> Notes,
        IReadOnlyList<ProjectView> Projects,
        IReadOnlyList<TimelineEntry> Timeline
    );

    internal sealed record ProjectView(
        Id<Project> Id,
        string Title,
        bool Open,
        string Opened,
        IReadOnlyList<ValueOnFile> Values,
        IReadOnlyList<NoteOnFile> Notes,
        IReadOnlyList<ProjectInquiry> Inquiries
    );

    internal sealed record ProjectInquiry(Id<Inquiry> Id, FitLabel? Fit, string Received);

    /// <param name="Label">The field.</param>
    /// <param name="Words">Its value.</param>
    /// <param name="Source">Who said it, in which form and to which question.</param>
    /// <param name="At">When, in words.</param>
    /// <param name="Exactly">When, with date and zone.</param>
    internal sealed record ValueOnFile(string Label, string Words, string Source, string Asked, string At, string Exactly);

    internal sealed record NoteOnFile(string Heading, string Text, string By, string At, string Exactly);

    public static void MapClients(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/clients").For(Access.Member).WithTags("Clients");
        group.MapGet("", ListAsync);
        group.MapGet("/{id}", ShowAsync);
    }

    private static async Task<Ok<List<ClientRow>>> ListAsync(PorchDb db, BusinessClock clock, CancellationToken cancellationToken)
    {
        var now = clock.GetCurrentInstant();
        var zone = (await db.Businesses.AsNoTracking().SingleAsync(cancellationToken)).DateTimeZone;
        var projects = (await db.Projects.AsNoTracking().ToListAsync(cancellationToken)).ToLookup(project => project.ClientId);
        var clients = await db.Clients.AsNoTracking().OrderByDescending(client => client.Since).ToListAsync(cancellationToken);
        return TypedResults.Ok(
            clients
                .Select(client => new ClientRow(
                    client.Id,
                    client.Name,
                    client.Email,
                    client.Standing,
                    TimeWords.At(client.Since, now, zone),
                    projects[client.Id].OrderByDescending(project => project.Opened).FirstOrDefault()?.Title
                ))
                .ToList()
        );
    }

    private static async Task<Results<Ok<ClientView>, ProblemHttpResult>> ShowAsync(
        Id<Client> id,
        PorchDb db,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        if (await db.Clients.FindAsync([id], cancellationToken) is not { } client)
            return Problems.NotFound("This client is not here any more.");
        var now = clock.GetCurrentInstant();
        var zone = (await db.Businesses.AsNoTracking().SingleAsync(cancellationToken)).DateTimeZone;
        var values = await db.FieldValues.AsNoTracking().Where(value => value.ClientId == id).ToListAsync(cancellationToken);
        var notes = await db
            .Notes.AsNoTracking()
            .Where(note => note.ClientId == id)
            .OrderBy(note => note.At)
            .ToListAsync(cancellationToken);
        var projects = await db
            .Projects.AsNoTracking()
            .Where(project => project.ClientId == id)
            .OrderByDescending(project => project.Opened)
            .ToListAsync(cancellationToken);
        var inquiries = (
            await db.Inquiries.AsNoTracking().Where(inquiry => inquiry.ClientId == id).ToListAsync(cancellationToken)
        ).ToLookup(inquiry => inquiry.ProjectId);
        var versions = new Dictionary<(Guid, int), FormContent>();
        foreach (var (form, number) in values.Select(value => (value.FormId, value.FormVersion)).Distinct())
            versions[(form.Value, number)] = (await db.FormVersions.FindAsync([form, number], cancellationToken))!.Content;

        return TypedResults.Ok(
            new ClientView(
                id,
                client.Name,
                client.Email,
                client.Standing,
                TimeWords.At(client.Since, now, zone),
                OnFile(null),
                NotesOf(null),
                [
                    .. projects.Select(project => new ProjectView(
                        project.Id,
                        project.Title,
                        project.Closed is null,
                        TimeWords.At(project.Opened, now, zone),
                        OnFile(project.Id),
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
                    )),
                ],
                await Timeline.OfAsync(db, db.Events.Where(logged => logged.ClientId == id), now, zone, cancellationToken)
            )
        );

        List<ValueOnFile> OnFile(Id<Project>? project)
        {
            var onFile = ValuesOnFile.Newest(values.Where(value => value.ProjectId == project));
            return
            [
                .. from field in BuiltInFields.All
                let newest = values
                    .Where(value => value.ProjectId == project && value.Field == field.Key)
                    .OrderBy(value => value.At)
                    .ThenBy(value => value.Id.Value)
                    .LastOrDefault()
                where newest is not null
                let form = versions[(newest.FormId.Value, newest.FormVersion)]
                select new ValueOnFile(
                    field.Label,
                    AnswerWords.Say(newest.Value),
                    $"{newest.By} in “{form.Title}”",
                    KnownValues.BeforeAnswers(form.FindQuestion(newest.Question)?.Wording ?? ""),
                    TimeWords.At(newest.At, now, zone),
                    TimeWords.Exactly(newest.At, zone)
                ),
            ];
        }

        List<NoteOnFile> NotesOf(Id<Project>? project) =>
            [
                .. notes
                    .Where(note => note.ProjectId == project)
                    .Select(note => new NoteOnFile(
                        note.Heading,
                        note.Text,
                        note.By,
                        TimeWords.At(note.At, now, zone),
                        TimeWords.Exactly(note.At, zone)
                    )),
            ];
    }
}
