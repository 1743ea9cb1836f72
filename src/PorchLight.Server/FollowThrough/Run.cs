using System.ComponentModel.DataAnnotations;
using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Core.FollowThrough;
using PorchLight.Core.Messages;
using PorchLight.Server.Forms;
using PorchLight.Server.Inquiries;
using PorchLight.Server.Meetings;
using PorchLight.Server.Records;

namespace PorchLight.Server.FollowThrough;

/// <summary>One follow-through on one project, or about a form that somebody left half-finished.</summary>
internal sealed class Run
{
    public required Id<Run> Id { get; init; }
    public required Id<StoredFollowThrough> FollowThroughId { get; init; }
    public required int FollowThroughNumber { get; set; }

    /// <summary>Whom it is about; null where they are no client yet.</summary>
    public required Id<Client>? ClientId { get; init; }

    /// <summary>The piece of work; null where there is none.</summary>
    public required Id<Project>? ProjectId { get; init; }

    /// <summary>The inquiry it follows; null for work that no inquiry began.</summary>
    public required Id<Inquiry>? InquiryId { get; init; }

    /// <summary>The meeting that started it; null where none did.</summary>
    public Id<Meeting>? MeetingId { get; init; }

    /// <summary>The form they left half-finished; null for everybody else.</summary>
    public Id<UnfinishedForm>? UnfinishedFormId { get; init; }

    /// <summary>How it stood when they left it: who goes on and leaves it again has left it anew.</summary>
    public int? DraftRevision { get; init; }
    public required RunState State { get; set; }
    public required RunDrafts Drafts { get; set; }

    /// <summary>Whether steps are still to come, also of a paused one; kept beside the state so that it can be asked for.</summary>
    public bool Active { get; set; } = true;

    /// <summary>When the worker must look again; kept beside the state so that it can be asked for.</summary>
    public required Instant? NextMoment { get; set; }

    /// <summary>
    /// How the step stands that asks for a nod, waiting for it or with it waiting for the sending window; null where none does. Kept
    /// beside the state so that it can be asked for.
    /// </summary>
    public StepStatus? NodStatus { get; set; }

    /// <summary>How often in a row what was due has failed.</summary>
    public int Tries { get; set; }

    /// <summary>Why it failed last, as a sentence; null while all is well.</summary>
    public string? Failure { get; set; }

    /// <summary>Rises with every change; two hands on one run are noticed.</summary>
    [ConcurrencyCheck]
    public int Revision { get; set; }
}

/// <summary>The messages that wait for a nod, by step key, with a person's edits.</summary>
internal sealed record RunDrafts(IReadOnlyDictionary<string, MessageDraft> ByStep)
{
    public static RunDrafts None { get; } = new(new Dictionary<string, MessageDraft>());

    public RunDrafts With(string step, MessageDraft draft) => new(new Dictionary<string, MessageDraft>(ByStep) { [step] = draft });
}
