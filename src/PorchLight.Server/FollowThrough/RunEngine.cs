using System.Linq.Expressions;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Messages;
using PorchLight.Core.Records;
using PorchLight.Server.Brand;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Messages;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.FollowThrough;

/// <summary>
/// Starts, moves and stops runs, and carries out what the planner decides. Every call is part of the caller's
/// transaction.
/// </summary>
internal sealed class RunEngine(PorchDb db, MailQueue mail, EventLog events) : IEventReaction
{
    private const int AutomaticADay = 5;

    /// <summary>Starts or stops runs where the event asks for it.</summary>
    public async Task ReactAsync(LoggedEvent logged)
    {
        if (logged.What is InquiryReceived { StartsNothing: false } received)
            await StartAsync(logged, received);
        else if (logged.What.AsRunEnd() is { } why)
            await StopAsync(
                why is RunEnd.Closed or RunEnd.SetAside ? run => run.InquiryId == logged.InquiryId : run => run.ClientId == logged.ClientId,
                why,
                logged.At
            );
    }

    /// <summary>Everything of a run that has fallen due.</summary>
    public async Task AdvanceAsync(Run run, Instant now)
    {
        var context = await ContextAsync(run);
        await ApplyAsync(context, context.Planner.Advance(run.State, now), now);
    }

    /// <summary>A person nods. Null when the step does not wait (any more).</summary>
    public async Task<RunState?> NodAsync(Run run, string step, Instant now, bool sendNow, Guid by)
    {
        var context = await ContextAsync(run);
        return context.Planner.Nod(run.State, step, now, by, sendNow) is { } transition ? await ApplyAsync(context, transition, now) : null;
    }

    /// <summary>A person passes a step over. Null when it is not the next one of an active run.</summary>
    public async Task<RunState?> SkipAsync(Run run, string step, Instant now, Guid by)
    {
        var context = await ContextAsync(run);
        if (context.Planner.Skip(run.State, step, now) is not { } transition)
            return null;
        await events.AppendAsync(new StepSkipped(step, by), now, AboutOf(run));
        return await ApplyAsync(context, transition, now);
    }

    /// <summary>A person takes a skip back. Null when that is not possible any more.</summary>
    public async Task<RunState?> TakeSkipBackAsync(Run run, string step, Instant now, Guid by)
    {
        var context = await ContextAsync(run);
        if (context.Planner.TakeSkipBack(run.State, step) is not { } state)
            return null;
        await events.AppendAsync(new SkipTakenBack(step, by), now, AboutOf(run));
        Keep(context, state);
        return state;
    }

    private async Task StartAsync(LoggedEvent logged, InquiryReceived received)
    {
        var inquiry = (await db.Inquiries.FindAsync(logged.InquiryId))!;
        var live = (await CompiledQueries.LiveFollowThroughs(db).ToListAsync())
            .GroupBy(version => version.Id)
            .Select(versions => versions.MaxBy(version => version.Number)!)
            .OrderBy(version => version.Id.Value);
        var version = FollowThroughs.StartedBy(live, received, one => one.Content);
        if (version is null)
            return;

        if (received.KnownBefore)
            await StopAsync(run => run.ClientId == inquiry.ClientId, RunEnd.AnotherStarted, logged.At);
        var business = await db.BusinessAsync();
        var planner = new RunPlanner(version.Content, business.Calendar, business.Window);
        var run = new Run
        {
            Id = new Id<Run>(Guid.CreateVersion7()),
            FollowThroughId = version.Id,
            FollowThroughNumber = version.Number,
            ClientId = inquiry.ClientId,
            ProjectId = inquiry.ProjectId,
            InquiryId = inquiry.Id,
            State = planner.Start(logged.At),
            Drafts = new RunDrafts(new Dictionary<string, MessageDraft>()),
            NextMoment = null,
        };
        db.Runs.Add(run);
        await events.AppendAsync(new RunStarted(), logged.At, AboutOf(run));
        await AdvanceAsync(run, logged.At);
    }

    /// <summary>Stops runs that are active, each where its follow-through or a person has it so; says how many.</summary>
    public async Task<int> StopAsync(Expression<Func<Run, bool>> which, RunEnd why, Instant now)
    {
        var stopped = 0;
        foreach (var run in await db.Runs.Where(run => run.Active).Where(which).ToListAsync())
        {
            var context = await ContextAsync(run);
            if (!context.Content.EndsOn(why))
                continue;
            stopped++;
            var pending = run.State.Steps.Count(step => step.IsPending);
            await events.AppendAsync(new RunStopped(why, pending), now, AboutOf(run));
            Keep(context, RunPlanner.Stop(run.State, why, now));
        }

        return stopped;
    }

