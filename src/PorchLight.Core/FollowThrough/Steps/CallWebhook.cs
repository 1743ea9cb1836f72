using PorchLight.Core.Common;

namespace PorchLight.Core.FollowThrough;

/// <summary>Calls a webhook of the business with what is on file about the client and the project.</summary>
/// <param name="Webhook">Its identifier.</param>
[Kind("callWebhook")]
public sealed record CallWebhook(Guid Webhook) : OutsideAction
{
    /// <inheritdoc/>
    public override string Say(Step step, FollowThroughNames names) => $"the webhook “{names.Webhook(Webhook)}” is called";

    /// <inheritdoc/>
    public override string? Check(Step step, IReadOnlyCollection<string> later, FollowThroughSurroundings around) =>
        around.Webhooks.Contains(Webhook) ? null : "Choose the webhook it calls. They are made in Settings.";

    /// <inheritdoc/>
    public override bool NeedsClient() => true;
}
