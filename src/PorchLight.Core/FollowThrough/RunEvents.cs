using PorchLight.Core.Records;

namespace PorchLight.Core.FollowThrough;

/// <summary>A follow-through began.</summary>
[EventKind("runStarted", EventBy.Program, rings: false, movesRuns: false, isPersonalWord: false, outlivesErasing: true)]
public sealed record RunStarted : DomainEvent
{
    /// <inheritdoc/>
    public override string Say(EventNames names) => $"“{names.FollowThrough}” began.";
}

/// <summary>A step waits for a nod.</summary>
/// <param name="Step">The step's key.</param>
/// <param name="Gaps">How many gaps its message has.</param>
[EventKind("nodAsked", EventBy.Program, rings: true, movesRuns: false, isPersonalWord: false, outlivesErasing: false)]
public sealed record NodAsked(string Step, int Gaps) : DomainEvent
{
    /// <inheritdoc/>
    public override string Say(EventNames names) =>
        Gaps == 0
            ? $"“{names.Step(Step)}” waits for your nod."
            : $"“{names.Step(Step)}” waits for your nod, with {EventWords.Count(Gaps, "gap")} to fill.";
}

/// <summary>A person passed a step over.</summary>
/// <param name="Step">The step's key.</param>
/// <param name="By">The user who did.</param>
[EventKind("stepSkipped", EventBy.User, rings: false, movesRuns: false, isPersonalWord: false, outlivesErasing: false)]
public sealed record StepSkipped(string Step, Guid By) : DomainEvent
{
    /// <inheritdoc/>
    public override string Say(EventNames names) => $"{names.User(By)} skipped “{names.Step(Step)}”.";
}

/// <summary>A person took a skip back.</summary>
/// <param name="Step">The step's key.</param>
/// <param name="By">The user who did.</param>
[EventKind("skipTakenBack", EventBy.User, rings: false, movesRuns: false, isPersonalWord: false, outlivesErasing: false)]
public sealed record SkipTakenBack(string Step, Guid By) : DomainEvent
{
    /// <inheritdoc/>
    public override string Say(EventNames names) => $"{names.User(By)} took it back: “{names.Step(Step)}” waits again.";
}

/// <summary>A person took their nod back before the step took effect.</summary>
/// <param name="Step">The step's key.</param>
/// <param name="By">The user who did.</param>
[EventKind("nodTakenBack", EventBy.User, rings: false, movesRuns: false, isPersonalWord: false, outlivesErasing: false)]
public sealed record NodTakenBack(string Step, Guid By) : DomainEvent
{
    /// <inheritdoc/>
    public override string Say(EventNames names) => $"{names.User(By)} took the nod to “{names.Step(Step)}” back.";
}

/// <summary>Nobody nodded in time.</summary>
/// <param name="Step">The step's key.</param>
[EventKind("stepLapsed", EventBy.Program, rings: true, movesRuns: false, isPersonalWord: false, outlivesErasing: false)]
public sealed record StepLapsed(string Step) : DomainEvent
{
    /// <inheritdoc/>
    public override string Say(EventNames names) => $"“{names.Step(Step)}” lapsed: nobody nodded in time.";
}

/// <summary>What ended a run before its last step.</summary>
public enum RunEnd
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

    /// <summary>The inquiry was set aside, as spam or as a test.</summary>
    SetAside,

    /// <summary>The project came to a stage that ends it.</summary>
    StageMoved,

    /// <summary>The meeting was moved.</summary>
    MeetingMoved,

    /// <summary>The meeting was cancelled.</summary>
    MeetingCancelled,

    /// <summary>The person did not come to the meeting.</summary>
    MeetingMissed,

    /// <summary>Who had left a form half-finished went on with it, or its answers are not kept any more.</summary>
    WentOn,
}

/// <summary>A run was ended before its last step.</summary>
/// <param name="Why">What ended it.</param>
/// <param name="Cancelled">How many steps were still pending.</param>
[EventKind("runStopped", EventBy.Program, rings: false, movesRuns: false, isPersonalWord: false, outlivesErasing: true)]
public sealed record RunStopped(RunEnd Why, int Cancelled) : DomainEvent
{
    /// <inheritdoc/>
    public override string Say(EventNames names) =>
        $"“{names.FollowThrough}” stopped because {Because(names.Client)}; {(Cancelled == 0 ? "nothing was pending" : EventWords.Count(Cancelled, "step") + " cancelled")}.";

