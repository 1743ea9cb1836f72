using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Records;
using PorchLight.Server.Calendar;
using PorchLight.Server.Hosting;
using PorchLight.Server.Identity;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.FollowThrough;

/// <param name="Status">Where it stands.</param>
/// <param name="When">When it was settled or is due, in words; null where nobody knows.</param>
/// <param name="Does">What it does, as a part of a sentence.</param>
/// <param name="IsNext">Whether it is the one that comes.</param>
/// <param name="CanBeDoneNow">Whether a person can have it done now.</param>
internal sealed record RunStep(string Key, string Name, string Does, StepStatus Status, string? When, bool IsNext, bool CanBeDoneNow);

/// <param name="Number">The version it follows.</param>
/// <param name="Newest">The version in force; another one where they could be moved.</param>
/// <param name="Started">When it started, in words.</param>
/// <param name="Ended">When it ended, in words; null while it has not.</param>
/// <param name="Why">What stopped it; null for what has not been stopped.</param>
/// <param name="Failure">Why what was due has failed; null while all is well.</param>
/// <param name="TriesAgain">When it is tried again, in words; null where a person has to look.</param>
internal sealed record RunView(
    Id<Run> Id,
    Id<StoredFollowThrough> FollowThroughId,
    string Name,
    Id<Project>? ProjectId,
    Id<Inquiry>? InquiryId,
    int Number,
    int Newest,
    string Started,
    string? Ended,
    RunStatus Status,
    RunEnd? Why,
    string? Failure,
    string? TriesAgain,
    IReadOnlyList<RunStep> Steps
);

/// <summary>What the people of the business do with a run.</summary>
internal static class RunEndpoints
{
    private const string Gone = "This run is not here any more.";
    private const int MostFailed = 100;
    private const string GoneOn = "The run has moved on. Check where it is now.";

    /// <param name="FollowThroughId">What is started.</param>
    /// <param name="ProjectId">The piece of work it is about.</param>
    internal sealed record NewRun(Id<StoredFollowThrough> FollowThroughId, Id<Project> ProjectId);

    internal sealed record StartedRun(Id<Run> Id);

    /// <param name="Ends">The names of the follow-throughs that end where this one starts.</param>
    /// <param name="Missed">The day of the project on which it should have started by itself and did not, in words; null for none.</param>
    internal sealed record StartableRow(Id<StoredFollowThrough> Id, string Name, IReadOnlyList<string> Ends, string? Missed);

    public static void MapRuns(this IEndpointRouteBuilder api)
    {
        api.MapPost("/inquiries/{id}/stop", StopOfInquiryAsync).For(Access.Member).WithTags("Inquiries");
        var clients = api.MapGroup("/clients/{id}/runs").For(Access.Member).WithTags("FollowThrough");
        clients.MapGet("", ListAsync);
        clients.MapPost("", StartAsync).Once();
        clients.MapGet("/startable", ListStartableAsync);
        var runs = api.MapGroup("/runs/{id}").For(Access.Member).WithTags("FollowThrough");
        runs.MapPut("/paused", PauseAsync);
        runs.MapPost("/stop", StopAsync);
        runs.MapPost("/try-again", TryAgainAsync);
        runs.MapPost("/steps/{step}/skip", SkipAsync);
        runs.MapPost("/steps/{step}/now", DoNowAsync);
    }

    internal sealed record RunPause(bool IsPaused);

    /// <param name="Step">What could not be done.</param>
    /// <param name="Why">Why, as a sentence.</param>
    internal sealed record FailedRow(
        Id<Run> RunId,
        Id<Client>? ClientId,
        Id<StoredFollowThrough> FollowThroughId,
        string Name,
        string FollowThrough,
        string Step,
        string Why
    );

    /// <summary>The runs that wait for a person because something failed again and again, by whom they are about.</summary>
    internal static async Task<IReadOnlyList<FailedRow>> FailedAsync(PorchDb db, CancellationToken cancellationToken)
    {
        var failed = await db.RunsWithPeople()
            .Where(one => one.Run.Active && one.Run.Tries >= Retries.Most)
            .OrderBy(one => one.Client!.SortName)
            .Take(MostFailed)
            .ToListAsync(cancellationToken);
        return
        [
            .. failed.Select(one => new FailedRow(
                one.Run.Id,
                one.Run.ClientId,
                one.Run.FollowThroughId,
                one.Name,
                one.Version.Content.Name,
                one.Run.State.Next is { } next ? one.Version.Content.Step(next.Key).Name : "",
                one.Run.Failure ?? ""
            )),
        ];
    }

