using PorchLight.Core.Common;

namespace PorchLight.Core.Messages;

/// <summary>A message that brings somebody their own link to a form.</summary>
public static class LinkInvitation
{
    /// <summary>Where the link comes to stand in the text.</summary>
    public const string LinkStandsHere = "[the link]";

    private const int LongestSubject = 300;
    private const int LongestText = 20_000;

    /// <summary>The message as it is offered; every word of it can be changed.</summary>
    /// <param name="form">The title of the form.</param>
    /// <param name="owner">Who signs.</param>
    /// <param name="business">The business's name.</param>
    public static (string Subject, string Text) Write(string form, string owner, string business) =>
        (
            $"A few questions from {business}",
            $"Hello,\n\nthank you for getting in touch. So that we can tell you soon whether and how we can help, please answer a few questions here:\n\n{LinkStandsHere}\n\nIt is our form “{form}”; the link is only for you and good for one answer.\n\n{owner}\n{business}"
        );

    /// <summary>What has to be put right before it can be sent.</summary>
    /// <param name="subject">The subject.</param>
    /// <param name="text">The text.</param>
    public static IReadOnlyList<Finding> Check(string subject, string text)
    {
        var found = new List<Finding>();
        if (subject.Trim().Length is 0 or > LongestSubject)
            found.Add(new Finding("subject", $"A message needs a subject of at most {LongestSubject} characters."));
        if (text.Length > LongestText)
            found.Add(new Finding("text", "This text is too long for one mail. Please shorten it."));
        else if (!text.Contains(LinkStandsHere, StringComparison.Ordinal))
            found.Add(new Finding("text", $"Write {LinkStandsHere} where the link shall stand; without it they cannot answer."));
        return found;
    }

    /// <summary>The text with the link in it.</summary>
    /// <param name="text">A text that passed <see cref="Check"/>.</param>
    /// <param name="link">The address.</param>
    public static string Fill(string text, string link) => text.Replace(LinkStandsHere, link, StringComparison.Ordinal);
}
