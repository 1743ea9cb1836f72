using PorchLight.Core.Answers;
using PorchLight.Core.Fields;

namespace PorchLight.Core.Messages;

/// <summary>How a message reaches somebody.</summary>
public enum Channel
{
    /// <summary>By mail.</summary>
    Mail,

    /// <summary>As a text message to their phone.</summary>
    Text,

    /// <summary>As a note on their own page.</summary>
    PageNote,
}

/// <summary>What a client has permitted; null where they never said.</summary>
/// <param name="News">Whether they may be sent news.</param>
/// <param name="Texts">Whether they may be sent text messages.</param>
public sealed record Permissions(bool? News, bool? Texts)
{
    /// <summary>What stands on file.</summary>
    /// <param name="onFile">The values of the client, by field key; what is no yes or no counts as not said.</param>
    public static Permissions Of(IReadOnlyDictionary<string, Answer> onFile) =>
        new(
            (onFile.GetValueOrDefault(BuiltInFields.MayAdvertise.Key) as YesNoAnswer)?.Yes,
            (onFile.GetValueOrDefault(BuiltInFields.MayText.Key) as YesNoAnswer)?.Yes
        );
}

/// <summary>
/// What may be sent to whom. A word on somebody's own inquiry or project answers them and is no advertising; it may come by mail and on
/// their page without being asked for. Text messages come only to those who permitted them, whatever they say. Advertising, by any way,
/// comes only to those who permitted it: to have written once is no permission (Directive 2002/58/EC, article 13, 1).
/// </summary>
public static class Consent
{
    /// <summary>What of a message they have not permitted; null where it may be sent.</summary>
    /// <param name="channel">How it would reach them.</param>
    /// <param name="isAdvertising">Whether it advertises.</param>
    /// <param name="permissions">What they have permitted.</param>
    public static Forbidden? Refuse(Channel channel, bool isAdvertising, Permissions permissions) =>
        isAdvertising && permissions.News != true ? Forbidden.News
        : channel == Channel.Text && permissions.Texts != true ? Forbidden.Texts
        : null;

    /// <summary>The same for who is about to send it.</summary>
    /// <param name="forbidden">What <see cref="Refuse"/> gave.</param>
    public static string Say(Forbidden forbidden) =>
        forbidden == Forbidden.News
            ? "They have not permitted advertising, so this message does not go to them. With your nod only what comes after it goes on."
            : "They have not permitted text messages, so this one does not go to them. With your nod only what comes after it goes on.";
}
