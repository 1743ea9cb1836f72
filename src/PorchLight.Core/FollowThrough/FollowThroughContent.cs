using System.Text.Json.Serialization;
using NodaTime;
using PorchLight.Core.Calendar;
using PorchLight.Core.Conditions;
using PorchLight.Core.Messages;
using PorchLight.Core.Records;

namespace PorchLight.Core.FollowThrough;

/// <summary>A dated sequence of steps that starts on an event and stops on another: what one version keeps.</summary>
/// <param name="Name">What the owner calls it.</param>
/// <param name="Starts">What starts it.</param>
/// <param name="Steps">In order; each is planned when the one before is settled. At least one.</param>
/// <param name="Stops">The events that end a run.</param>
/// <param name="LapseAfterDays">After so many days an unanswered nod lapses; at least 1.</param>
public sealed record FollowThroughContent(
    string Name,
    StartOn Starts,
    IReadOnlyList<Step> Steps,
    IReadOnlyList<StopOn> Stops,
    int LapseAfterDays = 14
)
{
    /// <summary>The step with the key.</summary>
    /// <param name="key">The key, case counts.</param>
    /// <exception cref="InvalidOperationException">There is no such step.</exception>
    public Step Step(string key) => Steps.First(step => step.Key == key);
}

/// <summary>What starts a follow-through. A new way to start is one more kind here; the planner does not know them apart.</summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(InquiryStart), "inquiry")]
public abstract record StartOn
{
    /// <summary>Whether an event starts it.</summary>
    /// <param name="happened">What happened.</param>
    public abstract bool IsStartedBy(DomainEvent happened);

    /// <summary>How much it asks for: of several that an event could start, the one that asks for most is meant.</summary>
    [JsonIgnore]
    public abstract int Precision { get; }
}

/// <summary>Starts on an inquiry that begins a piece of work of its own; one that joins a project that is open starts nothing.</summary>
/// <param name="Form">The identifier of the form, or null for any.</param>
/// <param name="Fits">The fits it starts with; empty for any, also for inquiries of a form that sorts nothing.</param>
public sealed record InquiryStart(Guid? Form, IReadOnlyList<Fit> Fits) : StartOn
{
    /// <inheritdoc/>
    public override bool IsStartedBy(DomainEvent happened) =>
        happened is InquiryReceived { Joined: false } received
        && (Form is null || Form == received.Form)
        && (Fits.Count == 0 || (received.Fit is { } sorted && Fits.Contains(sorted)));

    /// <inheritdoc/>
    [JsonIgnore]
    public override int Precision => (Form is null ? 0 : 2) + (Fits.Count == 0 ? 0 : 1);
}

/// <summary>
/// An event that ends the runs of a follow-through, beside what ends every run: another journey, a closed inquiry, a
/// person.
/// </summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(RepliedStop), "replied")]
[JsonDerivedType(typeof(BookedStop), "booked")]
public abstract record StopOn
{
    /// <summary>The person replied.</summary>
    public static StopOn Replied { get; } = new RepliedStop();

    /// <summary>The person booked a meeting.</summary>
    public static StopOn Booked { get; } = new BookedStop();

    /// <summary>The end it brings about.</summary>
    [JsonIgnore]
    public abstract RunEnd End { get; }
}

/// <summary>Ends a run when the person replied.</summary>
public sealed record RepliedStop : StopOn
{
    /// <inheritdoc/>
    [JsonIgnore]
    public override RunEnd End => RunEnd.Replied;
}

/// <summary>Ends a run when the person booked a meeting.</summary>
public sealed record BookedStop : StopOn
{
    /// <inheritdoc/>
    [JsonIgnore]
    public override RunEnd End => RunEnd.Booked;
}

/// <summary>What follow-throughs an event starts and ends.</summary>
public static class FollowThroughs
{
    /// <summary>
    /// The follow-through an event starts, or null: one journey a person, so of several it is the one that asks for most, and
    /// among those the oldest.
    /// </summary>
    /// <param name="live">The newest version of each that is switched on, oldest follow-through first.</param>
    /// <param name="happened">What happened.</param>
    /// <param name="contentOf">What a version holds.</param>
    public static T? StartedBy<T>(IEnumerable<T> live, DomainEvent happened, Func<T, FollowThroughContent> contentOf)
        where T : class =>
        live.Where(one => contentOf(one).Starts.IsStartedBy(happened))
            .OrderByDescending(one => contentOf(one).Starts.Precision)
            .FirstOrDefault();

    /// <summary>Whether the runs of a follow-through end in this way: what is not for each to choose ends them all.</summary>
    /// <param name="content">The follow-through.</param>
    /// <param name="end">How the runs would end. A reply and a booking end only those that say so.</param>
    public static bool EndsOn(this FollowThroughContent content, RunEnd end) =>
        end is not (RunEnd.Replied or RunEnd.Booked) || content.Stops.Any(stop => stop.End == end);
}

