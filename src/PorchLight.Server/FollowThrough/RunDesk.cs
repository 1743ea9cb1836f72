using System.Linq.Expressions;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Messages;
using PorchLight.Core.Records;
using PorchLight.Server.Brand;
using PorchLight.Server.Data;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Messages;
using PorchLight.Server.Records;

namespace PorchLight.Server.FollowThrough;

/// <summary>Starts, moves and stops runs, and carries out what the planner decides. Every call is part of the caller's transaction.</summary>
internal sealed class RunDesk(PorchDb db, MailRoom mail)
{
    private const int AutomaticADay = 5;

    /// <summary>Starts or stops runs where the event asks for it.</summary>
    public async Task ReactAsync(LoggedEvent logged)
    {
        if (logged.What is InquiryReceived { Joined: false } received)
            await StartAsync(logged, received);
        else if (logged.What.AsStop() is { } why)
            await StopAsync(why is StopOn.Closed ? run => run.InquiryId == logged.InquiryId : run => run.ClientId == logged.ClientId, why, logged.At);
    }

    /// <summary>Everything of a run that has fallen due.</summary>
    public async Task AdvanceAsync(Run run, Instant now)
    {
        var scene = await SceneAsync(run);
        await ApplyAsync(scene, scene.Planner.Advance(run.State, now), now);
    }

    /// <summary>A person nods. Null when the step does not wait (any more).</summary>
    public async Task<RunState?> NodAsync(Run run, string step, Instant now, bool sendNow, string by)
    {
        var scene = await SceneAsync(run);
        return scene.Planner.Nod(run.State, step, now, by, sendNow) is { } transition ? await ApplyAsync(scene, transition, now) : null;
    }

    /// <summary>A person passes a step over. Null when it is not the next one of an active run.</summary>
    public async Task<RunState?> SkipAsync(Run run, string step, Instant now, string by)
    {
        var scene = await SceneAsync(run);
        if (scene.Planner.Skip(run.State, step, now) is not { } transition)
            return null;
        db.Log(new StepSkipped(scene.Content.Step(step).Name, by), now, AboutOf(run));
        return await ApplyAsync(scene, transition, now);
    }

    /// <summary>A person takes a skip back. Null when that is not possible any more.</summary>
    public async Task<RunState?> TakeSkipBackAsync(Run run, string step, Instant now, string by)
    {
        var scene = await SceneAsync(run);
        if (scene.Planner.TakeSkipBack(run.State, step) is not { } state)
            return null;
        db.Log(new SkipTakenBack(scene.Content.Step(step).Name, by), now, AboutOf(run));
        Keep(scene, state);
        return state;
    }

    private async Task StartAsync(LoggedEvent logged, InquiryReceived received)
    {
        var inquiry = (await db.Inquiries.FindAsync(logged.InquiryId))!;
        var live = await CompiledQueries.LiveFollowThroughs(db).ToListAsync();
        var version = live.GroupBy(version => version.Id)
            .Select(versions => versions.MaxBy(version => version.Number)!)
            .FirstOrDefault(version => version.Content.Starts.Matches(inquiry.FormId.Value, received.Fit));
        if (version is null)
            return;

        if (received.KnownBefore)
            await StopAsync(run => run.ClientId == logged.ClientId, StopOn.AnotherStarted, logged.At);
        var business = await db.BusinessAsync();
        var planner = new RunPlanner(version.Content, business.Calendar, business.Window);
        var run = new Run
        {
            Id = new Id<Run>(Guid.CreateVersion7()),
            FollowThroughId = version.Id,
            FollowThroughNumber = version.Number,
            ClientId = logged.ClientId,
            ProjectId = inquiry.ProjectId,
            InquiryId = inquiry.Id,
            State = planner.Start(logged.At),
            Drafts = new RunDrafts(new Dictionary<string, MessageDraft>()),
            NextMoment = null,
        };
        db.Runs.Add(run);
        db.Log(new RunStarted(version.Content.Name), logged.At, AboutOf(run));
        await AdvanceAsync(run, logged.At);
    }

    /// <summary>Stops runs that are active, each where its follow-through or a person has it so; says how many.</summary>
    public async Task<int> StopAsync(Expression<Func<Run, bool>> which, StopOn why, Instant now)
    {
        var stopped = 0;
        foreach (var run in await db.Runs.Where(run => run.Active).Where(which).ToListAsync())
        {
            var scene = await SceneAsync(run);
            if (why is StopOn.Replied or StopOn.Booked && !scene.Content.Stops.Contains(why))
                continue;
            stopped++;
            var pending = run.State.Steps.Count(step => step.IsPending);
            db.Log(new RunStopped(scene.Content.Name, why, pending), now, AboutOf(run));
            Keep(scene, RunPlanner.Stop(run.State, why, now));
        }

        return stopped;
    }