    private async Task<RunState> ApplyAsync(RunContext context, Transition transition, Instant now)
    {
        var run = context.Run;
        foreach (var effect in transition.Effects)
        {
            switch (effect.Kind)
            {
                case RunEffectKind.AskForNod:
                    var draft = Draft(context, effect.Step!, effect.At);
                    run.Drafts = With(run.Drafts, effect.Step!, draft);
                    await events.AppendAsync(new NodAsked(effect.Step!, draft.OpenGaps.Count()), effect.At, AboutOf(run));
                    break;
                case RunEffectKind.TakeEffect:
                    var message = run.Drafts.ByStep.GetValueOrDefault(effect.Step!) ?? Draft(context, effect.Step!, effect.At);
                    await SendAsync(context, effect.Step!, message, transition.State.Steps.Single(step => step.Key == effect.Step).By, now);
                    break;
                case RunEffectKind.NoteLapse:
                    await events.AppendAsync(new StepLapsed(effect.Step!), effect.At, AboutOf(run));
                    break;
                case RunEffectKind.NoteEnd:
                    await events.AppendAsync(new RunFinished(), effect.At, AboutOf(run));
                    break;
            }
        }

        Keep(context, transition.State);
        return run.State;
    }

    private async Task SendAsync(RunContext context, string step, MessageDraft draft, Guid? by, Instant now)
    {
        var text =
            draft.FinishedText
            ?? throw new InvalidOperationException($"Step {step} of run {context.Run.Id} was to be sent with a gap open.");
        var tooMany = by is null && context.Client.Email is { } address && await IsEnoughAsync(address, now);
        var queued = tooMany
            ? null
            : mail.Queue(
                $"run {context.Run.Id} step {step}",
                context.Business,
                context.Client,
                draft.Subject,
                text,
                automatic: by is null,
                now
            );
        DomainEvent what = queued is not null ? new MessageSent(draft.Subject, step, by) : new MessageNotSent(draft.Subject, tooMany);
        await events.AppendAsync(what, now, AboutOf(context.Run) with { MailId = queued });
    }

    // Anybody can type somebody else's address, again and again; nobody gets more than so many messages a day that no person wrote.
    private async Task<bool> IsEnoughAsync(string address, Instant now) =>
        await CompiledQueries.AutomaticMailSince(db, address, now - Duration.FromDays(1)) >= AutomaticADay;

    private static MessageDraft Draft(RunContext context, string step, Instant at) =>
        context.Content.Step(step).Action switch
        {
            SendMessage send => send.Message.Draft(context.KnownValues(at)),
            var other => throw new InvalidOperationException($"No way to draft {other.GetType().Name}."),
        };

    private static RunDrafts With(RunDrafts drafts, string step, MessageDraft draft) =>
        new(new Dictionary<string, MessageDraft>(drafts.ByStep) { [step] = draft });

    private static void Keep(RunContext context, RunState state)
    {
        context.Run.State = state;
        context.Run.Active = state.Status == RunStatus.Active;
        context.Run.NextMoment = context.Planner.NextMoment(state);
        context.Run.Revision++;
    }

    private static EventContext AboutOf(Run run) => new(run.ClientId, run.ProjectId, run.InquiryId, run.Id);

    private async Task<RunContext> ContextAsync(Run run)
    {
        var version = await db.FollowThroughs.FindAsync(run.FollowThroughId, run.FollowThroughNumber);
        var client = (await db.Clients.FindAsync(run.ClientId))!;
        return new RunContext(
            run,
            version!.Content,
            await db.BusinessAsync(),
            client,
            await NameAsync(client),
            (await db.Inquiries.FindAsync(run.InquiryId))!
        );
    }

    /// <summary>What a client is called; null for one who left only an address or a number.</summary>
    private async Task<PersonNameAnswer?> NameAsync(Client client)
    {
        // Of a client whom this very write makes, all that is known stands beside it.
        var names = db.FieldValues.Local.Where(value => value.ClientId == client.Id && value.Field == BuiltInFields.Name.Key);
        if (db.Entry(client).State != EntityState.Added)
            names = names.Union(
                await db.FieldValues.Where(value => value.ClientId == client.Id && value.Field == BuiltInFields.Name.Key).ToListAsync()
            );
        return ValuesOnFile.Read(names).GetValueOrDefault(BuiltInFields.Name.Key) as PersonNameAnswer;
    }

    /// <summary>A run with all that its steps may speak of.</summary>
    private sealed record RunContext(
        Run Run,
        FollowThroughContent Content,
        Business Business,
        Client Client,
        PersonNameAnswer? Name,
        Inquiry Inquiry
    )
    {
        public RunPlanner Planner { get; } = new(Content, Business.Calendar, Business.Window);

        public Dictionary<string, string> KnownValues(Instant at) =>
            new()
            {
                ["firstName"] = Name?.Given ?? "",
                ["name"] = Name?.Full ?? "",
                ["business"] = Business.Name,
                ["owner"] = Business.OwnerName,
                ["promise"] =
                    Inquiry.PromisedBy is { } deadline && deadline > at ? DeadlineWords.ToLead(deadline, at, Business.Calendar) : "",
            };
    }
}
