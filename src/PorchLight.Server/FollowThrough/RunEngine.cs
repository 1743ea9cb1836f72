using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Inquiries;
using PorchLight.Core.Meetings;
using PorchLight.Core.Messages;
using PorchLight.Core.Records;
using PorchLight.Server.Calendar;
using PorchLight.Server.Forms;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Meetings;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.FollowThrough;

/// <summary>
/// Starts, moves and stops runs, and has carried out what the planner decides. Every call is part of the caller's
/// transaction.
/// </summary>
internal sealed class RunEngine(
    PorchDb db,
    EventLog events,
    StepRunner steps,
    RunFactsLoader facts,
    UnfinishedFormReader leftForms,
    BusinessClock clock
) : IEventReaction, IUnfinishedFormReaction
{
    // What a step itself brings about neither ends the run it is a step of nor is what that run waits for.
    private readonly HashSet<Id<Run>> _acting = [];

    /// <summary>Starts, moves on or stops runs where the event asks for it.</summary>
    public async Task ReactAsync(LoggedEvent logged)
    {
        if (logged.ClientId is not { } client || !logged.What.MovesRuns())
            return;
        if (logged.What is not InquiryReceived { KnownBefore: false })
            await TellRunsAsync(logged, client);
        var live = await CompiledQueries.LiveFollowThroughs(db).ToListAsync();
        if (live.Count > 0 && await SubjectAsync(logged, client) is { } about)
            await StartAsync(live, logged, about with { MeetingId = MeetingOf(logged.What) });
    }

    /// <summary>
    /// What of a run has fallen due, as far as the first step that takes effect; what counts from a day of the project counts from the day
    /// it has by now.
    /// </summary>
    public async Task AdvanceAsync(Run run, Instant now)
    {
        var context = await ContextAsync(run);
        if (run.UnfinishedFormId is not null && context.Left is null)
            await StopAsync(context, RunEnd.WentOn, null, now);
        else
            await ApplyAsync(context, context.Planner.Advance(context.Planner.PlanAnew(run.State, now), now), now);
    }

    /// <summary>A person nods. Null when the step does not wait (any more).</summary>
    /// <param name="grace">For how long it can still be taken back.</param>
    public async Task<RunState?> NodAsync(Run run, string step, Instant now, bool sendNow, Guid by, Duration grace = default)
    {
        var context = await ContextAsync(run);
        return context.Planner.Nod(run.State, step, now, by, sendNow, grace) is { } transition
            ? await ApplyAsync(context, transition, now)
            : null;
    }

    /// <summary>Why a step's message does not go to its person, as a sentence; null where it goes, or the step sends none.</summary>
    public async Task<string?> NotPermittedAsync(Run run, string step)
    {
        var context = await ContextAsync(run);
        if (context.Content.Step(step).Action is not SendMessage send)
            return null;
        if (context.Left is { } left)
            return left.Unfinished.MayBeWrittenTo() ? null : UnfinishedFormReader.HadTheirMail;
        return Consent.Refuse(send.Channel, send.IsAdvertising, context.Permissions) is { } forbidden ? Consent.Say(forbidden) : null;
    }

    /// <summary>A person takes their nod back. Null when the step has taken effect, or has no nod.</summary>
    public async Task<RunState?> TakeNodBackAsync(Run run, string step, Instant now, Guid by)
    {
        if (RunPlanner.TakeNodBack(run.State, step, now) is not { } state)
            return null;
        var context = await ContextAsync(run);
        await events.AppendAsync(new NodTakenBack(step, by), now, context.About);
        return Keep(context, state);
    }

    /// <summary>A person has a step done now. Null when it is not the next one of an active run, or waits for a nod.</summary>
    public async Task<RunState?> DoNowAsync(Run run, string step, Instant now, Guid by)
    {
        var context = await ContextAsync(run);
        return context.Planner.DoNow(run.State, step, now, by) is { } transition ? await ApplyAsync(context, transition, now) : null;
    }

    /// <summary>A person passes a step over. Null when it is not the next one of an active run.</summary>
    public async Task<RunState?> SkipAsync(Run run, string step, Instant now, Guid by)
    {
        var context = await ContextAsync(run);
        if (context.Planner.Skip(run.State, step, now) is not { } transition)
            return null;
        await events.AppendAsync(new StepSkipped(step, by), now, context.About);
        return await ApplyAsync(context, transition, now);
    }

    /// <summary>A person takes a skip back. Null when that is not possible any more.</summary>
    public async Task<RunState?> TakeSkipBackAsync(Run run, string step, Instant now, Guid by)
    {
        var context = await ContextAsync(run);
        if (context.Planner.TakeSkipBack(run.State, step) is not { } state)
            return null;
        await events.AppendAsync(new SkipTakenBack(step, by), now, context.About);
        return Keep(context, state);
    }

    /// <summary>A person holds a run back, or lets it go on. Null when it is so already, or over.</summary>
    public async Task<RunState?> HoldBackAsync(Run run, bool pause, Instant now, Guid by)
    {
        var context = await ContextAsync(run);
        if ((pause ? RunPlanner.Pause(run.State) : RunPlanner.Resume(run.State, now)) is not { } state)
            return null;
        await events.AppendAsync(pause ? new RunPaused(by) : new RunResumed(by), now, context.About);
        return Keep(context, state);
    }

    /// <summary>Time in which the program did not run does not count for a nod that was waited for.</summary>
    public async Task StoodStillAsync(Run run, Instant from, Instant until) =>
        Keep(await ContextAsync(run), RunPlanner.StoodStill(run.State, from, until));

    /// <summary>How a run would stand in another version.</summary>
    public async Task<RunState> MovedAsync(Run run, FollowThroughVersion to, Instant now) =>
        (await ContextAsync(run, to.Content)).Planner.MoveHere(run.State, now);

    /// <summary>A person moves a run to the version in force. A message that was written for its step keeps what they edited.</summary>
    public async Task MoveAsync(Run run, FollowThroughVersion version, Instant now, Guid by)
    {
        if (run.FollowThroughNumber == version.Number || run.State.IsOver || run.State.StoppedBy is not null)
            return;
        run.FollowThroughNumber = version.Number;
        var context = await ContextAsync(run);
        await events.AppendAsync(new RunMoved(version.Number, by), now, context.About);
        var state = context.Planner.MoveHere(run.State, now);
        Keep(context, state);
        if (state.Status == RunStatus.Finished)
            await events.AppendAsync(new RunFinished(), now, context.About);
    }

    /// <summary>A person, or a step of another run, starts a follow-through for a piece of work; those that may not run beside it end, and the same one begins anew.</summary>
    public async Task<Run> StartAsync(FollowThroughVersion version, EventContext about, Instant now)
    {
        var (client, project) = (about.ClientId!.Value, about.ProjectId);
        await RefuseEndlessRoundAsync(version, about, now);
        await StopOthersAsync(await ActiveOfAsync(client), version, project, about.MeetingId, now);
        return await BeginAsync(version, about, null, now);
    }

    /// <summary>
    /// One journey, also of a person who was two until now: of the runs that may not go on side by side the one that was started last does.
    /// </summary>
    public async Task KeepOneJourneyAsync(Id<Client> client, Instant now)
    {
        var active = (await ActiveOfAsync(client))
            .OrderByDescending(run => run.State.Started)
            .ThenByDescending(run => run.Id.Value)
            .ToList();
        var kept = new List<Run>();
        foreach (var run in active)
        {
            var context = await ContextAsync(run);
            var ends = false;
            foreach (var other in kept)
            {
                var isSame =
                    other.FollowThroughId == run.FollowThroughId && other.ProjectId == run.ProjectId && other.MeetingId == run.MeetingId;
                ends |= FollowThroughs.Ends(context.Content, (await db.VersionOfAsync(other)).Content, isSame);
            }

            if (ends)
                await StopAsync(context, RunEnd.AnotherStarted, null, now);
            else
                kept.Add(run);
        }
    }

    /// <summary>Starts a follow-through about a form that somebody left half-finished.</summary>
    public async Task<Run> StartAsync(FollowThroughVersion version, UnfinishedForm left, Instant now)
    {
        await StopOthersAsync(
            await db.Runs.Where(run => run.UnfinishedFormId == left.Id && run.Active).ToListAsync(),
            version,
            null,
            null,
            now
        );
        return await BeginAsync(version, new EventContext(null), left, now);
    }

    /// <summary>Whoever goes on with a form is sent nothing more about it.</summary>
    public async Task WentOnAsync(UnfinishedForm draft)
    {
        foreach (var run in await db.Runs.Where(run => run.UnfinishedFormId == draft.Id && run.Active).ToListAsync())
            await StopAsync(await ContextAsync(run), RunEnd.WentOn, null, clock.GetCurrentInstant());
    }

    /// <summary>
    /// Those that start each other without end are stopped where nobody waits between: the step that would start one once more fails, and
    /// waits with its reason.
    /// </summary>
    private async Task RefuseEndlessRoundAsync(FollowThroughVersion version, EventContext about, Instant now)
    {
        if (_acting.Count == 0)
            return;
        var lately = (
            await db
                .Runs.Where(run =>
                    run.FollowThroughId == version.FollowThroughId && run.ClientId == about.ClientId && run.ProjectId == about.ProjectId
                )
                .OrderByDescending(run => run.Id)
                .Take(MostRounds)
                .ToListAsync()
        ).Count(run => run.State.Started > now - ShortestRound);
        if (lately == MostRounds)
            throw new StepFailedException(
                $"“{version.Content.Name}” was started {MostRounds} times within an hour by steps. Two follow-throughs start each other: change one of them."
            );
    }

    private const int MostRounds = 5;
    private static readonly Duration ShortestRound = Duration.FromHours(1);

    /// <summary>One journey a person: what may not run beside the next ends.</summary>
    private async Task StopOthersAsync(
        IEnumerable<Run> others,
        FollowThroughVersion next,
        Id<Project>? project,
        Id<Meeting>? meeting,
        Instant now
    )
    {
        foreach (var other in others)
        {
            var context = await ContextAsync(other);
            var isSame = other.FollowThroughId == next.FollowThroughId && other.ProjectId == project && other.MeetingId == meeting;
            if (FollowThroughs.Ends(context.Content, next.Content, isSame))
                await StopAsync(context, RunEnd.AnotherStarted, null, now);
        }
    }

    private async Task<Run> BeginAsync(FollowThroughVersion version, EventContext about, UnfinishedForm? left, Instant now)
    {
        var run = new Run
        {
            Id = new Id<Run>(Guid.CreateVersion7()),
            FollowThroughId = version.FollowThroughId,
            FollowThroughNumber = version.Number,
            ClientId = about.ClientId,
            ProjectId = about.ProjectId,
            InquiryId = about.InquiryId,
            MeetingId = about.MeetingId,
            UnfinishedFormId = left?.Id,
            DraftRevision = left?.Revision,
            State = new RunState(now, []),
            Drafts = RunDrafts.None,
            NextMoment = null,
        };
        db.Runs.Add(run);
        var begun = await ContextAsync(run, version.Content);
        await events.AppendAsync(new RunStarted(), now, begun.About);
        Keep(begun, begun.Planner.Start(now));
        // A first mail at once goes with what it answers; whatever else might fail is the worker's, and never what started the run.
        if (
            run.NextMoment <= now
            && run.State.Current is { } first
            && begun.Content.Step(first.Key).Action is SendMessage { Channel: Channel.Mail }
        )
            await ApplyAsync(begun, begun.Planner.Advance(run.State, now), now);
        return run;
    }

    /// <summary>A person stops what is still to come of the runs of an inquiry, or of one run.</summary>
    public async Task StopByHandAsync(IEnumerable<Run> runs, Instant now)
    {
        foreach (var run in runs)
            await StopAsync(await ContextAsync(run), RunEnd.ByHand, null, now);
    }

    /// <summary>Ends, or moves on, the runs that an event concerns.</summary>
    private async Task TellRunsAsync(LoggedEvent logged, Id<Client> client)
    {
        foreach (var run in await ActiveOfAsync(client))
        {
            if (_acting.Contains(run.Id) || !Concerns(logged, run))
                continue;
            var context = await ContextAsync(run);
            if (context.Content.EndedBy(logged.What) is { } end)
                await StopAsync(context, end.End, end.Stop?.Last, logged.At);
            else if (context.Planner.Happened(run.State, logged.What, logged.At) is { } transition)
                await ApplyAsync(context, transition, logged.At);
        }
    }

    private static Id<Meeting>? MeetingOf(DomainEvent what) =>
        what is IAboutMeeting { Meeting: { } meeting } ? new Id<Meeting>(meeting) : null;

    // What is about one inquiry or one project leaves the other work of the same person alone.
    private static bool Concerns(LoggedEvent logged, Run run) =>
        logged.What switch
        {
            IAboutMeeting { Meeting: { } meeting } when run.MeetingId is { } own => own.Value == meeting,
            InquiryClosed or InquirySetAside => run.InquiryId == logged.InquiryId,
            { } what when what is ProjectClosed || what.StageReached() is not null => run.ProjectId == logged.ProjectId,
            _ => true,
        };

    private async Task StartAsync(List<FollowThroughVersion> live, LoggedEvent logged, EventContext about)
    {
        var client = (await db.Clients.FindAsync(about.ClientId))!;
        var inquiry = about.InquiryId is { } id ? await db.Inquiries.FindAsync(id) : null;
        var known = await facts.LoadToStartAsync(client, about.ProjectId!.Value, inquiry, live.Any(one => one.Content.Judges));
        foreach (var version in FollowThroughs.StartedBy(live, logged.What, known, one => one.Content))
            await StartAsync(version, about, logged.At);
    }

    /// <summary>The piece of work an event is about: its own, else the latest of the client. Null where there is none.</summary>
    private async Task<EventContext?> SubjectAsync(LoggedEvent logged, Id<Client> client)
    {
        if (logged.ProjectId is { } project)
            return new EventContext(client, project, logged.InquiryId ?? await LatestInquiryAsync(project));
        if (logged.InquiryId is { } inquiry)
            return new EventContext(client, (await db.Inquiries.FindAsync(inquiry))!.ProjectId, inquiry);
        var latest = await db
            .Projects.Where(one => one.ClientId == client && one.IsLatest)
            .Select(one => (Id<Project>?)one.Id)
            .FirstOrDefaultAsync();
        return latest is { } found ? new EventContext(client, found, await LatestInquiryAsync(found)) : null;
    }

    /// <summary>The inquiry a piece of work was asked for by last; null for none.</summary>
    public async Task<Id<Inquiry>?> LatestInquiryAsync(Id<Project> project) =>
        await db
            .Inquiries.Where(one => one.ProjectId == project)
            .OrderByDescending(one => one.Received)
            .Select(one => (Id<Inquiry>?)one.Id)
            .FirstOrDefaultAsync();

    private async Task<List<Run>> ActiveOfAsync(Id<Client> client)
    {
        // Whom this very write makes, nothing runs for yet in the database.
        var stored = db.Clients.Local.FindEntry(client) is { State: EntityState.Added }
            ? []
            : await db.Runs.Where(run => run.ClientId == client && run.Active).ToListAsync();
        return [.. stored.Union(db.Runs.Local.Where(run => run.ClientId == client)).Where(run => run.Active).OrderBy(run => run.Id.Value)];
    }

    private async Task StopAsync(RunContext context, RunEnd why, Step? last, Instant now)
    {
        var run = context.Run;
        await events.AppendAsync(new RunStopped(why, run.State.Steps.Count(step => step.IsPending)), now, context.About);
        Keep(context, context.Planner.Stop(run.State, why, now, last));
    }

    private async Task<RunState> ApplyAsync(RunContext context, Transition transition, Instant now)
    {
        var run = context.Run;
        var wasActing = !_acting.Add(run.Id);
        // Before it is carried out: what a step brings about finds the run as it is from then on.
        Keep(context, transition.State);
        foreach (var effect in transition.Effects)
        {
            switch (effect.Kind)
            {
                case RunEffectKind.AskForNod:
                    var draft = await steps.DraftAsync(context, effect.Step!, effect.At);
                    if (draft is not null)
                        run.Drafts = run.Drafts.With(effect.Step!, draft);
                    await events.AppendAsync(new NodAsked(effect.Step!, draft?.OpenGaps.Count() ?? 0), effect.At, context.About);
                    break;
                case RunEffectKind.TakeEffect:
                    var done = transition.State.Steps.Single(step => step.Key == effect.Step);
                    await steps.DoAsync(context, done.Key, done.By, now);
                    break;
                case RunEffectKind.NoteLapse:
                    await events.AppendAsync(new StepLapsed(effect.Step!), effect.At, context.About);
                    break;
                case RunEffectKind.NoteWaitedInVain:
                    await events.AppendAsync(new WaitedInVain(effect.Step!), effect.At, context.About);
                    break;
                case RunEffectKind.NoteMoved:
                    await events.AppendAsync(new MessageMoved(effect.Step!), effect.At, context.About);
                    break;
                case RunEffectKind.NoteEnd:
                    await events.AppendAsync(new RunFinished(), effect.At, context.About);
                    break;
            }
        }

        if (!wasActing)
            _acting.Remove(run.Id);
        return run.State;
    }

    private static RunState Keep(RunContext context, RunState state)
    {
        var run = context.Run;
        run.State = state;
        run.Active = !state.IsOver;
        run.NextMoment = context.Planner.NextMoment(state);
        run.NodStatus = state.Current is { Status: StepStatus.Waiting or StepStatus.Approved } asks ? asks.Status : null;
        (run.Tries, run.Failure) = (0, null);
        run.Revision++;
        return state;
    }

    private async Task<RunContext> ContextAsync(Run run) => await ContextAsync(run, (await db.VersionOfAsync(run)).Content);

    private async Task<RunContext> ContextAsync(Run run, FollowThroughContent content)
    {
        if (run.UnfinishedFormId is { } left)
            return await ContextAsync(run, content, (await db.UnfinishedForms.FindAsync(left))!);
        var client = (await db.Clients.FindAsync(run.ClientId))!;
        var inquiry = run.InquiryId is { } id ? await db.Inquiries.FindAsync(id) : null;
        return new RunContext(
            run,
            content,
            await db.BusinessAsync(),
            client,
            null,
            inquiry,
            await facts.LoadAsync(client, run.ProjectId, inquiry, content.Judges) with
            {
                Meeting =
                    content.CountsFromMeeting || run.MeetingId is not null
                        ? await facts.MeetingAsync(run.MeetingId, run.ProjectId, clock.GetCurrentInstant())
                        : null,
            }
        );
    }

    private async Task<RunContext> ContextAsync(Run run, FollowThroughContent content, UnfinishedForm draft)
    {
        var business = await db.BusinessAsync();
        if (draft.Ended is not null)
            return new RunContext(run, content, business, null, null, null, RunFacts.None);
        var left = await leftForms.ReadAsync(draft);
        return new RunContext(run, content, business, null, left, null, await facts.LoadAsync(left))
        {
            More = await leftForms.ValuesAsync(left),
        };
    }
}
