using System.Text.Json.Serialization;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;

namespace PorchLight.Core.Meetings;

/// <summary>Where people meet.</summary>
public enum MeetingPlaceKind
{
    /// <summary>The business rings the number that whoever books gives.</summary>
    Phone,

    /// <summary>By video, at an address of the web.</summary>
    Video,

    /// <summary>At the business's place.</summary>
    Ours,

    /// <summary>At the place of whoever books, which they give.</summary>
    Theirs,
}

/// <summary>A place that is offered for a meeting.</summary>
/// <param name="Kind">Which kind of place.</param>
/// <param name="Address">
/// The business's own address for <see cref="MeetingPlaceKind.Ours"/>, the address of the web for
/// <see cref="MeetingPlaceKind.Video"/>, which may be empty while it is sent later; empty for the others, where whoever books says it.
/// </param>
public sealed record MeetingPlace(MeetingPlaceKind Kind, string Address = "")
{
    /// <summary>Whether whoever books has to say more: their number, or their address.</summary>
    /// <param name="kind">The kind of place.</param>
    public static bool AsksForMore(MeetingPlaceKind kind) => kind is MeetingPlaceKind.Phone or MeetingPlaceKind.Theirs;
}

/// <summary>Who can book meetings of a type.</summary>
public enum WhoMayBook
{
    /// <summary>Anybody who has the link.</summary>
    Anybody,

    /// <summary>Only who was sent a link of their own.</summary>
    PersonalLink,

    /// <summary>Only who reached a send-off that offers it.</summary>
    AfterSendOff,
}

/// <summary>Something asked of whoever books.</summary>
/// <param name="Key">Names it within the type: <see cref="ItemKeys"/>.</param>
/// <param name="Wording">What is asked.</param>
/// <param name="IsRequired">Whether it has to be answered.</param>
public sealed record MeetingQuestion(string Key, string Wording, bool IsRequired);

/// <summary>A kind of meeting that can be booked.</summary>
/// <param name="Name">What it is called: "A first talk".</param>
/// <param name="Rules">When it can be.</param>
/// <param name="Places">Where it can be, in the order in which they are offered; at least one, none twice.</param>
/// <param name="Hosts">The identifiers of the users who can hold it, in their order.</param>
public sealed record MeetingType(string Name, SlotRules Rules, IReadOnlyList<MeetingPlace> Places, IReadOnlyList<Guid> Hosts)
{
    /// <summary>The longest name.</summary>
    public const int LongestName = 80;

    /// <summary>The longest words about what it is for.</summary>
    public const int LongestPurpose = 600;

    /// <summary>The longest address of a place.</summary>
    public const int LongestAddress = 300;

    /// <summary>The most questions asked.</summary>
    public const int MostQuestions = 8;

    /// <summary>The longest wording of a question.</summary>
    public const int LongestWording = 200;

    /// <summary>The longest time before a meeting at which moving and cancelling end: a month.</summary>
    public const int MostChangeHours = 31 * 24;

    /// <summary>What it is for, as whoever books reads it; may be empty.</summary>
    public string Purpose { get; init; } = "";

    /// <summary>Who can book it.</summary>
    public WhoMayBook WhoMayBook { get; init; }

    /// <summary>What is asked beside name, mail address and place.</summary>
    public IReadOnlyList<MeetingQuestion> Questions { get; init; } = [];

    /// <summary>How many hours before it whoever booked can move or cancel it for the last time.</summary>
    public int ChangeHours { get; init; } = 4;

    /// <summary>
    /// The title of its entry in calendars, with known values: <c>{client}</c>, <c>{type}</c>, <c>{answer:key}</c>; empty for
    /// <see cref="MeetingTitle.Usual"/>.
    /// </summary>
    public string Title { get; init; } = "";

    /// <summary>The key of the date of the project that is set to its day; null for none.</summary>
    public string? WritesDate { get; init; }

