using System.Reflection;
using System.Text.Json.Serialization;
using PorchLight.Core.Calendar;
using PorchLight.Core.Conditions;
using PorchLight.Core.Forms;

namespace PorchLight.Core.Records;

/// <summary>What those are called whom an event names by their identifiers, at the time it is read.</summary>
/// <param name="Client">The client; of an event about somebody who is none, the address it is about.</param>
/// <param name="Form">The title of the form.</param>
/// <param name="FollowThrough">The name of the follow-through.</param>
/// <param name="Step">The name of a step by its key.</param>
/// <param name="Stage">The name of a stage by its key.</param>
/// <param name="User">The name of a user by identifier, also of one who has left.</param>
public sealed record EventNames(
    string Client,
    string Form,
    string FollowThrough,
    Func<string, string> Step,
    Func<string, string> Stage,
    Func<Guid, string> User
);

/// <summary>Reads events.</summary>
public static class DomainEvents
{
    private static readonly Dictionary<Type, string> Kinds = typeof(DomainEvent)
        .GetCustomAttributes<JsonDerivedTypeAttribute>()
        .ToDictionary(kind => kind.DerivedType, kind => (string)kind.TypeDiscriminator!);

    /// <summary>The kind of an event, as its JSON names it: "inquiryReceived".</summary>
    /// <param name="happening">The event.</param>
    public static string Kind(this DomainEvent happening) => Kinds[happening.GetType()];

    /// <summary>The kind of all events of a type.</summary>
    /// <typeparam name="T">The type.</typeparam>
    public static string KindOf<T>()
        where T : DomainEvent => Kinds[typeof(T)];

    /// <summary>The stage a project comes to by an event, or null where it is no such event or the event is too old to say.</summary>
    /// <param name="happening">The event.</param>
    public static string? StageReached(this DomainEvent happening) =>
        happening switch
        {
            ProjectStageSet e => e.Stage,
            ProjectClosed e => e.Stage,
            ProjectReopened e => e.Stage,
            ProjectCameBack e => e.Stage,
            _ => null,
        };

    /// <summary>Whether follow-throughs may start, go on or end by it; any other event they need not be asked about.</summary>
    /// <param name="happening">The event.</param>
    public static bool MovesRuns(this DomainEvent happening) =>
        happening is InquiryReceived or InquiryClosed or InquirySetAside or ReplyReceived or MeetingBooked or ProjectClosed
        || happening.StageReached() is not null;

    /// <summary>
    /// Whether it is a word of a person of the business to the client, which keeps the reply promise and answers what
    /// they wrote.
    /// </summary>
    /// <param name="happening">The event. A message that goes by itself is nobody's word.</param>
    public static bool IsPersonalWord(this DomainEvent happening) =>
        happening is MessageSent { By: not null } or NoteSent { By: not null } or AnsweredElsewhere or MeetingBooked;

    /// <summary>Whether a person did it, the client or somebody of the business, and not the program by itself.</summary>
    /// <param name="happening">The event.</param>
    public static bool IsByAPerson(this DomainEvent happening) =>
        happening
            is not MessageSent { By: null }
                and not NoteSent { By: null }
                and not StepDone { By: null }
                and not StandingSet { By: null }
                and not ProjectStageSet { By: null }
                and not ProjectClosed { By: null }
                and not ProjectReopened { By: null }
                and not ProjectGiven { By: null }
                and not ClientErased
        && !ByItself.Contains(happening.Kind());

    /// <summary>The kinds of what the program always does by itself.</summary>
    public static IReadOnlyList<string> ByItself { get; } =
    [
        Kinds[typeof(AnswersLanded)],
        Kinds[typeof(ProjectCameBack)],
        Kinds[typeof(RunStarted)],
        Kinds[typeof(NodAsked)],
        Kinds[typeof(MessageNotSent)],
        Kinds[typeof(DeliveryFailed)],
        Kinds[typeof(PerhapsDelivered)],
        Kinds[typeof(StepLapsed)],
        Kinds[typeof(RunStopped)],
        Kinds[typeof(RunFinished)],
        Kinds[typeof(RunFailed)],
        Kinds[typeof(WaitedInVain)],
        Kinds[typeof(MessageMoved)],
        Kinds[typeof(AutomaticAnswerReceived)],
    ];

