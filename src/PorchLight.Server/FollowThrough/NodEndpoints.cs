using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Messages;
using PorchLight.Server.Calendar;
using PorchLight.Server.Hosting;
using PorchLight.Server.Identity;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Messages;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.FollowThrough;

/// <summary>The steps that wait for a person: read, edit, send, skip.</summary>
internal static class NodEndpoints
{
    private const string NotWaiting = "This message does not wait any more. It has been sent, skipped or cancelled.";
    private const string NoMessage = "This step sends no message; there is nothing to edit.";
    private const int LongestMessage = 20_000;

    /// <param name="Since">Since when it waits, short.</param>
    /// <param name="Goes">When it goes by itself, once it has its nod outside the sending window; else null.</param>
    /// <param name="Exactly">The moment of either, with date and zone.</param>
    internal sealed record NodRow(
        Id<Run> RunId,
        Id<Client>? ClientId,
        string Step,
        string StepName,
        string Name,
        string? Subject,
        int Gaps,
        string Since,
        string? Goes,
        string Exactly
    );

    /// <param name="Does">What the step does, as a part of a sentence.</param>
    /// <param name="Draft">The message it sends; null for a step that sends none.</param>
    /// <param name="Goes">When it goes by itself, once it has its nod outside the sending window; else null.</param>
    /// <param name="Lapses">When an unanswered nod lapses, in words.</param>
    /// <param name="OutsideWindow">Whether a nod now would wait for the sending window.</param>
    /// <param name="Next">What comes after it, in words; null when it is the last step.</param>
    /// <param name="NotPermitted">Why its message does not go to this person, in words; null where it may.</param>
    internal sealed record NodView(
        Id<Run> RunId,
        Id<Client>? ClientId,
        Id<Inquiry>? InquiryId,
        string Step,
        string StepName,
        string Name,
        string To,
        string FollowThrough,
        string Does,
        MessageDraft? Draft,
        string Since,
        string? Goes,
        string? Lapses,
        bool OutsideWindow,
        string? Next,
        string? NotPermitted
    );

    /// <param name="Draft">As it is stored now.</param>
    internal sealed record NodSaved(MessageDraft Draft);

    /// <param name="Seen">The message as the person sees it, nothing else is sent; null for a step that sends none.</param>
    /// <param name="Now">Whether to send now, though the sending window is closed.</param>
    /// <param name="Instead">The other steps of the same person that this one is enough for; they are skipped.</param>
    internal sealed record NodSend(MessageDraft? Seen, bool Now, IReadOnlyList<OtherNod>? Instead = null);

    internal sealed record OtherNod(Id<Run> RunId, string Step);

    /// <param name="Instead">The steps that were skipped with the nod, to come back with it.</param>
    internal sealed record NodBack(IReadOnlyList<OtherNod>? Instead = null);

    /// <param name="Goes">When it will go, as the sending window opens; null for now.</param>
    /// <param name="TakeBackSeconds">For how many seconds it can be taken back; null when it has gone.</param>
    internal sealed record NodSent(string? Goes, int? TakeBackSeconds);

    public static void MapNods(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/nods").For(Access.Member).WithTags("Follow-through");
        group.MapGet("/{runId}/{step}", ShowAsync);
        group.MapPut("/{runId}/{step}", SaveAsync);
        group.MapPost("/{runId}/{step}/send", SendAsync);
        group.MapPost("/{runId}/{step}/skip", SkipAsync);
        group.MapPost("/{runId}/{step}/take-skip-back", TakeSkipBackAsync);
        group.MapPost("/{runId}/{step}/take-nod-back", TakeNodBackAsync);
    }

    /// <summary>Everything that waits for a nod or, with its nod, for the sending window; the longest waiting first.</summary>
    internal static async Task<List<NodRow>> RowsAsync(PorchDb db, Instant now, CancellationToken cancellationToken)
    {
        var zone = (await db.BusinessAsync()).DateTimeZone;
        var runs = await db.RunsWithPeople().Where(one => one.Run.NodStatus != null).ToListAsync(cancellationToken);
        return
        [
            .. runs.Select(row => (row, Step: row.Run.State.Current))
                .Where(found => found.Step is { Status: StepStatus.Waiting or StepStatus.Approved, Due: not null })
                .OrderBy(found => found.Step!.Due)
                .Select(found =>
                {
                    var (row, step) = (found.row, found.Step!);
                    var draft = row.Run.Drafts.ByStep.GetValueOrDefault(step.Key);
                    var due = step.Due!.Value;
                    return new NodRow(
                        row.Run.Id,
                        row.Run.ClientId,
                        step.Key,
                        row.Version.Content.Step(step.Key).Name,
                        row.Name,
                        draft?.Subject,
                        draft?.OpenGaps.Count() ?? 0,
                        TimeWords.InList(due, now, zone),
                        step.Status == StepStatus.Approved ? TimeWords.At(due, now, zone) : null,
                        TimeWords.Exactly(due, zone)
                    );
                }),
        ];
    }

