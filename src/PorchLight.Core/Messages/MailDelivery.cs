using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Core.Records;

namespace PorchLight.Core.Messages;

/// <summary>How far a message is on its way out.</summary>
public enum MailState
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

/// <summary>How a hand-over to a mail server ended.</summary>
public abstract record HandOver
{
    /// <summary>The server has the message.</summary>
    public sealed record Taken : HandOver;

    /// <summary>The server does not have it.</summary>
    /// <param name="Why">A sentence for the owner.</param>
    /// <param name="ForGood">Whether another try would end the same way.</param>
    /// <param name="LineIsDown">Whether other messages would fare no better now.</param>
    public sealed record Refused(string Why, bool ForGood = false, bool LineIsDown = false) : HandOver;

    /// <summary>The message was sent to its end, but the line broke before the server said whether it has it.</summary>
    public sealed record Unsure : HandOver;
}

/// <summary>What follows from a hand-over.</summary>
/// <param name="State">How far the message is now.</param>
/// <param name="Failure">Why it did not arrive, for the owner; null when it did.</param>
/// <param name="NextTry">When it is tried again; null when it is not.</param>
/// <param name="Says">What has to be known of it; null for nothing.</param>
public sealed record DeliveryStep(MailState State, string? Failure, Instant? NextTry, DomainEvent? Says);

/// <summary>Decides what becomes of a message after each try.</summary>
public static class MailDelivery
{
    /// <summary>
    /// What follows. A refusal is tried again after one minute, two, four and so on, until it is for good or the eighth try has
    /// failed. What may have arrived is never sent a second time by itself.
    /// </summary>
    /// <param name="ended">How the hand-over ended.</param>
    /// <param name="tries">How many tries there were, this one included; at least 1.</param>
    /// <param name="subject">The subject of the message.</param>
    /// <param name="now">Real time.</param>
    public static DeliveryStep After(HandOver ended, int tries, string subject, Instant now) =>
        ended switch
        {
            HandOver.Taken => new DeliveryStep(MailState.HandedOver, null, null, null),
            HandOver.Refused { ForGood: false } refused when Retries.PauseAfter(tries) is { } pause => new DeliveryStep(
                MailState.Queued,
                refused.Why,
                now + pause,
                null
            ),
            HandOver.Refused refused => new DeliveryStep(MailState.Failed, refused.Why, null, new DeliveryFailed(subject, refused.Why)),
            HandOver.Unsure => new DeliveryStep(
                MailState.PerhapsSent,
                "The line broke before the mail server said whether it has the message.",
                null,
                new PerhapsDelivered(subject)
            ),
            _ => throw new ArgumentOutOfRangeException(nameof(ended)),
        };
}
