using PorchLight.Core.Common;
using PorchLight.Core.FollowThrough;
using PorchLight.Server.Fields;
using PorchLight.Server.Records;
using PorchLight.Server.Storage;

namespace PorchLight.Server.Webhooks;

internal sealed class CallWebhookEffect(PorchDb db, FieldCatalogues fields, WebhookQueue webhooks) : StepEffect<CallWebhook>
{
    protected override async Task DoAsync(CallWebhook action, StepToDo todo)
    {
        var webhook =
            await db.Webhooks.FindAsync(new Id<Webhook>(action.Webhook))
            ?? throw new StepFailedException("The webhook it calls is not there any more. Change the step.");
        var project = (await db.Projects.FindAsync(todo.Project))!;
        var inquiry = todo.About.InquiryId is { } id ? await db.Inquiries.FindAsync(id) : null;
        webhooks.Queue(
            todo.EffectKey,
            webhook.Id,
            todo.Client.Id,
            WebhookBody.Write(todo, project, inquiry, await fields.ReadAsync(db)),
            todo.Now
        );
    }
}
