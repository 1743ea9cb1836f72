using PorchLight.Core.Common;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Records;

/// <summary>Somebody who is told by mail what comes in to a project that another looks after.</summary>
internal sealed class ProjectWatcher
{
    public required Id<Project> ProjectId { get; init; }
    public required Guid UserId { get; init; }
}

internal static class ProjectWatchers
{
    /// <summary>Lets somebody watch a project, as part of the caller's transaction; nothing where they do already.</summary>
    public static async Task WatchAsync(this PorchDb db, Project project, Guid user)
    {
        if (await db.ProjectWatchers.FindAsync(project.Id, user) is null)
            db.ProjectWatchers.Add(new ProjectWatcher { ProjectId = project.Id, UserId = user });
    }
}