/// <summary>One step.</summary>
/// <param name="Key">Names it within the follow-through, also across versions.</param>
/// <param name="Name">What the owner calls it.</param>
/// <param name="Action">What it does.</param>
/// <param name="Schedule">When it is due.</param>
/// <param name="NeedsNod">Whether a person looks before it takes effect; otherwise it is automatic.</param>
public sealed record Step(string Key, string Name, StepAction Action, Schedule Schedule, bool NeedsNod);

/// <summary>What a step does.</summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(SendMessage), "sendMessage")]
public abstract record StepAction;

/// <summary>Sends a message by mail.</summary>
/// <param name="Message">The message; a step that needs no nod has none with gaps.</param>
public sealed record SendMessage(MessageTemplate Message) : StepAction;

/// <summary>From what a step's time is counted.</summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(RunStartAnchor), "runStart")]
[JsonDerivedType(typeof(PreviousSettledAnchor), "previousSettled")]
public abstract record Anchor
{
    /// <summary>The instant the run started.</summary>
    public static Anchor RunStart { get; } = new RunStartAnchor();

    /// <summary>The instant the step before was settled: sent, done, skipped or lapsed.</summary>
    public static Anchor PreviousSettled { get; } = new PreviousSettledAnchor();

    /// <summary>The instant it stands for.</summary>
    /// <param name="started">When the run started.</param>
    /// <param name="settled">When the step before was settled; for the first step when the run started.</param>
    public abstract Instant At(Instant started, Instant settled);
}

/// <summary>Counts from the instant the run started.</summary>
public sealed record RunStartAnchor : Anchor
{
    /// <inheritdoc/>
    public override Instant At(Instant started, Instant settled) => started;
}

/// <summary>Counts from the instant the step before was settled.</summary>
public sealed record PreviousSettledAnchor : Anchor
{
    /// <inheritdoc/>
    public override Instant At(Instant started, Instant settled) => settled;
}

/// <summary>A unit of time between steps.</summary>
public enum TimeUnit
{
    /// <summary>Elapsed minutes.</summary>
    Minutes,

    /// <summary>Elapsed hours.</summary>
    Hours,

    /// <summary>Calendar days at the same time of day.</summary>
    Days,

    /// <summary>Working days at the same time of day; the start day is not counted.</summary>
    WorkingDays,

    /// <summary>Weeks at the same time of day.</summary>
    Weeks,

    /// <summary>Months at the same time of day, clamped to the month's end.</summary>
    Months,
}

/// <summary>When a step is due.</summary>
/// <param name="Anchor">From what it is counted.</param>
/// <param name="Amount">How much later; not negative.</param>
/// <param name="Unit">In which unit.</param>
/// <param name="AtOnce">Whether it goes at any hour; otherwise it is held to the sending window.</param>
public sealed record Schedule(Anchor Anchor, int Amount, TimeUnit Unit, bool AtOnce = false)
{
    /// <summary>No wait is longer: ten years, in days.</summary>
    public const int LongestDays = 3653;

    /// <summary>
    /// The instant counted from the anchor's, held to the window unless at once; null when no working day comes, or when
    /// the wait is longer than ten years.
    /// </summary>
    /// <param name="anchor">The instant it is counted from.</param>
    /// <param name="calendar">When the business works; days and hours are counted in its zone.</param>
    /// <param name="window">When messages may go; not looked at by what goes at once.</param>
    public Instant? Due(Instant anchor, BusinessCalendar calendar, SendingWindow window) =>
        Counted(anchor, calendar) is { } instant && !AtOnce ? calendar.HoldTo(window, instant) : Counted(anchor, calendar);

    private Instant? Counted(Instant anchor, BusinessCalendar calendar)
    {
        var local = calendar.ToLocal(anchor);
        return (Amount, Unit) switch
        {
            (0, _) => anchor,
            (var minutes, TimeUnit.Minutes) when minutes <= LongestDays * NodaConstants.MinutesPerDay => anchor
                + Duration.FromMinutes(minutes),
            (var hours, TimeUnit.Hours) when hours <= LongestDays * NodaConstants.HoursPerDay => anchor + Duration.FromHours(hours),
            (<= LongestDays, TimeUnit.Days) => calendar.ToInstant(local.PlusDays(Amount)),
            (<= LongestDays / 7, TimeUnit.Weeks) => calendar.ToInstant(local.PlusWeeks(Amount)),
            (<= LongestDays / 30, TimeUnit.Months) => calendar.ToInstant(local.PlusMonths(Amount)),
            (<= LongestDays, TimeUnit.WorkingDays) when calendar.WorkingDaysAfter(local.Date, Amount) is { } day => calendar.ToInstant(
                day + local.TimeOfDay
            ),
            _ => null,
        };
    }
}
