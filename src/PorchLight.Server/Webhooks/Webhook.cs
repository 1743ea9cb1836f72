using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Core.Webhooks;
using PorchLight.Server.Records;

namespace PorchLight.Server.Webhooks;

/// <summary>An address of another program that follow-throughs call.</summary>
internal sealed class Webhook
{
    public required Id<Webhook> Id { get; init; }
    public required string Name { get; set; }
    public required string Address { get; set; }

    /// <summary>What both sides know, and calls are signed with; sealed.</summary>
    public required string SecretSealed { get; set; }
}

/// <summary>A call to a webhook. It is queued in the transaction that decided to make it.</summary>
internal sealed class WebhookCall
{
    /// <summary>Also the name of the delivery, the same at every try, so that the other side can tell a second copy.</summary>
    public required Id<WebhookCall> Id { get; init; }
    public required Id<Webhook> WebhookId { get; init; }

    /// <summary>What it is the effect of ("run …, step …"); unique, so that no effect is queued twice.</summary>
    public required string EffectKey { get; init; }

    /// <summary>Whom it tells of; null for a test.</summary>
    public required Id<Client>? ClientId { get; init; }

    /// <summary>What is sent, as JSON, exactly as it is signed.</summary>
    public required string Body { get; init; }
    public required Instant Written { get; init; }
    public WebhookState State { get; set; }

    /// <summary>Real time, as the pauses between the tries of mail are; null once it is settled.</summary>
    public required Instant? NextTry { get; set; }

    /// <summary>The tries since it was last sent by hand, which the pauses count from.</summary>
    public int Counted { get; set; }
    public IReadOnlyList<WebhookTry> Tries { get; set; } = [];
}
