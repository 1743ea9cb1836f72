using NodaTime;
using PorchLight.Core.Answers;
using PorchLight.Core.Common;

namespace PorchLight.Server.Forms;

/// <summary>How a kept filling-in ended.</summary>
internal enum UnfinishedFormEnd
{
    /// <summary>It was sent.</summary>
    Sent,

    /// <summary>Nobody came back in time; answers and files are deleted.</summary>
    RanOut,
}

/// <summary>
/// A filling-in that somebody wants to finish later, as they left it. When it has ended only the mark stays, so that its
/// link can say so kindly.
/// </summary>
internal sealed class UnfinishedForm
{
    public required Id<UnfinishedForm> Id { get; init; }
    public required Id<Form> FormId { get; init; }
    public required int FormVersion { get; set; }
    public required Guid SendKey { get; init; }
    public required string LinkHash { get; init; }
    public required string LinkSealed { get; init; }
    public required string Page { get; set; }

    /// <summary>The answers as they were given, those off the route included; null once it has ended.</summary>
    public GivenAnswers? Answers { get; set; }

    /// <summary>Rises with every save, so that a window that was left behind does not overwrite another.</summary>
    public int Revision { get; set; } = 1;

    /// <summary>Where the link was mailed to; null when it was not.</summary>
    public string? MailedTo { get; set; }

    /// <summary>Whether they were told, when they asked for the link, that one more mail may come.</summary>
    public bool MayFollowUp { get; set; }

    /// <summary>When that mail went; null while it has not.</summary>
    public Instant? FollowedUp { get; set; }

    /// <summary>In real time, like all times here.</summary>
    public required Instant Saved { get; set; }
    public required Instant GoodUntil { get; set; }
    public UnfinishedFormEnd? Ended { get; set; }

    /// <summary>Whether they were told that one more mail may come, and it has not come yet.</summary>
    public bool MayBeWrittenTo() => this is { MayFollowUp: true, FollowedUp: null, MailedTo: not null, Ended: null };
}

/// <summary>Answers by question key as a browser gave them.</summary>
internal sealed record GivenAnswers(IReadOnlyDictionary<string, Answer?> ByQuestion);