    private async Task<RunState> ApplyAsync(Scene scene, Transition transition, Instant now)
    {
        var run = scene.Run;
        foreach (var effect in transition.Effects)
        {
            switch (effect.Kind)
            {
                case RunEffectKind.AskForNod:
                    var draft = Draft(scene, effect.Step!, effect.At);
                    run.Drafts = With(run.Drafts, effect.Step!, draft);
                    db.Log(new NodAsked(scene.Content.Step(effect.Step!).Name, draft.OpenGaps.Count()), effect.At, AboutOf(run));
                    break;
                case RunEffectKind.TakeEffect:
                    var message = run.Drafts.ByStep.GetValueOrDefault(effect.Step!) ?? Draft(scene, effect.Step!, effect.At);
                    await SendAsync(scene, effect.Step!, message, transition.State.Steps.Single(step => step.Key == effect.Step).By, now);
                    break;
                case RunEffectKind.NoteLapse:
                    db.Log(new StepLapsed(scene.Content.Step(effect.Step!).Name), effect.At, AboutOf(run));
                    break;
                case RunEffectKind.NoteEnd:
                    db.Log(new RunFinished(scene.Content.Name), effect.At, AboutOf(run));
                    break;
            }
        }

        Keep(scene, transition.State);
        return run.State;
    }

    private async Task SendAsync(Scene scene, string step, MessageDraft draft, string? by, Instant now)
    {
        var text = draft.FinishedText
            ?? throw new InvalidOperationException($"Step {step} of run {scene.Run.Id} was to be sent with a gap open.");
        var tooMany = by is null && scene.Client.Email is { } address && await IsEnoughAsync(address, now);
        var queued = !tooMany && mail.Queue($"run {scene.Run.Id} step {step}", scene.Business, scene.Client, draft.Subject, text, automatic: by is null, now);
        Happening what = queued ? new MessageSent(draft.Subject, scene.Content.Step(step).Name, by) : new MessageNotSent(draft.Subject, tooMany);
        await Promises.ReactAsync(db, db.Log(what, now, AboutOf(scene.Run)));
    }

    // Anybody can type somebody else's address, again and again; nobody gets more than so many messages a day that no person wrote.
    private async Task<bool> IsEnoughAsync(string address, Instant now)
    {
        var yesterday = now - Duration.FromDays(1);
        return await db.OutgoingMail.CountAsync(sent => sent.To == address && sent.Automatic && sent.Written > yesterday) >= AutomaticADay;
    }

    private static MessageDraft Draft(Scene scene, string step, Instant at) => scene.Content.Step(step).Action switch
    {
        SendMessage send => KnownValues.Draft(send.Message, scene.KnownValues(at)),
        var other => throw new InvalidOperationException($"No way to draft {other.GetType().Name}."),
    };

    private static RunDrafts With(RunDrafts drafts, string step, MessageDraft draft) =>
        new(new Dictionary<string, MessageDraft>(drafts.ByStep) { [step] = draft });

    private static void Keep(Scene scene, RunState state)
    {
        scene.Run.State = state;
        scene.Run.Active = state.Status == RunStatus.Active;
        scene.Run.NextMoment = scene.Planner.NextMoment(state);
        scene.Run.Revision++;
    }

    private static About AboutOf(Run run) => new(run.ClientId, run.ProjectId, run.InquiryId, run.Id);

    private async Task<Scene> SceneAsync(Run run)
    {
        var version = await db.FollowThroughs.FindAsync(run.FollowThroughId, run.FollowThroughNumber);
        return new Scene(run, version!.Content, await db.BusinessAsync(),
            (await db.Clients.FindAsync(run.ClientId))!, (await db.Inquiries.FindAsync(run.InquiryId))!);
    }

    /// <summary>A run with all that its steps may speak of.</summary>
    private sealed record Scene(Run Run, FollowThroughContent Content, Business Business, Client Client, Inquiry Inquiry)
    {
        public RunPlanner Planner { get; } = new(Content, Business.Calendar, Business.Window);

        public Dictionary<string, string> KnownValues(Instant at) => new()
        {
            ["firstName"] = Client.FirstName,
            ["name"] = Client.Name,
            ["business"] = Business.Name,
            ["owner"] = Business.OwnerName,
            ["promise"] = Inquiry.PromisedBy is { } deadline && deadline > at ? DeadlineWords.ToLead(deadline, at, Business.Calendar) : "",
        };
    }
}
