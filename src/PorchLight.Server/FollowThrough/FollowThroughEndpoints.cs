using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Common;
using PorchLight.Core.FollowThrough;
using PorchLight.Server.Hosting;
using PorchLight.Server.Storage;

namespace PorchLight.Server.FollowThrough;

/// <param name="Number">Rises with every version; runs stay with theirs.</param>
/// <param name="Live">Whether it starts runs.</param>
/// <param name="Content">What starts it, its steps, and what ends it.</param>
internal sealed record FollowThroughView(Id<FollowThroughVersion> Id, int Number, bool Live, FollowThroughContent Content);

/// <summary>The follow-throughs of the business.</summary>
internal static class FollowThroughEndpoints
{
    public static void MapFollowThroughs(this IEndpointRouteBuilder api) =>
        api.MapGet("/follow-throughs", ListAsync).For(Access.Member).WithTags("FollowThrough");

    /// <summary>Every follow-through in its newest version, by name.</summary>
    private static async Task<IReadOnlyList<FollowThroughView>> ListAsync(PorchDb db, CancellationToken cancellationToken) =>
        [
            .. (await db.FollowThroughs.AsNoTracking().ToListAsync(cancellationToken))
                .GroupBy(version => version.Id)
                .Select(versions => versions.MaxBy(version => version.Number)!)
                .OrderBy(version => version.Content.Name, StringComparer.CurrentCulture)
                .Select(version => new FollowThroughView(version.Id, version.Number, version.Live, version.Content)),
        ];
}