    private string Because(string who) =>
        Why switch
        {
            RunEnd.Replied => $"{who} answered",
            RunEnd.Booked => $"{who} booked",
            RunEnd.Closed => "it was closed",
            RunEnd.ByHand => "stopped by hand",
            RunEnd.SetAside => "the inquiry was set aside",
            RunEnd.StageMoved => "the project came to another stage",
            RunEnd.MeetingMoved => "the meeting was moved",
            RunEnd.MeetingCancelled => "the meeting was cancelled",
            RunEnd.MeetingMissed => $"{who} did not come to the meeting",
            RunEnd.WentOn => "the form is not left half-finished any more",
            _ => "another journey began",
        };
}

/// <summary>A run came to its end.</summary>
[EventKind("runFinished", EventBy.Program, rings: false, movesRuns: false, isPersonalWord: false, outlivesErasing: true)]
public sealed record RunFinished : DomainEvent
{
    /// <inheritdoc/>
    public override string Say(EventNames names) => $"“{names.FollowThrough}” came to its end.";
}

/// <summary>A person held a run back.</summary>
/// <param name="By">The user who did.</param>
[EventKind("runPaused", EventBy.User, rings: false, movesRuns: false, isPersonalWord: false, outlivesErasing: false)]
public sealed record RunPaused(Guid By) : DomainEvent
{
    /// <inheritdoc/>
    public override string Say(EventNames names) => $"{names.User(By)} held “{names.FollowThrough}” back.";
}

/// <summary>A person let a paused run go on.</summary>
/// <param name="By">The user who did.</param>
[EventKind("runResumed", EventBy.User, rings: false, movesRuns: false, isPersonalWord: false, outlivesErasing: false)]
public sealed record RunResumed(Guid By) : DomainEvent
{
    /// <inheritdoc/>
    public override string Say(EventNames names) => $"{names.User(By)} let “{names.FollowThrough}” go on.";
}

/// <summary>A person moved a run to a newer version of its follow-through.</summary>
/// <param name="Version">The number of the version it follows from then on.</param>
/// <param name="By">The user who did.</param>
[EventKind("runMoved", EventBy.User, rings: false, movesRuns: false, isPersonalWord: false, outlivesErasing: false)]
public sealed record RunMoved(int Version, Guid By) : DomainEvent
{
    /// <inheritdoc/>
    public override string Say(EventNames names) =>
        $"{names.User(By)} moved {names.Client} to version {Version} of “{names.FollowThrough}”.";
}

/// <summary>A step of a run failed so often that it is not tried again by itself.</summary>
/// <param name="Step">The step's key.</param>
[EventKind("runFailed", EventBy.Program, rings: true, movesRuns: false, isPersonalWord: false, outlivesErasing: false)]
public sealed record RunFailed(string Step) : DomainEvent
{
    /// <inheritdoc/>
    public override string Say(EventNames names) => $"“{names.Step(Step)}” failed again and again, and needs someone to look.";
}

/// <summary>A step other than a message took effect.</summary>
/// <param name="Step">The step's key.</param>
/// <param name="By">The user who nodded to it or had it done; null when it came by itself.</param>
[EventKind("stepDone", EventBy.ProgramOrUser, rings: false, movesRuns: false, isPersonalWord: false, outlivesErasing: false)]
public sealed record StepDone(string Step, Guid? By) : DomainEvent, IPerhapsByAUser
{
    /// <inheritdoc/>
    public override string Say(EventNames names) =>
        By is { } by ? $"{names.User(by)} had “{names.Step(Step)}” done." : $"“{names.Step(Step)}” was done automatically.";
}

/// <summary>What a run waited for did not happen in time.</summary>
/// <param name="Step">The step's key.</param>
[EventKind("waitedInVain", EventBy.Program, rings: false, movesRuns: false, isPersonalWord: false, outlivesErasing: false)]
public sealed record WaitedInVain(string Step) : DomainEvent
{
    /// <inheritdoc/>
    public override string Say(EventNames names) => $"The time of “{names.Step(Step)}” was over.";
}

/// <summary>A message goes on a later day, because another went by itself to the same person that day.</summary>
/// <param name="Step">The step's key.</param>
[EventKind("messageMoved", EventBy.Program, rings: false, movesRuns: false, isPersonalWord: false, outlivesErasing: false)]
public sealed record MessageMoved(string Step) : DomainEvent
{
    /// <inheritdoc/>
    public override string Say(EventNames names) =>
        $"“{names.Step(Step)}” waits until another day: {names.Client} was sent one automatic message today.";
}
