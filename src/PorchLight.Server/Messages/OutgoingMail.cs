using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Core.Messages;
using PorchLight.Server.Records;

namespace PorchLight.Server.Messages;

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
