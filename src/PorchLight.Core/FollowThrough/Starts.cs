using System.Text.Json.Serialization;
using NodaTime;
using PorchLight.Core.Common;
using PorchLight.Core.Conditions;
using PorchLight.Core.Inquiries;
using PorchLight.Core.Messages;
using PorchLight.Core.Projects;
using PorchLight.Core.Records;

namespace PorchLight.Core.FollowThrough;

/// <summary>What starts a follow-through. A new way to start is one more kind here; the planner does not know them apart.</summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(InquiryStart), "inquiry")]
[JsonDerivedType(typeof(BookedStart), "booked")]
[JsonDerivedType(typeof(RepliedStart), "replied")]
[JsonDerivedType(typeof(StageStart), "stage")]
[JsonDerivedType(typeof(LeftUnfinishedStart), "leftUnfinished")]
[JsonDerivedType(typeof(ProjectDateStart), "projectDate")]
[JsonDerivedType(typeof(YearlyDateStart), "yearlyDate")]
[JsonDerivedType(typeof(ByHandStart), "byHand")]
public abstract record StartOn
{
    /// <summary>Whether an event starts it.</summary>
    /// <param name="happened">What happened.</param>
    /// <param name="facts">What is known of the piece of work it happened to.</param>
    public abstract bool IsStartedBy(DomainEvent happened, IRunFacts facts);

    /// <summary>The identifier of the one form whose answers are there when it starts; null where that may be any, or none.</summary>
    [JsonIgnore]
    public virtual Guid? FormAsked => null;

    /// <summary>How much it asks for: of several that an event could start, the one that asks for most is meant.</summary>
    [JsonIgnore]
    public virtual int Precision => 0;
}

/// <summary>
/// Starts on an inquiry that begins a piece of work of its own; one that joins a project that is open starts nothing. Whom the form said
/// no to starts only what is written for those who are not to come now.
/// </summary>
/// <param name="Form">The identifier of the form, or null for any.</param>
/// <param name="Fits">The fits it starts with; empty for any, also for inquiries of a form that sorts nothing.</param>
public sealed record InquiryStart(Guid? Form, IReadOnlyList<Fit> Fits) : StartOn
{
    /// <inheritdoc/>
    [JsonIgnore]
    public override Guid? FormAsked => Form;

    /// <summary>The key of the service the inquiry has to be about; null for any.</summary>
    public string? Service { get; init; }

    /// <summary>What has to be true for certain of its answers; null for nothing.</summary>
    public Condition? Condition { get; init; }

    /// <inheritdoc/>
    public override bool IsStartedBy(DomainEvent happened, IRunFacts facts) =>
        happened is InquiryReceived received
        && Takes(received, facts.Service)
        && (Condition is null || facts.Judge(Condition) == Truth.True);

    /// <summary>Whether an inquiry is one it is meant for, whatever was answered: <see cref="Condition"/> is left aside.</summary>
    /// <param name="received">The inquiry.</param>
    /// <param name="service">The key of the service it is about; null for none.</param>
    public bool Takes(InquiryReceived received, string? service) =>
        received is { Joined: false, StartsNothing: false }
        && (!received.TurnedAway || Fits.Contains(Fit.NotNow))
        && (Form is null || Form == received.Form)
        && (Fits.Count == 0 || (received.Fit is { } sorted && Fits.Contains(sorted)))
        && (Service is null || Service == service);

    /// <inheritdoc/>
    [JsonIgnore]
    public override int Precision =>
        (Form is null ? 0 : 8) + (Condition is null ? 0 : 4) + (Service is null ? 0 : 2) + (Fits.Count == 0 ? 0 : 1);
}

/// <summary>Starts when the person books a meeting.</summary>
public sealed record BookedStart : StartOn
{
    /// <inheritdoc/>
    public override bool IsStartedBy(DomainEvent happened, IRunFacts facts) => happened is MeetingBooked;
}

/// <summary>Starts when the person replies.</summary>
public sealed record RepliedStart : StartOn
{
    /// <inheritdoc/>
    public override bool IsStartedBy(DomainEvent happened, IRunFacts facts) => happened is ReplyReceived;
}