    /// <summary>Whether nobody can book it at the moment.</summary>
    public bool IsPaused { get; init; }

    /// <summary>Whether all who can hold it hold it together.</summary>
    [JsonIgnore]
    public bool IsHeldByAll => Rules.HostChoice == HostChoice.AllTogether;

    /// <summary>A first one to start from: half an hour, by phone.</summary>
    /// <param name="host">Who holds it.</param>
    public static MeetingType Usual(Guid host) =>
        new("A first talk", new SlotRules(30), [new MeetingPlace(MeetingPlaceKind.Phone)], [host]);

    /// <summary>What has to be put right before it can be kept, by the place of each value.</summary>
    /// <param name="users">The identifiers of everybody who works here.</param>
    /// <param name="isDateOfProjects">Whether a key is that of a date of projects.</param>
    public IReadOnlyList<Finding> Check(IReadOnlyCollection<Guid> users, Func<string, bool> isDateOfProjects)
    {
        var found = new List<Finding>();
        Say(Name.Trim().Length is 0 or > LongestName, "name", $"Give it a name of at most {LongestName} characters.");
        Say(Purpose.Length > LongestPurpose, "purpose", $"Say what it is for in at most {LongestPurpose} characters.");
        found.AddRange(Rules.Check());
        Say(
            Rules.Hours is { } hours && hours.All(day => day.Spans.Count == 0),
            "hours",
            "There is no time in these hours. Enter at least one."
        );
        Say(Places.Count == 0, "places", "Choose at least one place.");
        Say(Places.DistinctBy(place => place.Kind).Count() < Places.Count, "places", "A place can be offered once only.");
        foreach (var place in Places)
            Say(WrongIn(place) is not null, $"places.{NameOf(place.Kind)}", WrongIn(place) ?? "");
        Say(Hosts.Count == 0, "hosts", "Choose who holds it.");
        Say(Hosts.Any(host => !users.Contains(host)), "hosts", "Someone who holds it no longer works here. Choose again.");
        Say(Hosts.Distinct().Count() < Hosts.Count, "hosts", "Everybody can be chosen once only.");
        Say(Questions.Count > MostQuestions, "questions", $"Ask at most {MostQuestions} questions. For more, use a form.");
        Say(Questions.DistinctBy(question => question.Key).Count() < Questions.Count, "questions", "Two questions have the same key.");
        foreach (var (index, question) in Questions.Index())
            Say(
                question.Wording.Trim().Length is 0 or > LongestWording,
                $"questions.{index}",
                $"Word the question in at most {LongestWording} characters."
            );
        Say(ChangeHours is < 0 or > MostChangeHours, "changeHours", $"Enter 0 to {MostChangeHours} hours.");
        Say(Title.Length > MeetingTitle.Longest, "title", $"A title has at most {MeetingTitle.Longest} characters.");
        Say(
            WritesDate is { } field && !isDateOfProjects(field),
            "writesDate",
            "The field for its day is no longer there, or holds no date. Choose another one."
        );
        return found;

        void Say(bool wrong, string at, string sentence)
        {
            if (wrong)
                found.Add(new Finding(at, sentence));
        }
    }

    private static string NameOf(MeetingPlaceKind kind) => kind.ToString().ToLowerInvariant();

    private static string? WrongIn(MeetingPlace place) =>
        place.Address.Length > LongestAddress ? $"An address has at most {LongestAddress} characters."
        : place.Kind == MeetingPlaceKind.Ours && string.IsNullOrWhiteSpace(place.Address) ? "Say where your place is."
        : place.Kind == MeetingPlaceKind.Video && place.Address.Length > 0 && !IsWebAddress(place.Address)
            ? "Give the whole address of the video call, like https://video.example.com/room."
        : null;

    private static bool IsWebAddress(string text) =>
        Uri.TryCreate(text.Trim(), UriKind.Absolute, out var address) && address is { Scheme: "https" or "http", UserInfo: "" };
}
