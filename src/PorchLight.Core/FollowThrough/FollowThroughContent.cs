using System.Text.Json.Serialization;
using NodaTime;
using PorchLight.Core.Calendar;
using PorchLight.Core.Messages;
using PorchLight.Core.Screening;

namespace PorchLight.Core.FollowThrough;

/// <summary>A dated sequence of steps that starts on an event and stops on another: what one version keeps.</summary>
/// <param name="Name">What the owner calls it.</param>
/// <param name="Starts">What starts it.</param>
/// <param name="Steps">In order; each is planned when the one before is settled. At least one.</param>
/// <param name="Stops">The events that end a run.</param>
/// <param name="LapseAfterDays">After so many days an unanswered nod lapses; at least 1.</param>
public sealed record FollowThroughContent(
    string Name, InquiryStart Starts, IReadOnlyList<Step> Steps, IReadOnlyList<StopOn> Stops, int LapseAfterDays = 14)
{
    /// <summary>The step with the key.</summary>
    /// <exception cref="InvalidOperationException">There is no such step.</exception>
    public Step Step(string key) => Steps.First(step => step.Key == key);
}

/// <summary>Starts on an inquiry.</summary>
/// <param name="Form">The identifier of the form, or null for any.</param>
/// <param name="Fits">The fits it starts with; empty for any.</param>
public sealed record InquiryStart(Guid? Form, IReadOnlyList<Fit> Fits)
{
    /// <summary>Whether an inquiry starts it; one of a form that sorts nothing starts only what is for any fit.</summary>
    public bool Matches(Guid form, Fit? fit) => (Form is null || Form == form) && (Fits.Count == 0 || (fit is { } sorted && Fits.Contains(sorted)));
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
public enum Anchor
{
    /// <summary>The instant the run started.</summary>
    RunStart,

    /// <summary>The instant the step before was settled: sent, done, skipped or lapsed.</summary>
    PreviousSettled,
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
    public Instant? Due(Instant anchor, BusinessCalendar calendar, SendingWindow window) =>
        Counted(anchor, calendar) is { } instant && !AtOnce ? calendar.HoldTo(window, instant) : Counted(anchor, calendar);

    private Instant? Counted(Instant anchor, BusinessCalendar calendar)
    {
        var local = calendar.ToLocal(anchor);
        return (Amount, Unit) switch
        {
            (0, _) => anchor,
            (var minutes, TimeUnit.Minutes) when minutes <= LongestDays * NodaConstants.MinutesPerDay => anchor + Duration.FromMinutes(minutes),
            (var hours, TimeUnit.Hours) when hours <= LongestDays * NodaConstants.HoursPerDay => anchor + Duration.FromHours(hours),
            (<= LongestDays, TimeUnit.Days) => calendar.ToInstant(local.PlusDays(Amount)),
            (<= LongestDays / 7, TimeUnit.Weeks) => calendar.ToInstant(local.PlusWeeks(Amount)),
            (<= LongestDays / 30, TimeUnit.Months) => calendar.ToInstant(local.PlusMonths(Amount)),
            (<= LongestDays, TimeUnit.WorkingDays) when calendar.WorkingDaysAfter(local.Date, Amount) is { } day => calendar.ToInstant(day + local.TimeOfDay),
            _ => null,
        };
    }
}

/// <summary>An event that ends a run.</summary>
public enum StopOn
{
    /// <summary>The person replied.</summary>
    Replied,

    /// <summary>The person booked a meeting.</summary>
    Booked,

    /// <summary>Another journey started for the same person.</summary>
    AnotherStarted,

    /// <summary>The inquiry was closed.</summary>
    Closed,

    /// <summary>A person stopped it.</summary>
    ByHand,
}
