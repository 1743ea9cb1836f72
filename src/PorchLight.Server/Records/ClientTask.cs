using NodaTime;
using PorchLight.Core.Common;

namespace PorchLight.Server.Records;

/// <summary>Something to do for a client, or a day to think of.</summary>
internal sealed class ClientTask
{
    public required Id<ClientTask> Id { get; init; }
    public required Id<Client> ClientId { get; init; }

    /// <summary>The project it is about; null for the client.</summary>
    public required Id<Project>? ProjectId { get; init; }
    public required string Title { get; set; }

    /// <summary>Whether it is only a day to think of; nobody has to do it, and it has a day.</summary>
    public required bool IsDate { get; init; }

    /// <summary>The day it is due, or is; null for a task that is due whenever.</summary>
    public LocalDate? On { get; set; }

    /// <summary>The user who does it; null for whoever comes to it.</summary>
    public Guid? ForId { get; set; }

    /// <summary>When it was done; null while it is not, and for days.</summary>
    public Instant? Done { get; set; }
    public string? DoneBy { get; set; }
    public required string By { get; init; }
    public required Instant At { get; init; }
}
