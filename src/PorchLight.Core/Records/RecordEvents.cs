using NodaTime;
using PorchLight.Core.Calendar;

namespace PorchLight.Core.Records;

/// <summary>The answers of an inquiry landed.</summary>
[EventKind("answersLanded", EventBy.Program, rings: false, movesRuns: false, isPersonalWord: false, outlivesErasing: true)]
public sealed record AnswersLanded(int Fields, int Notes, int Differences) : DomainEvent
{
    /// <inheritdoc/>
    public override string Say(EventNames names) =>
        this is { Fields: 0, Notes: 0, Differences: 0 }
            ? "Nothing new was written into the records."
            : EventWords.Capital(
                string.Join(
                    "; ",
                    new[]
                    {
                        Fields == 0 ? null : $"{EventWords.Count(Fields, "answer")} written into the records",
                        Notes == 0 ? null : $"{EventWords.Count(Notes, "answer")} added to the notes",
                        Differences == 0
                            ? null
                            : $"{EventWords.Count(Differences, "answer")} {(Differences == 1 ? "differs" : "differ")} from what is on file, for you to settle",
                    }.OfType<string>()
                )
            ) + ".";
}

/// <summary>A person added the client by hand.</summary>
/// <param name="By">The user who did.</param>
[EventKind("clientAdded", EventBy.User, rings: false, movesRuns: false, isPersonalWord: false, outlivesErasing: false)]
public sealed record ClientAdded(Guid By) : DomainEvent
{
    /// <inheritdoc/>
    public override string Say(EventNames names) => $"{names.User(By)} added {names.Client} by hand.";
}

/// <summary>Somebody said how the business stands with the client.</summary>
/// <param name="To">The standing from then on.</param>
/// <param name="By">The user who did; null for a follow-through.</param>
[EventKind("standingSet", EventBy.ProgramOrUser, rings: false, movesRuns: false, isPersonalWord: false, outlivesErasing: true)]
public sealed record StandingSet(Standing To, Guid? By) : DomainEvent, IPerhapsByAUser
{
    /// <inheritdoc/>
    public override string Say(EventNames names) => $"{names.UserOrFollowThrough(By)} set the standing to {To.Say()}.";
}

/// <summary>A person wrote a note.</summary>
/// <param name="By">The user who did.</param>
[EventKind("noteWritten", EventBy.User, rings: false, movesRuns: false, isPersonalWord: false, outlivesErasing: false)]
public sealed record NoteWritten(Guid By) : DomainEvent
{
    /// <inheritdoc/>
    public override string Say(EventNames names) => $"{names.User(By)} wrote a note.";
}

/// <summary>A person settled what differed from what was on file.</summary>
/// <param name="Count">How many answers; at least one.</param>
/// <param name="By">The user who did.</param>
[EventKind("differencesSettled", EventBy.User, rings: false, movesRuns: false, isPersonalWord: false, outlivesErasing: false)]
public sealed record DifferencesSettled(int Count, Guid By) : DomainEvent
{
    /// <inheritdoc/>
    public override string Say(EventNames names) => $"{names.User(By)} settled {EventWords.Count(Count, "difference")}.";
}

/// <summary>A person took a settlement back.</summary>
/// <param name="By">The user who did.</param>
[EventKind("settlementTakenBack", EventBy.User, rings: false, movesRuns: false, isPersonalWord: false, outlivesErasing: false)]
public sealed record SettlementTakenBack(Guid By) : DomainEvent
{
    /// <inheritdoc/>
    public override string Say(EventNames names) => $"{names.User(By)} took back how a difference was settled.";
}

/// <summary>A person made one of two records of the client.</summary>
/// <param name="By">The user who did.</param>
[EventKind("clientsMerged", EventBy.User, rings: false, movesRuns: false, isPersonalWord: false, outlivesErasing: false)]
public sealed record ClientsMerged(Guid By) : DomainEvent
{
    /// <inheritdoc/>
    public override string Say(EventNames names) => $"{names.User(By)} made one of two records of {names.Client}.";
}

