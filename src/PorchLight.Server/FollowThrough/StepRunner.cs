using Microsoft.EntityFrameworkCore;
using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Forms;
using PorchLight.Core.Messages;
using PorchLight.Core.Records;
using PorchLight.Server.Brand;
using PorchLight.Server.Calendar;
using PorchLight.Server.Fields;
using PorchLight.Server.Hosting;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Messages;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;
using PorchLight.Server.Webhooks;

namespace PorchLight.Server.FollowThrough;

/// <summary>A step cannot be done as things are.</summary>
/// <param name="sentence">Why, as a sentence for the owner.</param>
internal sealed class StepFailedException(string sentence) : Exception(sentence);

/// <summary>A run with all that its steps may speak of.</summary>
/// <param name="Person">The client; null where they are none yet.</param>
/// <param name="Left">The form they left half-finished; null for everybody else, and once it is not kept any more.</param>
internal sealed record RunContext(
    Run Run,
    FollowThroughContent Content,
    Business Business,
    Client? Person,
    LeftForm? Left,
    Inquiry? Inquiry,
    RunFacts Facts
)
{
    /// <summary>The client.</summary>
    /// <exception cref="StepFailedException">They are none yet.</exception>
    public Client Client =>
        Person ?? throw new StepFailedException("This needs a client, and who left a form half-finished is none yet. Change the step.");

    /// <summary>What messages can say beside what is known of everybody, by name.</summary>
    public IReadOnlyDictionary<string, string> More { get; init; } = new Dictionary<string, string>();

    public RunPlanner Planner { get; } = new(Content, Business.Calendar, Business.Window, Facts);

    public EventContext About { get; } = new(Run.ClientId, Run.ProjectId, Run.InquiryId, Run.Id);

    /// <summary>What the person has permitted.</summary>
    public Permissions Permissions { get; } = Permissions.Of(Facts.OnFile);

    /// <summary>What messages may say of the person, by name.</summary>
    /// <param name="at">When it is said.</param>
    /// <param name="signature">What stands below it; empty for nothing.</param>
    public Dictionary<string, string> KnownValues(Instant at, string signature = "") =>
        ValuesOf(
                Business,
                Facts.OnFile.GetValueOrDefault(BuiltInFields.Name.Key) as PersonNameAnswer,
                Inquiry?.PromisedBy is { } deadline && deadline > at ? DeadlineWords.ToLead(deadline, at, Business.Calendar) : "",
                signature
            )
            .Concat(More)
            .DistinctBy(value => value.Key)
            .ToDictionary();

    /// <summary>The same of somebody with a name.</summary>
    /// <param name="business">The business.</param>
    /// <param name="name">What they are called; null where nobody knows.</param>
    /// <param name="promise">By when they have an answer, in words; empty for no promise.</param>
    /// <param name="signature">What stands below it; empty for nothing.</param>
    public static Dictionary<string, string> ValuesOf(Business business, PersonNameAnswer? name, string promise, string signature) =>
        new()
        {
            ["firstName"] = name?.Given ?? "",
            ["name"] = name?.Full ?? "",
            ["business"] = business.Name,
            ["owner"] = business.OwnerName,
            ["promise"] = promise,
            [MessageTemplate.Signature] = signature,
        };
}

