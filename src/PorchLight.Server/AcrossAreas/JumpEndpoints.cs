using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Common;
using PorchLight.Core.Records;
using PorchLight.Server.FollowThrough;
using PorchLight.Server.Forms;
using PorchLight.Server.Hosting;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.AcrossAreas;

/// <summary>Finds what is called so, and then who ever wrote it.</summary>
internal static class JumpEndpoints
{
    private const int MostOfAKind = 6;
    private const int MostLooked = 200;
    private const int LongestWords = 200;

    /// <param name="Forms">Forms that are called so.</param>
    /// <param name="Clients">Clients who are called so.</param>
    /// <param name="Projects">Projects that are called so.</param>
    /// <param name="FollowThroughs">Follow-throughs that are called so.</param>
    /// <param name="Wrote">Others in whose records the words stand.</param>
    internal sealed record JumpView(
        IReadOnlyList<NamedForm> Forms,
        IReadOnlyList<NamedClient> Clients,
        IReadOnlyList<NamedProject> Projects,
        IReadOnlyList<NamedFollowThrough> FollowThroughs,
        IReadOnlyList<NamedClient> Wrote
    );

    /// <param name="Words">What was typed.</param>
    internal sealed record JumpWords(string Words);

    internal sealed record NamedForm(Id<Form> Id, string Name);

    internal sealed record NamedClient(Id<Client> Id, string Name);

    internal sealed record NamedProject(Id<Project> Id, Id<Client> Client, string Name, string ClientName);

    internal sealed record NamedFollowThrough(Id<StoredFollowThrough> Id, string Name);

    public static void MapJump(this IEndpointRouteBuilder api) => api.MapPost("/jump", FindAsync).For(Access.Member).WithTags("Screens");

    /// <summary>Each kind by how well it is called so; nothing for blank words.</summary>
    private static async Task<Ok<JumpView>> FindAsync(JumpWords words, PorchDb db, ClientSearch search, CancellationToken cancellationToken)
    {
        var typed = words.Words.Length > LongestWords ? words.Words[..LongestWords] : words.Words;
        if (string.IsNullOrWhiteSpace(typed) || typed.Contains('\0', StringComparison.Ordinal))
            return TypedResults.Ok(new JumpView([], [], [], [], []));
        var pattern = LikePattern.Within(typed);
        var forms = (
            await db
                .Forms.AsNoTracking()
                .Where(form => form.Archived == null)
                .Select(form => new { form.Id, form.Draft })
                .ToListAsync(cancellationToken)
        ).Select(form => new NamedForm(form.Id, form.Draft.Title));
        var followThroughs = (
            await (
                from one in db.FollowThroughs.AsNoTracking()
                where one.Archived == null
                join version in db.FollowThroughVersions
                    on new { FollowThroughId = one.Id, one.Number } equals new { version.FollowThroughId, version.Number }
                    into versions
                from version in versions.DefaultIfEmpty()
                select new
                {
                    one.Id,
                    one.Draft,
                    InForce = version == null ? null : version.Content,
                }
            ).ToListAsync(cancellationToken)
        ).Select(one => new NamedFollowThrough(one.Id, (one.InForce ?? one.Draft)?.Name ?? ""));
        var projects = await (
            from project in db.Projects
            where EF.Functions.Like(project.Title, pattern, LikePattern.Escape)
            join client in db.CountingClients on project.ClientId equals client.Id
            orderby project.Opened descending
            select new NamedProject(project.Id, client.Id, project.Title, client.Name)
        )
            .Take(MostLooked)
            .ToListAsync(cancellationToken);
        var found = search.Find(typed);
        // By words of the record, so that accents and the order of names do not matter; and by a part of the name that begins no word.
        var clients = await db
            .CountingClients.Where(client => found.Contains(client.Id) || EF.Functions.Like(client.Name, pattern, LikePattern.Escape))
            .OrderByDescending(client => client.Since)
            .Select(client => new NamedClient(client.Id, client.Name))
            .Take(MostLooked)
            .ToListAsync(cancellationToken);
        var named = NameMatch.Called(clients, client => client.Name, typed).ToList();
        return TypedResults.Ok(
            new JumpView(
                [.. NameMatch.Called(forms, form => form.Name, typed).Take(MostOfAKind)],
                [.. named.Take(MostOfAKind)],
                [.. NameMatch.Called(projects, project => project.Name, typed).Take(MostOfAKind)],
                [.. NameMatch.Called(followThroughs, one => one.Name, typed).Take(MostOfAKind)],
                [.. clients.Except(named).Take(MostOfAKind)]
            )
        );
    }
}
