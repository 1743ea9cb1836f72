namespace PorchLight.Core.Messages;

/// <summary>What has to be put right in a message before anybody can use it.</summary>
public static class MessageCheck
{
    /// <summary>No subject is longer.</summary>
    public const int LongestSubject = 300;

    /// <summary>No message says more, all its words together.</summary>
    public const int LongestText = 20_000;

    /// <summary>What stands in the way, as a sentence; null for nothing.</summary>
    /// <param name="message">The message; any value is allowed.</param>
    public static string? Check(MessageTemplate message) =>
        string.IsNullOrWhiteSpace(message.Subject) ? "The message needs a subject."
        : message.Subject.Length > LongestSubject ? $"A subject has at most {LongestSubject} characters."
        : message.Parts.All(part => part is TextPart { Text: var text } && string.IsNullOrWhiteSpace(text))
            ? "The message says nothing yet."
        : Length(message) > LongestText ? "This is too long for one mail. Please shorten it."
        : message.Enclosed.Check();

    private static int Length(MessageTemplate message) =>
        message.Parts.Sum(part => part is GapPart gap ? gap.Prompt.Length : ((TextPart)part).Text.Length);
}
