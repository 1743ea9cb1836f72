using NodaTime;
using PorchLight.Core.Fields;
using PorchLight.Core.Projects;
using PorchLight.Core.Records;

namespace PorchLight.Core.FollowThrough;

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

    /// <inheritdoc/>
    public override bool IsTheirDoing() => false;

    /// <summary>The day as a part of a sentence: "3 days are left to the day of “Start”".</summary>
    /// <param name="names">What those are called whom it names.</param>
    public override string Say(FollowThroughNames names)
    {
        var day = $"the day of “{names.Field(Field)}”";
        return Days switch
        {
            0 => $"{day} comes",
            < 0 => $"{FollowThroughWords.Span(-Days, TimeUnit.Days)} {(Days == -1 ? "is" : "are")} left to {day}",
            _ => $"{FollowThroughWords.Span(Days, TimeUnit.Days)} {(Days == 1 ? "has" : "have")} passed since {day}",
        };
    }

    /// <summary>What has to be put right where the field may be one of a record.</summary>
    /// <param name="scope">Which record's.</param>
    /// <param name="records">The records in words: "projects".</param>
    /// <param name="around">What it may name.</param>
    protected string? Check(RecordScope scope, string records, FollowThroughSurroundings around) =>
        !around.HasDate(Field, scope) ? $"Choose a field of {records} that holds a date."
        : Days is < -MostDays or > MostDays ? "A day is counted at most a year from the date."
        : null;
}
