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

    /// <summary>How a message is named: its identifier, at the domain it comes from.</summary>
    public static string NameOf(Id<OutgoingMail> id, string from) => $"<{id.Value:N}@{from.Split('@')[^1]}>";

    /// <summary>The identifier that a name holds; null where it is none of ours.</summary>
    public static Id<OutgoingMail>? IdIn(string name) =>
        Guid.TryParseExact(name.Trim('<', '>').Split('@')[0], "N", out var id) ? new Id<OutgoingMail>(id) : null;

    /// <summary>The message it answers, as its sender named it; null for one that begins a conversation.</summary>
    public string? InReplyTo { get; init; }
    public required string From { get; init; }
    public required string To { get; init; }
    public required string Subject { get; init; }

    /// <summary>In plain text.</summary>
    public required string Text { get; init; }

    /// <summary>The words with their formatting (<see cref="FormattedText"/>); null where they have none.</summary>
    public string? Formatted { get; init; }

    /// <summary>What goes with it; null for nothing.</summary>
    public Enclosed? Enclosed { get; init; }

    /// <summary>The meeting it is about, as iCalendar; null for none. It goes with the words, so that mail programs offer to note it.</summary>
    public string? Invitation { get; init; }

    /// <summary>Whether nobody wrote or approved it; such mail says so in its header (RFC 3834).</summary>
    public required bool Automatic { get; init; }

    /// <summary>Where the person stops such messages with one press (RFC 8058); null for what is no advertising.</summary>
    public string? Unsubscribe { get; init; }
    public required Instant Written { get; init; }
    public MailState State { get; set; }
    public int Tries { get; set; }

    /// <summary>What follows once it has gone; null where nothing does, or it has followed.</summary>
    public HeldMail? Held { get; set; }

    /// <summary>Real time, not the business clock: pauses between tries are for machines.</summary>
    public required Instant NextTry { get; set; }
    public string? LastFailure { get; set; }

    /// <summary>The files that go with it: its pictures and its attachments.</summary>
    public IEnumerable<Guid> FilesNeeded() =>
        (Formatted is null ? [] : FormattedText.Read(Formatted).Pictures).Concat(Enclosed?.Files ?? []).Distinct();
}
