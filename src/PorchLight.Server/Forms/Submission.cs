using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;

namespace PorchLight.Server.Forms;

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

    /// <summary>Whether whoever sent it was erased: it is counted still, and says nothing any more.</summary>
    public bool IsErased { get; init; }

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