    private static async Task<Results<Ok<NodView>, ProblemHttpResult>> ShowAsync(
        Id<Run> runId,
        string step,
        PorchDb db,
        FollowThroughPartsLoader parts,
        RunEngine engine,
        BusinessClock clock,
        CancellationToken cancellationToken
    )
    {
        if (await WaitingAsync(db, runId, step, cancellationToken) is not ({ } run, { Due: { } due } state))
            return Problems.NotFound(NotWaiting);
        var now = clock.GetCurrentInstant();
        var business = await db.BusinessAsync();
        var person = await db.RunsWithPeople().SingleAsync(one => one.Run.Id == runId, cancellationToken);
        var content = person.Version.Content;
        var names = (await parts.LoadAsync(content, null, cancellationToken)).Names;
        var approved = state.Status == StepStatus.Approved;
        // Nothing comes behind an end.
        var next = content.Steps.SkipWhile(one => one.Key != step).Skip(1).FirstOrDefault() is { Action: not EndRun } follows
            ? follows
            : null;
        return TypedResults.Ok(
            new NodView(
                runId,
                run.ClientId,
                run.InquiryId,
                step,
                content.Step(step).Name,
                person.Name,
                person.Address,
                content.Name,
                content.Step(step).SayAction(names),
                run.Drafts.ByStep.GetValueOrDefault(step),
                TimeWords.At(due, now, business.DateTimeZone),
                approved ? TimeWords.At(due, now, business.DateTimeZone) : null,
                approved ? null
                    : new RunPlanner(content, business.Calendar, business.Window).NextMoment(run.State) is { } lapse
                        ? TimeWords.At(lapse, now, business.DateTimeZone)
                    : null,
                business.Calendar.HoldTo(business.Window, now) != now,
                next is null ? null : $"“{next.Name}” comes next, {next.Schedule.Say(isFirst: false, names)}.",
                await engine.NotPermittedAsync(run, step)
            )
        );
    }