/// <summary>A person split a record again that was made of two.</summary>
/// <param name="By">The user who did.</param>
[EventKind("clientsSplit", EventBy.User, rings: false, movesRuns: false, isPersonalWord: false, outlivesErasing: false)]
public sealed record ClientsSplit(Guid By) : DomainEvent
{
    /// <inheritdoc/>
    public override string Say(EventNames names) => $"{names.User(By)} split the records of {names.Client} again.";
}

/// <summary>The client came out of a file.</summary>
/// <param name="By">The user who read it in.</param>
[EventKind("clientImported", EventBy.User, rings: false, movesRuns: false, isPersonalWord: false, outlivesErasing: false)]
public sealed record ClientImported(Guid By) : DomainEvent
{
    /// <inheritdoc/>
    public override string Say(EventNames names) => $"{names.User(By)} brought {names.Client} in from a file.";
}

/// <summary>Somebody's answers, values, files and mail were erased. It says nothing of whose.</summary>
/// <param name="By">The user who did; null where the keeping period of the business had ended.</param>
[EventKind("clientErased", EventBy.ProgramOrUser, rings: false, movesRuns: false, isPersonalWord: false, outlivesErasing: true)]
public sealed record ClientErased(Guid? By) : DomainEvent, IPerhapsByAUser
{
    /// <inheritdoc/>
    public override string Say(EventNames names) =>
        By is { } by ? $"{names.User(by)} erased a client." : "A client was erased: the time records are kept had ended.";
}

/// <summary>A person keeps the records of a client whose keeping period ends.</summary>
/// <param name="By">The user who did.</param>
[EventKind("clientKept", EventBy.User, rings: false, movesRuns: false, isPersonalWord: false, outlivesErasing: false)]
public sealed record ClientKept(Guid By) : DomainEvent
{
    /// <inheritdoc/>
    public override string Say(EventNames names) => $"{names.User(By)} keeps the records of {names.Client} for another while.";
}

/// <summary>A person gave a project another title.</summary>
/// <param name="By">The user who did.</param>
[EventKind("projectRenamed", EventBy.User, rings: false, movesRuns: false, isPersonalWord: false, outlivesErasing: false)]
public sealed record ProjectRenamed(Guid By) : DomainEvent
{
    /// <inheritdoc/>
    public override string Say(EventNames names) => $"{names.User(By)} gave a project another title.";
}

/// <summary>Somebody closed a project.</summary>
/// <param name="By">The user who did; null for a follow-through.</param>
/// <param name="Stage">The key of the stage it ended in; null in the time before projects had stages.</param>
[EventKind("projectClosed", EventBy.ProgramOrUser, rings: false, movesRuns: true, isPersonalWord: false, outlivesErasing: true)]
public sealed record ProjectClosed(Guid? By, string? Stage = null) : DomainEvent, IPerhapsByAUser, IReachesStage
{
    /// <summary>Why it will not come, of the business's list; null where nobody said.</summary>
    public string? Reason { get; init; }

    /// <inheritdoc/>
    public override string Say(EventNames names) =>
        this switch
        {
            { Stage: { } stage, Reason: { } reason } =>
                $"{names.UserOrFollowThrough(By)} closed a project: {names.Stage(stage)}, “{reason}”.",
            { Stage: { } stage } => $"{names.UserOrFollowThrough(By)} closed a project: {names.Stage(stage)}.",
            _ => $"{names.UserOrFollowThrough(By)} closed a project.",
        };
}

/// <summary>Somebody opened a closed project again.</summary>
/// <param name="By">The user who did; null for a follow-through.</param>
/// <param name="Stage">The key of the stage it stands in again; null in the time before projects had stages.</param>
[EventKind("projectReopened", EventBy.ProgramOrUser, rings: false, movesRuns: true, isPersonalWord: false, outlivesErasing: true)]
public sealed record ProjectReopened(Guid? By, string? Stage = null) : DomainEvent, IPerhapsByAUser, IReachesStage
{
    /// <inheritdoc/>
    public override string Say(EventNames names) =>
        Stage is { } stage
            ? $"{names.UserOrFollowThrough(By)} opened a project again: {names.Stage(stage)}."
            : $"{names.UserOrFollowThrough(By)} opened a project again.";
}

