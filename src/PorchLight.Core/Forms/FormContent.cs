using System.Text.Json.Serialization;

namespace PorchLight.Core.Forms;

/// <summary>All a form says and asks: what one published version keeps for ever.</summary>
/// <param name="Title">The form's title, as the lead reads it.</param>
/// <param name="Intro">A few lines under the title; may be empty.</param>
/// <param name="Pages">In the order they are shown; at least one.</param>
/// <param name="SendOffs">Tried in order at the end; the first whose condition is true is taken.</param>
/// <param name="DefaultSendOff">Taken when no other is; always there.</param>
public sealed record FormContent(
    string Title, string Intro, IReadOnlyList<Page> Pages, IReadOnlyList<SendOff> SendOffs, SendOff DefaultSendOff)
{
    /// <summary>Every question in form order.</summary>
    [JsonIgnore]
    public IEnumerable<Question> Questions => Pages.SelectMany(page => page.Questions);

    /// <summary>The question with the key, or null.</summary>
    public Question? FindQuestion(string key) => Questions.FirstOrDefault(question => question.Key == key);

    /// <summary>The send-off with the key, the default one included, or null.</summary>
    public SendOff? FindSendOff(string key) => SendOffs.Append(DefaultSendOff).FirstOrDefault(sendOff => sendOff.Key == key);
}

/// <summary>Questions that are shown together.</summary>
/// <param name="Key">Names it within the form.</param>
/// <param name="Title">What the lead reads above the questions.</param>
/// <param name="Questions">In the order they are asked.</param>
public sealed record Page(string Key, string Title, IReadOnlyList<Question> Questions)
{
    /// <summary>The page is shown only when this is true; null means always.</summary>
    public Condition? ShownOnlyWhen { get; init; }

    /// <summary>Where to go after the page; the first rule that is true is taken, and none means the next page.</summary>
    public IReadOnlyList<RouteRule> Routes { get; init; } = [];
}

/// <summary>A rule that leads on from a page.</summary>
/// <param name="When">It is followed only when this is true.</param>
/// <param name="To">The key of a later page or of a send-off.</param>
public sealed record RouteRule(Condition When, string To);

/// <summary>How a form ends for this person.</summary>
/// <param name="Key">Names it within the form.</param>
/// <param name="Title">The headline.</param>
/// <param name="Text">What is said, paragraphs parted by an empty line. May contain <c>{promise}</c>: "by Tuesday 15:00".</param>
public sealed record SendOff(string Key, string Title, string Text)
{
    /// <summary>It is taken only when this is true; the default send-off has none.</summary>
    public Condition? When { get; init; }

    /// <summary>What happens next, step by step; may be empty.</summary>
    public IReadOnlyList<string> NextSteps { get; init; } = [];

    /// <summary>Whether the person can ask for a call.</summary>
    public bool OffersCall { get; init; }

    /// <summary>Whether it turns the person away, so that no reply is owed any more.</summary>
    public bool TurnsAway { get; init; }

    /// <summary>Other ways forward, for whom we cannot help; may be empty.</summary>
    public IReadOnlyList<WayForward> WaysForward { get; init; } = [];
}

/// <summary>Another way forward.</summary>
/// <param name="Title">What it is.</param>
/// <param name="Text">Why it may help.</param>
/// <param name="Address">A web address the owner saved, or null.</param>
public sealed record WayForward(string Title, string Text, string? Address = null);
