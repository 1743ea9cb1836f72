using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Common;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Records;

/// <summary>Keeps which piece of work of a client is the one lists show.</summary>
internal static class LatestProjects
{
    /// <summary>Lists show none of a client's projects, until another one is marked.</summary>
    public static async Task UnlistLatestProjectAsync(this PorchDb db, Id<Client> client)
    {
        if (await db.Projects.SingleOrDefaultAsync(one => one.ClientId == client && one.IsLatest) is not { } before)
            return;
        before.IsLatest = false;
        foreach (
            var value in await db
                .FieldValues.Where(one => one.ClientId == client && one.ProjectId == before.Id && one.IsListed)
                .ToListAsync()
        )
            value.IsListed = false;
    }

    /// <summary>Lists show the project of a client that began last; of two begun at one instant the one with the larger identifier.</summary>
    public static async Task ListLatestProjectAsync(this PorchDb db, Id<Client> client)
    {
        var projects = await db.Projects.Where(one => one.ClientId == client).ToListAsync();
        if (projects.MaxBy(project => (project.Opened, project.Id.Value)) is not { } latest)
            return;
        latest.IsLatest = true;
        foreach (
            var value in await db
                .FieldValues.Where(one => one.ClientId == client && one.ProjectId == latest.Id && one.IsCurrent)
                .ToListAsync()
        )
            value.IsListed = true;
    }
}
