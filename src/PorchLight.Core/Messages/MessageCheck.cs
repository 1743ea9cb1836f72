using PorchLight.Core.Common;

namespace PorchLight.Core.Messages;

/// <summary>What has to be put right in a message before it can be used, or sent.</summary>
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

    /// <summary>What stands in the way of sending a draft, each at its place: the key of a gap, "subject", "text" or "enclosed".</summary>
    /// <param name="draft">The draft as a person sees it; any value is allowed.</param>
    public static IReadOnlyList<Finding> BeforeSending(MessageDraft draft)
    {
        if (draft.FinishedText is not { } text)
            return [.. draft.OpenGaps.Select(gap => new Finding(gap.Key, $"Fill this in first: {gap.Prompt}."))];
        var found = new List<Finding>();
        Say(
            string.IsNullOrWhiteSpace(draft.Subject) || text.Length == 0,
            "text",
            "A message needs a subject and a text. What you wrote is still here."
        );
        Say(draft.Subject.Length > LongestSubject, "subject", $"A subject has at most {LongestSubject} characters.");
        Say(text.Length > LongestText, "text", "This is too long for one mail. Please shorten it.");
        if (draft.Enclosed.Check() is { } wrong)
            found.Add(new Finding("enclosed", wrong));
        return found;

        void Say(bool wrong, string place, string sentence)
        {
            if (wrong)
                found.Add(new Finding(place, sentence));
        }
    }

    private static int Length(MessageTemplate message) =>
        message.Parts.Sum(part => part is GapPart gap ? gap.Prompt.Length : ((TextPart)part).Text.Length);
}
