using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Common;
using PorchLight.Core.FollowThrough;
using PorchLight.Server.Hosting;
using PorchLight.Server.Storage;

namespace PorchLight.Server.FollowThrough;

/// <param name="Number">Rises with every version; runs stay with theirs.</param>
/// <param name="Live">Whether it starts runs.</param>
/// <param name="Content">What starts it, its steps, and what ends it.</param>
internal sealed record FollowThroughView(Id<StoredFollowThrough> Id, int Number, bool Live, FollowThroughContent Content);

/// <summary>The follow-throughs of the business.</summary>
internal static class FollowThroughEndpoints
{
    public static void MapFollowThroughs(this IEndpointRouteBuilder api) =>
        api.MapGet("/follow-throughs", ListAsync).For(Access.Member).WithTags("FollowThrough");

    /// <summary>Every follow-through in its newest version, by name.</summary>
    private static async Task<IReadOnlyList<FollowThroughView>> ListAsync(PorchDb db, CancellationToken cancellationToken) =>
        [
            .. (
                await (
                    from one in db.FollowThroughs.AsNoTracking()
                    join version in db.FollowThroughVersions.AsNoTracking()
                        on new { one.Id, one.Number } equals new { Id = version.FollowThroughId, version.Number }
                    select new { one, version }
                ).ToListAsync(cancellationToken)
            )
                .OrderBy(found => found.version.Content.Name, StringComparer.CurrentCulture)
                .Select(found => new FollowThroughView(found.one.Id, found.one.Number, found.one.IsOn, found.version.Content)),
        ];
}