    /// <summary>All runs of a client: those under way first, then what came last; of one who is gone there are none.</summary>
    private static async Task<IReadOnlyList<RunView>> ListAsync(
        Id<Client> id,
        PorchDb db,
        FollowThroughPartsLoader loader,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        var runs = await db.RunsWithVersion().Where(one => one.Run.ClientId == id).ToListAsync(cancellationToken);
        var newest = await db.FollowThroughs.AsNoTracking().ToDictionaryAsync(one => one.Id, one => one.Number, cancellationToken);
        var (now, zone) = (clock.GetCurrentInstant(), (await db.BusinessAsync()).DateTimeZone);
        var views = new List<RunView>();
        foreach (var one in runs.OrderByDescending(one => one.Run.Active).ThenByDescending(one => one.Run.State.Started))
        {
            var names = (await loader.LoadAsync(one.Version.Content, null, cancellationToken)).Names;
            views.Add(ViewOf(one.Run, one.Version.Content, newest[one.Run.FollowThroughId], names, now, zone));
        }

        return views;
    }

    private static RunView ViewOf(
        Run run,
        FollowThroughContent content,
        int newest,
        FollowThroughNames names,
        Instant now,
        DateTimeZone zone
    )
    {
        var state = run.State;
        return new RunView(
            run.Id,
            run.FollowThroughId,
            content.Name,
            run.ProjectId,
            run.InquiryId,
            run.FollowThroughNumber,
            newest,
            TimeWords.At(state.Started, now, zone),
            state.Ended is { } ended ? TimeWords.At(ended, now, zone) : null,
            state.Status,
            state.StoppedBy,
            run.Failure,
            run is { Failure: not null, NextMoment: { } again } ? TimeWords.At(again, now, zone) : null,
            [
                .. state.Steps.Select(step =>
                {
                    var planned = content.Step(step.Key);
                    var isNext = step.Key == state.Next?.Key;
                    return new RunStep(
                        step.Key,
                        planned.Name,
                        planned.SayAction(names),
                        step.Status,
                        step.Settled is { } settled ? TimeWords.At(settled, now, zone)
                            : step.Due is { } due ? SayDue(planned, step, due, now, zone)
                            : null,
                        isNext,
                        isNext && step.Status == StepStatus.Planned && planned is { Action: OutsideAction, NeedsNod: false }
                    );
                }),
            ]
        );
    }

    /// <summary>When a step comes, in words; of one that waits for something, when that is over at the latest.</summary>
    internal static string SayDue(Step step, StepState state, Instant due, Instant now, DateTimeZone zone) =>
        step.Action.WaitsFor() is not null && state.Status == StepStatus.Planned
            ? $"at the latest {TimeWords.At(due, now, zone)}"
            : TimeWords.At(due, now, zone);

    /// <summary>What can be started by hand for a piece of work of a client, what each of them would end, and which were missed.</summary>
    private static async Task<IReadOnlyList<StartableRow>> ListStartableAsync(
        Id<Client> id,
        Id<Project> project,
        PorchDb db,
        CancellationToken cancellationToken
    )
    {
        var runs = await db.RunsWithVersion().Where(one => one.Run.ClientId == id).ToListAsync(cancellationToken);
        var missed = await MissedAsync(id, project, db, cancellationToken);
        var rows = new List<StartableRow>();
        foreach (var stored in await db.FollowThroughs.AsNoTracking().Where(one => one.Archived == null).ToListAsync(cancellationToken))
        {
            if (await db.InForceAsync(stored) is not { Content: var content })
                continue;
            var ends = runs.Where(one => one.Run.Active)
                .OrderBy(one => one.Run.State.Started)
                .Where(one => FollowThroughs.Ends(one.Version.Content, content, IsOfThis(one)))
                .Select(one => one.Version.Content.Name);
            var day = stored.IsOn && !runs.Any(IsOfThis) ? missed(content.Starts) : null;
            rows.Add(new StartableRow(stored.Id, content.Name, [.. ends.Distinct()], day is { } then ? DateWords.Say(then) : null));

            bool IsOfThis(RunWithVersion one) => one.Run.FollowThroughId == stored.Id && one.Run.ProjectId == project;
        }

        return [.. rows.OrderBy(row => row.Name, StringComparer.CurrentCulture)];
    }

    /// <summary>Tells the day on which something should have started for a piece of work, and did not.</summary>
    private static async Task<Func<StartOn, LocalDate?>> MissedAsync(
        Id<Client> id,
        Id<Project> project,
        PorchDb db,
        CancellationToken cancellationToken
    )
    {
        var business = await db.BusinessAsync();
        var stage = await db.Projects.Where(one => one.Id == project).Select(one => one.Stage).SingleOrDefaultAsync(cancellationToken);
        var standing = await db.Clients.Where(one => one.Id == id).Select(one => one.Standing).SingleOrDefaultAsync(cancellationToken);
        if (!DatedStart.Concerns(standing, business.Lists.Stages.FirstOrDefault(one => one.Key == stage)?.Kind))
            return _ => null;
        var values = await db
            .FieldValues.AsNoTracking()
            .Where(value => value.ProjectId == project && value.ClientId == id && value.IsCurrent)
            .ToListAsync(cancellationToken);
        return starts =>
            starts is ProjectDateStart start
            && values.FirstOrDefault(value => value.Field == start.Field)?.Value is DateAnswer { Date: var date }
                ? start.Missed(date, business.DaysLookedAt)
                : null;
    }

