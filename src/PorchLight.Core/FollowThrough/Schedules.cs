using System.Text.Json.Serialization;
using NodaTime;
using PorchLight.Core.Calendar;

namespace PorchLight.Core.FollowThrough;

/// <summary>From what a step's time is counted.</summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(RunStartAnchor), "runStart")]
[JsonDerivedType(typeof(PreviousSettledAnchor), "previousSettled")]
[JsonDerivedType(typeof(ProjectDateAnchor), "projectDate")]
public abstract record Anchor
{
    /// <summary>The instant the run started.</summary>
    public static Anchor RunStart { get; } = new RunStartAnchor();

    /// <summary>The instant the step before was settled: sent, done, skipped or lapsed.</summary>
    public static Anchor PreviousSettled { get; } = new PreviousSettledAnchor();

    /// <summary>The instant it stands for; null while nobody knows it.</summary>
    /// <param name="moments">What it may look at.</param>
    public abstract Instant? At(AnchorMoments moments);
}

/// <summary>What times of a run can be counted from.</summary>
/// <param name="Started">When the run started.</param>
/// <param name="Settled">When the step before was settled; for the first step when the run started.</param>
/// <param name="DayOf">The instant at which the sending window opens on the day that stands in a field of the project, or null.</param>
public sealed record AnchorMoments(Instant Started, Instant Settled, Func<string, Instant?> DayOf);

/// <summary>Counts from the instant the run started.</summary>
public sealed record RunStartAnchor : Anchor
{
    /// <inheritdoc/>
    public override Instant? At(AnchorMoments moments) => moments.Started;
}

/// <summary>Counts from the instant the step before was settled.</summary>
public sealed record PreviousSettledAnchor : Anchor
{
    /// <inheritdoc/>
    public override Instant? At(AnchorMoments moments) => moments.Settled;
}

/// <summary>Counts from a day of the project, from the time of day at which messages may first go.</summary>
/// <param name="Field">The key of the field the day stands in.</param>
public sealed record ProjectDateAnchor(string Field) : Anchor
{
    /// <inheritdoc/>
    public override Instant? At(AnchorMoments moments) => moments.DayOf(Field);
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
/// <param name="Amount">How much later; a negative amount is earlier, which only a day of the project can be counted from.</param>
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

    /// <summary>The same before it is held to the sending window.</summary>
    /// <param name="anchor">The instant it is counted from.</param>
    /// <param name="calendar">When the business works; days and hours are counted in its zone.</param>
    public Instant? Counted(Instant anchor, BusinessCalendar calendar)
    {
        var local = calendar.ToLocal(anchor);
        return (Math.Abs((long)Amount), Unit) switch
        {
            (0, _) => anchor,
            (<= LongestDays * NodaConstants.MinutesPerDay, TimeUnit.Minutes) => anchor + Duration.FromMinutes(Amount),
            (<= LongestDays * NodaConstants.HoursPerDay, TimeUnit.Hours) => anchor + Duration.FromHours(Amount),
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
