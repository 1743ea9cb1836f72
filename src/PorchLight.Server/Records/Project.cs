using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Server.Forms;

namespace PorchLight.Server.Records;

/// <summary>One piece of work for a client.</summary>
internal sealed class Project
{
    public required Id<Project> Id { get; init; }
    public required Id<Client> ClientId { get; init; }

    /// <summary>The form it came by; null for one that was begun by hand.</summary>
    public required Id<Form>? FormId { get; init; }
    public required string Title { get; set; }
    public required Instant Opened { get; init; }

    /// <summary>The key of the stage it stands in, of the business's list.</summary>
    public required string Stage { get; set; }

    /// <summary>The day it comes back from a stage where nothing happens; null for one without an end, and elsewhere.</summary>
    public LocalDate? ParkedUntil { get; set; }

    /// <summary>Why it will not come, of the business's list; null where nobody said.</summary>
    public string? LostReason { get; set; }

    /// <summary>The user who looks after it; null for nobody.</summary>
    public Guid? LooksAfterId { get; set; }

    /// <summary>When it came to a stage that closes it; null while it is open.</summary>
    public Instant? Closed { get; set; }

    /// <summary>Whether it is the piece of work of its client that began last: the one lists show.</summary>
    public bool IsLatest { get; set; }
}
