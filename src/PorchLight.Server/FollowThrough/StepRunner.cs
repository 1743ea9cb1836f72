using NodaTime;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Messages;
using PorchLight.Server.Messages;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.FollowThrough;

/// <summary>Has carried out what a step does outside its run (<see cref="IStepEffect"/>), as part of the caller's write.</summary>
internal sealed class StepRunner(PorchDb db, EventLog events, IServiceProvider services)
{
    /// <summary>How the key of every effect begins that a run has on its person's mailbox.</summary>
    public const string OfRuns = "run ";

    /// <summary>Begins the effect of a word at once to what somebody just did, which does not count as the message of the day.</summary>
    public const string Answers = "answer of run ";

    /// <summary>The message of a step as it stands before anybody edits it; null for a step that sends none.</summary>
    public async Task<MessageDraft?> DraftAsync(RunContext context, string step, Instant at) =>
        context.Content.Step(step).Action is SendMessage send
            ? send.Message.Draft(
                context.KnownValues(at, send.Message.IsSigned ? (await db.SignaturesAsync()).Of(send.Message.Enclosed.Sender) : "")
            )
            : null;

    /// <summary>Carries a step out.</summary>
    /// <param name="context">The run.</param>
    /// <param name="step">The step's key.</param>
    /// <param name="by">The user who nodded to it or had it done; null when it comes by itself.</param>
    /// <param name="now">The instant it takes effect.</param>
    /// <exception cref="StepFailedException">It cannot be done as things are.</exception>
    public async Task DoAsync(RunContext context, string step, Guid? by, Instant now)
    {
        var planned = context.Content.Step(step);
        var effect = services.EffectOf((OutsideAction)planned.Action);
        await effect.DoAsync(
            new StepToDo(
                context.Content.Name,
                planned,
                $"{(context.Content.IsAnswer(planned) ? Answers : OfRuns)}{context.Run.Id} step {step}",
                context.Business,
                context.About,
                context.Facts.OnFile,
                context.KnownValues(now),
                by,
                now
            )
            {
                Person = context.Person,
                Left = context.Left?.Unfinished,
                Draft = context.Run.Drafts.ByStep.GetValueOrDefault(step) ?? await DraftAsync(context, step, now),
            }
        );
        if (!effect.SaysItself)
            await events.AppendAsync(new StepDone(step, by), now, context.About);
    }
}
