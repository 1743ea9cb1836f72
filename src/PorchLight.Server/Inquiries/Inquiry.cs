using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;
using PorchLight.Core.Conditions;
using PorchLight.Core.Screening;
using PorchLight.Server.Forms;
using PorchLight.Server.Records;

namespace PorchLight.Server.Inquiries;

/// <summary>What was sent, as it was sent: the answers on the route, and nothing made of them.</summary>
internal sealed class Submission
{
    public required Id<Submission> Id { get; init; }
    public required Id<Form> FormId { get; init; }
    public required int FormVersion { get; init; }

    /// <summary>Chosen by the browser once for each filling-in, so that a double click is one submission.</summary>
    public required Guid SendKey { get; init; }
    public required Instant At { get; init; }
    public required SentAnswers Answers { get; init; }
    public required string SendOff { get; init; }

    /// <summary>The receipt token; it lets the sender see the send-off again and ask for a call.</summary>
    public required string ReceiptHash { get; init; }
    public required string ReceiptSealed { get; init; }

    /// <summary>The personal link it was sent with; null for none.</summary>
    public Id<PersonalLink>? PersonalLinkId { get; init; }

    /// <summary>Names the proof of work that came with it, so that no proof counts twice; null for none.</summary>
    public string? ProofHash { get; init; }
}

/// <summary>Answers on the route by question key, and the pages that were shown.</summary>
internal sealed record SentAnswers(IReadOnlyDictionary<string, Answer> ByQuestion, IReadOnlyList<string> Pages);

/// <summary>One submission by a lead, with its fit, its promise clock, and its project.</summary>
internal sealed class Inquiry
{
    public required Id<Inquiry> Id { get; init; }
    public required Id<Submission> SubmissionId { get; init; }
    public required Id<Form> FormId { get; init; }
    public required int FormVersion { get; init; }
    public required int ScreeningVersion { get; init; }
    public required Id<Client> ClientId { get; init; }
    public required Id<Project> ProjectId { get; init; }
    public required Instant Received { get; init; }

    /// <summary>How it was sorted; null where the form sorts nothing.</summary>
    public required Fit? Fit { get; init; }
    public required Verdict Verdict { get; init; }

    /// <summary>The page the form stood on, or null when it was opened by its link.</summary>
    public required string? CameFrom { get; init; }
    public required bool KnownBefore { get; init; }
    public required Instant? PromisedBy { get; init; }
    public required PromiseClock PromiseClock { get; init; }

    /// <summary>When the promise was kept or fell away: a personal reply, a booking, or a no on the page.</summary>
    public Instant? PromiseStopped { get; set; }
    public Instant? CallAsked { get; set; }

    /// <summary>When they last wrote or got in touch; null when a person has answered since, or they have not.</summary>
    public Instant? WroteBack { get; set; }

    /// <summary>When a person closed it; null while it is open.</summary>
    public Instant? Closed { get; set; }

    /// <summary>The month it is for, where the form counts places by month; null elsewhere and for who was turned away.</summary>
    public YearMonth? WantedMonth { get; init; }

    /// <summary>Whether that month was fully booked, so that it stands on the waiting list.</summary>
    public bool Waits { get; set; }
}
