using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Server.Records;

namespace PorchLight.Server.Messages;

internal enum MailState
{
    /// <summary>Waits for its first or next try.</summary>
    Queued,

    /// <summary>On the line to the mail server at this moment.</summary>
    HandingOver,

    /// <summary>Taken over.</summary>
    HandedOver,

    /// <summary>Given up, with the reason; waits for a person.</summary>
    Failed,

    /// <summary>The line broke so late that it may have been taken; waits for a person.</summary>
    PerhapsSent,

    /// <summary>A person looked and left it as it is.</summary>
    Left,
}

/// <summary>A message on its way out. It is queued in the transaction that decided to send it.</summary>
internal sealed class OutgoingMail
{
    public required Id<OutgoingMail> Id { get; init; }

    /// <summary>What it is the effect of ("run …, step …"); unique, so that no effect is queued twice.</summary>
    public required string EffectKey { get; init; }

    /// <summary>Null when it goes to somebody who is no client, or to the business's own people.</summary>
    public required Id<Client>? ClientId { get; init; }

    /// <summary>The same at every try, so that a mail server or mailbox can tell a second copy.</summary>
    public required string MessageId { get; init; }
    public required string From { get; init; }
    public required string To { get; init; }
    public required string Subject { get; init; }
    public required string Text { get; init; }

    /// <summary>Whether nobody wrote or approved it; such mail says so in its header (RFC 3834).</summary>
    public required bool Automatic { get; init; }
    public required Instant Written { get; init; }
    public MailState State { get; set; }
    public int Tries { get; set; }

    /// <summary>Real time, not the business clock: pauses between tries are for machines.</summary>
    public required Instant NextTry { get; set; }
    public string? LastFailure { get; set; }
}
