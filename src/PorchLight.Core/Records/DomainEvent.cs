using System.Text.Json.Serialization;
using NodaTime;
using PorchLight.Core.Conditions;

namespace PorchLight.Core.Records;

/// <summary>Something that happened, kept for ever in the event log. The timeline, follow-throughs and the bell read it.</summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(InquiryReceived), "inquiryReceived")]
[JsonDerivedType(typeof(AnswersLanded), "answersLanded")]
[JsonDerivedType(typeof(RunStarted), "runStarted")]
[JsonDerivedType(typeof(NodAsked), "nodAsked")]
[JsonDerivedType(typeof(MessageSent), "messageSent")]
[JsonDerivedType(typeof(MessageNotSent), "messageNotSent")]
[JsonDerivedType(typeof(DeliveryFailed), "deliveryFailed")]
[JsonDerivedType(typeof(PerhapsDelivered), "perhapsDelivered")]
[JsonDerivedType(typeof(DeliverySettled), "deliverySettled")]
[JsonDerivedType(typeof(StepSkipped), "stepSkipped")]
[JsonDerivedType(typeof(SkipTakenBack), "skipTakenBack")]
[JsonDerivedType(typeof(StepLapsed), "stepLapsed")]
[JsonDerivedType(typeof(RunStopped), "runStopped")]
[JsonDerivedType(typeof(RunFinished), "runFinished")]
[JsonDerivedType(typeof(RunPaused), "runPaused")]
[JsonDerivedType(typeof(RunResumed), "runResumed")]
[JsonDerivedType(typeof(RunMoved), "runMoved")]
[JsonDerivedType(typeof(RunFailed), "runFailed")]
[JsonDerivedType(typeof(StepDone), "stepDone")]
[JsonDerivedType(typeof(WaitedInVain), "waitedInVain")]
[JsonDerivedType(typeof(MessageMoved), "messageMoved")]
[JsonDerivedType(typeof(ReplyReceived), "replyReceived")]
[JsonDerivedType(typeof(MeetingBooked), "meetingBooked")]
[JsonDerivedType(typeof(CallAsked), "callAsked")]
[JsonDerivedType(typeof(PlaceGiven), "placeGiven")]
[JsonDerivedType(typeof(AnsweredElsewhere), "answeredElsewhere")]
[JsonDerivedType(typeof(InquiryClosed), "inquiryClosed")]
[JsonDerivedType(typeof(InquiryReopened), "inquiryReopened")]
[JsonDerivedType(typeof(ClientAdded), "clientAdded")]
[JsonDerivedType(typeof(StandingSet), "standingSet")]
[JsonDerivedType(typeof(NoteWritten), "noteWritten")]
[JsonDerivedType(typeof(DifferencesSettled), "differencesSettled")]
[JsonDerivedType(typeof(SettlementTakenBack), "settlementTakenBack")]
[JsonDerivedType(typeof(ClientsMerged), "clientsMerged")]
[JsonDerivedType(typeof(ClientsSplit), "clientsSplit")]
[JsonDerivedType(typeof(ClientImported), "clientImported")]
[JsonDerivedType(typeof(ClientErased), "clientErased")]
[JsonDerivedType(typeof(ClientKept), "clientKept")]
[JsonDerivedType(typeof(ProjectRenamed), "projectRenamed")]
[JsonDerivedType(typeof(ProjectClosed), "projectClosed")]
[JsonDerivedType(typeof(ProjectReopened), "projectReopened")]
[JsonDerivedType(typeof(ProjectBegun), "projectBegun")]
[JsonDerivedType(typeof(ProjectStageSet), "projectStageSet")]
[JsonDerivedType(typeof(ProjectCameBack), "projectCameBack")]
[JsonDerivedType(typeof(FitOverruled), "fitOverruled")]
[JsonDerivedType(typeof(OverruleTakenBack), "overruleTakenBack")]
[JsonDerivedType(typeof(JudgedAgain), "judgedAgain")]
[JsonDerivedType(typeof(InquirySetAside), "inquirySetAside")]
[JsonDerivedType(typeof(InquiryPutBack), "inquiryPutBack")]
[JsonDerivedType(typeof(AlwaysComesInSet), "alwaysComesInSet")]
[JsonDerivedType(typeof(ProjectGiven), "projectGiven")]
[JsonDerivedType(typeof(TaskDone), "taskDone")]
[JsonDerivedType(typeof(AutomaticAnswerReceived), "automaticAnswerReceived")]
[JsonDerivedType(typeof(NodTakenBack), "nodTakenBack")]
[JsonDerivedType(typeof(NoteSent), "noteSent")]
[JsonDerivedType(typeof(Unsubscribed), "unsubscribed")]
[JsonDerivedType(typeof(MainContactChanged), "mainContactChanged")]
public abstract record DomainEvent;

