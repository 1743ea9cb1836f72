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
    /// <param name="words">The words it begins with; without gaps.</param>
    /// <param name="values">What can be set into them, by name, but for the link.</param>
    public static (string Subject, string Text) Write(MessageTemplate words, IReadOnlyDictionary<string, string> values)
    {
        var plain = new Dictionary<string, string>(values) { ["link"] = LinkStandsHere };
        var known = values.ToDictionary(value => value.Key, value => FormattedText.Escape(value.Value));
        known["link"] = LinkStandsHere;
        return (
            KnownValues.OneLine(KnownValues.Fill(words.Subject, plain)),
            string.Join("\n\n", words.Parts.OfType<TextPart>().Select(part => KnownValues.Fill(part.Text, known).Trim()))
        );
    }

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
            found.Add(new Finding("text", $"Write {LinkStandsHere} where the link should go; without it they cannot answer."));
        return found;
    }

    /// <summary>The text with the link in it.</summary>
    /// <param name="text">A text that passed <see cref="Check"/>.</param>
    /// <param name="link">The address.</param>
    public static string Fill(string text, string link) => text.Replace(LinkStandsHere, link, StringComparison.Ordinal);
}