/// <summary>Carries out what a step does outside its run, as part of the caller's write.</summary>
internal sealed class StepRunner(
    PorchDb db,
    MailQueue mail,
    EventLog events,
    ProjectStages stages,
    RecordWriter writer,
    FieldCatalogues fields,
    WebhookQueue webhooks,
    TimeProvider time,
    Tokens tokens,
    PublicAddress address
)
{
    /// <summary>How the key of every effect begins that a run has on its person's mailbox.</summary>
    public const string OfRuns = "run ";

    /// <summary>Begins the effect of a word at once to what somebody just did, which does not count as the message of the day.</summary>
    public const string Answers = "answer of run ";

    private static string EffectOf(RunContext context, string step) =>
        $"{(context.Content.IsAnswer(context.Content.Step(step)) ? Answers : OfRuns)}{context.Run.Id} step {step}";

    private const int LongestTitle = 200;

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
        if (planned.Action is SendMessage message)
        {
            await SendAsync(context, step, message, by, now);
            return;
        }

        switch (planned.Action)
        {
            case MakeTask task:
                await MakeTaskAsync(context, task, now);
                break;
            case MoveStage move:
                await MoveAsync(context, move, by, now);
                break;
            case FillField fill:
                await FillAsync(context, fill, now);
                break;
            case HandOverProject hand:
                await HandOverAsync(context, hand, by, now);
                break;
            case TellTeam tell:
                await TellAsync(context, step, tell, now);
                break;
            case PostToChat post:
                db.PostToTeamChat(
                    KnownValues.Fill(post.Text, context.KnownValues(now)),
                    context.Content.Name,
                    context.Person,
                    context.Left?.Draft,
                    now
                );
                break;
            case CallWebhook call:
                await CallAsync(context, step, call, now);
                break;
            default:
                throw new StepFailedException($"“{planned.Name}” is still to be written.");
        }

        await events.AppendAsync(new StepDone(step, by), now, context.About);
    }

    private async Task SendAsync(RunContext context, string step, SendMessage send, Guid? by, Instant now)
    {
        var draft = context.Run.Drafts.ByStep.GetValueOrDefault(step) ?? (await DraftAsync(context, step, now))!;
        var text = draft.FinishedText ?? throw new StepFailedException("A gap of the message is still open.");
        if (Consent.Refuse(send.Channel, send.IsAdvertising, context.Permissions) is { } forbidden)
        {
            await events.AppendAsync(new MessageNotSent(draft.Subject) { NotPermitted = forbidden }, now, context.About);
            return;
        }

        if (context.Person is null)
        {
            await SendToWhoLeftAsync(context, step, draft, text, by, now);
            return;
        }

        if (send.Channel != Channel.Mail)
        {
            await NoteAsync(context, step, send.Channel, draft.Subject, FormattedText.Read(text).ToPlain(), by, now);
            return;
        }

        var content = MailContent.Of(draft, text);
        if (send.IsAdvertising)
        {
            var stop = await db.UnsubscribeAddressAsync(context.Client.Id, tokens, address);
            content = content with
            {
                Text = $"{content.Text}\n\nYou get news like this because you permitted it. [No more news]({stop})",
                Unsubscribe = stop,
            };
        }

        var queued = mail.Queue(EffectOf(context, step), context.Business, context.Client, content, automatic: by is null, now);
        await events.AppendAsync(
            queued is not null ? new MessageSent(draft.Subject, step, by) : new MessageNotSent(draft.Subject),
            now,
            context.About with
            {
                MailId = queued,
            }
        );
    }

    /// <summary>The one mail to somebody who left a form half-finished; the button beside it may have sent it already.</summary>
    private async Task SendToWhoLeftAsync(RunContext context, string step, MessageDraft draft, string text, Guid? by, Instant now)
    {
        if (context.Left is not { Draft: { MailedTo: { } address } left } || !LeftForms.MayBeWrittenTo(left))
        {
            await events.AppendAsync(new MessageNotSent(draft.Subject), now, context.About);
            return;
        }

        left.FollowedUp = time.Now();
        var queued = mail.Queue(
            $"{OfRuns}{context.Run.Id} step {step}",
            context.Business,
            address,
            null,
            MailContent.Of(draft, text),
            automatic: by is null,
            now
        );
        await events.AppendAsync(new MessageSent(draft.Subject, step, by), now, context.About with { MailId = queued });
    }

    private async Task NoteAsync(RunContext context, string step, Channel channel, string subject, string text, Guid? by, Instant now)
    {
        var phone = context.Facts.OnFile.GetValueOrDefault(BuiltInFields.Phone.Key);
        if (channel == Channel.Text && phone is null)
            throw new StepFailedException("They left no phone number to send a text message to.");
        db.PracticeNotes.Add(
            new PracticeNote
            {
                Id = new Id<PracticeNote>(Guid.CreateVersion7()),
                EffectKey = $"{OfRuns}{context.Run.Id} step {step}",
                ClientId = context.Client.Id,
                Phone = channel == Channel.Text ? AnswerWords.Say(phone!) : null,
                Text = text,
                At = now,
            }
        );
        await events.AppendAsync(new NoteSent(subject, step, channel == Channel.Text, by), now, context.About);
    }

    private async Task MakeTaskAsync(RunContext context, MakeTask task, Instant now)
    {
        var calendar = context.Business.Calendar;
        var title = KnownValues.OneLine(KnownValues.Fill(task.Title, context.KnownValues(now)));
        db.ClientTasks.Add(
            new ClientTask
            {
                Id = new Id<ClientTask>(Guid.CreateVersion7()),
                ClientId = context.Client.Id,
                ProjectId = context.Run.ProjectId,
                Title = UnicodeText.Start(title, LongestTitle),
                IsDate = false,
                On = calendar.WorkingDaysAfter(calendar.Today(now), task.DueAfterWorkingDays),
                ForId = task.For is { } user ? await WorksHereAsync(user) : (await ProjectAsync(context)).LooksAfterId,
                By = context.Content.Name,
                At = now,
            }
        );
    }

    private async Task MoveAsync(RunContext context, MoveStage move, Guid? by, Instant now)
    {
        var stage =
            context.Business.Lists.Stages.FirstOrDefault(one => one.Key == move.Stage)
            ?? throw new StepFailedException("The stage it moves to is not in your list any more. Put it back, or change the step.");
        await stages.MoveAsync(
            await ProjectAsync(context),
            stage,
            by,
            now,
            move.ParkedDays is { } days ? context.Business.Calendar.Today(now).PlusDays(days) : null
        );
    }

    private async Task FillAsync(RunContext context, FillField fill, Instant now)
    {
        var field =
            (await fields.ReadAsync(db)).Find(fill.Field)
            ?? throw new StepFailedException("The field it sets is not there any more. Put it back, or change the step.");
        var (value, refusal) = await writer.EnteredAsync(
            context.Client,
            field,
            fill.Value ?? new DateAnswer(context.Business.Calendar.Today(now)),
            now
        );
        if (refusal is not null)
            throw new StepFailedException($"What it sets does not fit the field “{field.Label}”. Change the step or the field.");
        var current = (await writer.CurrentAsync(context.Client.Id, context.Run.ProjectId)).GetValueOrDefault(fill.Field);
        if (!Equals(current?.Value, value))
            writer.Write(
                context.Client,
                await ProjectAsync(context),
                fill.Field,
                value,
                current,
                new ValueSource(ValueOrigin.FollowThrough, context.Content.Name, now)
            );
    }

    private async Task HandOverAsync(RunContext context, HandOverProject hand, Guid? by, Instant now)
    {
        var project = await ProjectAsync(context);
        var to = await WorksHereAsync(hand.To);
        if (project.LooksAfterId == to)
            return;
        if (hand.KeepWatching && project.LooksAfterId is { } before)
            await db.WatchAsync(project, before);
        project.LooksAfterId = to;
        await events.AppendAsync(new ProjectGiven(to, by), now, context.About);
    }

    private async Task TellAsync(RunContext context, string step, TellTeam tell, Instant now)
    {
        var values = context.KnownValues(now);
        var users = await db.Users.Where(user => tell.Users.Contains(user.Id)).Select(user => user.Email!).ToListAsync();
        var addresses = users.Concat(tell.Outside is { } outside ? [outside] : []).Distinct(StringComparer.OrdinalIgnoreCase).ToList();
        if (addresses.Count == 0)
            throw new StepFailedException("Nobody who was to be told works here any more. Change the step.");
        foreach (var address in addresses)
            mail.Queue(
                $"told {context.Run.Id} step {step} to {address}",
                context.Business,
                address,
                null,
                new MailContent(KnownValues.Fill(tell.Subject, values), KnownValues.Fill(tell.Text, values)),
                automatic: true,
                now
            );
    }

    private async Task CallAsync(RunContext context, string step, CallWebhook call, Instant now)
    {
        var webhook =
            await db.Webhooks.FindAsync(new Id<Webhook>(call.Webhook))
            ?? throw new StepFailedException("The webhook it calls is not there any more. Change the step.");
        webhooks.Queue(
            $"{OfRuns}{context.Run.Id} step {step}",
            webhook.Id,
            context.Client.Id,
            WebhookBody.Write(context, step, await ProjectAsync(context), await fields.ReadAsync(db), now),
            now
        );
    }

    private async Task<Guid> WorksHereAsync(Guid user) =>
        await db.Users.AnyAsync(one => one.Id == user)
            ? user
            : throw new StepFailedException("The person meant no longer works here. Choose someone else in the step.");

    private async Task<Project> ProjectAsync(RunContext context) =>
        context.Run.ProjectId is { } project
            ? (await db.Projects.FindAsync(project))!
            : throw new StepFailedException(
                "They have no project, and this step is about one. Begin a project for them, or skip the step."
            );
}
