using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Server.Records;

namespace PorchLight.Server.Messages;

/// <summary>A text message, or a note on a client's page, as the simulated phone or page shows it.</summary>
internal sealed class ShortMessage
{
    public required Id<ShortMessage> Id { get; init; }

    /// <summary>What it is the effect of; unique, so that no effect happens twice.</summary>
    public required string EffectKey { get; init; }
    public required Id<Client> ClientId { get; init; }

    /// <summary>The phone number it went to; null for a note on their page.</summary>
    public required string? Phone { get; init; }
    public required string Text { get; init; }
    public required Instant At { get; init; }
}