    /// <summary>
    /// Whether it stays when the person it is about is erased: what is counted later and says nothing in anybody's words.
    /// </summary>
    /// <param name="happening">The event.</param>
    public static bool OutlivesErasing(this DomainEvent happening) =>
        happening
            is InquiryReceived
                or AnswersLanded
                or MeetingBooked
                or CallAsked
                or PlaceGiven
                or RunStarted
                or RunStopped
                or RunFinished
                or InquiryClosed
                or InquiryReopened
                or StandingSet
                or ProjectBegun
                or ProjectStageSet
                or ProjectClosed
                or ProjectReopened
                or ProjectCameBack
                or FitOverruled
                or OverruleTakenBack
                or JudgedAgain
                or InquirySetAside
                or InquiryPutBack
                or AlwaysComesInSet
                or ClientErased;

    /// <summary>What somebody wrote, in their own words, or null.</summary>
    /// <param name="happening">The event.</param>
    public static string? Words(this DomainEvent happening) =>
        happening switch
        {
            ReplyReceived reply => reply.Text,
            AutomaticAnswerReceived { Text: { Length: > 0 } text } => text,
            _ => null,
        };

    /// <summary>Whether the bell rings for it: a person should know, and did not cause it.</summary>
    /// <param name="happening">The event.</param>
    public static bool Rings(this DomainEvent happening) =>
        happening
            is InquiryReceived { By: null }
                or NodAsked
                or ReplyReceived { By: null }
                or MeetingBooked
                or CallAsked
                or ProjectCameBack
                or StepLapsed
                or RunFailed
                or DeliveryFailed
                or PerhapsDelivered;

    /// <summary>The event as a sentence for the timeline.</summary>
    /// <param name="happening">What happened.</param>
    /// <param name="names">What those are called whom it names.</param>
    public static string Say(this DomainEvent happening, EventNames names) => Say(happening, names.Client, names);