/// <summary>A lead sent a form.</summary>
/// <param name="Form">The identifier of the form.</param>
/// <param name="Version">The version of the form they saw.</param>
/// <param name="Fit">How it was sorted; null for a form that sorts nothing.</param>
/// <param name="KnownBefore">Whether the client was known.</param>
/// <param name="Joined">Whether it joins a project that was open already.</param>
public sealed record InquiryReceived(Guid Form, int Version, Fit? Fit, bool KnownBefore, bool Joined) : DomainEvent
{
    /// <summary>How it reached the business.</summary>
    public InquiryChannel Channel { get; init; }

    /// <summary>The user who wrote it down; null where the lead sent it.</summary>
    public Guid? By { get; init; }

    /// <summary>Whether the form said no to them.</summary>
    public bool TurnedAway { get; init; }

    /// <summary>Whether no follow-through begins with it: somebody wrote it down and wants none.</summary>
    public bool StartsNothing { get; init; }
}

/// <summary>The answers of an inquiry landed.</summary>
public sealed record AnswersLanded(int Fields, int Notes, int Differences) : DomainEvent;

/// <summary>A follow-through began.</summary>
public sealed record RunStarted : DomainEvent;

/// <summary>A step waits for a nod.</summary>
/// <param name="Step">The step's key.</param>
/// <param name="Gaps">How many gaps its message has.</param>
public sealed record NodAsked(string Step, int Gaps) : DomainEvent;

/// <summary>A message was handed to the mail.</summary>
/// <param name="Subject">Its subject.</param>
/// <param name="Step">The key of the step it belongs to, or null when a person wrote it.</param>
/// <param name="By">The user who sent or approved it; null when it went by itself.</param>
public sealed record MessageSent(string Subject, string? Step, Guid? By) : DomainEvent;

/// <summary>A message could not be sent, because nobody left an address to send it to.</summary>
/// <param name="Subject">Its subject.</param>
/// <param name="TooMany">Whether it was held back because too many automatic messages went to that address within a day.</param>
public sealed record MessageNotSent(string Subject, bool TooMany = false) : DomainEvent
{
    /// <summary>What they have not permitted, where that is why.</summary>
    public Forbidden? NotPermitted { get; init; }
}

/// <summary>What somebody has not permitted.</summary>
public enum Forbidden
{
    /// <summary>News.</summary>
    News,

    /// <summary>Text messages.</summary>
    Texts,
}

/// <summary>A message could not be delivered and is not tried again by itself.</summary>
/// <param name="Subject">Its subject.</param>
/// <param name="Why">The reason, as a sentence.</param>
public sealed record DeliveryFailed(string Subject, string Why) : DomainEvent;

/// <summary>The hand-over of a message broke off so late that it may have arrived; it is not sent a second time by itself.</summary>
public sealed record PerhapsDelivered(string Subject) : DomainEvent;

/// <summary>A person decided about a message that failed or perhaps arrived.</summary>
/// <param name="Subject">Its subject.</param>
/// <param name="SentAgain">Whether it goes out once more; else it is left as it is.</param>
/// <param name="By">The user who decided.</param>
public sealed record DeliverySettled(string Subject, bool SentAgain, Guid By) : DomainEvent;

/// <summary>A person passed a step over.</summary>
/// <param name="Step">The step's key.</param>
/// <param name="By">The user who did.</param>
public sealed record StepSkipped(string Step, Guid By) : DomainEvent;

/// <summary>A person took a skip back.</summary>
/// <param name="Step">The step's key.</param>
/// <param name="By">The user who did.</param>
public sealed record SkipTakenBack(string Step, Guid By) : DomainEvent;

/// <summary>A person took their nod back before the step took effect.</summary>
/// <param name="Step">The step's key.</param>
/// <param name="By">The user who did.</param>
public sealed record NodTakenBack(string Step, Guid By) : DomainEvent;

/// <summary>Nobody nodded in time.</summary>
/// <param name="Step">The step's key.</param>
public sealed record StepLapsed(string Step) : DomainEvent;

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

    /// <summary>Who had left a form half-finished went on with it, or its answers are not kept any more.</summary>
    WentOn,
}

/// <summary>A run was ended before its last step.</summary>
/// <param name="Why">What ended it.</param>
/// <param name="Cancelled">How many steps were still pending.</param>
public sealed record RunStopped(RunEnd Why, int Cancelled) : DomainEvent;

/// <summary>A run came to its end.</summary>
public sealed record RunFinished : DomainEvent;

