using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;
using PorchLight.Core.FollowThrough;
using PorchLight.Server.Calendar;
using PorchLight.Server.Hosting;
using PorchLight.Server.Identity;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.FollowThrough;

/// <summary>Who is on a follow-through, and what moving them to the version in force would change.</summary>
internal static class FollowThroughPeopleEndpoints
{
    /// <param name="Number">The version they are on.</param>
    /// <param name="Step">What comes next; null where nothing does.</param>
    /// <param name="Status">Where that stands.</param>
    /// <param name="When">When, in words; null where nobody knows.</param>
    /// <param name="Moved">What would come next in the version in force, and when; null for those who are on it, or cannot be moved.</param>
    internal sealed record PersonOnIt(
        Id<Run> RunId,
        Id<Client>? ClientId,
        string Name,
        int Number,
        string? Step,
        StepStatus? Status,
        string? When,
        bool IsPaused,
        string? Failure,
        string? Moved
    );

    /// <param name="Number">The version in force.</param>
    /// <param name="Changes">By each older version somebody is on: what is different in the version in force, a sentence each.</param>
    internal sealed record PeopleOnIt(int Number, IReadOnlyList<PersonOnIt> People, IReadOnlyList<ChangesSince> Changes);

    internal sealed record ChangesSince(int Number, IReadOnlyList<string> Sentences);

    /// <param name="Runs">Who is moved.</param>
    /// <param name="To">The version they are moved to, as it was in force when that was decided.</param>
    internal sealed record Move(IReadOnlyList<Id<Run>> Runs, int To);

    internal sealed record MovedPeople(int Moved);

    public static void MapFollowThroughPeople(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/follow-throughs/{id}/people").For(Access.Member).WithTags("FollowThrough");
        group.MapGet("", ListAsync);
        group.MapPut("/version", MoveAsync);
    }

    private static async Task<Results<Ok<PeopleOnIt>, ProblemHttpResult>> ListAsync(
        Id<StoredFollowThrough> id,
        PorchDb db,
        FollowThroughPartsLoader loader,
        RunEngine engine,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        if (await db.FollowThroughs.FindAsync([id], cancellationToken) is not { } stored)
            return Problems.NotFound(FollowThroughEndpoints.Gone);
        var runs = await db.RunsWithPeople()
            .Where(one => one.Run.FollowThroughId == id && one.Run.Active)
            .OrderBy(one => one.Client!.SortName)
            .ToListAsync(cancellationToken);
        var (now, business) = (clock.GetCurrentInstant(), await db.BusinessAsync());
        var inForce = await db.InForceAsync(stored);
        var people = new List<PersonOnIt>();
        foreach (var one in runs)
            people.Add(
                new PersonOnIt(
                    one.Run.Id,
                    one.Run.ClientId,
                    one.Name,
                    one.Run.FollowThroughNumber,
                    one.Run.State.Next is { } next ? one.Version.Content.Step(next.Key).Name : null,
                    one.Run.State.Next?.Status,
                    one.Run.State.Next is { Due: { } due } comes
                        ? RunEndpoints.SayDue(one.Version.Content.Step(comes.Key), comes, due, now, business.DateTimeZone)
                        : null,
                    one.Run.State.Status == RunStatus.Paused,
                    one.Run.Failure,
                    inForce is not null && one.Run.FollowThroughNumber != inForce.Number && one.Run.State.StoppedBy is null
                        ? await MovedAsync(one.Run, inForce)
                        : null
                )
            );
        return TypedResults.Ok(new PeopleOnIt(stored.Number, people, [.. await ChangesAsync()]));

        async Task<string> MovedAsync(Run run, FollowThroughVersion to)
        {
            var content = to.Content;
            var state = await engine.MovedAsync(run, to, now);
            return state.Next is not { } next ? "It would end at once: nothing of it is left."
                : next.Due is { } due ? $"“{content.Step(next.Key).Name}” {TimeWords.At(due, now, business.DateTimeZone)}"
                : $"“{content.Step(next.Key).Name}”, without a date yet";
        }

        async Task<List<ChangesSince>> ChangesAsync()
        {
            var changes = new List<ChangesSince>();
            if (inForce is null)
                return changes;
            var names = (await loader.LoadAsync(inForce.Content, id, cancellationToken)).Names;
            foreach (var older in runs.Select(one => one.Version).Where(one => one.Number != inForce.Number).DistinctBy(one => one.Number))
                changes.Add(new ChangesSince(older.Number, FollowThroughDifferences.Say(older.Content, inForce.Content, names)));
            return [.. changes.OrderBy(one => one.Number)];
        }
    }

    /// <summary>Moves people to the version in force. Whoever is on it already, or is not on it any more, stays as they are.</summary>
    private static async Task<Results<Ok<MovedPeople>, ProblemHttpResult>> MoveAsync(
        Id<StoredFollowThrough> id,
        Move wanted,
        PorchDb db,
        RunEngine engine,
        BusinessClock clock,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (
            await db.FollowThroughs.FindAsync([id], cancellationToken) is not { } stored
            || await db.InForceAsync(stored) is not { } version
        )
            return Problems.NotFound(FollowThroughEndpoints.Gone);
        if (version.Number != wanted.To)
            return Problems.Conflict("Another version has been put into force. Check again what it changes.");
        var runs = await db
            .Runs.Where(run => run.FollowThroughId == id && run.Active && wanted.Runs.Contains(run.Id))
            .ToListAsync(cancellationToken);
        var behind = runs.Where(run => run.FollowThroughNumber != version.Number).ToList();
        foreach (var run in behind)
            await engine.MoveAsync(run, version, clock.GetCurrentInstant(), who.UserId());
        await write.SaveAsync(cancellationToken);
        return TypedResults.Ok(new MovedPeople(behind.Count));
    }
}