    private static async Task<Results<Ok<NodSaved>, ProblemHttpResult>> SaveAsync(
        Id<Run> runId,
        string step,
        Edit<MessageDraft> edit,
        PorchDb db,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await WaitingAsync(db, runId, step, cancellationToken) is not ({ } run, _))
            return Problems.Conflict(NotWaiting);
        if (run.Drafts.ByStep.GetValueOrDefault(step) is not { } stored)
            return Problems.Conflict(NoMessage);
        var (edited, refusal) = edit.Onto(stored);
        if (refusal is not null)
            return refusal;
        if (
            edited.Parts.Sum(part => part is GapPart gap ? gap.Filled?.Length ?? 0 : ((TextPart)part).Text.Length) > LongestMessage
            || edited.Subject.Length > 300
        )
            return Problems.Unprocessable("This message is too long for one mail. Please shorten it.");
        if (stored.Revise(edited) is not { } revised)
            return Problems.Conflict("This message has another shape now. Reload to see it.");
        run.Drafts = run.Drafts.With(step, revised);
        run.Revision++;
        await write.SaveAsync(cancellationToken);
        return TypedResults.Ok(new NodSaved(revised));
    }

    private static async Task<Results<Ok<NodSent>, ProblemHttpResult>> SendAsync(
        Id<Run> runId,
        string step,
        NodSend send,
        PorchDb db,
        RunEngine engine,
        BusinessClock clock,
        TakeBackTime takeBack,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (await WaitingAsync(db, runId, step, cancellationToken) is not ({ } run, _))
            return Problems.Conflict(NotWaiting);
        if (run.Drafts.ByStep.GetValueOrDefault(step) is { } draft && RefuseUnfinished(send.Seen, draft) is { } refusal)
            return refusal;

        var now = clock.GetCurrentInstant();
        var grace = takeBack.Length;
        RunState? state;
        try
        {
            state = await engine.NodAsync(run, step, now, send.Now, who.UserId(), grace);
        }
        catch (StepFailedException failed)
        {
            return Problems.Unprocessable(failed.Message);
        }

        if (state is null)
            return Problems.Conflict("This has your nod already; there is nothing more to do.");
        foreach (var other in send.Instead ?? [])
        {
            if (
                await WaitingAsync(db, other.RunId, other.Step, cancellationToken) is not ({ } also, _)
                || !IsSamePerson(also, run)
                || await engine.SkipAsync(also, other.Step, now, who.UserId()) is null
            )
                return Problems.Conflict("The other step does not wait any more. Look at what is here now, and send again.");
        }

        await write.SaveAsync(cancellationToken);
        var zone = (await db.BusinessAsync()).DateTimeZone;
        return TypedResults.Ok(
            state.Steps.Single(one => one.Key == step) switch
            {
                { Status: StepStatus.Approved, IsReleased: true } => new NodSent(null, (int)grace.TotalSeconds),
                { Status: StepStatus.Approved, Due: { } goes } => new NodSent(TimeWords.At(goes, now, zone), null),
                _ => new NodSent(null, null),
            }
        );
    }

    /// <summary>Takes a nod back while nothing has gone yet.</summary>
    private static async Task<Results<NoContent, ProblemHttpResult>> TakeNodBackAsync(
        Id<Run> runId,
        string step,
        NodBack back,
        PorchDb db,
        RunEngine engine,
        BusinessClock clock,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        var now = clock.GetCurrentInstant();
        if (
            await WaitingAsync(db, runId, step, cancellationToken) is not ({ } run, _)
            || await engine.TakeNodBackAsync(run, step, now, who.UserId()) is null
        )
            return Problems.Conflict(MailEndpoints.GoneAlready);
        // Another that has gone on meanwhile stays skipped: the nod is what was to be stopped in time.
        foreach (var other in back.Instead ?? [])
        {
            if (await db.Runs.FindAsync([other.RunId], cancellationToken) is { } also && IsSamePerson(also, run))
                await engine.TakeSkipBackAsync(also, other.Step, now, who.UserId());
        }

        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
    }

    /// <summary>Why a message does not go as it stands; null when it may.</summary>
    private static ProblemHttpResult? RefuseUnfinished(MessageDraft? seen, MessageDraft draft)
    {
        if (seen is null)
            return Problems.Conflict(NotWaiting);
        if (Edits.UnlessSeen(seen, draft) is { } unseen)
            return unseen;
        if (draft.OpenGaps.Select(gap => new Finding(gap.Key, $"Fill this in first: {gap.Prompt}.")).ToList() is { Count: > 0 } gaps)
            return Problems.Unprocessable(
                gaps.Count == 1
                    ? "One gap is still open; the message waits until you have filled it."
                    : "Some gaps are still open; the message waits until you have filled them.",
                gaps
            );
        if (draft.Subject.Length == 0)
            return Problems.Unprocessable("The message needs a subject.");
        return null;
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> SkipAsync(
        Id<Run> runId,
        string step,
        PorchDb db,
        RunEngine engine,
        BusinessClock clock,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (
            await WaitingAsync(db, runId, step, cancellationToken) is not ({ } run, _)
            || await engine.SkipAsync(run, step, clock.GetCurrentInstant(), who.UserId()) is null
        )
            return Problems.Conflict(NotWaiting);
        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> TakeSkipBackAsync(
        Id<Run> runId,
        string step,
        PorchDb db,
        RunEngine engine,
        BusinessClock clock,
        ClaimsPrincipal who,
        CancellationToken cancellationToken
    )
    {
        await using var write = await db.WriteAsync(cancellationToken);
        if (
            await db.Runs.FindAsync([runId], cancellationToken) is not { } run
            || await engine.TakeSkipBackAsync(run, step, clock.GetCurrentInstant(), who.UserId()) is null
        )
            return Problems.Conflict("This cannot be taken back any more: the run has moved on.");
        await write.SaveAsync(cancellationToken);
        return TypedResults.NoContent();
    }

    private static bool IsSamePerson(Run one, Run other) =>
        one.ClientId == other.ClientId && one.UnfinishedFormId == other.UnfinishedFormId;

    private static async Task<(Run? Run, StepState? Step)> WaitingAsync(
        PorchDb db,
        Id<Run> id,
        string step,
        CancellationToken cancellationToken
    ) =>
        await db.Runs.FindAsync([id], cancellationToken) is { } run
        && run.State.Current is { Status: StepStatus.Waiting or StepStatus.Approved } current
        && current.Key == step
            ? (run, current)
            : (null, null);
}