/// <summary>A person began a project by hand.</summary>
/// <param name="By">The user who did.</param>
[EventKind("projectBegun", EventBy.User, rings: false, movesRuns: false, isPersonalWord: false, outlivesErasing: true)]
public sealed record ProjectBegun(Guid By) : DomainEvent
{
    /// <inheritdoc/>
    public override string Say(EventNames names) => $"{names.User(By)} began a project.";
}

/// <summary>Somebody moved an open project to another stage, which does not close it.</summary>
/// <param name="Stage">The stage's key.</param>
/// <param name="By">The user who did; null for a follow-through.</param>
[EventKind("projectStageSet", EventBy.ProgramOrUser, rings: false, movesRuns: true, isPersonalWord: false, outlivesErasing: true)]
public sealed record ProjectStageSet(string Stage, Guid? By) : DomainEvent, IPerhapsByAUser, IReachesStage
{
    /// <summary>The day it comes back, of a stage where nothing happens; else null.</summary>
    public LocalDate? Until { get; init; }

    /// <inheritdoc/>
    public override string Say(EventNames names) =>
        Until is { } until
            ? $"{names.UserOrFollowThrough(By)} set the stage to {names.Stage(Stage)}, until {DateWords.Say(until)}."
            : $"{names.UserOrFollowThrough(By)} set the stage to {names.Stage(Stage)}.";
}

/// <summary>Somebody said who looks after a project.</summary>
/// <param name="To">The user who takes it over; null for nobody.</param>
/// <param name="By">The user who said so; null for a follow-through.</param>
[EventKind("projectGiven", EventBy.ProgramOrUser, rings: false, movesRuns: false, isPersonalWord: false, outlivesErasing: false)]
public sealed record ProjectGiven(Guid? To, Guid? By) : DomainEvent, IPerhapsByAUser
{
    /// <inheritdoc/>
    public override string Say(EventNames names) =>
        To switch
        {
            null => $"{names.UserOrFollowThrough(By)} gave a project back; nobody looks after it.",
            { } to when to == By => $"{names.UserOrFollowThrough(By)} looks after a project now.",
            { } to => $"{names.UserOrFollowThrough(By)} gave a project to {names.User(to)}.",
        };
}

/// <summary>A person did a task.</summary>
/// <param name="Title">What was to do.</param>
/// <param name="By">The user who said that it is done.</param>
[EventKind("taskDone", EventBy.User, rings: false, movesRuns: false, isPersonalWord: false, outlivesErasing: false)]
public sealed record TaskDone(string Title, Guid By) : DomainEvent
{
    /// <inheritdoc/>
    public override string Say(EventNames names) => $"{names.User(By)} did “{Title}”.";
}

/// <summary>A person made another of a client's people their main contact.</summary>
/// <param name="By">The user who did.</param>
[EventKind("mainContactChanged", EventBy.User, rings: false, movesRuns: false, isPersonalWord: false, outlivesErasing: false)]
public sealed record MainContactChanged(Guid By) : DomainEvent
{
    /// <inheritdoc/>
    public override string Say(EventNames names) => $"{names.User(By)} made {names.Client} the main contact.";
}

/// <summary>A person said whether a client always comes in, whatever would rule others out.</summary>
/// <param name="Always">Whether they do from then on.</param>
/// <param name="By">The user who said so.</param>
[EventKind("alwaysComesInSet", EventBy.User, rings: false, movesRuns: false, isPersonalWord: false, outlivesErasing: true)]
public sealed record AlwaysComesInSet(bool Always, Guid By) : DomainEvent
{
    /// <inheritdoc/>
    public override string Say(EventNames names) =>
        Always
            ? $"{names.User(By)} marked {names.Client} as always welcome."
            : $"{names.User(By)} marked {names.Client} as sorted like everyone else.";
}

/// <summary>The day came until which a project was parked, and it stands among the open ones again.</summary>
/// <param name="Stage">The key of the stage it came to.</param>
[EventKind("projectCameBack", EventBy.Program, rings: true, movesRuns: true, isPersonalWord: false, outlivesErasing: true)]
public sealed record ProjectCameBack(string Stage) : DomainEvent, IReachesStage
{
    /// <inheritdoc/>
    public override string Say(EventNames names) =>
        $"A project of {names.Client} was parked until today and is back: {names.Stage(Stage)}.";
}
