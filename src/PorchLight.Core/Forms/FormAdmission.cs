using NodaTime;
using PorchLight.Core.Brand;
using PorchLight.Core.Calendar;

namespace PorchLight.Core.Forms;

/// <summary>How somebody is met at a form.</summary>
public enum AccessState
{
    /// <summary>They can fill it in.</summary>
    Open,

    /// <summary>It takes no answers now.</summary>
    LightOff,

    /// <summary>It opens only by a personal link.</summary>
    OnlyByLink,

    /// <summary>It opens with a code that is sent to the mail address the link was made for.</summary>
    CodeNeeded,

    /// <summary>The personal link has been used.</summary>
    LinkUsed,

    /// <summary>The personal link is too old.</summary>
    LinkRanOut,
}

/// <summary>How a personal link stands when somebody comes by it.</summary>
/// <param name="Used">When something was sent with it; null before.</param>
/// <param name="GoodUntil">The last instant at which it is good.</param>
/// <param name="CodeTyped">Whether the browser shows that the code was typed there.</param>
public sealed record LinkState(Instant? Used, Instant GoodUntil, bool CodeTyped);

/// <summary>Decides who may come in to a form.</summary>
public static class FormAdmission
{
    /// <summary>
    /// How somebody is met. A personal link is looked at first: whether it was used, whether it has run out, whether the code is
    /// missing; without one, whether the form opens to anyone. Only who might come in is told that the light is off.
    /// </summary>
    /// <param name="admission">Who may open the form.</param>
    /// <param name="light">Whether it takes answers.</param>
    /// <param name="link">The personal link they came by; null for the form's own.</param>
    /// <param name="now">The instant of asking.</param>
    public static AccessState Judge(Admission admission, LightState light, LinkState? link, Instant now) =>
        link is { Used: not null } ? AccessState.LinkUsed
        : link is not null && Retention.HasRunOut(link.GoodUntil, now) ? AccessState.LinkRanOut
        : link is null && admission != Admission.Anyone ? AccessState.OnlyByLink
        : link is { CodeTyped: false } && admission == Admission.PersonalLinkAndCode ? AccessState.CodeNeeded
        : light != LightState.On ? AccessState.LightOff
        : AccessState.Open;

    /// <summary>How they are met, in a sentence for them; empty when they can fill it in.</summary>
    /// <param name="state">What <see cref="Judge"/> gave.</param>
    /// <param name="settings">The form's settings.</param>
    /// <param name="light">Whether it takes answers, and why not.</param>
    /// <param name="awayNote">What the form says while its light is off.</param>
    /// <param name="business">Whom to write to.</param>
    /// <param name="link">The personal link they came by; there where the state speaks of one.</param>
    /// <param name="now">The instant of asking.</param>
    /// <param name="zone">The business's zone.</param>
    public static string Say(
        AccessState state,
        FormSettings settings,
        LightState light,
        string awayNote,
        BusinessCard business,
        LinkState? link,
        Instant now,
        DateTimeZone zone
    ) =>
        state switch
        {
            AccessState.Open => "",
            AccessState.LightOff when light == LightState.NotYetOpen => $"This form opens on {DateWords.Say(settings.FirstDay!.Value)}.",
            AccessState.LightOff => awayNote,
            AccessState.OnlyByLink =>
                $"This form opens only by a personal link. If you are waiting for one, please write to {business.Name}: {business.MailAddress}.",
            AccessState.CodeNeeded => "To be sure that it is you, we send a code to the mail address this link was made for.",
            AccessState.LinkUsed =>
                $"You have sent this form already, {TimeWords.At(link!.Used!.Value, now, zone)}. Thank you! Should something have changed, please write to {business.MailAddress}.",
            AccessState.LinkRanOut =>
                $"This link was good until {DateWords.Say(link!.GoodUntil.InZone(zone).Date)}. Please write to {business.MailAddress}, and you get a new one.",
            _ => throw new ArgumentOutOfRangeException(nameof(state)),
        };
}