/// <summary>Starts when a project comes to one of some stages.</summary>
/// <param name="Stages">The keys of the stages; at least one.</param>
public sealed record StageStart(IReadOnlyList<string> Stages) : StartOn
{
    /// <inheritdoc/>
    public override bool IsStartedBy(DomainEvent happened, IRunFacts facts) =>
        happened.StageReached() is { } stage && Stages.Contains(stage);
}

/// <summary>
/// Starts when somebody has left a form half-finished and has not come back for some hours. Nobody is a client by that: only what needs
/// none can follow, and they were told of one mail at most.
/// </summary>
/// <param name="Form">The identifier of the form, or null for any.</param>
/// <param name="Hours">After how many hours; from 1 to <see cref="MostHours"/>.</param>
public sealed record LeftUnfinishedStart(Guid? Form, int Hours) : StartOn
{
    /// <inheritdoc/>
    [JsonIgnore]
    public override Guid? FormAsked => Form;

    /// <summary>Nobody is waited for longer: the answers are kept for some weeks only.</summary>
    public const int MostHours = 24 * 14;

    /// <summary>
    /// Whether it is time. Who is away for a day longer is left alone: they were when it was not in force yet, or the program did not run.
    /// </summary>
    /// <param name="form">The identifier of the form that was left.</param>
    /// <param name="away">How long nothing was added to it.</param>
    public bool IsStartedBy(Guid form, Duration away) =>
        (Form is null || Form == form) && away >= Duration.FromHours(Hours) && away < Duration.FromHours(Hours + 24);

    /// <inheritdoc/>
    public override bool IsStartedBy(DomainEvent happened, IRunFacts facts) => false;

    /// <inheritdoc/>
    [JsonIgnore]
    public override int Precision => Form is null ? 0 : 1;
}

/// <summary>Starts on a day that is counted from one that stands in a field.</summary>
/// <param name="Field">The key of the field.</param>
/// <param name="Days">How many days later; negative for earlier. At most a year either way.</param>
public abstract record DatedStart(string Field, int Days) : StartOn
{
    /// <summary>It is counted no further.</summary>
    public const int MostDays = 366;

    /// <summary>A start that was missed for longer, because the program was not running, is not caught up with.</summary>
    public const int DaysCaughtUp = 7;

    /// <summary>The first day that is still to be asked what starts on it.</summary>
    /// <param name="last">The last day that was; null where none was, so that only today is.</param>
    /// <param name="today">Today.</param>
    /// <returns>The day after today where nothing is left to ask.</returns>
    public static LocalDate FirstDay(LocalDate? last, LocalDate today) =>
        last is { } asked ? LocalDate.Max(asked.PlusDays(1), today.PlusDays(1 - DaysCaughtUp)) : today;

    /// <summary>Whether anybody is followed up on a day: not a client who was archived, nor about work that was lost.</summary>
    /// <param name="standing">How the client stands.</param>
    /// <param name="stage">Of what kind the stage of the project is whose day it is; null for a day of the client.</param>
    public static bool Concerns(Standing standing, StageKind? stage) => standing != Standing.Archived && stage != StageKind.Lost;

    /// <summary>Whether it starts on a day.</summary>
    /// <param name="date">What stands in the field.</param>
    /// <param name="day">The day.</param>
    public abstract bool Comes(LocalDate date, LocalDate day);

    /// <inheritdoc/>
    public override bool IsStartedBy(DomainEvent happened, IRunFacts facts) => false;
}

/// <summary>Starts on a day counted from one of a project.</summary>
/// <param name="Field">The key of a field of projects that holds a date.</param>
/// <param name="Days">How many days later; negative for earlier.</param>
public sealed record ProjectDateStart(string Field, int Days) : DatedStart(Field, Days)
{
    /// <summary>So many days after a start that was missed somebody is still told of it.</summary>
    public const int DaysTold = 30;

