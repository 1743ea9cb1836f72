using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Core.Records;
using PorchLight.Server.Calendar;
using PorchLight.Server.Hosting;
using PorchLight.Server.Identity;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Records;

/// <summary>What is to do for a client, and the days to think of.</summary>
internal static class TaskEndpoints
{
    private const int LongestTitle = 200;
    private const string Gone = "This is not here any more.";

    /// <param name="ProjectId">The project it is about; null for the client.</param>
    /// <param name="IsDate">Whether it is only a day to think of; then it needs one.</param>
    /// <param name="On">The day it is due, or is; null for a task that is due whenever.</param>
    /// <param name="For">The user who does it; null for whoever comes to it.</param>
    internal sealed record NewTask(Id<Project>? ProjectId, bool IsDate, string Title, LocalDate? On, Guid? For);

    internal sealed record TaskWords(string Title, LocalDate? On, Guid? For, bool IsDone);

    public static void MapTasks(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/clients/{id}/tasks").For(Access.Member).WithTags("Clients");
        group.MapPost("", AddAsync).Once();
        group.MapPut("/{task}", ChangeAsync);
        group.MapDelete("/{task}", RemoveAsync);
    }

    private static async Task<Results<Created<ClientEdits.Made>, ProblemHttpResult>> AddAsync(
        Id<Client> id,
        NewTask wanted,
        PorchDb db,
        BusinessClock clock,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (!await db.Clients.AnyAsync(client => client.Id == id, cancellationToken))
            return Problems.NotFound(ClientEdits.Gone);
        if (
            wanted.ProjectId is { } project
            && !await db.Projects.AnyAsync(one => one.Id == project && one.ClientId == id, cancellationToken)
        )
            return Problems.NotFound(ProjectEndpoints.Gone);
        if (await RefuseAsync(db, wanted.Title, wanted.IsDate, wanted.On, wanted.For, cancellationToken) is { } refusal)
            return refusal;
        var task = new ClientTask
        {
            Id = new Id<ClientTask>(Guid.CreateVersion7()),
            ClientId = id,
            ProjectId = wanted.ProjectId,
            Title = wanted.Title.Trim(),
            IsDate = wanted.IsDate,
            On = wanted.On,
            ForId = wanted.For,
            By = who.DisplayName(),
            At = clock.GetCurrentInstant(),
        };
        db.ClientTasks.Add(task);
        await write.SaveAsync(cancellationToken);
        return TypedResults.Created($"/api/clients/{id}", new ClientEdits.Made(task.Id.Value));
    }

    private static async Task<Results<Ok<TaskWords>, ProblemHttpResult>> ChangeAsync(
        Id<Client> id,
        Id<ClientTask> task,
        Edit<TaskWords> edit,
        PorchDb db,
        EventLog events,
        BusinessClock clock,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.ClientTasks.SingleOrDefaultAsync(one => one.Id == task && one.ClientId == id, cancellationToken) is not { } stored)
            return Problems.NotFound(Gone);
        var (merged, refusal) = edit.Onto(new TaskWords(stored.Title, stored.On, stored.ForId, stored.Done is not null));
        if (refusal is not null)
            return refusal;
        if (await RefuseAsync(db, merged.Title, stored.IsDate, merged.On, merged.For, cancellationToken) is { } wrong)
            return wrong;
        if (merged.IsDone && stored.IsDate)
            return Problems.Unprocessable("A day is not done; it passes. Take it away when it is not wanted any more.");
        (stored.Title, stored.On, stored.ForId) = (merged.Title.Trim(), merged.On, merged.For);
        if (merged.IsDone != stored.Done is not null)
        {
            var now = clock.GetCurrentInstant();
            (stored.Done, stored.DoneBy) = (merged.IsDone ? now : null, merged.IsDone ? who.DisplayName() : null);
            if (merged.IsDone)
                await events.AppendAsync(new TaskDone(stored.Title, who.UserId()), now, new EventContext(id, stored.ProjectId));
        }

        await write.SaveAsync(cancellationToken);
        return TypedResults.Ok(merged with { Title = stored.Title });
    }

    private static async Task<NoContent> RemoveAsync(Id<Client> id, Id<ClientTask> task, PorchDb db, CancellationToken cancellationToken)
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.ClientTasks.SingleOrDefaultAsync(one => one.Id == task && one.ClientId == id, cancellationToken) is { } stored)
            db.ClientTasks.Remove(stored);
        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
    }

    private static async Task<ProblemHttpResult?> RefuseAsync(
        PorchDb db,
        string title,
        bool isDate,
        LocalDate? on,
        Guid? user,
        CancellationToken cancellationToken
    ) =>
        title.Trim().Length is 0 or > LongestTitle
            ? Problems.Invalid(new Finding("title", $"Please say what it is, in at most {LongestTitle} characters."))
        : isDate && on is null ? Problems.Invalid(new Finding("on", "Please choose the day."))
        : user is { } named && !await db.Users.AnyAsync(one => one.Id == named, cancellationToken)
            ? Problems.Invalid(new Finding("for", "This person does not work here any more. Please choose another one."))
        : null;
}