    /// <summary>Starts a follow-through by hand for a piece of work of a client.</summary>
    private static async Task<Results<Ok<StartedRun>, ProblemHttpResult>> StartAsync(
        Id<Client> id,
        NewRun wanted,
        PorchDb db,
        RunEngine engine,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (!await db.Projects.AnyAsync(project => project.Id == wanted.ProjectId && project.ClientId == id, cancellationToken))
            return Problems.NotFound(ProjectEndpoints.Gone);
        if (
            await db.FollowThroughs.FindAsync([wanted.FollowThroughId], cancellationToken) is not { Archived: null } stored
            || await db.InForceAsync(stored) is not { } version
        )
            return Problems.Unprocessable("This follow-through is not in force. Choose another one.");
        var inquiry = await db
            .Inquiries.Where(one => one.ProjectId == wanted.ProjectId)
            .OrderByDescending(one => one.Received)
            .Select(one => (Id<Inquiry>?)one.Id)
            .FirstOrDefaultAsync(cancellationToken);
        var run = await engine.StartAsync(version, new EventContext(id, wanted.ProjectId, inquiry), clock.GetCurrentInstant());
        await write.SaveAsync(cancellationToken);
        return TypedResults.Ok(new StartedRun(run.Id));
    }

    private static async Task<Results<Ok<RunPause>, ProblemHttpResult>> PauseAsync(
        Id<Run> id,
        RunPause wanted,
        PorchDb db,
        RunEngine engine,
        BusinessClock clock,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.Runs.FindAsync([id], cancellationToken) is not { } run)
            return Problems.NotFound(Gone);
        if (!run.Active)
            return Problems.Conflict("This run is over.");
        await engine.HoldBackAsync(run, wanted.IsPaused, clock.GetCurrentInstant(), who.UserId());
        await write.SaveAsync(cancellationToken);
        return TypedResults.Ok(wanted);
    }

    private static Task<Results<NoContent, ProblemHttpResult>> StopAsync(
        Id<Run> id,
        PorchDb db,
        RunEngine engine,
        BusinessClock clock,
        CancellationToken cancellationToken
    ) =>
        DoAsync(
            id,
            db,
            async run =>
            {
                await engine.StopByHandAsync(run.Active ? [run] : [], clock.GetCurrentInstant());
                return true;
            },
            cancellationToken
        );

    /// <summary>What failed is tried again now, as if it never had.</summary>
    private static Task<Results<NoContent, ProblemHttpResult>> TryAgainAsync(
        Id<Run> id,
        PorchDb db,
        BusinessClock clock,
        CancellationToken cancellationToken
    ) =>
        DoAsync(
            id,
            db,
            run =>
            {
                if (run is { Active: true, Failure: not null })
                    (run.Tries, run.NextMoment) = (0, clock.GetCurrentInstant());
                return Task.FromResult(true);
            },
            cancellationToken
        );

    private static Task<Results<NoContent, ProblemHttpResult>> SkipAsync(
        Id<Run> id,
        string step,
        PorchDb db,
        RunEngine engine,
        BusinessClock clock,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    ) =>
        DoAsync(
            id,
            db,
            async run => await engine.SkipAsync(run, step, clock.GetCurrentInstant(), who.UserId()) is not null,
            cancellationToken
        );

    private static Task<Results<NoContent, ProblemHttpResult>> DoNowAsync(
        Id<Run> id,
        string step,
        PorchDb db,
        RunEngine engine,
        BusinessClock clock,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    ) =>
        DoAsync(
            id,
            db,
            async run => await engine.DoNowAsync(run, step, clock.GetCurrentInstant(), who.UserId()) is not null,
            cancellationToken
        );

    private static async Task<Results<NoContent, ProblemHttpResult>> DoAsync(
        Id<Run> id,
        PorchDb db,
        Func<Run, Task<bool>> act,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.Runs.FindAsync([id], cancellationToken) is not { } run)
            return Problems.NotFound(Gone);
        try
        {
            if (!await act(run))
                return Problems.Conflict(GoneOn);
        }
        catch (StepFailedException failed)
        {
            return Problems.Unprocessable(failed.Message);
        }

        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
    }

    /// <summary>Stops what is still to come of the follow-through of an inquiry.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> StopOfInquiryAsync(
        Id<Inquiry> id,
        PorchDb db,
        RunEngine engine,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await db.Inquiries.FindAsync([id], cancellationToken) is null)
            return Problems.NotFound(InquiryActionEndpoints.Gone);
        await engine.StopByHandAsync(
            await db.Runs.Where(run => run.InquiryId == id && run.Active).ToListAsync(cancellationToken),
            clock.GetCurrentInstant()
        );
        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
    }
}
