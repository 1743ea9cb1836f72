using System.Text.Json.Serialization;
using PorchLight.Core.Brand;
using PorchLight.Core.Conditions;

namespace PorchLight.Core.Forms;

/// <summary>All a form says and asks: what one published version keeps for ever.</summary>
/// <param name="Title">The form's title, as the lead reads it.</param>
/// <param name="Intro">A few lines under the title; may be empty.</param>
/// <param name="Pages">In the order they are shown; at least one.</param>
/// <param name="SendOffs">
/// Tried in order at the end; the first whose condition is true is taken. One without a condition is reached only by a
/// rule that leads to it.
/// </param>
/// <param name="DefaultSendOff">Taken when no other is; always there.</param>
public sealed record FormContent(
    string Title,
    string Intro,
    IReadOnlyList<Page> Pages,
    IReadOnlyList<SendOff> SendOffs,
    SendOff DefaultSendOff
)
{
    /// <summary>What stands before the first page, or null.</summary>
    public Cover? Cover { get; init; }

    /// <summary>What the business does not do, said before anybody starts; null for nothing.</summary>
    public NotForUs? NotForUs { get; init; }

    /// <summary>Whether all answers are shown once more before they are sent.</summary>
    public bool Review { get; init; }

    /// <summary>How it looks where it is unlike the business's other forms; null for just like them.</summary>
    public FormLook? Look { get; init; }

    /// <summary>What must hold between answers.</summary>
    public IReadOnlyList<AnswerRule> Rules { get; init; } = [];

    /// <summary>Every question in form order; what a row asks is not among them.</summary>
    [JsonIgnore]
    public IEnumerable<Question> Questions => Pages.SelectMany(page => page.Questions);

    /// <summary>The question with the key, also when it is asked in rows, or null.</summary>
    /// <param name="key">The key, case counts.</param>
    public Question? FindQuestion(string key) =>
        Questions.FirstOrDefault(question => question.Key == key)
        ?? Questions.SelectMany(question => question.RowQuestions).FirstOrDefault(question => question.Key == key);

    /// <summary>The send-off with the key, the default one included, or null.</summary>
    /// <param name="key">The key, case counts.</param>
    public SendOff? FindSendOff(string key) => SendOffs.Append(DefaultSendOff).FirstOrDefault(sendOff => sendOff.Key == key);
}

/// <summary>What welcomes people before the first page.</summary>
/// <param name="Text">Paragraphs parted by an empty line.</param>
/// <param name="StartLabel">What the button says that leads on.</param>
public sealed record Cover(string Text, string StartLabel = "Start")
{
    /// <summary>The identifier of a stored picture, or null.</summary>
    public Guid? Picture { get; init; }

    /// <summary>What the picture shows; empty when it is only decoration.</summary>
    public string PictureAlt { get; init; } = "";

    /// <summary>The identifier of a stored video, or null.</summary>
    public Guid? Video { get; init; }

    /// <summary>Whether the owner's photo and contact lines stand there.</summary>
    public bool ShowsOwner { get; init; }
}

/// <summary>What the business does not do, with the way to the form that fits better.</summary>
/// <param name="Text">A sentence or two.</param>
/// <param name="SisterForm">The identifier of the form that fits better, or null.</param>
/// <param name="SisterLabel">What the link to it says, or null for that form's title.</param>
public sealed record NotForUs(string Text, Guid? SisterForm = null, string? SisterLabel = null);

/// <summary>Questions and content that are shown together.</summary>
/// <param name="Key">Names it within the form.</param>
/// <param name="Title">What the lead reads above the questions.</param>
/// <param name="Items">In the order they stand on the page.</param>
public sealed record Page(string Key, string Title, IReadOnlyList<Item> Items)
{
    /// <summary>The questions among the items.</summary>
    [JsonIgnore]
    public IEnumerable<Question> Questions => Items.OfType<Question>();

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
    /// <summary>It is taken only when this is true; null for the default one, and for one that only a rule leads to.</summary>
    public Condition? When { get; init; }

    /// <summary>What happens next, step by step; may be empty.</summary>
    public IReadOnlyList<string> NextSteps { get; init; } = [];

    /// <summary>Whether the person can ask for a call.</summary>
    public bool OffersCall { get; init; }

    /// <summary>The identifier of the meeting type whose free times it shows, for whoever left a way to reach them; null for none.</summary>
    public Guid? Meeting { get; init; }

    /// <summary>Whether it turns the person away, so that no reply is owed any more.</summary>
    public bool TurnsAway { get; init; }

    /// <summary>Other ways forward, for whom we cannot help; may be empty.</summary>
    public IReadOnlyList<WayForward> WaysForward { get; init; } = [];

    /// <summary>The identifier of a stored video, or null.</summary>
    public Guid? Video { get; init; }

    /// <summary>A button that leads to an address the owner saved, or null.</summary>
    public LinkButton? Button { get; init; }

    /// <summary>A file to take away, or null.</summary>
    public FileLink? Download { get; init; }

    /// <summary>Whether the form's away note stands under the message, for people who come while the business is away.</summary>
    public bool SaysAwayNote { get; init; }

    /// <summary>The address the browser goes to by itself after the message was shown, or null. Only what the owner saved here.</summary>
    public string? Redirect { get; init; }
}

/// <summary>A button that leads on.</summary>
/// <param name="Label">What it says.</param>
/// <param name="Address">An https address the owner saved.</param>
public sealed record LinkButton(string Label, string Address);

/// <summary>A file to take away.</summary>
/// <param name="File">The identifier of the stored file.</param>
/// <param name="Label">What the link says.</param>
public sealed record FileLink(Guid File, string Label);

/// <summary>Another way forward.</summary>
/// <param name="Title">What it is.</param>
/// <param name="Text">Why it may help.</param>
/// <param name="Address">A web address the owner saved, or null.</param>
public sealed record WayForward(string Title, string Text, string? Address = null);