    private static string Say(DomainEvent happening, string who, EventNames names) =>
        happening switch
        {
            InquiryReceived { By: { } by } e =>
                $"{names.User(by)} wrote down “{names.Form}” for {who}, who came {e.Channel.Say()}{Sorted(e.Fit)}.",
            InquiryReceived { Joined: true } e => $"{who} sent “{names.Form}”{Sorted(e.Fit)}. It joins the open project.",
            InquiryReceived e => $"{who} sent “{names.Form}”{Sorted(e.Fit)}.",
            AnswersLanded { Fields: 0, Notes: 0, Differences: 0 } => "Nothing new was written into the records.",
            AnswersLanded e => Capital(
                string.Join(
                    "; ",
                    new[]
                    {
                        e.Fields == 0 ? null : $"{Count(e.Fields, "answer")} written into the records",
                        e.Notes == 0 ? null : $"{Count(e.Notes, "answer")} added to the notes",
                        e.Differences == 0
                            ? null
                            : $"{Count(e.Differences, "answer")} {(e.Differences == 1 ? "differs" : "differ")} from what is on file, for you to settle",
                    }.OfType<string>()
                )
            ) + ".",
            RunStarted => $"“{names.FollowThrough}” began.",
            NodAsked e => e.Gaps == 0
                ? $"“{names.Step(e.Step)}” waits for your nod."
                : $"“{names.Step(e.Step)}” waits for your nod, with {Count(e.Gaps, "gap")} to fill.",
            MessageSent { By: null } e => $"“{e.Subject}” was sent automatically.",
            MessageSent { By: { } by } e => $"{names.User(by)} sent “{e.Subject}”.",
            MessageNotSent { TooMany: true } e => $"“{e.Subject}” was not sent: {who} was sent enough automatic messages today.",
            MessageNotSent { NotPermitted: Forbidden.News } e => $"“{e.Subject}” was not sent: {who} has not permitted news.",
            MessageNotSent { NotPermitted: Forbidden.Texts } e => $"“{e.Subject}” was not sent: {who} has not permitted text messages.",
            NoteSent { By: { } by } e => $"{names.User(by)} sent “{e.Name}” as {(e.IsText ? "a text message" : "a note on their page")}.",
            NoteSent e => $"“{e.Name}” was sent automatically as {(e.IsText ? "a text message" : "a note on their page")}.",
            Unsubscribed => $"{who} wants no more news, by the link in a message.",
            MessageNotSent e => $"“{e.Subject}” was not sent: {who} left no e-mail address.",
            DeliveryFailed e => $"“{e.Subject}” could not be delivered to {who}: {e.Why}",
            PerhapsDelivered e => $"“{e.Subject}” to {who} was perhaps sent; please look.",
            DeliverySettled { SentAgain: true } e => $"{names.User(e.By)} sends “{e.Subject}” again.",
            DeliverySettled e => $"{names.User(e.By)} looked, and leaves “{e.Subject}” as it is.",
            StepSkipped e => $"{names.User(e.By)} skipped “{names.Step(e.Step)}”.",
            SkipTakenBack e => $"{names.User(e.By)} took it back: “{names.Step(e.Step)}” waits again.",
            NodTakenBack e => $"{names.User(e.By)} took the nod to “{names.Step(e.Step)}” back.",
            StepLapsed e => $"“{names.Step(e.Step)}” lapsed: nobody nodded in time.",
            RunStopped e =>
                $"“{names.FollowThrough}” stopped because {Because(e.Why, who)}; {(e.Cancelled == 0 ? "nothing was pending" : Count(e.Cancelled, "step") + " cancelled")}.",
            RunFinished => $"“{names.FollowThrough}” came to its end.",
            RunPaused e => $"{names.User(e.By)} held “{names.FollowThrough}” back.",
            RunResumed e => $"{names.User(e.By)} let “{names.FollowThrough}” go on.",
            RunMoved e => $"{names.User(e.By)} moved {who} to version {e.Version} of “{names.FollowThrough}”.",
            RunFailed e => $"“{names.Step(e.Step)}” failed again and again, and needs someone to look.",
            StepDone { By: { } by } e => $"{names.User(by)} had “{names.Step(e.Step)}” done.",
            StepDone e => $"“{names.Step(e.Step)}” was done automatically.",
            WaitedInVain e => $"The time of “{names.Step(e.Step)}” was over.",
            MessageMoved e => $"“{names.Step(e.Step)}” waits until another day: {who} was sent one automatic message today.",
            ReplyReceived { By: { } by } => $"{names.User(by)} noted that {who} got in touch.",
            ReplyReceived { Subject: null } => $"{who} got in touch.",
            ReplyReceived e => $"{who} wrote: “{e.Subject}”.",
            AutomaticAnswerReceived e => $"An automatic answer came from {who}: “{e.Subject}”. It counts as no reply.",
            AnsweredElsewhere e => $"{names.User(e.By)} answered {who} elsewhere.",
            InquiryClosed e => $"{names.User(e.By)} closed the inquiry.",
            InquiryReopened e => $"{names.User(e.By)} opened the inquiry again.",
            ClientAdded e => $"{names.User(e.By)} added {who} by hand.",
            StandingSet e => $"{Doer(e.By, names)} set the standing to {e.To.Say()}.",
            NoteWritten e => $"{names.User(e.By)} wrote a note.",
            DifferencesSettled e => $"{names.User(e.By)} settled {Count(e.Count, "difference")}.",
            SettlementTakenBack e => $"{names.User(e.By)} took back how a difference was settled.",
            ClientsMerged e => $"{names.User(e.By)} made one of two records of {who}.",
            ClientsSplit e => $"{names.User(e.By)} split the records of {who} again.",
            ClientImported e => $"{names.User(e.By)} brought {who} in from a file.",
            ClientKept e => $"{names.User(e.By)} keeps the records of {who} for another while.",
            ProjectRenamed e => $"{names.User(e.By)} gave a project another title.",
            ProjectClosed { Stage: { } stage, Reason: { } reason } e =>
                $"{Doer(e.By, names)} closed a project: {names.Stage(stage)}, “{reason}”.",
            ProjectClosed { Stage: { } stage } e => $"{Doer(e.By, names)} closed a project: {names.Stage(stage)}.",
            ProjectClosed e => $"{Doer(e.By, names)} closed a project.",
            ProjectReopened { Stage: { } stage } e => $"{Doer(e.By, names)} opened a project again: {names.Stage(stage)}.",
            ProjectReopened e => $"{Doer(e.By, names)} opened a project again.",
            ProjectBegun e => $"{names.User(e.By)} began a project.",
            ProjectCameBack e => $"A project of {who} was parked until today and is back: {names.Stage(e.Stage)}.",
            ProjectStageSet { Until: { } until } e =>
                $"{Doer(e.By, names)} set the stage to {names.Stage(e.Stage)}, until {DateWords.Say(until)}.",
            ProjectStageSet e => $"{Doer(e.By, names)} set the stage to {names.Stage(e.Stage)}.",
            ProjectGiven { To: { } to } e when to == e.By => $"{Doer(e.By, names)} looks after a project now.",
            ProjectGiven { To: { } to } e => $"{Doer(e.By, names)} gave a project to {names.User(to)}.",
            ProjectGiven e => $"{Doer(e.By, names)} gave a project back; nobody looks after it.",
            MainContactChanged e => $"{names.User(e.By)} made {who} the main contact.",
            FitOverruled e => $"{names.User(e.By)} sorted it as {e.Fit.Say()}.",
            OverruleTakenBack e => $"{names.User(e.By)} let the answers decide again: {e.Fit.Say()}.",
            JudgedAgain e => $"{names.User(e.By)} had it judged again by screening {e.Screening}: {e.Fit.Say()}.",
            InquirySetAside e => $"{names.User(e.By)} set the inquiry aside as {e.Why.Say()}.",
            InquiryPutBack e => $"{names.User(e.By)} put the inquiry back among the others.",
            AlwaysComesInSet { Always: true } e => $"{names.User(e.By)} marked {who} as always welcome.",
            AlwaysComesInSet e => $"{names.User(e.By)} marked {who} as sorted like everyone else.",
            TaskDone e => $"{names.User(e.By)} did “{e.Title}”.",
            ClientErased { By: { } by } => $"{names.User(by)} erased a client.",
            ClientErased => "A client was erased: the time records are kept had ended.",
            MeetingBooked => $"{who} booked a meeting.",
            CallAsked => $"{who} asked for a call.",
            PlaceGiven e => $"{names.User(e.By)} gave {who} a place in {Capacities.Say(e.Month)}.",
            _ => throw new ArgumentOutOfRangeException(nameof(happening)),
        };

    private static string Doer(Guid? by, EventNames names) => by is { } user ? names.User(user) : "A follow-through";

    private static string Sorted(Fit? fit) => fit is { } sorted ? $": {sorted.Say()}" : "";

    private static string Because(RunEnd why, string who) =>
        why switch
        {
            RunEnd.Replied => $"{who} answered",
            RunEnd.Booked => $"{who} booked",
            RunEnd.Closed => "it was closed",
            RunEnd.ByHand => "stopped by hand",
            RunEnd.SetAside => "the inquiry was set aside",
            RunEnd.StageMoved => "the project came to another stage",
            RunEnd.WentOn => "the form is not left half-finished any more",
            _ => "another journey began",
        };

    private static string Capital(string words) => char.ToUpperInvariant(words[0]) + words[1..];

    private static string? Count(int count, string thing) =>
        count switch
        {
            0 => null,
            1 => $"one {thing}",
            _ => $"{count} {thing}s",
        };
}
