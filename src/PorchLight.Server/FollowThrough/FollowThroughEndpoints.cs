using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using PorchLight.Core.Common;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Ready;
using PorchLight.Server.Calendar;
using PorchLight.Server.Hosting;
using PorchLight.Server.Storage;

namespace PorchLight.Server.FollowThrough;

/// <summary>The list of follow-throughs, and what is done with one as a whole.</summary>
internal static class FollowThroughEndpoints
{
    internal const string Gone = "This follow-through is not here any more.";
    private const int LongestName = 120;

    /// <param name="Starts">What starts it, as a part of a sentence; what somebody works on says it before there is a version in force.</param>
    /// <param name="Ends">What ends it; empty for a person only.</param>
    /// <param name="Steps">How many steps it has.</param>
    /// <param name="LastDay">The day of its last step; null where that counts from a day of the project.</param>
    /// <param name="IsOn">Whether it starts by itself.</param>
    /// <param name="IsInForce">Whether there is a version that runs can take.</param>
    /// <param name="IsWorkedOn">Whether somebody has changed it and not put that into force.</param>
    /// <param name="People">How many are on it.</param>
    /// <param name="Waiting">How many of them wait for a nod.</param>
    /// <param name="Failing">How many of them wait because something failed.</param>
    internal sealed record FollowThroughRow(
        Id<StoredFollowThrough> Id,
        string Name,
        string Starts,
        string Ends,
        int Steps,
        int? LastDay,
        bool IsOn,
        bool IsInForce,
        bool IsWorkedOn,
        bool IsArchived,
        int People,
        int Waiting,
        int Failing
    );

    internal sealed record ReadyRow(string Key, string Name, string About);

    /// <param name="Ready">The key of a ready one; null to begin with an empty one.</param>
    internal sealed record NewFollowThrough(string? Ready, string Name);

    internal sealed record MadeFollowThrough(Id<StoredFollowThrough> Id);

    internal sealed record FollowThroughSwitch(bool IsOn, bool IsArchived);

    public static void MapFollowThroughs(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/follow-throughs").For(Access.Member).WithTags("FollowThrough");
        group.MapGet("", ListAsync);
        group.MapGet("/ready", ListReady);
        group.MapPost("", MakeAsync).Once();
        group.MapPost("/{id}/copies", CopyAsync).Once();
        group.MapPut("/{id}/switch", SwitchAsync);
    }

    /// <summary>All of them by name, those that are put away last.</summary>
    private static async Task<IReadOnlyList<FollowThroughRow>> ListAsync(
        PorchDb db,
        FollowThroughPartsLoader loader,
        CancellationToken cancellationToken
    )
    {
        var stored = await db.FollowThroughs.AsNoTracking().ToListAsync(cancellationToken);
        var versions = (await db.FollowThroughVersions.AsNoTracking().ToListAsync(cancellationToken)).ToDictionary(version =>
            (version.FollowThroughId, version.Number)
        );
        var runs = await db
            .Runs.Where(run => run.Active)
            .GroupBy(run => run.FollowThroughId)
            .Select(of => new
            {
                of.Key,
                All = of.Count(),
                Waiting = of.Count(run => run.NodStatus == StepStatus.Waiting),
                Failing = of.Count(run => run.Failure != null),
            })
            .ToDictionaryAsync(of => of.Key, cancellationToken);
        var rows = new List<FollowThroughRow>();
        foreach (var one in stored)
        {
            var inForce = versions.GetValueOrDefault((one.Id, one.Number));
            var content = inForce?.Content ?? one.Draft!;
            var names = (await loader.LoadAsync(content, one.Id, cancellationToken)).Names;
            rows.Add(
                new FollowThroughRow(
                    one.Id,
                    content.Name,
                    content.Starts.Say(names),
                    content.SayStops(names),
                    content.Steps.Count,
                    content.Steps.Count == 0 ? null : StepDays.DaysOf(content)[^1],
                    one.IsOn,
                    inForce is not null,
                    one.Draft is not null,
                    one.Archived is not null,
                    runs.GetValueOrDefault(one.Id)?.All ?? 0,
                    runs.GetValueOrDefault(one.Id)?.Waiting ?? 0,
                    runs.GetValueOrDefault(one.Id)?.Failing ?? 0
                )
            );
        }

        return [.. rows.OrderBy(row => row.IsArchived).ThenBy(row => row.Name, StringComparer.CurrentCulture)];
    }

