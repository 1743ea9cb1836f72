using NodaTime;
using PorchLight.Core.Calendar;
using PorchLight.Core.Common;

namespace PorchLight.Core.Forms;

/// <summary>Who may open a form.</summary>
public enum Admission
{
    /// <summary>Everybody who has the form's link.</summary>
    Anyone,

    /// <summary>Only people with a personal link.</summary>
    PersonalLink,

    /// <summary>Only people with a personal link, after a code that was sent to their own mail: a forwarded link does not open.</summary>
    PersonalLinkAndCode,
}

/// <summary>What a form is about, when somebody who is a client already sends it.</summary>
public enum ProjectAssignment
{
    /// <summary>A new piece of work; while one from this form is open, more about that one.</summary>
    NewWorkOrMore,

    /// <summary>A new piece of work each time.</summary>
    NewWork,

    /// <summary>The piece of work that is in hand, whichever form it came by.</summary>
    WorkInHand,
}

/// <summary>Whether a form takes answers, and why not.</summary>
public enum LightState
{
    /// <summary>It takes answers.</summary>
    On,

    /// <summary>A person has turned it off.</summary>
    SwitchedOff,

    /// <summary>Its first day is still to come.</summary>
    NotYetOpen,

    /// <summary>Its last day has passed.</summary>
    Closed,

    /// <summary>As many answers as it takes have come in.</summary>
    Full,
}

/// <summary>What holds for a form beside its words, at once and for every version.</summary>
public sealed record FormSettings
{
    /// <summary>Its light goes on with this day, in the business's zone; null for at once.</summary>
    public LocalDate? FirstDay { get; init; }

    /// <summary>Its light goes off when this day ends; null for never.</summary>
    public LocalDate? LastDay { get; init; }

    /// <summary>Its light goes off with this many answers; null for never. At least 1.</summary>
    public int? MostAnswers { get; init; }

    /// <summary>How much fits into the months; null when every month has room.</summary>
    public Capacity? Capacity { get; init; }

    /// <summary>Who may open it.</summary>
    public Admission Admission { get; init; }

    /// <summary>What it is about, for a client who has work with the business already.</summary>
    public ProjectAssignment About { get; init; }

    /// <summary>What keeps programs from filling it in.</summary>
    public SpamGuard Guard { get; init; } = new();

    /// <summary>Whether a developer's own markup may post to it, with a weaker guard.</summary>
    public bool TakesPlainPosts { get; init; }

    /// <summary>
    /// Whether whoever has the link to go on later sent to them is told that one more mail may come, should they not come back; only
    /// they are written to.
    /// </summary>
    public bool FollowsUpUnfinished { get; init; }

    /// <summary>How fast an answer is promised to who sends this form; null for the promise of the whole business.</summary>
    public ReplyPromise? Promise { get; init; }

    /// <summary>The origins of the sites that may embed it ("https://example.com"); empty for any.</summary>
    public IReadOnlyList<string> EmbedOn { get; init; } = [];

    /// <summary>The identifiers of the people who get a mail when an inquiry comes in.</summary>
    public IReadOnlyList<Guid> Notified { get; init; } = [];

    /// <summary>Whether the form takes answers.</summary>
    /// <param name="switchedOn">Whether a person has turned its light on.</param>
    /// <param name="today">The day of asking in the business's zone.</param>
    /// <param name="received">How many answers have come in.</param>
    public LightState Judge(bool switchedOn, LocalDate today, int received) =>
        !switchedOn ? LightState.SwitchedOff
        : today < FirstDay ? LightState.NotYetOpen
        : today > LastDay ? LightState.Closed
        : received >= MostAnswers ? LightState.Full
        : LightState.On;

    /// <summary>How the light stands, in a sentence for the people who keep the form.</summary>
    /// <param name="state">What <see cref="Judge"/> gave.</param>
    /// <param name="received">How many answers have come in.</param>
    public string Say(LightState state, int received) =>
        state switch
        {
            LightState.SwitchedOff => "The light is off.",
            LightState.NotYetOpen => $"The light turns on automatically on {DateWords.Say(FirstDay!.Value)}.",
            LightState.Closed => $"The light turned off automatically after {DateWords.Say(LastDay!.Value)}.",
            LightState.Full => $"The light turned off automatically: {received} answers came in, and {MostAnswers} are taken.",
            _ => string.Join(
                "",
                [
                    "The light is on",
                    LastDay is { } last ? $" until {DateWords.Say(last)}" : "",
                    MostAnswers is { } most ? $", {received} of {most} answers are in" : "",
                    ".",
                ]
            ),
        };

    /// <summary>What has to be put right before the settings can be kept, by the place of each value.</summary>
    /// <param name="form">The form as it would be published, for the question the capacity looks at.</param>
    public IReadOnlyList<Finding> Check(FormContent form)
    {
        var found = new List<Finding>();
        Say(LastDay < FirstDay, "lastDay", "The last day is before the first one.");
        Say(MostAnswers < 1, "mostAnswers", "The form has to take at least one answer. To take none, turn its light off.");
        Say(
            Guard.LeastSeconds is < 0 or > SpamGuard.MostSeconds,
            "guard.leastSeconds",
            $"Between 0 and {SpamGuard.MostSeconds} seconds make sense here."
        );
        foreach (var site in EmbedOn)
            Say(
                !IsOrigin(site),
                "embedOn",
                $"“{site}” is not the address of a site. Write it like https://www.example.com, without a path."
            );
        if (Promise is { } promise)
            found.AddRange(promise.Check().Select(finding => finding with { Place = $"promise.{finding.Place}" }));
        if (Capacity is { } capacity)
        {
            Say(
                form.FindQuestion(capacity.Question)?.Kind is not (DateKind or DateRangeKind),
                "capacity.question",
                "Choose the question that asks for the day."
            );
            Say(capacity.Months.Any(month => month.Most < 0), "capacity.months", "The limit of a month is 0 or more.");
            Say(
                capacity.Months.Select(month => month.Month).Distinct().Count() != capacity.Months.Count,
                "capacity.months",
                "One month is named twice."
            );
        }

        return found;

        void Say(bool wrong, string place, string sentence)
        {
            if (wrong && found.All(one => one.Place != place))
                found.Add(new Finding(place, sentence));
        }
    }

    private static bool IsOrigin(string site) =>
        Uri.TryCreate(site, UriKind.Absolute, out var address)
        && address.Scheme is "http" or "https"
        && string.Equals(site, address.GetLeftPart(UriPartial.Authority), StringComparison.OrdinalIgnoreCase);
}