    /// <summary>
    /// The day on which it should have started, where that has gone by: told for <see cref="DaysTold"/> days, and until the date itself.
    /// </summary>
    /// <param name="date">What stands in the field.</param>
    /// <param name="last">The last day on which it was asked what starts; null where none was yet, and nothing is missed.</param>
    /// <returns>Null where the day is still to come, or too long ago to matter.</returns>
    public LocalDate? Missed(LocalDate date, LocalDate? last)
    {
        var day = date.PlusDays(Days);
        return day <= last && last <= LocalDate.Max(date, day.PlusDays(DaysTold)) ? day : null;
    }

    /// <inheritdoc/>
    public override bool Comes(LocalDate date, LocalDate day) => day.PlusDays(-Days) == date;
}

/// <summary>
/// Starts each year on a day counted from the same day of a person: a birthday, the day they became a client. The first time a year after
/// the day itself; 29 February is kept on the 28th in years without one (<see cref="AnnualDate"/>).
/// </summary>
/// <param name="Field">The key of a field of clients that holds a date.</param>
/// <param name="Days">How many days later; negative for earlier.</param>
public sealed record YearlyDateStart(string Field, int Days) : DatedStart(Field, Days)
{
    /// <inheritdoc/>
    public override bool Comes(LocalDate date, LocalDate day)
    {
        var counted = day.PlusDays(-Days);
        return counted.Year > date.Year && new AnnualDate(date.Month, date.Day).InYear(counted.Year) == counted;
    }
}

/// <summary>Starts only when a person, or a step of another, starts it.</summary>
public sealed record ByHandStart : StartOn
{
    /// <inheritdoc/>
    public override bool IsStartedBy(DomainEvent happened, IRunFacts facts) => false;
}

/// <summary>What follow-throughs an event starts, and what ends where one starts.</summary>
public static class FollowThroughs
{
    /// <summary>
    /// Whether a run that is under way ends where a follow-through starts for the same person: one journey a person, so only where both may
    /// run beside others it goes on. The same follow-through for the same piece of work begins anew instead of running twice.
    /// </summary>
    /// <param name="running">What the run follows, in the version it follows.</param>
    /// <param name="next">What starts.</param>
    /// <param name="isSame">Whether it is the same follow-through, in whichever version, for the same piece of work.</param>
    public static bool Ends(FollowThroughContent running, FollowThroughContent next, bool isSame) =>
        isSame || !(running.SideBySide && next.SideBySide);

    /// <summary>
    /// The follow-throughs an event starts: one journey a person, so of several it is the one that asks for most, and among those
    /// the oldest. Only where that one may run beside others, all that may do so start with it.
    /// </summary>
    /// <param name="live">The newest version of each that is switched on, oldest follow-through first.</param>
    /// <param name="happened">What happened.</param>
    /// <param name="facts">What is known of the piece of work it happened to.</param>
    /// <param name="contentOf">What a version holds.</param>
    /// <returns>In the order given; empty where nothing starts.</returns>
    public static IReadOnlyList<T> StartedBy<T>(
        IEnumerable<T> live,
        DomainEvent happened,
        IRunFacts facts,
        Func<T, FollowThroughContent> contentOf
    )
        where T : class => Of([.. live.Where(one => contentOf(one).Starts.IsStartedBy(happened, facts))], contentOf);

    /// <summary>Of those that could start at one moment the ones that do: as above.</summary>
    /// <param name="started">Those that could, oldest follow-through first.</param>
    /// <param name="contentOf">What a version holds.</param>
    /// <returns>In the order given; empty where nothing starts.</returns>
    public static IReadOnlyList<T> Of<T>(IReadOnlyList<T> started, Func<T, FollowThroughContent> contentOf)
        where T : class
    {
        return First(started, contentOf) is not { } first ? []
            : contentOf(first).SideBySide ? [.. started.Where(one => contentOf(one).SideBySide)]
            : [first];
    }

    /// <summary>The one that goes before all others: it asks for most, and among those that do it is the oldest.</summary>
    /// <param name="started">Those that could start, oldest follow-through first.</param>
    /// <param name="contentOf">What a version holds.</param>
    /// <returns>Null where nothing could.</returns>
    public static T? First<T>(IReadOnlyList<T> started, Func<T, FollowThroughContent> contentOf)
        where T : class => started.MaxBy(one => contentOf(one).Starts.Precision);
}
