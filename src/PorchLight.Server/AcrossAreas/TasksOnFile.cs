using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.AcrossAreas;

/// <summary>Something to do for a client, or a day to think of.</summary>
/// <param name="ProjectId">The project it is about; null for the client.</param>
/// <param name="IsDate">Whether it is only a day to think of.</param>
/// <param name="On">The day it is due, or is; null for a task that is due whenever.</param>
/// <param name="Day">The same in words; null for none.</param>
/// <param name="IsOverdue">Whether it should have been done before today.</param>
/// <param name="For">The user who does it; null for whoever comes to it.</param>
/// <param name="ForName">What they are called.</param>
/// <param name="Done">Who did it, and when, in words; null while it is not done.</param>
internal sealed record TaskOnFile(
    Id<ClientTask> Id,
    Id<Client> ClientId,
    string Client,
    Id<Project>? ProjectId,
    string? Project,
    string Title,
    bool IsDate,
    LocalDate? On,
    string? Day,
    bool IsOverdue,
    Guid? For,
    string? ForName,
    string? Done
);

internal static class TasksOnFile
{
    private const int MostDone = 20;
    private const int MostDue = 100;

    /// <summary>The tasks and days of a client: open ones first, by day, those due whenever after them; then what was done last.</summary>
    public static async Task<IReadOnlyList<TaskOnFile>> OfClientAsync(
        PorchDb db,
        Id<Client> client,
        Instant now,
        DateTimeZone zone,
        CancellationToken cancellationToken
    )
    {
        var tasks = await db.ClientTasks.AsNoTracking().Where(task => task.ClientId == client).ToListAsync(cancellationToken);
        return await SayAsync(
            db,
            [
                .. tasks.Where(task => task.Done is null).OrderBy(task => task.On ?? LocalDate.MaxIsoValue).ThenBy(task => task.At),
                .. tasks.Where(task => task.Done is not null).OrderByDescending(task => task.Done).Take(MostDone),
            ],
            now,
            zone,
            cancellationToken
        );
    }

    /// <summary>What is due today or was before, and the days that are today; by day.</summary>
    public static async Task<IReadOnlyList<TaskOnFile>> DueAsync(
        PorchDb db,
        Instant now,
        DateTimeZone zone,
        CancellationToken cancellationToken
    )
    {
        var today = now.InZone(zone).Date;
        return await SayAsync(
            db,
            await db
                .ClientTasks.AsNoTracking()
                .Where(task => task.Done == null && task.On <= today && (!task.IsDate || task.On == today))
                .Where(task => db.Clients.Any(client => client.Id == task.ClientId))
                .OrderBy(task => task.On)
                .ThenBy(task => task.At)
                .Take(MostDue)
                .ToListAsync(cancellationToken),
            now,
            zone,
            cancellationToken
        );
    }

    private static async Task<IReadOnlyList<TaskOnFile>> SayAsync(
        PorchDb db,
        List<ClientTask> tasks,
        Instant now,
        DateTimeZone zone,
        CancellationToken cancellationToken
    )
    {
        if (tasks.Count == 0)
            return [];
        var today = now.InZone(zone).Date;
        var (clientIds, projectIds) = (tasks.Select(task => task.ClientId).ToList(), tasks.Select(task => task.ProjectId).ToList());
        var clients = await db
            .Clients.Where(client => clientIds.Contains(client.Id))
            .ToDictionaryAsync(client => client.Id, client => client.Name, cancellationToken);
        var projects = await db
            .Projects.Where(project => projectIds.Contains(project.Id))
            .ToDictionaryAsync(project => project.Id, project => project.Title, cancellationToken);
        var team = await db.Users.ToDictionaryAsync(user => user.Id, user => user.DisplayName, cancellationToken);
        return
        [
            .. tasks.Select(task => new TaskOnFile(
                task.Id,
                task.ClientId,
                clients[task.ClientId],
                task.ProjectId,
                task.ProjectId is { } project ? projects[project] : null,
                task.Title,
                task.IsDate,
                task.On,
                task.On is { } day ? TimeWords.Day(day, today) : null,
                !task.IsDate && task.Done is null && task.On < today,
                task.ForId,
                task.ForId is { } user ? team.GetValueOrDefault(user) : null,
                task.Done is { } done ? $"{task.DoneBy}, {TimeWords.At(done, now, zone)}" : null
            )),
        ];
    }
}