/// <summary>A person held a run back.</summary>
/// <param name="By">The user who did.</param>
public sealed record RunPaused(Guid By) : DomainEvent;

/// <summary>A person let a paused run go on.</summary>
/// <param name="By">The user who did.</param>
public sealed record RunResumed(Guid By) : DomainEvent;

/// <summary>A person moved a run to a newer version of its follow-through.</summary>
/// <param name="Version">The number of the version it follows from then on.</param>
/// <param name="By">The user who did.</param>
public sealed record RunMoved(int Version, Guid By) : DomainEvent;

/// <summary>A step of a run failed so often that it is not tried again by itself.</summary>
/// <param name="Step">The step's key.</param>
public sealed record RunFailed(string Step) : DomainEvent;

/// <summary>A step other than a message took effect.</summary>
/// <param name="Step">The step's key.</param>
/// <param name="By">The user who nodded to it or had it done; null when it came by itself.</param>
public sealed record StepDone(string Step, Guid? By) : DomainEvent;

/// <summary>What a run waited for did not happen in time.</summary>
/// <param name="Step">The step's key.</param>
public sealed record WaitedInVain(string Step) : DomainEvent;

/// <summary>A message goes on a later day, because another went by itself to the same person that day.</summary>
/// <param name="Step">The step's key.</param>
public sealed record MessageMoved(string Step) : DomainEvent;

/// <summary>A word came from the client: a message, or what they said elsewhere.</summary>
/// <param name="Subject">The subject of their message; null for what came by phone or in person.</param>
/// <param name="Text">Their words; null when nobody wrote them down.</param>
/// <param name="By">The user who wrote it down; null for a message that came by mail.</param>
public sealed record ReplyReceived(string? Subject, string? Text = null, Guid? By = null) : DomainEvent;

/// <summary>A text message, or a note on the client's page, was handed over.</summary>
/// <param name="Name">What its step is about: the subject it would have as a mail.</param>
/// <param name="Step">The step's key.</param>
/// <param name="IsText">Whether it was a text message; else a note.</param>
/// <param name="By">The user who approved it; null when it went by itself.</param>
public sealed record NoteSent(string Name, string Step, bool IsText, Guid? By) : DomainEvent;

/// <summary>The client said by the link in a message that they want no more news.</summary>
public sealed record Unsubscribed : DomainEvent;

/// <summary>A program answered for the client: an absence note, say. It is no reply.</summary>
/// <param name="Subject">Its subject.</param>
/// <param name="Text">Its words.</param>
public sealed record AutomaticAnswerReceived(string Subject, string Text) : DomainEvent;

/// <summary>A person answered the client in another way than by this program.</summary>
/// <param name="By">The user who says so.</param>
public sealed record AnsweredElsewhere(Guid By) : DomainEvent;

/// <summary>A person closed an inquiry.</summary>
/// <param name="By">The user who did.</param>
public sealed record InquiryClosed(Guid By) : DomainEvent;

/// <summary>A person opened a closed inquiry again.</summary>
/// <param name="By">The user who did.</param>
public sealed record InquiryReopened(Guid By) : DomainEvent;

/// <summary>A person added the client by hand.</summary>
/// <param name="By">The user who did.</param>
public sealed record ClientAdded(Guid By) : DomainEvent;

/// <summary>Somebody said how the business stands with the client.</summary>
/// <param name="To">The standing from then on.</param>
/// <param name="By">The user who did; null for a follow-through.</param>
public sealed record StandingSet(Standing To, Guid? By) : DomainEvent;

/// <summary>A person wrote a note.</summary>
/// <param name="By">The user who did.</param>
public sealed record NoteWritten(Guid By) : DomainEvent;

/// <summary>A person settled what differed from what was on file.</summary>
/// <param name="Count">How many answers; at least one.</param>
/// <param name="By">The user who did.</param>
public sealed record DifferencesSettled(int Count, Guid By) : DomainEvent;

/// <summary>A person took a settlement back.</summary>
/// <param name="By">The user who did.</param>
public sealed record SettlementTakenBack(Guid By) : DomainEvent;

/// <summary>A person made one of two records of the client.</summary>
/// <param name="By">The user who did.</param>
public sealed record ClientsMerged(Guid By) : DomainEvent;

/// <summary>A person split a record again that was made of two.</summary>
/// <param name="By">The user who did.</param>
public sealed record ClientsSplit(Guid By) : DomainEvent;

/// <summary>The client came out of a file.</summary>
/// <param name="By">The user who read it in.</param>
public sealed record ClientImported(Guid By) : DomainEvent;

