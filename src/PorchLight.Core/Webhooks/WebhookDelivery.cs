using NodaTime;
using PorchLight.Core.Common;

namespace PorchLight.Core.Webhooks;

/// <summary>How far a call to a webhook is.</summary>
public enum WebhookState
{
    /// <summary>Waits for its first or next try.</summary>
    Waiting,

    /// <summary>The other side took it.</summary>
    Taken,

    /// <summary>Given up; waits for a person.</summary>
    Failed,
}

/// <summary>What states are called.</summary>
public static class WebhookStates
{
    /// <summary>The state in words.</summary>
    /// <param name="state">The state.</param>
    public static string Say(this WebhookState state) =>
        state switch
        {
            WebhookState.Waiting => "on its way",
            WebhookState.Taken => "taken",
            _ => "given up",
        };
}

/// <summary>One try to deliver a call, or what a person had done with it.</summary>
/// <param name="At">When.</param>
/// <param name="Status">The status the other side answered with (RFC 9110); null where it did not answer.</param>
/// <param name="Why">Why it did not arrive, as a sentence; null where it did.</param>
public sealed record WebhookTry(Instant At, int? Status, string? Why);

/// <summary>Decides what becomes of a call to a webhook after each try.</summary>
public static class WebhookDelivery
{
    /// <summary>The try that an answer amounts to. Only a status from 200 to 299 takes a call; a redirect is not followed.</summary>
    /// <param name="status">The status the other side answered with.</param>
    /// <param name="at">When.</param>
    public static WebhookTry Answered(int status, Instant at) =>
        new(
            at,
            status,
            status switch
            {
                >= 200 and < 300 => null,
                >= 300 and < 400 => $"The other side sends elsewhere ({status}). Give the address it names.",
                410 => "The other side wants no more calls (410).",
                >= 500 => $"The other side has a fault of its own ({status}).",
                _ => $"The other side refuses it ({status}).",
            }
        );

    /// <summary>
    /// How far the call is after a try, and when it is tried again: after growing pauses (<see cref="Retries"/>), and not at all once
    /// the other side has said that the address is gone for good (410, RFC 9110, 15.5.11).
    /// </summary>
    /// <param name="last">The try.</param>
    /// <param name="tries">How many tries there were, this one included; at least 1.</param>
    public static (WebhookState State, Instant? NextTry) After(WebhookTry last, int tries) =>
        last switch
        {
            { Why: null } => (WebhookState.Taken, null),
            { Status: 410 } => (WebhookState.Failed, null),
            _ when Retries.PauseAfter(tries) is { } pause => (WebhookState.Waiting, last.At + pause),
            _ => (WebhookState.Failed, null),
        };
}
