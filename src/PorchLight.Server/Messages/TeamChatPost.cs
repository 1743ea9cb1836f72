using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Server.Forms;
using PorchLight.Server.Records;

namespace PorchLight.Server.Messages;

/// <summary>A line in the simulated team chat.</summary>
internal sealed class TeamChatPost
{
    public required Id<TeamChatPost> Id { get; init; }

    /// <summary>Whom it is about; null for somebody who is no client.</summary>
    public required Id<Client>? ClientId { get; init; }

    /// <summary>The half-finished form it is about, with which it goes; null for none.</summary>
    public required Id<UnfinishedForm>? UnfinishedFormId { get; init; }
    public required string Text { get; init; }

    /// <summary>The follow-through that posted it, by the name it had.</summary>
    public required string By { get; init; }
    public required Instant At { get; init; }
}
