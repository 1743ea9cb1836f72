using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Core.Projects;
using PorchLight.Core.Records;
using PorchLight.Server.Calendar;
using PorchLight.Server.Hosting;
using PorchLight.Server.Identity;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Records;

/// <summary>The projects of a client: begun by hand, named, moved from stage to stage, looked after by somebody.</summary>
internal static class ProjectEndpoints
{
    internal const string Gone = "This project is not here any more.";
    private const int LongestTitle = 120;

    /// <param name="Stage">The key of the stage it stands in; one that closes closes the project, another one opens it again.</param>
    /// <param name="LooksAfter">The user who looks after it; null for nobody.</param>
    internal sealed record ProjectHead(string Title, string Stage, Guid? LooksAfter);

    internal sealed record Watch(bool Watches);

    /// <param name="Service">The name of the service it is about; empty for none in particular.</param>
    internal sealed record NewProject(string Title, string Service);

    /// <param name="Services">The names of the services.</param>
    /// <param name="Team">Everybody who can look after a project.</param>
    /// <param name="LostReasons">Why work does not come.</param>
    internal sealed record ProjectParts(
        IReadOnlyList<Stage> Stages,
        IReadOnlyList<string> Services,
        IReadOnlyList<Colleague> Team,
        IReadOnlyList<string> LostReasons
    );

    internal sealed record Colleague(Guid Id, string Name);

    public static void MapProjects(this IEndpointRouteBuilder api)
    {
        api.MapGet("/projects/parts", ShowPartsAsync).For(Access.Member).WithTags("Clients");
        var group = api.MapGroup("/clients/{id}/projects").For(Access.Member).WithTags("Clients");
        group.MapPost("", BeginAsync).Once();
        group.MapPut("/{project}", ChangeAsync);
        group.MapPut("/{project}/watching", WatchAsync);
    }

    private static async Task<Ok<ProjectParts>> ShowPartsAsync(PorchDb db, CancellationToken cancellationToken)
    {
        var lists = (await db.BusinessAsync()).Lists;
        return TypedResults.Ok(
            new ProjectParts(
                lists.Stages,
                [.. lists.Services.Select(service => service.Name)],
                await db
                    .Users.OrderBy(user => user.DisplayName)
                    .ThenBy(user => user.Id)
                    .Select(user => new Colleague(user.Id, user.DisplayName))
                    .ToListAsync(cancellationToken),
                lists.LostReasons
            )
        );
    }

    /// <summary>Begins another project of a client, with what is known of the person and nothing of an earlier project.</summary>
    private static async Task<Results<Created<ClientEdits.Made>, ProblemHttpResult>> BeginAsync(
        Id<Client> id,
        NewProject wanted,
        PorchDb db,
        RecordWriter writer,
        EventLog events,
        BusinessClock clock,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        if (RefuseTitle(wanted.Title) is { } refusal)
            return refusal;
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.Clients.FindAsync([id], cancellationToken) is not { } client)
            return Problems.NotFound(ClientEdits.Gone);
        var lists = (await db.BusinessAsync()).Lists;
        var service = lists.ServiceCalled(wanted.Service);
        if (service is null && wanted.Service.Length > 0)
            return Problems.Invalid(new Finding("service", "This service is not in your list any more. Please choose another one."));
        var now = clock.GetCurrentInstant();
        await db.UnlistLatestProjectAsync(id);
        var project = new Project
        {
            Id = new Id<Project>(Guid.CreateVersion7()),
            ClientId = id,
            FormId = null,
            Title = wanted.Title.Trim(),
            Opened = now,
            Stage = lists.Stages.FirstOpen().Key,
            LooksAfterId = who.UserId(),
            IsLatest = true,
        };
        db.Projects.Add(project);
        if (service is not null)
            writer.Write(
                client,
                project,
                BuiltInFields.Service.Key,
                new TextAnswer(service.Name),
                null,
                new ValueSource(ValueOrigin.Hand, who.DisplayName(), now)
            );
        client.IsUnindexed = true;
        await events.AppendAsync(new ProjectBegun(who.UserId()), now, new EventContext(id, project.Id));
        await write.SaveAsync(cancellationToken);
        return TypedResults.Created($"/api/clients/{id}", new ClientEdits.Made(project.Id.Value));
    }

    /// <summary>Lets whoever asks be told by mail what comes in to a project, or not any more.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> WatchAsync(
        Id<Client> id,
        Id<Project> project,
        Watch wish,
        PorchDb db,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.Projects.SingleOrDefaultAsync(one => one.Id == project && one.ClientId == id, cancellationToken) is not { } stored)
            return Problems.NotFound(Gone);
        if (wish.Watches)
            await db.WatchAsync(stored, who.UserId());
        else if (await db.ProjectWatchers.FindAsync([project, who.UserId()], cancellationToken) is { } watcher)
            db.ProjectWatchers.Remove(watcher);
        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
    }

    /// <summary>Changes the title of a project, its stage, or who looks after it.</summary>
    private static async Task<Results<Ok<ProjectHead>, ProblemHttpResult>> ChangeAsync(
        Id<Client> id,
        Id<Project> project,
        Edit<ProjectHead> edit,
        PorchDb db,
        ProjectStages stages,
        EventLog events,
        BusinessClock clock,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        if (RefuseTitle(edit.Now.Title) is { } wrong)
            return wrong;
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.Projects.SingleOrDefaultAsync(one => one.Id == project && one.ClientId == id, cancellationToken) is not { } stored)
            return Problems.NotFound(Gone);
        var (merged, refusal) = (edit with { Now = edit.Now with { Title = edit.Now.Title.Trim() } }).Onto(
            new ProjectHead(stored.Title, stored.Stage, stored.LooksAfterId)
        );
        if (refusal is not null)
            return refusal;
        if ((await db.BusinessAsync()).Lists.Stages.FirstOrDefault(one => one.Key == merged.Stage) is not { } stage)
            return Problems.Invalid(new Finding("stage", "This stage is not in your list any more. Please choose another one."));
        if (merged.LooksAfter is { } user && !await db.Users.AnyAsync(one => one.Id == user, cancellationToken))
            return Problems.Invalid(new Finding("looksAfter", "This person does not work here any more. Please choose another one."));
        var client = (await db.Clients.FindAsync([id], cancellationToken))!;
        var (now, me, about) = (clock.GetCurrentInstant(), who.UserId(), new EventContext(id, project));
        if (merged.Title != stored.Title)
        {
            (stored.Title, client.IsUnindexed) = (merged.Title, true);
            await events.AppendAsync(new ProjectRenamed(me), now, about);
        }

        if (merged.LooksAfter != stored.LooksAfterId)
        {
            stored.LooksAfterId = merged.LooksAfter;
            await events.AppendAsync(new ProjectGiven(merged.LooksAfter, me), now, about);
        }

        await stages.MoveAsync(stored, stage, me, now);
        await write.SaveAsync(cancellationToken);
        return TypedResults.Ok(merged);
    }

    private static ProblemHttpResult? RefuseTitle(string title) =>
        title.Trim().Length is > 0 and <= LongestTitle
            ? null
            : Problems.Invalid(new Finding("title", $"A project needs a title of at most {LongestTitle} characters."));
}