/// <summary>Somebody's answers, values, files and mail were erased. It says nothing of whose.</summary>
/// <param name="By">The user who did; null where the keeping period of the business had ended.</param>
public sealed record ClientErased(Guid? By) : DomainEvent;

/// <summary>A person keeps the records of a client whose keeping period ends.</summary>
/// <param name="By">The user who did.</param>
public sealed record ClientKept(Guid By) : DomainEvent;

/// <summary>A person gave a project another title.</summary>
/// <param name="By">The user who did.</param>
public sealed record ProjectRenamed(Guid By) : DomainEvent;

/// <summary>Somebody closed a project.</summary>
/// <param name="By">The user who did; null for a follow-through.</param>
/// <param name="Stage">The key of the stage it ended in; null in the time before projects had stages.</param>
public sealed record ProjectClosed(Guid? By, string? Stage = null) : DomainEvent
{
    /// <summary>Why it will not come, of the business's list; null where nobody said.</summary>
    public string? Reason { get; init; }
}

/// <summary>Somebody opened a closed project again.</summary>
/// <param name="By">The user who did; null for a follow-through.</param>
/// <param name="Stage">The key of the stage it stands in again; null in the time before projects had stages.</param>
public sealed record ProjectReopened(Guid? By, string? Stage = null) : DomainEvent;

/// <summary>A person began a project by hand.</summary>
/// <param name="By">The user who did.</param>
public sealed record ProjectBegun(Guid By) : DomainEvent;

/// <summary>Somebody moved an open project to another stage, which does not close it.</summary>
/// <param name="Stage">The stage's key.</param>
/// <param name="By">The user who did; null for a follow-through.</param>
public sealed record ProjectStageSet(string Stage, Guid? By) : DomainEvent
{
    /// <summary>The day it comes back, of a stage where nothing happens; else null.</summary>
    public LocalDate? Until { get; init; }
}

/// <summary>Somebody said who looks after a project.</summary>
/// <param name="To">The user who takes it over; null for nobody.</param>
/// <param name="By">The user who said so; null for a follow-through.</param>
public sealed record ProjectGiven(Guid? To, Guid? By) : DomainEvent;

/// <summary>A person did a task.</summary>
/// <param name="Title">What was to do.</param>
/// <param name="By">The user who said that it is done.</param>
public sealed record TaskDone(string Title, Guid By) : DomainEvent;

/// <summary>A person made another of a client's people their main contact.</summary>
/// <param name="By">The user who did.</param>
public sealed record MainContactChanged(Guid By) : DomainEvent;

/// <summary>The client booked a meeting.</summary>
public sealed record MeetingBooked : DomainEvent;

/// <summary>The lead asked for a call at the end of the form.</summary>
public sealed record CallAsked : DomainEvent;

/// <summary>Somebody on a waiting list got a place.</summary>
/// <param name="Month">The month.</param>
/// <param name="By">The user who gave it.</param>
public sealed record PlaceGiven(YearMonth Month, Guid By) : DomainEvent;

/// <summary>A person sorted an inquiry otherwise than the rules did.</summary>
/// <param name="Fit">The fit they chose.</param>
/// <param name="By">The user who did.</param>
public sealed record FitOverruled(Fit Fit, Guid By) : DomainEvent;

/// <summary>A person let the fit stand again that the rules had found.</summary>
/// <param name="Fit">The fit the rules had found.</param>
/// <param name="By">The user who did.</param>
public sealed record OverruleTakenBack(Fit Fit, Guid By) : DomainEvent;

/// <summary>A person had an inquiry judged again by a screening that came after it.</summary>
/// <param name="Fit">The fit by the newer screening.</param>
/// <param name="Screening">The number of the newer screening.</param>
/// <param name="By">The user who asked for it.</param>
public sealed record JudgedAgain(Fit Fit, int Screening, Guid By) : DomainEvent;

/// <summary>A person set an inquiry aside: it never counts from then on.</summary>
/// <param name="Why">Why.</param>
/// <param name="By">The user who did.</param>
public sealed record InquirySetAside(AsideReason Why, Guid By) : DomainEvent;

/// <summary>A person put an inquiry back among the others.</summary>
/// <param name="By">The user who did.</param>
public sealed record InquiryPutBack(Guid By) : DomainEvent;

/// <summary>A person said whether a client always comes in, whatever would rule others out.</summary>
/// <param name="Always">Whether they do from then on.</param>
/// <param name="By">The user who said so.</param>
public sealed record AlwaysComesInSet(bool Always, Guid By) : DomainEvent;

/// <summary>The day came until which a project was parked, and it stands among the open ones again.</summary>
/// <param name="Stage">The key of the stage it came to.</param>
public sealed record ProjectCameBack(string Stage) : DomainEvent;
