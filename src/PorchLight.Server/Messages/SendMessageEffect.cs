using PorchLight.Core.Common;
using PorchLight.Core.Fields;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Forms;
using PorchLight.Core.Messages;
using PorchLight.Server.Calendar;
using PorchLight.Server.Hosting;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Messages;

internal sealed class SendMessageEffect(
    PorchDb db,
    MailQueue mail,
    EventLog events,
    TimeProvider time,
    Tokens tokens,
    PublicAddress address
) : StepEffect<SendMessage>
{
    public override bool SaysItself => true;

    protected override async Task DoAsync(SendMessage action, StepToDo todo)
    {
        var draft = todo.Draft!;
        var text = draft.FinishedText ?? throw new StepFailedException("A gap of the message is still open.");
        if (Consent.Refuse(action.Channel, action.IsAdvertising, Permissions.Of(todo.OnFile)) is { } forbidden)
            await events.AppendAsync(new MessageNotSent(draft.Subject) { NotPermitted = forbidden }, todo.Now, todo.About);
        else if (todo.Person is null)
            await SendToWhoLeftAsync(todo, draft, text);
        else if (action.Channel == Channel.Mail)
            await MailAsync(action, todo, draft, text);
        else
            await AddShortMessageAsync(action.Channel, todo, draft.Subject, FormattedText.Read(text).ToPlain());
    }

    private async Task MailAsync(SendMessage action, StepToDo todo, MessageDraft draft, string text)
    {
        var content = MailContent.Of(draft, text);
        if (action.IsAdvertising)
        {
            var stop = await db.UnsubscribeAddressAsync(todo.Client.Id, tokens, address);
            content = content with
            {
                Text = $"{content.Text}\n\nYou get news like this because you permitted it. [No more news]({stop})",
                Unsubscribe = stop,
            };
        }

        var queued = mail.Queue(todo.EffectKey, todo.Business, todo.Client, content, automatic: todo.By is null, todo.Now);
        await events.AppendAsync(
            queued is not null ? new MessageSent(draft.Subject, todo.Step.Key, todo.By) : new MessageNotSent(draft.Subject),
            todo.Now,
            todo.About with
            {
                MailId = queued,
            }
        );
    }

    /// <summary>The one mail to somebody who left a form half-finished; the button beside it may have sent it already.</summary>
    private async Task SendToWhoLeftAsync(StepToDo todo, MessageDraft draft, string text)
    {
        if (todo.Left is not { MailedTo: { } to } left || !left.MayBeWrittenTo())
        {
            await events.AppendAsync(new MessageNotSent(draft.Subject), todo.Now, todo.About);
            return;
        }

        left.FollowedUp = time.Now();
        var queued = mail.Queue(todo.EffectKey, todo.Business, to, null, MailContent.Of(draft, text), automatic: todo.By is null, todo.Now);
        await events.AppendAsync(new MessageSent(draft.Subject, todo.Step.Key, todo.By), todo.Now, todo.About with { MailId = queued });
    }

    private async Task AddShortMessageAsync(Channel channel, StepToDo todo, string subject, string text)
    {
        var phone = todo.OnFile.GetValueOrDefault(BuiltInFields.Phone.Key);
        if (channel == Channel.Text && phone is null)
            throw new StepFailedException("They left no phone number to send a text message to.");
        db.ShortMessages.Add(
            new ShortMessage
            {
                Id = new Id<ShortMessage>(Guid.CreateVersion7()),
                EffectKey = todo.EffectKey,
                ClientId = todo.Client.Id,
                Phone = channel == Channel.Text ? AnswerWords.Say(phone!) : null,
                Text = text,
                At = todo.Now,
            }
        );
        await events.AppendAsync(new NoteSent(subject, todo.Step.Key, channel == Channel.Text, todo.By), todo.Now, todo.About);
    }
}
