using PorchLight.Core.Common;

namespace PorchLight.Core.Webhooks;

/// <summary>
/// Which calls of webhooks a list shows, the newest first or the oldest. It is searched in the names of webhooks and clients.
/// </summary>
public sealed record WebhookCallQuery : ListQuery
{
    /// <summary>What came of them.</summary>
    public IReadOnlyList<WebhookState> States { get; init; } = [];

    /// <summary>The webhooks that were called.</summary>
    public IReadOnlyList<Guid> Webhooks { get; init; } = [];
}