    /// <summary>Those that are ready to begin with.</summary>
    private static IReadOnlyList<ReadyRow> ListReady() =>
        [.. ReadyFollowThroughs.All.Select(ready => new ReadyRow(ready.Key, ready.Name, ready.About))];

    /// <summary>Begins one that somebody works on; it starts nothing before it is put into force.</summary>
    private static async Task<Results<Ok<MadeFollowThrough>, ProblemHttpResult>> MakeAsync(
        NewFollowThrough asked,
        PorchDb db,
        CancellationToken cancellationToken
    )
    {
        var name = asked.Name.Trim();
        if (name.Length is 0 or > LongestName)
            return Problems.Invalid(new Finding("name", $"Give it a name of at most {LongestName} characters."));
        var ready = ReadyFollowThroughs.All.FirstOrDefault(one => one.Key == asked.Ready);
        if (ready is null && asked.Ready is not null)
            return Problems.Unprocessable("This one is not offered any more. Please choose another.");
        await using var write = await db.WriteAsync(cancellationToken);
        var content =
            ready?.Make((await db.BusinessAsync()).Lists.Stages)
            ?? new FollowThroughContent(name, new InquiryStart(null, []), [], [StopOn.Replied, StopOn.Booked]);
        return TypedResults.Ok(await AddAsync(db, write, content with { Name = name }, cancellationToken));
    }

    /// <summary>One like another, to be worked on: with what somebody works on there, or what is in force.</summary>
    private static async Task<Results<Ok<MadeFollowThrough>, ProblemHttpResult>> CopyAsync(
        Id<StoredFollowThrough> id,
        PorchDb db,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.FollowThroughs.FindAsync([id], cancellationToken) is not { } original)
            return Problems.NotFound(Gone);
        var content = original.Draft ?? (await db.InForceAsync(original))!.Content;
        var name = ReadyForms.CopyTitle(content.Name, await NamesAsync(db, cancellationToken));
        return TypedResults.Ok(await AddAsync(db, write, content with { Name = name }, cancellationToken));
    }

    private static async Task<MadeFollowThrough> AddAsync(
        PorchDb db,
        Write write,
        FollowThroughContent content,
        CancellationToken cancellationToken
    )
    {
        var made = new StoredFollowThrough
        {
            Id = new Id<StoredFollowThrough>(Guid.CreateVersion7()),
            Number = 0,
            IsOn = false,
            Draft = content,
        };
        db.FollowThroughs.Add(made);
        await write.SaveAsync(cancellationToken);
        return new MadeFollowThrough(made.Id);
    }

    private static async Task<List<string>> NamesAsync(PorchDb db, CancellationToken cancellationToken) =>
        [
            .. (await db.FollowThroughVersions.AsNoTracking().ToListAsync(cancellationToken)).Select(version => version.Content.Name),
            .. (await db.FollowThroughs.AsNoTracking().ToListAsync(cancellationToken)).Select(one => one.Draft?.Name).OfType<string>(),
        ];

    /// <summary>
    /// Switches one on or off, or puts it away: then it starts nothing. Those who are on it go on with theirs.
    /// </summary>
    private static async Task<Results<Ok<FollowThroughSwitch>, ProblemHttpResult>> SwitchAsync(
        Id<StoredFollowThrough> id,
        Edit<FollowThroughSwitch> edit,
        PorchDb db,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.FollowThroughs.FindAsync([id], cancellationToken) is not { } stored)
            return Problems.NotFound(Gone);
        var (wanted, refusal) = edit.Onto(new FollowThroughSwitch(stored.IsOn, stored.Archived is not null));
        if (refusal is not null)
            return refusal;
        if (wanted is { IsOn: true, IsArchived: false } && stored.Number == 0)
            return Problems.Unprocessable("It is not in force yet. Put it into force first; then it can be switched on.");
        stored.Archived = wanted.IsArchived ? stored.Archived ?? clock.GetCurrentInstant() : null;
        stored.IsOn = wanted.IsOn && !wanted.IsArchived;
        await write.SaveAsync(cancellationToken);
        return TypedResults.Ok(wanted with { IsOn = stored.IsOn });
    }
}
