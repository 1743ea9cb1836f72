namespace PorchLight.Core.Messages;

/// <summary>Subjects of messages.</summary>
public static class MailSubject
{
    /// <summary>The subject of an answer: "Re: " before that of what it answers, once (RFC 5322, 3.6.5).</summary>
    /// <param name="subject">The subject of what is answered.</param>
    public static string Answering(string subject) =>
        subject.StartsWith("Re:", StringComparison.OrdinalIgnoreCase) ? subject : $"Re: {subject}";
}
